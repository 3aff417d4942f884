import { type Extent, extentOfCodes, fallOf, lacking, pyramidExtent } from './extent.ts'
import {
  appendToPyramid,
  buildPyramid,
  dropFromPyramid,
  extremes,
  type Pyramid,
  removeFromPyramid,
  renewPyramid,
  writeToPyramid,
} from './pyramid.ts'
import type { RowList } from './row-list.ts'
import { firstAtLeast } from './search.ts'

/** What stands in the rows: numbers, or the codes of texts. */
type Values = RowList<Float64Array> | RowList<Int32Array>

/** Where more rows than these move, their blocks are made anew only once they are read. */
const MOST_AT_ONCE = 4096

/** What is known of a column's values, kept up to date as rows come, change and age: what changed is looked at, not all. */
export class ColumnFacts {
  private extent: Extent | undefined
  private pyramid: Pyramid | undefined
  /** From this row on blocks are to be made anew before they are read; undefined where they stand. */
  private stale: number | undefined
  /** A row whose value is less than the one before it, or missing: as long as it is there, values are not sorted. */
  private fall: number | undefined
  private readonly values: () => Values
  private readonly ofText: boolean

  /** `ofText`: whether its values are codes of texts. */
  constructor(values: () => Values, ofText: boolean) {
    this.values = values
    this.ofText = ofText
  }

  get known(): Extent {
    this.extent ??= this.look()
    return this.extent
  }

  private look(): Extent {
    const values = this.values().all
    if (values instanceof Int32Array) return extentOfCodes(values)
    this.fall = fallOf(values)
    // Sorted values have their extremes at their ends.
    return this.fall === undefined && values.length > 0
      ? { min: values[0], max: values[values.length - 1], sorted: true, missing: 0 }
      : pyramidExtent(this.blocks)
  }

  get blocks(): Pyramid {
    if (this.ofText) return buildPyramid(new Float64Array(0))
    this.pyramid ??= buildPyramid(this.numbers)
    if (this.stale !== undefined) renewPyramid(this.pyramid, this.numbers, this.stale)
    this.stale = undefined
    return this.pyramid
  }

  private get numbers(): Float64Array {
    return this.values().all as Float64Array
  }

  forget(): void {
    this.extent = undefined
    this.pyramid = undefined
    this.stale = undefined
  }

  appended(added: number): void {
    const values = this.values()
    const { length } = values
    if (this.pyramid && this.stale === undefined) appendToPyramid(this.pyramid, this.numbers, added)
    else if (this.pyramid)
      for (let row = length - added; row < length; row++)
        if (Number.isNaN(values.get(row))) this.pyramid.missing++
    if (!this.extent) return
    let { min, max, sorted, missing } = this.extent
    for (let row = length - added; row < length; row++) {
      const value = values.get(row)
      if (this.ofText) {
        if (value < 0) missing++
        continue
      }
      if (value !== value) missing++
      if (value < min) min = value
      if (value > max) max = value
      if (sorted && (value !== value || (row > 0 && !(value >= values.get(row - 1))))) {
        sorted = false
        this.fall = row
      }
    }
    this.extent = { min, max, sorted, missing }
  }

  written(row: number, before: number): void {
    const values = this.values()
    const now = values.get(row)
    if (this.ofText) {
      if (this.extent) this.extent = lacking(this.extent.missing + Number(now < 0) - Number(before < 0))
      return
    }
    if (this.pyramid && this.stale === undefined) writeToPyramid(this.pyramid, this.numbers, row, before)
    else if (this.pyramid) this.makeStale(row, Number(before !== before) - Number(now !== now))
    if (!this.extent) return
    const falls = (at: number) => {
      const value = values.get(at)
      return value !== value || (at > 0 && !(value >= values.get(at - 1)))
    }
    if (this.extent.sorted)
      this.fall = falls(row) ? row : row + 1 < values.length && falls(row + 1) ? row + 1 : undefined
    else if (this.fall === undefined || !falls(this.fall)) {
      this.extent = undefined
      return
    }
    const missing = this.extent.missing + Number(now !== now) - Number(before !== before)
    const left = before === this.extent.min || before === this.extent.max
    const ends = left ? this.ends() : this.extent
    if (!ends) {
      this.extent = undefined
      return
    }
    const min = now === now ? Math.min(now, ends.min) : ends.min
    const max = now === now ? Math.max(now, ends.max) : ends.max
    this.extent = { min, max, sorted: this.fall === undefined, missing }
  }

  /** The first rows have gone. */
  dropped(count: number, leaving: Leaving): void {
    this.letGo()
    if (this.pyramid) {
      if (this.stale === undefined) dropFromPyramid(this.pyramid, this.numbers, count, leaving.missing)
      else {
        this.pyramid.gone += count
        this.makeStale(Math.max(0, this.stale - count), leaving.missing)
      }
    }
    if (this.fall !== undefined) this.fall -= count
    this.left(leaving)
  }

  /** Rows have gone, given in rising order as they stood. */
  removed(rows: ArrayLike<number>, leaving: Leaving): void {
    this.letGo()
    if (this.pyramid) {
      const moved = Math.min(rows[rows.length - 1] + 1, this.values().length + rows.length - rows[0])
      if (this.stale === undefined && moved <= MOST_AT_ONCE)
        removeFromPyramid(this.pyramid, this.numbers, rows, leaving.missing)
      else this.makeStale(rows[0], leaving.missing)
    }
    if (this.fall !== undefined) {
      const before = firstAtLeast(rows, this.fall)
      // With it, or with the one before it, the fall itself may have gone.
      const touched = firstAtLeast(rows, this.fall + 1) > before || rows[before - 1] === this.fall - 1
      this.fall = touched ? -1 : this.fall - before
    }
    this.left(leaving)
  }

  /** Lets a pyramid go whose blocks are mostly of rows that left long ago. */
  private letGo(): void {
    if (!this.pyramid || this.pyramid.gone <= this.values().length + 4096) return
    this.pyramid = undefined
    this.stale = undefined
  }

  /** Blocks from a row on wait until they are read; so many missing values have gone. */
  private makeStale(from: number, missing: number): void {
    this.pyramid!.missing -= missing
    this.stale = Math.min(this.stale ?? from, from)
  }

  private left(leaving: Leaving): void {
    if (!this.extent) return
    if (this.ofText) {
      this.extent = lacking(this.extent.missing - leaving.missing)
      return
    }
    const { sorted, missing } = this.extent
    if (this.values().length === 0 || (!sorted && (this.fall === undefined || this.fall < 1))) {
      this.extent = undefined
      return
    }
    const least = leaving.min === this.extent.min || leaving.max === this.extent.max
    const ends = sorted || least ? this.ends() : this.extent
    this.extent = ends && { min: ends.min, max: ends.max, sorted, missing: missing - leaving.missing }
  }

  private ends(): { min: number; max: number } | undefined {
    const values = this.values()
    if (this.fall === undefined) return { min: values.get(0), max: values.get(values.length - 1) }
    return this.pyramid && extremes(this.blocks, 0, values.length)
  }
}

/** What is known of values that go. */
export interface Leaving {
  missing: number
  min: number
  max: number
}

/** To be called while the rows are still there. */
export function leavingOf(values: Values, rows: ArrayLike<number>, ofText: boolean): Leaving {
  const leaving = { missing: 0, min: Number.POSITIVE_INFINITY, max: Number.NEGATIVE_INFINITY }
  for (let i = 0; i < rows.length; i++) {
    const value = values.get(rows[i])
    if (value !== value || (ofText && value < 0)) leaving.missing++
    if (value < leaving.min) leaving.min = value
    if (value > leaving.max) leaving.max = value
  }
  return leaving
}
