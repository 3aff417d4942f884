import { readJson, readLines } from '@dapplo/core'
import { type CsvRows, csvOf } from './csv-rows.ts'

const TYPES = { number: 'DOUBLE', time: 'TIMESTAMP', text: 'VARCHAR' } as const

/** The rows of a JSON text, ready to be read in: they are read as tables of a page are, so that a column is the same in both. */
export function readJsonRows(text: string, lines: boolean): CsvRows {
  const rows = lines ? readLines(text) : readJson(text)
  const columns = rows.names.map(name => rows.column(name)!)
  const types: CsvRows['types'] = {}
  for (const { name, type, dateUnit } of columns) types[name] = dateUnit === 'day' ? 'DATE' : TYPES[type]
  const csv = csvOf(
    Array.from({ length: rows.length }, (_, row) =>
      columns.map(column => {
        const value = column.value(row)
        return value instanceof Date && column.dateUnit === 'day' ? value.toISOString().slice(0, 10) : value
      }),
    ),
  )
  return { csv, types }
}
