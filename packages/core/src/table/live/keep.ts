import { DapploError } from '../../finding/error.ts'
import type { Span } from '../cells/options.ts'
import type { Table } from './table.ts'

/** Milliseconds of each part of a span; months and years by their mean length, since nothing hangs on a day here. */
const PARTS: Record<keyof Span, number> = {
  years: 31_556_952_000,
  months: 2_629_746_000,
  weeks: 604_800_000,
  days: 86_400_000,
  hours: 3_600_000,
  minutes: 60_000,
  seconds: 1000,
}

/** The length of a span in milliseconds. */
export const spanLength = (span: Span): number =>
  Object.entries(span).reduce(
    (sum, [part, count]) => sum + (PARTS[part as keyof Span] ?? 0) * (count ?? 0),
    0,
  )

/**
 * Lets old rows go: keeps that many, or those no older than a span before the newest. Age goes by the time column `at`,
 * else, for a number of rows, by arrival. Throws `bad-option` when a span has no time column to go by.
 */
export function keepRecent(table: Table<any>, keep: number | Span, at?: string): void {
  const column = at === undefined ? undefined : table.needColumn(at, 'at')
  const cells = column?.cells
  if (column && cells?.type !== 'time' && table.length > 0)
    throw new DapploError(
      'bad-option',
      `Rows cannot age by "${at}", which holds no times`,
      'at',
      'Name a time column.',
    )
  const times = cells?.type === 'time' ? cells.values : undefined
  if (typeof keep === 'number') {
    const excess = table.length - Math.max(0, Math.floor(keep))
    if (excess > 0) dropOldest(table, times ?? table.serials, excess)
    return
  }
  if (!times) {
    if (table.length === 0) return
    throw new DapploError(
      'bad-option',
      'A span needs a time column to go by',
      'at',
      'Name it, as in at: "departed".',
    )
  }
  let newest = Number.NEGATIVE_INFINITY
  for (const time of times) if (time > newest) newest = time
  const oldest = newest - spanLength(keep)
  let old = 0
  while (old < times.length && times[old] < oldest) old++
  // Rows mostly come in the order of their times, so that the old ones stand first.
  for (let row = old; row < times.length; row++)
    if (times[row] < oldest) {
      table.keepRows(at => !(times[at] < oldest))
      return
    }
  table.dropFirst(old)
}

/** Lets the oldest rows go; of two as old, the one that came first. */
function dropOldest(table: Table<any>, ages: Float64Array, excess: number): void {
  const { length } = ages
  // What has no time counts as the newest: nobody knows that it is old.
  const age = (row: number) => (Number.isNaN(ages[row]) ? Number.POSITIVE_INFINITY : ages[row])
  let greatest = Number.NEGATIVE_INFINITY
  let least = Number.POSITIVE_INFINITY
  for (let row = 0; row < excess; row++) if (age(row) > greatest) greatest = age(row)
  for (let row = excess; row < length; row++) if (age(row) < least) least = age(row)
  if (greatest <= least) {
    table.dropFirst(excess)
    return
  }
  const order = Float64Array.from({ length }, (_, row) => age(row)).sort()
  const limit = order[excess - 1]
  let ties = excess
  for (let i = 0; i < excess; i++) if (order[i] < limit) ties--
  table.keepRows(row => {
    if (age(row) !== limit) return age(row) > limit
    return ties-- <= 0
  })
}
