import type { ColumnFacts } from '@dapplo/core/sentence'

/** What a role wants to be bound to. */
export type Wanted = 'measure' | 'place' | 'names' | 'number' | 'played'

const STEPS = ['month', 'day', 'year', 'week', 'quarter', 'hour']
const CYCLES = ['weekday', 'hour of day', 'month of year']
const DAY = 86_400_000

/** Steps of time that make a readable number of places, best first. */
function stepsOf({ min, max }: ColumnFacts): string[] {
  const days = (max - min) / DAY
  const length: Record<string, number> = {
    hour: 1 / 24,
    day: 1,
    week: 7,
    month: 30.4,
    quarter: 91.3,
    year: 365.25,
  }
  const count = (step: string) => days / length[step]
  const fits = (step: string) => count(step) >= 2 && count(step) <= 2000
  return STEPS.filter(fits).sort(
    (a, b) => Math.abs(Math.log(count(a) / 30)) - Math.abs(Math.log(count(b) / 30)),
  )
}

/** Phrases over the columns at hand for a role, the likeliest first. */
export function phrasesFor(wanted: Wanted, facts: readonly ColumnFacts[]): string[] {
  const of = (...is: ColumnFacts['is'][]) => facts.filter(column => is.includes(column.is))
  const times = of('time')
  const measures = of('measure')
  const names = of('category').sort((a, b) => a.distinct - b.distinct)
  const summed = measures.flatMap(({ name, adds }) =>
    adds ? [`sum of ${name}`, `mean of ${name}`] : [`mean of ${name}`, `sum of ${name}`],
  )
  const rarer = measures.flatMap(({ name }) => [
    `median of ${name}`,
    `min of ${name}`,
    `max of ${name}`,
    `p90 of ${name}`,
  ])
  const buckets = times.flatMap(column => stepsOf(column).map(step => `${step} of ${column.name}`))
  const cycles = times.flatMap(({ name }) => CYCLES.map(cycle => `${cycle} of ${name}`))
  const plain = (columns: readonly ColumnFacts[]) => columns.map(({ name }) => name)
  switch (wanted) {
    case 'measure':
      return [
        ...summed,
        'count',
        ...plain(measures),
        ...rarer,
        ...plain(names),
        ...of('category', 'identifier').map(({ name }) => `distinct ${name}`),
        ...measures.map(({ name }) => `share of ${name}`),
        ...measures.map(({ name }) => `sum so far of ${name}`),
      ]
    case 'number':
      return [...plain(measures), ...summed, 'count', ...rarer]
    case 'names':
      return [...plain(names), ...cycles, ...buckets, ...plain(measures)]
    case 'played':
      return [...buckets, ...cycles, ...plain(names)]
    case 'place':
      return [
        ...buckets,
        ...plain(names),
        ...cycles,
        ...plain(times),
        ...plain(measures),
        ...measures.map(({ name }) => `bins of ${name}`),
        ...summed,
        'count',
        ...plain(of('identifier')),
      ]
  }
}

const BUCKETS =
  /^(minute|hour|day|week|month|quarter|year|hour of day|weekday|day of month|day of year|month of year|bins) of /

/** Whether what is bound sums rows up: a column may be called as if it did. */
export function sumsUp(bind: unknown, { facts }: { facts: readonly ColumnFacts[] }): boolean {
  if (typeof bind !== 'string') return bind !== null && typeof bind === 'object' && 'ratio' in bind
  if (facts.some(({ name }) => name === bind)) return false
  return (
    bind === 'count' ||
    ((/^(count|distinct) /.test(bind) || /^\S+( so far)? of /.test(bind)) && !BUCKETS.test(bind))
  )
}
