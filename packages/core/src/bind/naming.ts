import { readableName, type TableColumn } from '../table/cells/column.ts'
import type { RoleValues } from '../table/group/shape.ts'
import type { Table } from '../table/live/table.ts'
import { type BucketUnit, type Meaning, shareOfPercentile } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'

const HOWS = {
  mean: 'Mean {what}',
  median: 'Median {what}',
  min: 'Lowest {what}',
  max: 'Highest {what}',
  first: 'First {what}',
  last: 'Last {what}',
  distinct: 'Distinct {what}',
} as const

const CYCLES = {
  'hour of day': 'Hour of day',
  weekday: 'Weekday',
  'day of month': 'Day of month',
  'day of year': 'Day of year',
  'month of year': 'Month of year',
} as const

/** What people read for a value: `Passengers`, `Mean delay`, `Share of revenue`. */
export function labelOf(meaning: Meaning, table: Table, tongue: Tongue): string {
  if (meaning.label !== undefined) return meaning.label
  const name = (column: string | undefined) =>
    column === undefined
      ? (table.rowsAre ?? tongue.say('Count'))
      : (table.column(column)?.label ?? readableName(column))
  const inside = (column: string | undefined) => tongue.lower(name(column))
  switch (meaning.is) {
    case 'column':
    case 'bucket':
    case 'bins':
      return name(meaning.column)
    case 'cycle':
      return tongue.say(CYCLES[meaning.cycle])
    case 'ratio':
      return tongue.say('{what} / {total}', { what: name(meaning.column), total: inside(meaning.to) })
    case 'summary':
      if (meaning.how === 'count' || meaning.how === 'sum') return name(meaning.column)
      if (shareOfPercentile(meaning.how) !== undefined)
        return tongue.say('P{number} of {what}', {
          number: meaning.how.slice(1),
          what: inside(meaning.column),
        })
      return tongue.say(HOWS[meaning.how as keyof typeof HOWS], { what: inside(meaning.column) })
    case 'window':
      if (meaning.how === 'share') return tongue.say('Share of {what}', { what: inside(meaning.column) })
      if (meaning.how === 'rank') return tongue.say('Rank by {what}', { what: inside(meaning.column) })
      return tongue.say('{what} so far', { what: name(meaning.column) })
    case 'value':
      return String(meaning.value)
  }
}

/** The title of a measure's axis; a total over a time bucket says so: `Passengers per day`. */
export function measureTitle(
  values: RoleValues,
  other: RoleValues | undefined,
  table: Table,
  tongue: Tongue,
): string {
  const { meaning, column } = values
  const what = labelOf(meaning, table, tongue)
  const total = meaning.is === 'summary' && (meaning.how === 'sum' || meaning.how === 'count')
  const title =
    total && other?.meaning.is === 'bucket' && meaning.label === undefined
      ? tongue.say(`{what} per ${other.meaning.unit}`, { what })
      : what
  const unit = column?.options.unit && !(meaning.is === 'window') ? `, ${column.options.unit}` : ''
  return `${title}${unit}`
}

/** The unit of the calendar that a time names: its bucket's, else a day or a month where its column has no clock. */
export const unitOf = ({
  meaning,
  column,
}: Pick<RoleValues, 'meaning' | 'column'>): BucketUnit | undefined =>
  meaning.is === 'bucket' ? meaning.unit : column?.dateUnit

/** How the numbers of a meaning are written: the column's way, but shares in percent and counts whole. */
export function lookOf(values: RoleValues): {
  percent: boolean
  whole: boolean
  plain: boolean
  format: RoleValues['meaning']['format']
} {
  const { meaning, column } = values
  const percent =
    (meaning.is === 'ratio' && isShare(values.cells)) || (meaning.is === 'window' && meaning.how === 'share')
  const counts =
    (meaning.is === 'summary' && (meaning.how === 'count' || meaning.how === 'distinct')) ||
    (meaning.is === 'window' && (meaning.how === 'rank' || meaning.how === 'count so far'))
  return {
    percent,
    whole: counts,
    plain: meaning.is === 'column' && column !== undefined && readsAsYears(column, values),
    format: meaning.format ?? (percent || counts ? undefined : column?.options.format),
  }
}

/** Ratios beyond twice the whole are no shares of it: revenue by passengers is so much for each. */
const MOST_SHARE = 2

const shares = new WeakMap<object, boolean>()

/** Whether ratios are read as shares of a whole. */
function isShare(cells: RoleValues['cells']): boolean {
  if (cells.type === 'text') return false
  let known = shares.get(cells)
  if (known === undefined) {
    known = cells.values.every(value => !(Math.abs(value) > MOST_SHARE))
    shares.set(cells, known)
  }
  return known
}

/** Whether a bin that begins here is the open one, which holds all from there on. */
export const isOpenBin = (meaning: Meaning, start: number): boolean =>
  meaning.is === 'bins' && meaning.until !== undefined && start >= meaning.until - 1e-9

/** Whole numbers around the years that people speak of: `1987` is read as a year, `1,987` as a quantity. */
function readsAsYears({ cells, extent: { min, max } }: TableColumn, values: RoleValues): boolean {
  if (cells.type !== 'number') return false
  const year = (value: number) =>
    Number.isNaN(value) || (Number.isInteger(value) && value > 1499 && value < 2201)
  // Of rows that are elsewhere no more may be known than those that came.
  const known = min <= max ? [min, max] : (values.reach ?? (values.cells as typeof cells).values ?? [])
  // A look at the first thousand is enough for how numbers are written.
  return (known as number[]).every(year) && cells.values.subarray(0, 1000).every(year)
}
