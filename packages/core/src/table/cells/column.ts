import { civilOf, DAY } from './calendar.ts'
import { type Cells, cellsFrom, Dictionary, pickCells } from './cells.ts'
import { ColumnFacts, leavingOf } from './column-facts.ts'
import type { Extent } from './extent.ts'
import type { Column } from './options.ts'
import type { Pyramid } from './pyramid.ts'
import type { Reader } from './reader.ts'
import { takeOut } from './take-out.ts'
import { utc, type Zone } from './zone.ts'

/** One column of a table: its cells and all that is known of it. */
export class TableColumn {
  readonly name: string
  readonly options: Column
  readonly reader: Reader
  readonly dictionary: Dictionary | undefined
  private buffer: Cells
  /** Where the first row stands in the buffer: rows that aged have left their places. */
  private first = 0
  private length: number
  /** False while the memory is the caller's, which is never written to. */
  private owned: boolean
  private readonly facts = new ColumnFacts()
  /** What was worked out from the values, by name: kept until they change. */
  readonly kept = new Map<string, unknown>()

  constructor(
    name: string,
    cells: Cells,
    reader: Reader,
    options: Column = {},
    owned = true,
    dictionary?: Dictionary,
  ) {
    this.name = name
    this.reader = reader
    this.options = options
    this.buffer = cells
    this.length = cells.type === 'text' ? cells.codes.length : cells.values.length
    this.owned = owned
    this.dictionary = cells.type === 'text' ? (dictionary ?? new Dictionary(cells.words)) : undefined
  }

  get type(): Cells['type'] {
    return this.buffer.type
  }

  /** The zone in which its days begin: UTC for numbers, text and dates without a clock. */
  get zone(): Zone {
    return this.reader.dateOnly ? utc : this.reader.zone
  }

  /** What its dates without a clock name: a month where each is written or stands as one, else a day. */
  get dateUnit(): 'day' | 'month' | undefined {
    if (!this.reader.dateOnly) return undefined
    if (!this.reader.monthly) return 'day'
    const known = this.kept.get('date unit') as 'day' | 'month' | undefined
    const unit = known ?? (beginMonths(this.cells) ? 'month' : 'day')
    this.kept.set('date unit', unit)
    return unit
  }

  get label(): string {
    return this.options.label ?? readableName(this.name)
  }

  /** The cells of all rows; a view that is valid until the next change. */
  get cells(): Cells {
    return cellsFrom(this.buffer, this.first, this.length)
  }

  /** A cell as JavaScript has it: number, Date, string, or null when missing. */
  value(row: number): number | Date | string | null {
    const cells = this.buffer
    const at = this.first + row
    if (cells.type === 'text') return cells.codes[at] < 0 ? null : (cells.words[cells.codes[at]] ?? null)
    const value = cells.values[at] ?? Number.NaN
    if (Number.isNaN(value)) return null
    return cells.type === 'time' ? new Date(value) : value
  }

  /** A cell as a number: of text its code, -1 where it is missing. */
  numberAt(row: number): number {
    const { buffer } = this
    return (buffer.type === 'text' ? buffer.codes : buffer.values)[this.first + row]
  }

  /** Whether a row has the value of cell `from` of `cells` already. */
  holds(row: number, cells: Cells, from: number): boolean {
    return Object.is(this.numberAt(row), (cells.type === 'text' ? cells.codes : cells.values)[from])
  }

  /** Least, greatest and order of the values; of text only how many are missing. Kept up to date as rows come and go. */
  get extent(): Extent {
    return this.facts.extentOf(this.cells)
  }

  /** Extremes of any stretch of the column; empty for text. Built at first use, and kept up to date. */
  get pyramid(): Pyramid {
    return this.facts.pyramidOf(this.cells)
  }

  append(cells: Cells): void {
    const added = cells.type === 'text' ? cells.codes.length : cells.values.length
    this.reserve(this.length + added)
    const at = this.first + this.length
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes.set(cells.codes, at)
    else if (this.buffer.type !== 'text' && cells.type !== 'text') this.buffer.values.set(cells.values, at)
    this.length += added
    this.kept.clear()
    this.facts.appended(this.cells, added)
  }

  /** Writes cell `from` of `cells` into `row`. */
  write(row: number, cells: Cells, from: number): void {
    const before = this.numberAt(row)
    if (!this.owned) this.reserve(this.length)
    const at = this.first + row
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes[at] = cells.codes[from]
    else if (this.buffer.type !== 'text' && cells.type !== 'text') this.buffer.values[at] = cells.values[from]
    this.kept.clear()
    this.facts.written(this.cells, row, before)
  }

  /** Lets the first rows go, without touching the others. */
  dropFirst(count: number): void {
    const leaving = leavingOf(
      this.cells,
      Int32Array.from({ length: count }, (_, row) => row),
    )
    this.first += count
    this.length -= count
    this.kept.clear()
    this.facts.dropped(this.cells, count, leaving)
  }

  /** Takes out rows, in rising order; the others stay in theirs. */
  remove(rows: ArrayLike<number>): void {
    if (!this.owned) this.reserve(this.length)
    const leaving = leavingOf(this.cells, rows)
    const moved = takeOut(
      this.buffer.type === 'text' ? this.buffer.codes : this.buffer.values,
      this.first,
      this.length,
      rows,
    )
    this.first += moved
    this.length -= rows.length
    this.kept.clear()
    this.facts.removed(this.cells, rows, leaving, moved)
  }

  /** Keeps only the given rows, in that order. */
  keep(rows: ArrayLike<number>): void {
    this.buffer = pickCells(this.cells, rows)
    this.first = 0
    this.length = rows.length
    this.owned = true
    this.kept.clear()
    this.facts.forget()
  }

  /** Makes room for so many rows: where those that left were as many as stay, in their places, else in a larger buffer. */
  private reserve(length: number): void {
    const capacity = this.buffer.type === 'text' ? this.buffer.codes.length : this.buffer.values.length
    if (this.owned && capacity >= this.first + length) return
    const rows = this.cells
    const reused = this.owned && this.first >= this.length && capacity >= length
    const room = Math.max(length, this.owned ? this.length * 2 : length)
    if (rows.type === 'text') {
      const codes = reused && this.buffer.type === 'text' ? this.buffer.codes : new Int32Array(room)
      codes.set(rows.codes)
      this.buffer = { type: 'text', codes, words: rows.words }
    } else {
      const values = reused && this.buffer.type !== 'text' ? this.buffer.values : new Float64Array(room)
      values.set(rows.values)
      this.buffer = { type: rows.type, values }
    }
    this.first = 0
    this.owned = true
  }
}

/** Whether every time is the beginning of a month in UTC. */
const beginMonths = (cells: Cells): boolean =>
  cells.type !== 'text' &&
  cells.values.every(time => Number.isNaN(time) || (time % DAY === 0 && civilOf(time / DAY).day === 1))

/** `delay_minutes` → `Delay minutes`, `windKnots` → `Wind knots`. */
export function readableName(name: string): string {
  const words = name
    .replace(/[_\s]+/g, ' ')
    .replace(
      /([\p{Ll}\d])(\p{Lu}\p{Ll})/gu,
      (_, before: string, after: string) => `${before} ${after.toLowerCase()}`,
    )
    .trim()
  return words === '' ? name : words[0].toUpperCase() + words.slice(1)
}
