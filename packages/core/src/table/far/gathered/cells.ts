import { extentOf } from '../../cells/extent.ts'
import type { FarTest, FarValue } from '../model.ts'

/** The ends of both positions. */
export interface Ends {
  x: [number, number]
  y: [number, number]
}

/** The least and greatest of values; of none, from infinity down. */
export function endsOf(values: Float64Array): [number, number] {
  const { min, max } = extentOf({ type: 'number', values })
  return [min, max]
}

/** How wide an extent is; `log10`: in powers of ten. */
export const widthOf = ([min, max]: readonly [number, number], log10 = false): number =>
  log10 ? Math.log10(max / min) : max - min

/**
 * Whether cells over some ends are about as fine as cells over those that were found within them would be. They are not where
 * rows that lack a position reach much farther than the others.
 */
export const asFine = (
  asked: readonly [number, number],
  found: readonly [number, number],
  log10 = false,
): boolean => found[0] > found[1] || widthOf(found, log10) >= widthOf(asked, log10) * 0.75

/** What of an extent is in view; undefined where that is all of it, or nothing. */
export function inView(
  [min, max]: [number, number],
  view: readonly [number, number] | undefined,
): [number, number] | undefined {
  if (!view) return undefined
  const [from, until] = [Math.max(min, Math.min(...view)), Math.min(max, Math.max(...view))]
  return from < until && (from > min || until < max) ? [from, until] : undefined
}

/** The rows with values between two others, both included. */
export const betweenEnds = (value: FarValue, [from, last]: readonly [number, number]): FarTest => ({
  is: 'between',
  value,
  from,
  last,
})

/** What gathers an extent into so many cells; `log10`: of one width on a logarithmic scale. */
export function cellsOver(
  value: FarValue,
  ends: readonly [number, number],
  count: number,
  log10 = false,
): FarValue {
  if (value.is !== 'column') return value
  const [min, max] = log10 ? ends.map(Math.log10) : ends
  // The very last value is in the last of them.
  const perUnit = max > min ? (count * (1 - 1e-12)) / (max - min) : 1
  const { column, clock, as } = value
  return { is: 'cell', column, clock, as, from: min, perUnit, ...(log10 ? { log10 } : {}) }
}

/** Where a cell begins. */
export function edgeOf(cells: FarValue, cell: number): number {
  if (cells.is !== 'cell') return Number.NaN
  const at = cells.from + cell / cells.perUnit
  return cells.log10 ? 10 ** at : at
}

/** The middle of a cell. */
export const middleOf = (cells: FarValue, cell: number): number => edgeOf(cells, cell + 0.5)
