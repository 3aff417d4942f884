import Papa from 'papaparse'

/** Rows ready to be read in: as CSV, with the types of their columns. */
export interface CsvRows {
  csv: string
  types: Record<string, 'TIMESTAMP' | 'DATE' | 'DOUBLE' | 'BOOLEAN' | 'VARCHAR'>
}

/** Rows as CSV; times as clocks show them in UTC. */
export const csvOf = (rows: unknown[][]): string =>
  Papa.unparse(
    rows.map(row => row.map(value => (value instanceof Date ? value.toISOString().replace('Z', '') : value))),
    // An empty text is quoted, and what is missing is not.
    { quotes: value => typeof value === 'string' },
  )
