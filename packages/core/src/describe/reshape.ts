import type { Table } from '../table/live/table.ts'
import { derivedTable, type Step } from '../table/reshape/reshape.ts'
import { checkShape } from './check-shape.ts'

/**
 * Makes a table from another by steps, such as `[{ where: { route: 'Tern Point' } }, { sort: 'departed' }]`. The
 * source stays as it is; when it changes, the derived table follows. `sourceRows` tells the rows behind a row. Throws a
 * `DapploError` where a step or a column is not known.
 */
export function reshape(source: Table<any>, steps: readonly Step[], name = source.name): Table<any> {
  checkShape(steps, 'steps', 'shape')
  return derivedTable(source, steps, name)
}
