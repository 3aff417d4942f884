import { type Chart, chart, type Description, reshape, type Spread, spread, Table } from '@dapplo/core'
import { type Drawn, isSpreadData } from '@dapplo/core/sentence'

/** What columns are read as, where that is something else than what they were found to be. */
export type ColumnTypes = Readonly<Record<string, 'number' | 'time' | 'text'>>

/** The table that charts are drawn over, with its columns read as a person has said. */
export function tableFrom(tables: Table | Readonly<Record<string, Table>>, types: ColumnTypes = {}): Table {
  const first = tables instanceof Table ? tables : Object.values(tables)[0]
  return Object.keys(types).length > 0 ? reshape(first, [{ types }]) : first
}

/**
 * The chart of a description that a person has composed, or several charts in one picture, over the tables that were given.
 * `types`: what the person has said that columns are. Throws what the description makes impossible.
 */
export function chartFrom(
  tables: Table | Readonly<Record<string, Table>>,
  drawn: Drawn,
  types: ColumnTypes = {},
): Chart | Spread {
  return chartOver(tableFrom(tables, types), tables instanceof Table ? {} : tables, drawn)
}

/** The same over a table that is read already. */
export function chartOver(
  table: Table,
  others: Readonly<Record<string, Table>>,
  drawn: Drawn,
): Chart | Spread {
  const own = (description: Description) => chart(table, description, others)
  if (!isSpreadData(drawn)) return own(drawn)
  const { spread: charts, ...around } = drawn
  return spread(charts.map(own), around)
}
