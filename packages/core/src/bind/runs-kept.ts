import type { Marks, Positions } from '../describe/model.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import type { SeriesOfDrawing } from './series.ts'

/** Runs that are kept in order, of series that a column tells apart, where shapes stand at the very values of columns. */
export function runsKept(
  { runs, length }: Shaped,
  values: Record<'x' | 'y', RoleValues>,
  at: Record<'x' | 'y', Positions>,
  seriesOf: Uint16Array | undefined,
  by: SeriesOfDrawing['by'],
): Marks['runOf'] {
  const isPlain = (role: 'x' | 'y') => {
    const { column, meaning } = values[role]
    return (
      column !== undefined &&
      meaning.is === 'column' &&
      at[role].at.length === length &&
      column.isAll(at[role].at)
    )
  }
  if (!runs || (seriesOf && !by) || !isPlain('x') || !isPlain('y')) return undefined
  return series => runs(values.x.column!, values.y.column!, by?.column)?.of(by?.codes[series] ?? 0)
}
