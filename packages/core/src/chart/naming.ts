import { readableName } from '../table/column.ts'
import type { Meaning } from '../table/meaning.ts'
import type { RoleValues } from '../table/shape.ts'
import type { Table } from '../table/table.ts'

const HOWS: Record<string, string> = {
  mean: 'Mean',
  median: 'Median',
  min: 'Least',
  max: 'Greatest',
  first: 'First',
  last: 'Last',
}

export const lower = (label: string) =>
  /^\p{Lu}\p{Ll}/u.test(label) ? label[0].toLowerCase() + label.slice(1) : label

/** What people read for a value: `Passengers`, `Mean delay`, `Share of revenue`. */
export function labelOf(meaning: Meaning, table: Table): string {
  if (meaning.label !== undefined) return meaning.label
  const name = (column: string | undefined) =>
    column === undefined ? rowsName(table) : (table.column(column)?.label ?? readableName(column))
  switch (meaning.is) {
    case 'column':
    case 'bucket':
    case 'bins':
      return name(meaning.column)
    case 'cycle':
      return readableName(meaning.cycle)
    case 'ratio':
      return `${name(meaning.column)} / ${lower(name(meaning.to))}`
    case 'summary':
      if (meaning.how === 'count' || meaning.how === 'sum') return name(meaning.column)
      return meaning.how === 'distinct'
        ? `Distinct ${lower(name(meaning.column))}`
        : `${HOWS[meaning.how]} ${lower(name(meaning.column))}`
    case 'window':
      if (meaning.how === 'share') return `Share of ${lower(name(meaning.column))}`
      if (meaning.how === 'rank') return `Rank by ${lower(name(meaning.column))}`
      return `${name(meaning.column)} so far`
    case 'value':
      return String(meaning.value)
  }
}

/** Rows are called what the table is called, where it has a name. */
function rowsName(table: Table): string {
  return table.name === 'table' ? 'Count' : readableName(table.name)
}

/** The title of a measure's axis; a total over a time bucket says so: `Passengers per day`. */
export function measureTitle(values: RoleValues, other: RoleValues | undefined, table: Table): string {
  const { meaning, column } = values
  const label = labelOf(meaning, table)
  const total = meaning.is === 'summary' && (meaning.how === 'sum' || meaning.how === 'count')
  const per =
    total && other?.meaning.is === 'bucket' && meaning.label === undefined ? ` per ${other.meaning.unit}` : ''
  const unit = column?.options.unit && !(meaning.is === 'window') ? `, ${column.options.unit}` : ''
  return `${label}${per}${unit}`
}

/** How the numbers of a meaning are written: the column's way, but shares in percent and counts whole. */
export function lookOf(values: RoleValues): {
  percent: boolean
  whole: boolean
  plain: boolean
  format: RoleValues['meaning']['format']
} {
  const { meaning, column } = values
  const percent = meaning.is === 'ratio' || (meaning.is === 'window' && meaning.how === 'share')
  const counts =
    (meaning.is === 'summary' && (meaning.how === 'count' || meaning.how === 'distinct')) ||
    (meaning.is === 'window' && (meaning.how === 'rank' || meaning.how === 'count so far'))
  return {
    percent,
    whole: counts,
    plain: meaning.is === 'column' && column !== undefined && readsAsYears(column),
    format: meaning.format ?? (percent || counts ? undefined : column?.options.format),
  }
}

/** Whole numbers around the years that people speak of: `1987` is read as a year, `1,987` as a quantity. */
function readsAsYears({ cells, extent }: NonNullable<RoleValues['column']>): boolean {
  return (
    cells.type === 'number' &&
    extent.min >= 1500 &&
    extent.max <= 2200 &&
    // A look at the first thousand is enough for how numbers are written.
    cells.values.subarray(0, 1000).every(value => Number.isInteger(value) || Number.isNaN(value))
  )
}
