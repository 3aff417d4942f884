import { type Cells, cellText } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Column } from '../cells/options.ts'

/** What stands in the cells of a column that is read as another type, and what is still true of it then. */
export function retyped(
  column: TableColumn,
  type: Cells['type'],
): { values: ArrayLike<unknown>; options: Column } {
  const { cells, options } = column
  const { label, timeZone } = options
  // Formats, and how its texts were read, were those of the other type.
  const kept: Column = { label, timeZone, type }
  if (cells.type === 'text') {
    const { codes, words } = cells
    const read = type === 'time' ? words.map(word => dateText(word)) : words
    return { values: Array.from(codes, code => (code < 0 ? null : read[code])), options: kept }
  }
  if (type === 'text') return { values: Array.from(cells.values, textOf(column)), options: kept }
  return {
    values: type === 'time' ? Array.from(cells.values, value => dateText(value)) : cells.values,
    options: kept,
  }
}

/** Four figures are a year and eight a day; another number is milliseconds since 1970. */
function dateText(value: number | string): unknown {
  const text = String(value).trim()
  if (/^\d{4}$/.test(text)) return `${text}-01-01`
  const day = /^(\d{4})(\d{2})(\d{2})$/.exec(text)
  if (day) return `${day[1]}-${day[2]}-${day[3]}`
  return typeof value === 'string' ? value : Number.isNaN(value) ? null : new Date(value)
}

const textOf = (column: TableColumn) => {
  const write = column.type === 'time' ? columnNames(column) : (row: number) => cellText(column.cells, row)
  return (_: number, row: number): string | null => write(row) || null
}

/** What all times of a column end with, and how much of them is left then: years, months, days, minutes. */
const ENDS = [
  [4, '-01-01T00:00:00.000Z'],
  [7, '-01T00:00:00.000Z'],
  [10, 'T00:00:00.000Z'],
  [16, ':00.000Z'],
] as const

/** A column's values as names: of times as little as tells when they are, as in 2024 or 2024-03. */
export function columnNames({ cells, zone }: TableColumn): (row: number) => string {
  if (cells.type !== 'time') return row => cellText(cells, row)
  const texts = Array.from(cells.values, time =>
    Number.isNaN(time) ? '' : new Date(time + zone.offsetAt(time)).toISOString(),
  )
  const cut = ENDS.find(([, end]) => texts.every(text => text === '' || text.endsWith(end)))?.[0]
  return row => texts[row].slice(0, cut)
}
