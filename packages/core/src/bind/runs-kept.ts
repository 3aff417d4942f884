import type { Marks, Positions, Series } from '../describe/model.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { meaningKey } from '../table/phrase/meaning.ts'
import type { SeriesOfDrawing } from './series.ts'

type Both<T> = Record<'x' | 'y', T>

/** Whether shapes stand at the very values of a column. */
function isPlain({ column, meaning }: RoleValues, { at }: Positions, length: number): boolean {
  return column !== undefined && meaning.is === 'column' && at.length === length && column.isAll(at)
}

/** What is remembered of marks that are rows of a table, where they stand at the very values of its columns. */
export function begunOf(
  { memory, length, roles }: Shaped,
  values: Both<RoleValues>,
  at: Both<Positions>,
  series: readonly Series[],
): Marks['begun'] {
  if (!memory || !isPlain(values.x, at.x, length) || !isPlain(values.y, at.y, length)) return undefined
  // Of the same series, in the same order: else the first marks could be of others by now.
  const meanings = [...roles].map(([role, { meaning }]) => `${role} ${meaningKey(meaning)}`)
  const { x, y } = values
  return {
    memory,
    name: [...meanings, ...series.map(({ key }) => key)].join('\u001e'),
    at: row => [x.column!.numberAt(row), y.column!.numberAt(row)],
  }
}

/** Runs that are kept in order, of series that a column tells apart, where shapes stand at the very values of columns. */
export function runsKept(
  { runs, length }: Shaped,
  values: Both<RoleValues>,
  at: Both<Positions>,
  seriesOf: Uint16Array | undefined,
  by: SeriesOfDrawing['by'],
): Marks['runOf'] {
  if (!runs || (seriesOf && !by)) return undefined
  if (!isPlain(values.x, at.x, length) || !isPlain(values.y, at.y, length)) return undefined
  return series => runs(values.x.column!, values.y.column!, by?.column)?.of(by?.codes[series] ?? 0)
}
