import { signal } from '@preact/signals-core'
import { DapploError, type Finding } from '../../finding/error.ts'
import { suggest } from '../../finding/nearest.ts'
import { type Cells, copyCell, pickCells } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Value } from '../cells/options.ts'
import type { Zone } from '../cells/zone.ts'
import type { Intake } from '../read/intake.ts'
import type { Report } from '../read/report.ts'
import { type Beginning, beginAtOnce, titleOf } from './beginning.ts'
import { type Change, ChangeLog } from './change.ts'
import { followersOf } from './followers.ts'
import { KeyIndex } from './key-index.ts'
import { duplicateKey, type Key, keyCellsOf, keyOf, keyText, noKey, rowsByKey } from './keys.ts'
import type { Counter, RawColumns, TableOptions } from './model.ts'
import { recognisedByTexts } from './recognise.ts'
import type { RowTest } from './row-test.ts'
import { Serials } from './serials.ts'

/** Values of marks, and what they mean. */
export interface MarkValues {
  meaning: unknown
  cells: Cells
  zone: Zone
}

/** Typed columns with stable row keys. Charts on a table follow it as it changes. */
export class Table<R = any> {
  readonly name: string
  /** What its rows are, as people read it; undefined where nobody said. */
  readonly rowsAre: string | undefined
  /** The columns that identify a row; empty when the order of arrival does. */
  readonly key: readonly string[]
  /** What was guessed, missing and unreadable when the table was read, brought up to date by later rows. */
  readonly report: Report
  /** Goes up by one with every change; a signal, so that what is computed from the table can follow it. */
  readonly version: Counter = signal(0)
  private readonly byName: Map<string, TableColumn>
  private rowCount = 0
  private readonly numbers: Serials
  private readonly keys: KeyIndex
  private readonly log = new ChangeLog()
  private readonly intake: Intake

  /** `beginning`: what has been read of the raw columns already. */
  constructor(
    raw: RawColumns,
    options: TableOptions<R> = {},
    beginning: Beginning = beginAtOnce(raw, options),
  ) {
    this.name = options.name ?? 'table'
    this.rowsAre = options.rowsAre
    this.key = options.key === undefined ? [] : typeof options.key === 'string' ? [options.key] : options.key
    this.report = beginning.report
    this.intake = beginning.intake
    this.byName = beginning.columns
    this.rowCount = beginning.rows
    this.numbers = new Serials(this.rowCount)
    this.keys = new KeyIndex(this.key, this.title, rows => this.keyCells(rows), this.numbers)
    for (const part of this.key) this.needColumn(part, 'key')
    if (this.key.length > 0) this.rowOfKey()
  }

  get length(): number {
    return this.rowCount
  }

  /** How many places its rows and marks can have: as many as rows, where they are here. */
  get places(): number {
    return this.rowCount
  }

  /** What tells rows that are selected, where rows are elsewhere; undefined where they are here. */
  selectionTest(_serials: ArrayLike<number>): RowTest | undefined {
    return undefined
  }

  /** What tells the rows that are in all of these selections, where rows are elsewhere; undefined where nothing is selected. */
  meetingAll?(lists: readonly ArrayLike<number>[]): RowTest | undefined

  /** What tells the marks whose values meet conditions, where rows are elsewhere. `path`: where the conditions stand. */
  marksMeeting?(
    values: readonly (MarkValues | undefined)[],
    conditions: object,
    path: string,
  ): (mark: number) => boolean

  /** The rows that are in all of these selections, where rows are elsewhere. */
  selectedElsewhere?(lists: readonly ArrayLike<number>[]): Promise<R[]>

  /** Asks anew for all that charts show, where rows are elsewhere. */
  refresh?(): Promise<void>

  /** A row that stands for all rows that meet a test, where rows are elsewhere. */
  rowStandingFor?(test: unknown): number

  get names(): string[] {
    return [...this.byName.keys()]
  }

  /** What went wrong while reading, and what looks odd. */
  get findings(): readonly Finding[] {
    return this.report.findings
  }

  /** `table "sailings"`, for messages. */
  get title(): string {
    return titleOf(this.name)
  }

  column(name: string): TableColumn | undefined {
    return this.byName.get(name)
  }

  /** The column, or an `unknown-column` error that suggests the nearest name. */
  needColumn(name: string, path: string): TableColumn {
    const column = this.byName.get(name)
    if (!column) {
      throw new DapploError(
        'unknown-column',
        `There is no column "${name}" in ${this.title}`,
        path,
        suggest(name, this.names, 'Columns'),
      )
    }
    return column
  }

  /** One row as a plain record; missing values are null. */
  row(index: number): R {
    return Object.fromEntries([...this.byName].map(([name, column]) => [name, column.value(index)])) as R
  }

  /** Rows as records, in the given order; all rows by default. */
  rows(indexes?: ArrayLike<number>): R[] {
    return Array.from(indexes ?? { length: this.rowCount }, (index, i) =>
      this.row(indexes ? (index as number) : i),
    )
  }

  /** The same in time, also where rows are elsewhere and what is pointed at or selected stands for some of them. */
  async rowsInTime(indexes: ArrayLike<number>): Promise<R[]> {
    return this.rows(indexes)
  }

  /** Numbers that identify rows for as long as the table lives, by row. */
  get serials(): Float64Array {
    return this.numbers.all
  }

  /** The number that identifies a row for as long as the table lives. */
  serialOf(row: number): number {
    return this.numbers.of(row)
  }

  /** Whether every row's serial number is its place: as long as no row has moved. */
  get serialsAreRows(): boolean {
    return this.numbers.areRows
  }

  /** Whether serial numbers rise from row to row, as long as nothing exchanged all rows by their keys. */
  get serialsRise(): boolean {
    return this.numbers.rising
  }

  /** The place of the row with a serial number; undefined where it is gone. */
  rowOfSerial(serial: number): number | undefined {
    return this.numbers.rowOf(serial)
  }

  /** For a derived table: the table it was derived from. */
  source: Table<any> | undefined

  /** For a derived table: the rows of its source that stand behind a row; undefined for a table of its own. */
  sourceRows: ((row: number) => ArrayLike<number>) | undefined

  /** Takes over the rows of another table. */
  adopt(other: Table<any>): void {
    for (const [name, column] of other.byName) this.byName.set(name, column)
    for (const name of [...this.byName.keys()]) if (!other.byName.has(name)) this.byName.delete(name)
    followersOf(this).clear()
    this.rowCount = other.rowCount
    this.numbers.restart(this.rowCount)
    this.keys.restart()
    this.log.replace()
    this.changed()
  }

  /** Tells of changes, merged: once for all that happened in one run of code. Returns a function that stops it. */
  watch(listener: (change: Change) => void): () => void {
    return this.log.watch(listener)
  }

  /** Adds rows. Throws `duplicate-key` when a key is there already; use `put` to replace. */
  append(rows: R | readonly R[]): this {
    const records = list(rows)
    const cells = this.intake.records(this.byName, this.rowCount, records)
    if (this.key.length > 0) {
      const known = this.rowOfKey()
      const fresh = new Set<Key>()
      for (let i = 0; i < records.length; i++) {
        const key = keyOf(this.key, cells, i)
        if (known(key) !== undefined || fresh.has(key))
          throw duplicateKey(
            keyText(this.key, cells, i),
            this.title,
            'append',
            'Use put to replace the row that has it.',
          )
        fresh.add(key)
      }
    }
    if (records.length === 0) return this
    followersOf(this).begin(records.length, this.rowCount)
    this.add(cells, records.length)
    this.changed()
    return this
  }

  /** Adds rows, or replaces the ones that have the same key. Needs a table with a key. */
  put(rows: R | readonly R[]): this {
    this.needKey('put')
    const records = list(rows)
    const cells = this.intake.records(this.byName, this.rowCount, records)
    const known = this.rowOfKey()
    const fresh = new Map<Key, number>()
    const followers = followersOf(this)
    followers.begin(records.length, this.rowCount)
    let changed = 0
    records.forEach((record, i) => {
      const key = keyOf(this.key, cells, i)
      const row = known(key)
      const earlier = fresh.get(key)
      if (row === undefined && earlier === undefined) {
        fresh.set(key, i)
        return
      }
      // A record that leaves a column out leaves its cell as it is.
      const given = [...this.byName].filter(([name]) => Object.hasOwn(record as object, name))
      if (row === undefined) {
        for (const [name] of given) copyCell(cells.get(name)!, i, earlier!)
        return
      }
      const other = given.filter(([name, column]) => !column.holds(row, cells.get(name)!, i))
      if (other.length === 0) return
      changed++
      followers.leave(row)
      for (const [name, column] of other) column.write(row, cells.get(name)!, i)
      followers.enter(row)
      this.log.change(this.serialOf(row))
    })
    if (fresh.size > 0) {
      const places = [...fresh.values()]
      this.add(new Map([...cells].map(([name, all]) => [name, pickCells(all, places)])), places.length)
    }
    // What is as it was is no change.
    if (changed + fresh.size > 0) this.changed()
    return this
  }

  /** Removes the rows with these keys; unknown keys are passed over. A key of several columns is given as a list. */
  remove(keys: Value | readonly (Value | readonly Value[])[]): this {
    this.needKey('remove')
    const known = this.rowOfKey()
    const gone = new Set<number>()
    const all = (Array.isArray(keys) ? keys : [keys]).map(key => (Array.isArray(key) ? key : [key]))
    const cells = keyCellsOf(this.key, all, this.byName, this.intake)
    for (let i = 0; cells.size > 0 && i < all.length; i++) {
      const row = known(keyOf(this.key, cells, i))
      if (row !== undefined) gone.add(row)
    }
    return this.removeRows([...gone].sort((a, b) => a - b))
  }

  /** Removes the rows for which `test` is true. */
  removeWhere(test: (row: R) => boolean): this {
    const gone: number[] = []
    for (let row = 0; row < this.rowCount; row++) if (test(this.row(row))) gone.push(row)
    return this.removeRows(gone)
  }

  /** Lets the first rows go: those that have aged. It costs what they are, not what stays. */
  dropFirst(count: number): this {
    const dropped = Math.max(0, Math.min(count, this.rowCount))
    if (dropped === 0) return this
    this.keys.leaving(Array.from({ length: dropped }, (_, row) => row))
    const followers = followersOf(this)
    followers.begin(dropped, this.rowCount)
    followers.dropFirst(dropped)
    for (let row = 0; row < dropped; row++) this.log.remove(this.serialOf(row))
    for (const column of this.byName.values()) column.dropFirst(dropped)
    this.numbers.dropFirst(dropped)
    this.rowCount -= dropped
    this.changed()
    return this
  }

  /**
   * Exchanges all rows. Rows whose key stays are the same rows; without a key those with the same texts and times, where
   * these tell all rows apart, else the first stays the first, and so on.
   */
  replace(rows: readonly R[]): this {
    const records = list(rows)
    const cells = this.intake.records(this.byName, this.rowCount, records)
    const keyed = this.key.length > 0
    // A key that is there twice is found before anything is touched.
    const index = keyed ? rowsByKey(this.key, cells, records.length, this.title) : undefined
    const known = keyed ? this.rowOfKey() : undefined
    const old = this.serials.slice()
    const alike = keyed ? undefined : recognisedByTexts(this.byName, this.rowCount, cells, records.length)
    const rowBefore = (i: number) => (known ? known(keyOf(this.key, cells, i)) : alike ? alike(i) : i)
    const serials = records.map((_, i) => old[rowBefore(i) ?? old.length] as number | undefined)
    for (const column of this.byName.values()) column.keep([])
    this.rowCount = 0
    this.numbers.keep([])
    this.keys.restart()
    followersOf(this).clear()
    const stay = new Set(serials)
    for (const serial of old) if (!stay.has(serial)) this.log.remove(serial)
    this.add(cells, records.length, serials)
    this.keys.restart(index)
    this.log.replace()
    this.changed()
    return this
  }

  private add(cells: Map<string, Cells>, count: number, serials?: (number | undefined)[]): void {
    for (const [name, column] of this.byName) column.append(cells.get(name)!)
    this.numbers.add(count, serials).forEach((serial, i) => {
      if (serials?.[i] === undefined) this.log.add(serial)
      else this.log.change(serial)
    })
    const first = this.rowCount
    this.rowCount += count
    this.keys.added(first, count)
    followersOf(this).append(first, count)
  }

  /** Keeps the rows whose places pass, in one pass over every column; the rest goes. */
  keepRows(stays: (row: number) => boolean): this {
    const gone: number[] = []
    for (let row = 0; row < this.rowCount; row++) if (!stays(row)) gone.push(row)
    return this.removeRows(gone)
  }

  /** Takes out rows, in rising order; the others stay in theirs. */
  private removeRows(gone: readonly number[]): this {
    if (gone.length === 0) return this
    const followers = followersOf(this)
    followers.begin(gone.length, this.rowCount)
    followers.remove(gone)
    this.keys.leaving(gone)
    for (const row of gone) this.log.remove(this.serialOf(row))
    for (const column of this.byName.values()) column.remove(gone)
    this.numbers.remove(gone)
    this.rowCount -= gone.length
    this.changed()
    return this
  }

  private changed(): void {
    this.report.rows = this.rowCount
    this.version.value++
    this.log.tellSoon()
  }

  private needKey(call: string): void {
    if (this.key.length === 0) throw noKey(call, this.title)
  }

  /** The cells that some rows of this table, or all, are recognised by. */
  private keyCells(rows?: readonly number[]): Map<string, Cells> {
    const known = this.key.filter(part => this.byName.has(part)).map(part => this.byName.get(part)!)
    return new Map(known.map(column => [column.name, rows ? column.cellsAt(rows) : column.cells]))
  }

  /** The row that has a key; undefined where none has. */
  private rowOfKey(): (key: Key) => number | undefined {
    return this.keys.finder(this.rowCount)
  }
}

const list = <T>(rows: T | readonly T[]): readonly T[] => (Array.isArray(rows) ? rows : [rows as T])
