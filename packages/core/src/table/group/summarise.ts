import type { TableColumn } from '../cells/column.ts'
import { compensated, roundedOff } from '../cells/total.ts'
import { type How, shareOfPercentile } from '../phrase/meaning.ts'
import type { Groups } from './group.ts'

/** One value per group. A group without a single present value is missing; counts and sums of it are 0. */
export function summarise(how: How, column: TableColumn | undefined, groups: Groups): Float64Array {
  if (groups.summary) return groups.summary(how, column)
  const { count, ofRow, rows } = groups
  const considered = rows?.length ?? ofRow.length
  const out = new Float64Array(count)
  if (how === 'count') {
    for (let i = 0; i < considered; i++) out[ofRow[rows ? rows[i] : i]]++
    return out
  }
  const cells = column!.cells
  const values = cells.type === 'text' ? cells.codes : cells.values
  if (how === 'distinct') return distinct(values, groups)
  const share = how === 'median' ? 0.5 : shareOfPercentile(how)
  if (share !== undefined) return percentile(values, share, groups)
  if (how === 'sum' && cells.type !== 'text' && column!.extent.missing === 0) {
    addUp(cells.values, ofRow, rows, out)
    return out
  }
  if (how === 'sum' || how === 'mean') {
    const present = new Int32Array(count)
    const rest = new Float64Array(count)
    for (let i = 0; i < considered; i++) {
      const row = rows ? rows[i] : i
      const group = ofRow[row]
      const value = values[row]
      if (value !== value) continue
      const sum = out[group] + value
      rest[group] += roundedOff(out[group], value, sum)
      out[group] = sum
      present[group]++
    }
    for (let group = 0; group < count; group++) {
      out[group] = compensated(out[group], rest[group])
      if (present[group] === 0) out[group] = Number.NaN
      else if (how === 'mean') out[group] /= present[group]
    }
    return out
  }
  out.fill(Number.NaN)
  for (let i = 0; i < considered; i++) {
    const row = rows ? rows[i] : i
    const group = ofRow[row]
    const value = values[row]
    if (value !== value) continue
    const before = out[group]
    if (
      before !== before ||
      how === 'last' ||
      (how === 'min' && value < before) ||
      (how === 'max' && value > before)
    )
      out[group] = value
  }
  return out
}

/** Where nothing is missing, a sum is one addition a row. */
function addUp(
  values: Float64Array,
  ofRow: Int32Array,
  rows: Int32Array | undefined,
  out: Float64Array,
): void {
  const rest = new Float64Array(out.length)
  const considered = rows?.length ?? ofRow.length
  for (let i = 0; i < considered; i++) {
    const row = rows ? rows[i] : i
    const group = ofRow[row]
    const sum = out[group] + values[row]
    rest[group] += roundedOff(out[group], values[row], sum)
    out[group] = sum
  }
  for (let group = 0; group < out.length; group++) out[group] = compensated(out[group], rest[group])
}

function distinct(values: ArrayLike<number>, groups: Groups): Float64Array {
  return Float64Array.from({ length: groups.count }, (_, group) => {
    const seen = new Set<number>()
    for (const row of groups.rowsOf(group)) {
      const value = values[row]
      // Missing values count as none: NaN for numbers, -1 for text.
      if (value === value && !(values instanceof Int32Array && value < 0)) seen.add(value)
    }
    return seen.size
  })
}

function percentile(values: ArrayLike<number>, share: number, groups: Groups): Float64Array {
  return Float64Array.from({ length: groups.count }, (_, group) =>
    percentileOf(
      Float64Array.from(groups.rowsOf(group), row => values[row])
        .filter(value => value === value)
        .sort(),
      share,
    ),
  )
}

/**
 * The value below which a share (0 to 1) of sorted values lies, between two of them in proportion; NaN where there are
 * none. Hyndman and Fan, "Sample Quantiles in Statistical Packages" (1996), definition 7.
 */
export function percentileOf(
  sorted: { readonly length: number; at(place: number): number | undefined },
  share: number,
): number {
  const { length } = sorted
  if (length === 0) return Number.NaN
  const at = (length - 1) * share
  const below = Math.floor(at)
  const low = sorted.at(below)!
  return at === below ? low : low + (sorted.at(Math.min(length - 1, below + 1))! - low) * (at - below)
}
