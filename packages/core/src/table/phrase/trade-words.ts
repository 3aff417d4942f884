import { nearest } from '../../finding/nearest.ts'

/** What the trade at large calls summaries, steps of time and the like, by what they are called here. */
export const MEANT_WORDS = {
  sum: ['total', 'sum total', 'add up'],
  mean: ['average', 'avg', 'arithmetic mean'],
  median: ['middle', '50th percentile'],
  min: ['minimum', 'lowest', 'least', 'smallest', 'earliest'],
  max: ['maximum', 'highest', 'greatest', 'largest', 'biggest', 'peak', 'latest'],
  first: ['opening', 'oldest'],
  last: ['closing', 'newest', 'most recent'],
  share: ['percent', 'percentage', 'proportion', 'fraction', 'part'],
  rank: ['ranking', 'place', 'position'],
  'sum so far': ['running total', 'running sum', 'cumulative sum', 'cumulative', 'cumulated', 'accumulated'],
  bins: ['bin', 'histogram', 'binned', 'intervals', 'classes'],
  distinct: [
    'unique',
    'distinct count',
    'count distinct',
    'number of distinct',
    'number of different',
    'different',
  ],
  minute: ['by minute', 'per minute', 'minutes', 'every minute'],
  hour: ['hourly', 'by hour', 'per hour', 'hours'],
  day: ['daily', 'by day', 'per day', 'days', 'date'],
  week: ['weekly', 'by week', 'per week', 'weeks'],
  month: ['monthly', 'by month', 'per month', 'months'],
  quarter: ['quarterly', 'by quarter', 'per quarter', 'quarters'],
  year: ['yearly', 'annual', 'annually', 'by year', 'per year', 'years'],
  weekday: ['day of week', 'day of the week', 'dow'],
  'hour of day': ['time of day', 'hour of the day'],
  'month of year': ['month of the year', 'season'],
} as const satisfies Readonly<Record<string, readonly string[]>>
const MEANT = new Map<string, string>(
  Object.entries(MEANT_WORDS).flatMap(([word, others]) =>
    others.map((other): [string, string] => [other, word]),
  ),
)

/** Phrases that count rows. */
export const ROW_COUNTS = [
  'number of rows',
  'number of records',
  'count of rows',
  'count of records',
  'count(*)',
  'counts',
  'row count',
  'frequency',
  'number',
  'n',
  'how many',
] as const
const COUNTS = new Set<string>(ROW_COUNTS)

/** How people call what rows are a share of. */
const ROWS = /^(?:all )?(?:rows|records|total|counts?)$/

/**
 * What to write for a phrase in the trade's other words, in another case, or without "of"; undefined where none is near.
 * `openings`: what may stand before "of".
 */
export function phraseMeant(
  text: string,
  columns: readonly string[],
  openings: Iterable<string>,
): string | undefined {
  if (text.length > 200) return undefined
  const lower = text.toLowerCase()
  if (COUNTS.has(lower)) return 'Write "count".'
  const own = new Set(openings)
  for (const [word, rest] of splits(lower)) {
    const counted = /^(number|count|no\.|#)$/.test(word)
    const percentile = percentileIn(word)
    const opening = own.has(word) ? word : (MEANT.get(word) ?? percentile)
    if (opening === undefined && !counted) continue
    const column =
      columnNamed(rest, columns) ?? (opening === 'share' && ROWS.test(rest) ? 'count' : undefined)
    if (column === undefined) continue
    // People say it of rows, of different values, and of what a column adds up to.
    if (counted)
      return `Write "count" for rows, "distinct ${column}" for different values, or "sum of ${column}".`
    return opening === 'distinct' ? `Write "distinct ${column}".` : `Write "${opening} of ${column}".`
  }
  return undefined
}

/** The ways to take a phrase apart into a word and what it is about, the longest word first. */
function splits(text: string): [word: string, rest: string][] {
  const called = /^([^()]+)\((.*)\)$/.exec(text)
  const step = /^(.+?),? ((?:by|per) \p{L}+)$/u.exec(text)
  const parts = text.split(' ')
  // "sum(cost)" and "departed, by month"; but names may end in brackets too: "total cost (EUR)".
  const found: [string, string][] = []
  if (called) found.push([called[1].trim(), called[2].trim()])
  if (step) found.push([step[2], step[1]])
  for (let count = Math.min(4, parts.length - 1); count > 0; count--)
    found.push([
      parts.slice(0, count).join(' '),
      parts.slice(parts[count] === 'of' ? count + 1 : count).join(' '),
    ])
  return found
}

/** `p95` of `95th percentile`, `percentile 95`, `q95` and the like. */
function percentileIn(word: string): string | undefined {
  const found =
    /^(?:(\d{1,2}(?:\.\d+)?)(?:st|nd|rd|th)? percentile|percentile (\d{1,2}(?:\.\d+)?)|[pq](\d{1,2}))$/.exec(
      word,
    )
  const number = found?.[1] ?? found?.[2] ?? found?.[3]
  return number === undefined || Number(number) === 0 ? undefined : `p${Number(number)}`
}

function columnNamed(text: string, columns: readonly string[]): string | undefined {
  if (text === '') return undefined
  return columns.find(column => column.toLowerCase() === text) ?? nearest(text, columns)
}
