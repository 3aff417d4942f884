import { DapploError } from '../finding/error.ts'
import type { Span } from './options.ts'
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
    if (table.length <= keep) return
    const age = (row: number) => (times ? times[row] : table.serialOf(row))
    const order = Array.from({ length: table.length }, (_, row) => row).sort((a, b) => age(b) - age(a))
    const stays = new Set(order.slice(0, Math.max(0, keep)))
    table.keepWhere(row => stays.has(row))
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
  if (times.some(time => time < oldest)) table.keepWhere(row => !(times[row] < oldest))
}
