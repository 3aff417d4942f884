import type { TableColumn } from './column.ts'

const YEARS = /year|jahr|année/i
const IDENTIFIERS = /(^|_)(id|key|nr|no|code)$|[a-z](Id|Key|Nr|No|Code)$/

/**
 * What whole numbers name rather than measure, as far as the name of their column tells: a year or an identifier is
 * written as a number, and neither added up nor compared by size.
 */
export function namedBy(column: TableColumn): 'years' | 'identifiers' | undefined {
  const { cells, name } = column
  if (cells.type !== 'number') return undefined
  const { min, max } = column.extent
  const named = namedAs(name, min, max)
  return named && isWhole(cells.values) && max > min ? named : undefined
}

/** Whether numbers may well be years, whatever their column is called: for those who only suggest something. */
export function maybeYears({ cells, extent: { min, max } }: TableColumn): boolean {
  return cells.type === 'number' && min >= 1900 && max <= 2100 && max > min && isWhole(cells.values)
}

/** A look at the first thousand is enough for what numbers are. */
const isWhole = (values: Float64Array): boolean =>
  values.subarray(0, 1000).every(value => Number.isInteger(value) || Number.isNaN(value))

/** The same by the name of a column and its ends alone, where its values are elsewhere. */
export function namedAs(name: string, min: number, max: number): 'years' | 'identifiers' | undefined {
  if (YEARS.test(name) && min >= 1800 && max <= 2200) return 'years'
  return IDENTIFIERS.test(name) ? 'identifiers' : undefined
}
