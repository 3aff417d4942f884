import { type Cells, numbersOf } from './cells.ts'
import { type Extent, extentOfCodes, fallOf, lacking, pyramidExtent } from './extent.ts'
import {
  appendToPyramid,
  buildPyramid,
  dropFromPyramid,
  extremes,
  type Pyramid,
  removeFromPyramid,
  writeToPyramid,
} from './pyramid.ts'
import { firstAtLeast } from './search.ts'

/** What is known of a column's values, kept up to date as rows come, change and age: what changed is looked at, not all. */
export class ColumnFacts {
  private extent: Extent | undefined
  private pyramid: Pyramid | undefined
  /** A row whose value is less than the one before it, or missing: as long as it is there, values are not sorted. */
  private fall: number | undefined

  extentOf(cells: Cells): Extent {
    this.extent ??= this.look(cells)
    return this.extent
  }

  private look(cells: Cells): Extent {
    if (cells.type === 'text') return extentOfCodes(cells.codes)
    const { values } = cells
    this.fall = fallOf(values)
    // Sorted values have their extremes at their ends.
    return this.fall === undefined && values.length > 0
      ? { min: values[0], max: values[values.length - 1], sorted: true, missing: 0 }
      : pyramidExtent(this.pyramidOf(cells))
  }

  pyramidOf(cells: Cells): Pyramid {
    this.pyramid ??= buildPyramid(numbersOf(cells))
    return this.pyramid
  }

  forget(): void {
    this.extent = undefined
    this.pyramid = undefined
  }

  appended(cells: Cells, added: number): void {
    if (cells.type === 'text') {
      this.extent &&= extentOfCodes(cells.codes, cells.codes.length - added, this.extent.missing)
      return
    }
    const { values } = cells
    if (this.pyramid) appendToPyramid(this.pyramid, values, added)
    if (!this.extent) return
    let { min, max, sorted, missing } = this.extent
    for (let row = values.length - added; row < values.length; row++) {
      const value = values[row]
      if (value !== value) missing++
      if (value < min) min = value
      if (value > max) max = value
      if (sorted && (value !== value || (row > 0 && !(value >= values[row - 1])))) {
        sorted = false
        this.fall = row
      }
    }
    this.extent = { min, max, sorted, missing }
  }

  written(cells: Cells, row: number, before: number): void {
    if (cells.type === 'text') {
      if (this.extent)
        this.extent = lacking(this.extent.missing + Number(cells.codes[row] < 0) - Number(before < 0))
      return
    }
    const { values } = cells
    if (this.pyramid) writeToPyramid(this.pyramid, values, row, before)
    if (!this.extent) return
    const now = values[row]
    const falls = (at: number) => values[at] !== values[at] || (at > 0 && !(values[at] >= values[at - 1]))
    if (this.extent.sorted)
      this.fall = falls(row) ? row : row + 1 < values.length && falls(row + 1) ? row + 1 : undefined
    else if (this.fall === undefined || !falls(this.fall)) {
      this.extent = undefined
      return
    }
    const missing = this.extent.missing + Number(now !== now) - Number(before !== before)
    const left = before === this.extent.min || before === this.extent.max
    const ends = left ? this.ends(values) : this.extent
    if (!ends) {
      this.extent = undefined
      return
    }
    const min = now === now ? Math.min(now, ends.min) : ends.min
    const max = now === now ? Math.max(now, ends.max) : ends.max
    this.extent = { min, max, sorted: this.fall === undefined, missing }
  }

  /** The first rows have gone. */
  dropped(cells: Cells, count: number, leaving: Leaving): void {
    if (cells.type !== 'text' && this.pyramid) {
      // Blocks of rows that left long ago are room for nothing.
      if (this.pyramid.gone > cells.values.length + 4096) this.pyramid = undefined
      else dropFromPyramid(this.pyramid, cells.values, count, leaving.missing)
    }
    if (this.fall !== undefined) this.fall -= count
    this.left(cells, leaving)
  }

  /** Rows have gone, given in rising order as they stood; `moved`: how far on those before them stand now. */
  removed(cells: Cells, rows: ArrayLike<number>, leaving: Leaving, moved: number): void {
    if (cells.type !== 'text' && this.pyramid) {
      if (this.pyramid.gone > cells.values.length + 4096) this.pyramid = undefined
      else removeFromPyramid(this.pyramid, cells.values, rows, leaving.missing, moved)
    }
    if (this.fall !== undefined) {
      const before = firstAtLeast(rows, this.fall)
      // With it, or with the one before it, the fall itself may have gone.
      const touched = firstAtLeast(rows, this.fall + 1) > before || rows[before - 1] === this.fall - 1
      this.fall = touched ? -1 : this.fall - before
    }
    this.left(cells, leaving)
  }

  private left(cells: Cells, leaving: Leaving): void {
    if (!this.extent) return
    if (cells.type === 'text') {
      this.extent = lacking(this.extent.missing - leaving.missing)
      return
    }
    if (cells.values.length === 0) {
      this.extent = undefined
      return
    }
    const { values } = cells
    const { sorted, missing } = this.extent
    if (!sorted && (this.fall === undefined || this.fall < 1)) {
      this.extent = undefined
      return
    }
    const least = leaving.min === this.extent.min || leaving.max === this.extent.max
    const ends = sorted
      ? { min: values[0], max: values[values.length - 1] }
      : least
        ? this.ends(values)
        : this.extent
    this.extent = ends && { min: ends.min, max: ends.max, sorted, missing: missing - leaving.missing }
  }

  private ends(values: Float64Array): { min: number; max: number } | undefined {
    return this.pyramid && extremes(this.pyramid, 0, values.length)
  }
}

/** What is known of values that go. */
export interface Leaving {
  missing: number
  min: number
  max: number
}

/** To be called while the rows are still there. */
export function leavingOf(cells: Cells, rows: ArrayLike<number>): Leaving {
  const values = cells.type === 'text' ? cells.codes : cells.values
  const leaving = { missing: 0, min: Number.POSITIVE_INFINITY, max: Number.NEGATIVE_INFINITY }
  for (let i = 0; i < rows.length; i++) {
    const value = values[rows[i]]
    if (value !== value || (cells.type === 'text' && value < 0)) leaving.missing++
    if (value < leaving.min) leaving.min = value
    if (value > leaving.max) leaving.max = value
  }
  return leaving
}
