import type { TableColumn } from '../cells/column.ts'
import type { RunGroups } from './group.ts'
import type { Running, RunningRows } from './live-summary.ts'

/** Adds up whole numbers, which leave no rest, to the first that is none or is missing; returns its row. */
function wholesOf(
  values: ArrayLike<number>,
  ofRow: Int32Array,
  sums: Float64Array,
  present: Float64Array,
): number {
  let row = 0
  for (; row < ofRow.length; row++) {
    const value = values[row]
    if ((value | 0) !== value) break
    const group = ofRow[row]
    if (group < 0) continue
    sums[group] += value
    present[group]++
  }
  return row
}

/**
 * The sums of whole numbers of which none is missing, where rows stand in runs: at the place of each group, which spares
 * looking for its number. Undefined where one is not whole.
 */
function wholesByPlace(
  values: ArrayLike<number>,
  { ends, shifts, codes, numbers }: RunGroups,
): Float64Array | undefined {
  const sums = new Float64Array(numbers.length)
  let row = 0
  for (let run = 0; run < ends.length; run++) {
    const shift = shifts[run]
    const end = ends[run]
    for (; row < end; row++) {
      const value = values[row]
      if ((value | 0) !== value) return undefined
      sums[(codes[row] + shift) | 0] += value
    }
  }
  return sums
}

/** A longer copy where there is no room for a group. */
function roomFor(values: Float64Array, group: number): Float64Array {
  if (group < values.length) return values
  const grown = new Float64Array(Math.max(16, (group + 1) * 2))
  grown.set(values)
  return grown
}

export class Counts implements Running {
  private counts: Float64Array

  constructor(count: number) {
    this.counts = new Float64Array(count)
  }

  enter(group: number): void {
    this.counts = roomFor(this.counts, group)
    this.counts[group]++
  }

  leave(group: number): void {
    this.counts[group]--
  }

  valueOf(group: number): number {
    return this.counts[group] ?? 0
  }
}

/**
 * Sums to twice the precision of a number, so that what left has left no trace: D. E. Knuth's exact sum of two numbers,
 * "The Art of Computer Programming", volume 2, 4.2.2.
 */
export class Sums implements Running {
  private sums: Float64Array
  private rests: Float64Array
  private present: Float64Array
  /** Whether every row of every group is present, and they have not been counted. */
  private uncounted = false
  private readonly column: TableColumn
  private readonly mean: boolean

  constructor(column: TableColumn, count: number, mean: boolean) {
    this.column = column
    this.mean = mean
    this.sums = new Float64Array(count)
    this.rests = new Float64Array(count)
    this.present = new Float64Array(count)
  }

  /** All rows in one loop. */
  takeAll({ ofRow: rows, runs }: RunningRows): void {
    const { sums, rests, present } = this
    const { cells } = this.column
    const values = cells.type === 'text' ? cells.codes : cells.values
    if (runs && !this.mean && this.column.extent.missing === 0) {
      const found = wholesByPlace(values, runs)
      if (found) {
        const { numbers } = runs
        for (let place = 0; place < numbers.length; place++)
          if (numbers[place] > 0) sums[numbers[place] - 1] = found[place]
        this.uncounted = true
        return
      }
    }
    const ofRow = rows().all
    // Up to the first fraction sums are exact as they are.
    let row = wholesOf(values, ofRow, sums, present)
    for (; row < ofRow.length; row++) {
      const value = values[row]
      const group = ofRow[row]
      if (value !== value || group < 0) continue
      const before = sums[group]
      const sum = before + value
      const taken = sum - before
      sums[group] = sum
      rests[group] += before - (sum - taken) + (value - taken)
      present[group]++
    }
  }

  enter(group: number, row: number): void {
    this.add(group, this.column.numberAt(row), 1)
  }

  leave(group: number, row: number): void {
    this.add(group, this.column.numberAt(row), -1)
  }

  private add(group: number, own: number, sign: number): void {
    if (own !== own) return
    this.sums = roomFor(this.sums, group)
    this.rests = roomFor(this.rests, group)
    this.present = roomFor(this.present, group)
    const value = own * sign
    const before = this.sums[group]
    const sum = before + value
    const taken = sum - before
    this.sums[group] = sum
    this.rests[group] += before - (sum - taken) + (value - taken)
    this.present[group] += sign
    if (this.present[group] === 0) this.sums[group] = this.rests[group] = 0
  }

  counted(sizes: ArrayLike<number>): void {
    if (!this.uncounted) return
    this.uncounted = false
    this.present = Float64Array.from(sizes)
  }

  valueOf(group: number): number {
    if (this.uncounted) return this.sums[group]
    const present = this.present[group] ?? 0
    if (present === 0) return Number.NaN
    const sum = this.sums[group] + this.rests[group]
    return this.mean ? sum / present : sum
  }
}
