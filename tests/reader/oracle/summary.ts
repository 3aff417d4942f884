// What rows of a group become: one value each.
import { Exact, exactSum } from './exact.ts'

/** A cell: null where it is missing. Times are milliseconds. */
export type Cell = number | string | null

/** The summary of a group's cells, in the order of its rows; null where there is nothing to sum up. */
export function summary(how: string, cells: readonly Cell[]): number | null {
  const there = cells.filter(cell => cell !== null)
  if (how === 'distinct') return new Set(there).size
  const numbers = there.filter(cell => typeof cell === 'number')
  if (how === 'sum') return numbers.length === 0 ? null : exactSum(numbers).value
  if (numbers.length === 0) return null
  if (how === 'mean') return exactSum(numbers).dividedBy(new Exact(BigInt(numbers.length))).value
  if (how === 'first') return numbers[0]
  if (how === 'last') return numbers[numbers.length - 1]
  const sorted = [...numbers].sort((a, b) => a - b)
  if (how === 'min') return sorted[0]
  if (how === 'max') return sorted[sorted.length - 1]
  if (how === 'median') return percentile(sorted, 0.5)
  if (/^p\d/.test(how)) return percentile(sorted, Number(how.slice(1)) / 100)
  throw new Error(`No summary is called ${how}.`)
}

/** Between two neighbours in the order, the value lies as far along as the share does (type 7 of Hyndman and Fan). */
export function percentile(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share
  const below = sorted[Math.floor(at)]
  const above = sorted[Math.ceil(at)]
  return below + (above - below) * (at - Math.floor(at))
}
