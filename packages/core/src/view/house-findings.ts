import type { Finding } from '../finding/error.ts'
import { nearest } from '../finding/nearest.ts'
import type { Table } from '../table/live/table.ts'
import type { House } from '../theme/house.ts'

/** What a house style says of columns, and what changes nothing here: names that are nearly right, and tables made without it. */
export function houseFindings({ columns = {} }: House, tables: readonly Table[]): Finding[] {
  const names = [...new Set(tables.flatMap(table => table.names))]
  return Object.entries(columns).flatMap(([name, told]): Finding[] => {
    const path = `house.columns.${name}`
    if (!names.includes(name)) {
      // A house style is for many charts: what this one does not have, another may.
      const near = nearest(name, names)
      return near === undefined || Object.hasOwn(columns, near)
        ? []
        : [
            {
              code: 'unknown-column',
              message: `No table here has a column "${name}"`,
              remedy: `Did you mean "${near}"?`,
              path,
            },
          ]
    }
    return tables.flatMap(table => {
      const own = table.column(name)?.options
      if (!own || Object.keys(told).every(option => Object.hasOwn(own, option))) return []
      return [
        {
          code: 'no-effect',
          message: `The house style says more of the column "${name}" than ${table.title} was made with`,
          remedy: 'Make the table with it, as in table(rows, { columns: house.columns }).',
          path,
        },
      ]
    })
  })
}
