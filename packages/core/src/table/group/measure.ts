import { DapploError } from '../../finding/error.ts'
import type { Table } from '../live/table.ts'
import { type Meaning, wordsOf } from '../phrase/meaning.ts'
import type { Groups } from './group.ts'
import { summarise } from './summarise.ts'
import { type GroupContext, windowed } from './window.ts'

/** What a measure comes to in each group; `count` groups, those beyond the ones with rows being empty. */
export function measureOf(
  meaning: Meaning,
  table: Table,
  groups: Groups,
  count: number,
  context: GroupContext,
): Float64Array {
  if (meaning.is === 'window')
    return windowed(meaning, measureOf(baseOf(meaning), table, groups, count, context), context)
  if (meaning.is === 'ratio') {
    const over = summarise('sum', table.needColumn(meaning.column, ''), groups)
    const under = summarise('sum', table.needColumn(meaning.to, ''), groups)
    return pad(
      over.map((value, i) => (under[i] === 0 ? Number.NaN : value / under[i])),
      count,
      Number.NaN,
    )
  }
  if (meaning.is !== 'summary')
    throw new DapploError('unknown-phrase', `"${wordsOf(meaning)}" sums nothing up`)
  const column = meaning.column === undefined ? undefined : table.needColumn(meaning.column, '')
  const values = summarise(meaning.how, column, groups)
  // A bucket without rows has had nothing: none were carried, but there is no mean to speak of.
  const empty =
    meaning.how === 'count' || meaning.how === 'sum' || meaning.how === 'distinct' ? 0 : Number.NaN
  return pad(values, count, empty)
}

/** What a window is worked out from. */
export const baseOf = ({ column, how }: Meaning & { is: 'window' }): Meaning =>
  column === undefined || how === 'count so far'
    ? { is: 'summary', how: 'count' }
    : { is: 'summary', how: 'sum', column }

function pad(values: Float64Array, count: number, filler: number): Float64Array {
  if (values.length === count) return values
  const out = new Float64Array(count).fill(filler)
  out.set(values)
  return out
}
