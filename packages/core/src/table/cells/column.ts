import { civilOf, DAY } from './calendar.ts'
import { type Cells, Dictionary } from './cells.ts'
import { ColumnFacts, leavingOf } from './column-facts.ts'
import type { Extent } from './extent.ts'
import type { Column } from './options.ts'
import type { Pyramid } from './pyramid.ts'
import type { Reader } from './reader.ts'
import { RowList } from './row-list.ts'
import { utc, type Zone } from './zone.ts'

/** One column of a table: its cells and all that is known of it. */
export class TableColumn {
  readonly name: string
  readonly options: Column
  readonly reader: Reader
  readonly dictionary: Dictionary | undefined
  readonly type: Cells['type']
  /** The numbers, or the codes of the texts. */
  private values: RowList<Float64Array> | RowList<Int32Array>
  private readonly words: string[]
  private readonly facts: ColumnFacts
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
    this.type = cells.type
    this.values = cells.type === 'text' ? new RowList(cells.codes, owned) : new RowList(cells.values, owned)
    this.words = cells.type === 'text' ? cells.words : []
    this.facts = new ColumnFacts(() => this.values, cells.type === 'text')
    this.dictionary = cells.type === 'text' ? (dictionary ?? new Dictionary(cells.words)) : undefined
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
    return this.cellsOf(this.values.all)
  }

  /** Copies of the cells of some rows, which costs what these are. */
  cellsAt(rows: ArrayLike<number>): Cells {
    const own = new (this.type === 'text' ? Int32Array : Float64Array)(rows.length)
    for (let i = 0; i < rows.length; i++) own[i] = this.values.get(rows[i])
    return this.cellsOf(own)
  }

  /** Whether some values are the very memory of all its numbers. */
  isAll(values: Float64Array): boolean {
    if (this.type === 'text' || values.length !== this.values.length) return false
    const { all } = this.values
    return all.buffer === values.buffer && all.byteOffset === values.byteOffset
  }

  private cellsOf(values: Float64Array | Int32Array): Cells {
    return this.type === 'text'
      ? { type: 'text', codes: values as Int32Array, words: this.words }
      : { type: this.type, values: values as Float64Array }
  }

  /** A cell as JavaScript has it: number, Date, string, or null when missing. */
  value(row: number): number | Date | string | null {
    const value = this.values.get(row)
    if (this.type === 'text') return this.words[value] ?? null
    if (value === undefined || Number.isNaN(value)) return null
    return this.type === 'time' ? new Date(value) : value
  }

  /** A cell as a number: of text its code, -1 where it is missing. */
  numberAt(row: number): number {
    return this.values.get(row)
  }

  /** Whether a row has the value of cell `from` of `cells` already. */
  holds(row: number, cells: Cells, from: number): boolean {
    return Object.is(this.numberAt(row), (cells.type === 'text' ? cells.codes : cells.values)[from])
  }

  /** Least, greatest and order of the values; of text only how many are missing. Kept up to date as rows come and go. */
  get extent(): Extent {
    return this.facts.known
  }

  /** Extremes of any stretch of the column; empty for text. Built at first use, and kept up to date. */
  get pyramid(): Pyramid {
    return this.facts.blocks
  }

  append(cells: Cells): void {
    const added = cells.type === 'text' ? cells.codes : cells.values
    this.values.append(added as Float64Array & Int32Array)
    this.kept.clear()
    this.facts.appended(added.length)
  }

  /** Writes cell `from` of `cells` into `row`. */
  write(row: number, cells: Cells, from: number): void {
    const before = this.numberAt(row)
    this.values.set(row, (cells.type === 'text' ? cells.codes : cells.values)[from])
    this.kept.clear()
    this.facts.written(row, before)
  }

  /** Lets the first rows go, without touching the others. */
  dropFirst(count: number): void {
    const rows = Int32Array.from({ length: count }, (_, row) => row)
    const leaving = leavingOf(this.values, rows, this.type === 'text')
    this.values.dropFirst(count)
    this.kept.clear()
    this.facts.dropped(count, leaving)
  }

  /** Takes out rows, in rising order; the others stay in theirs. */
  remove(rows: ArrayLike<number>): void {
    const leaving = leavingOf(this.values, rows, this.type === 'text')
    this.values.remove(rows)
    this.kept.clear()
    this.facts.removed(rows, leaving)
  }

  /** Keeps only the given rows, in that order. */
  keep(rows: ArrayLike<number>): void {
    const cells = this.cellsAt(rows)
    this.values = cells.type === 'text' ? new RowList(cells.codes) : new RowList(cells.values)
    this.kept.clear()
    this.facts.forget()
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
