import { type Cells, Dictionary, firstCells, pickCells } from './cells.ts'
import type { Column } from './options.ts'
import type { Reader } from './reader.ts'
import { utc, type Zone } from './zone.ts'

/** What a million comparisons are saved by knowing. Missing values are passed over. */
export interface Extent {
  min: number
  max: number
  /** Whether values never fall from row to row; false when one is missing. */
  sorted: boolean
  missing: number
}

/** One column of a table: its cells and all that is known of it. */
export class TableColumn {
  readonly name: string
  readonly options: Column
  readonly reader: Reader
  readonly dictionary: Dictionary | undefined
  private buffer: Cells
  private length: number
  /** False while the memory is the caller's, which is never written to. */
  private owned: boolean
  private extentKnown: Extent | undefined

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

  get label(): string {
    return this.options.label ?? readableName(this.name)
  }

  /** The cells of all rows; a view that is valid until the next change. */
  get cells(): Cells {
    return firstCells(this.buffer, this.length)
  }

  /** A cell as JavaScript has it: number, Date, string, or null when missing. */
  value(row: number): number | Date | string | null {
    const cells = this.buffer
    if (cells.type === 'text') return cells.codes[row] < 0 ? null : cells.words[cells.codes[row]]
    const value = cells.values[row]
    if (Number.isNaN(value)) return null
    return cells.type === 'time' ? new Date(value) : value
  }

  /** The cell as text that identifies it, for keys. */
  keyText(row: number): string {
    const value = this.value(row)
    return value === null ? '' : value instanceof Date ? value.toISOString() : String(value)
  }

  /** Least, greatest and order of the values; of codes for text. Computed once for each state of the table. */
  get extent(): Extent {
    this.extentKnown ??= extentOf(this.cells)
    return this.extentKnown
  }

  append(cells: Cells): void {
    const added = cells.type === 'text' ? cells.codes.length : cells.values.length
    this.reserve(this.length + added)
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes.set(cells.codes, this.length)
    else if (this.buffer.type !== 'text' && cells.type !== 'text')
      this.buffer.values.set(cells.values, this.length)
    this.length += added
    this.extentKnown = undefined
  }

  /** Writes cell `from` of `cells` into `row`. */
  write(row: number, cells: Cells, from: number): void {
    if (!this.owned) this.reserve(this.length)
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes[row] = cells.codes[from]
    else if (this.buffer.type !== 'text' && cells.type !== 'text')
      this.buffer.values[row] = cells.values[from]
    this.extentKnown = undefined
  }

  /** Keeps only the given rows, in that order. */
  keep(rows: ArrayLike<number>): void {
    this.buffer = pickCells(this.cells, rows)
    this.length = rows.length
    this.owned = true
    this.extentKnown = undefined
  }

  private reserve(length: number): void {
    const capacity = this.buffer.type === 'text' ? this.buffer.codes.length : this.buffer.values.length
    if (this.owned && capacity >= length) return
    const room = Math.max(length, this.owned ? capacity * 2 : length)
    if (this.buffer.type === 'text') {
      const codes = new Int32Array(room)
      codes.set(this.buffer.codes.subarray(0, this.length))
      this.buffer = { type: 'text', codes, words: this.buffer.words }
    } else {
      const values = new Float64Array(room)
      values.set(this.buffer.values.subarray(0, this.length))
      this.buffer = { type: this.buffer.type, values }
    }
    this.owned = true
  }
}

export function extentOf(cells: Cells): Extent {
  const values = cells.type === 'text' ? cells.codes : cells.values
  const length = values.length
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  let falls = 0
  let present = 0
  let before = Number.NEGATIVE_INFINITY
  for (let i = 0; i < length; i++) {
    const value = values[i]
    // Comparisons with NaN are false, so missing values change nothing here.
    if (value < min) min = value
    if (value > max) max = value
    if (value < before) falls++
    if (value === value) present++
    before = value
  }
  return { min, max, sorted: falls === 0 && present === length, missing: length - present }
}

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
