import { civilOf, DAY } from './calendar.ts'
import { type Cells, cellsFrom, Dictionary, pickCells } from './cells.ts'
import type { Column } from './options.ts'
import { buildPyramid, type Pyramid } from './pyramid.ts'
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
  /** Where the first row stands in the buffer: rows that aged have left their places. */
  private first = 0
  private length: number
  /** False while the memory is the caller's, which is never written to. */
  private owned: boolean
  private extentKnown: Extent | undefined
  private pyramidKnown: Pyramid | undefined
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

  /** Least, greatest and order of the values; of codes for text. Computed once for each state of the table. */
  get extent(): Extent {
    if (!this.extentKnown) {
      const { cells } = this
      this.extentKnown =
        cells.type === 'text'
          ? extentOfCodes(cells.codes)
          : (sortedExtent(cells.values) ?? pyramidExtent(this.pyramid))
    }
    return this.extentKnown
  }

  /** Extremes of any stretch of the column; empty for text. Built at first use for each state of the table. */
  get pyramid(): Pyramid {
    const { cells } = this
    this.pyramidKnown ??= buildPyramid(cells.type === 'text' ? new Float64Array(0) : cells.values)
    return this.pyramidKnown
  }

  append(cells: Cells): void {
    const added = cells.type === 'text' ? cells.codes.length : cells.values.length
    this.reserve(this.length + added)
    const at = this.first + this.length
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes.set(cells.codes, at)
    else if (this.buffer.type !== 'text' && cells.type !== 'text') this.buffer.values.set(cells.values, at)
    this.length += added
    this.forget()
  }

  /** Writes cell `from` of `cells` into `row`. */
  write(row: number, cells: Cells, from: number): void {
    if (!this.owned) this.reserve(this.length)
    const at = this.first + row
    if (this.buffer.type === 'text' && cells.type === 'text') this.buffer.codes[at] = cells.codes[from]
    else if (this.buffer.type !== 'text' && cells.type !== 'text') this.buffer.values[at] = cells.values[from]
    this.forget()
  }

  /** Lets the first rows go, without touching the others. */
  dropFirst(count: number): void {
    this.first += count
    this.length -= count
    this.forget()
  }

  /** Keeps only the given rows, in that order. */
  keep(rows: ArrayLike<number>): void {
    this.buffer = pickCells(this.cells, rows)
    this.first = 0
    this.length = rows.length
    this.owned = true
    this.forget()
  }

  private forget(): void {
    this.extentKnown = undefined
    this.pyramidKnown = undefined
    this.kept.clear()
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

export function extentOf(cells: Cells): Extent {
  return cells.type === 'text' ? extentOfCodes(cells.codes) : extentOfNumbers(cells.values)
}

export function extentOfNumbers(values: Float64Array): Extent {
  return sortedExtent(values) ?? pyramidExtent(buildPyramid(values))
}

/** Sorted values have their extremes at their ends; undefined when they are not sorted, usually after a few steps. */
function sortedExtent(values: Float64Array): Extent | undefined {
  const { length } = values
  if (length === 0) return undefined
  if (Number.isNaN(values[0])) return undefined
  for (let i = 1; i < length; i++) if (!(values[i] >= values[i - 1])) return undefined
  return { min: values[0], max: values[length - 1], sorted: true, missing: 0 }
}

function pyramidExtent({ mins, maxs, missing, values }: Pyramid): Extent {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  const lower = mins[mins.length - 1]
  const upper = maxs[maxs.length - 1]
  for (let i = 0; i < lower.length; i++) {
    if (lower[i] < min) min = lower[i]
    if (upper[i] > max) max = upper[i]
  }
  return { min, max, sorted: values.length === 0, missing }
}

function extentOfCodes(codes: Int32Array): Extent {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  let missing = 0
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i]
    if (code < 0) missing++
    else {
      if (code < min) min = code
      if (code > max) max = code
    }
  }
  return { min, max, sorted: false, missing }
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
