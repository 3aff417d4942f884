import { DapploError } from '../../finding/error.ts'
import { suggest } from '../../finding/nearest.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Intake } from '../read/intake.ts'
import type { RawColumns, TableOptions } from './model.ts'

/**
 * The columns that a table begins with: as long as each other, and all of those that are told of. Where they are read part
 * by part, others have their turn between the parts.
 */
export function* firstColumns(
  raw: RawColumns,
  { columns: told = {} }: TableOptions,
  intake: Intake,
  title: string,
): Generator<{ done: number; rows: number }, Map<string, TableColumn>> {
  // Without a single row, the columns are those that are told of.
  const names = raw.names.length > 0 ? raw.names : Object.keys(told)
  const columns = raw.names.length > 0 ? raw.columns : names.map(() => [])
  for (const name of Object.keys(told))
    if (!names.includes(name))
      throw new DapploError(
        'unknown-column',
        `Column "${name}" is not in ${title}`,
        `columns.${name}`,
        suggest(name, names, 'Columns'),
      )
  if (raw.parts) return yield* intake.columnsInParts(names, raw.parts, raw.lineOf)
  const count = columns[0]?.length ?? 0
  return new Map(
    names.map((name, i) => {
      if (columns[i].length !== count)
        throw new DapploError(
          'different-lengths',
          `Column "${name}" has ${columns[i].length} values, but "${names[0]}" has ${count}`,
          `columns.${name}`,
          'Give every column as many values as there are rows; write null where one is missing.',
        )
      return [name, intake.column(name, columns[i], raw.lineOf, raw.words?.[name])]
    }),
  )
}
