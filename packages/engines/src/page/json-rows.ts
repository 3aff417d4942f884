import { readJson, readLines } from '@dapplo/core'
import Papa from 'papaparse'
import type { CsvRows } from './parquet.ts'

const TYPES = { number: 'DOUBLE', time: 'TIMESTAMP', text: 'VARCHAR' } as const

/** The rows of a JSON text, ready to be read in: they are read as tables of a page are, so that a column is the same in both. */
export function readJsonRows(text: string, lines: boolean): CsvRows {
  const rows = lines ? readLines(text) : readJson(text)
  const { names } = rows
  const types: CsvRows['types'] = {}
  for (const name of names) {
    const column = rows.column(name)!
    types[name] = column.dateUnit === 'day' ? 'DATE' : TYPES[column.type]
  }
  const columns = names.map(name => rows.column(name)!)
  const csv = Papa.unparse(
    Array.from({ length: rows.length }, (_, row) =>
      columns.map(column => {
        const value = column.value(row)
        if (!(value instanceof Date)) return value
        const iso = value.toISOString().replace('Z', '')
        return column.dateUnit === 'day' ? iso.slice(0, 10) : iso
      }),
    ),
    // An empty text is quoted, and what is missing is not.
    { quotes: value => typeof value === 'string' },
  )
  return { csv, types }
}
