import { isMeasure, LENGTH, type Meaning, readPhrase } from '@dapplo/core/internal'
import type { ColumnFacts } from '@dapplo/core/sentence'
import type { Place } from './model.ts'

/** What a role wants to be bound to. */
export type Wanted = 'measure' | 'place' | 'names' | 'number' | 'played'

const STEPS = ['month', 'day', 'year', 'week', 'quarter', 'hour'] as const
const CYCLES = ['weekday', 'hour of day', 'month of year']

/** Steps of time that make a readable number of places, best first. */
function stepsOf({ min, max }: ColumnFacts): string[] {
  const count = (step: (typeof STEPS)[number]) => (max - min) / LENGTH[step]
  const far = (step: (typeof STEPS)[number]) => Math.abs(Math.log(count(step) / 30))
  return STEPS.filter(step => count(step) >= 2 && count(step) <= 2000).sort((a, b) => far(a) - far(b))
}

/** Columns that name things, those with the fewest names first. */
export const namesIn = ({ facts }: Pick<Place, 'facts'>): string[] =>
  facts
    .filter(({ is }) => is === 'category')
    .sort((a, b) => a.distinct - b.distinct)
    .map(({ name }) => name)

/** Phrases over the columns at hand for a role, the likeliest first. */
export function phrasesFor(wanted: Wanted, place: Pick<Place, 'facts'>): string[] {
  const of = (is: ColumnFacts['is']) => place.facts.filter(column => column.is === is)
  const plain = (is: ColumnFacts['is']) => of(is).map(({ name }) => name)
  const over = (is: ColumnFacts['is'], ...words: string[]) =>
    of(is).flatMap(({ name }) => words.map(word => `${word} of ${name}`))
  const summed = of('measure').flatMap(({ name, adds }) =>
    adds ? [`sum of ${name}`, `mean of ${name}`] : [`mean of ${name}`, `sum of ${name}`],
  )
  const rarer = over('measure', 'median', 'min', 'max', 'p90')
  const buckets = of('time').flatMap(column => stepsOf(column).map(step => `${step} of ${column.name}`))
  const cycles = over('time', ...CYCLES)
  const names = namesIn(place)
  switch (wanted) {
    case 'measure':
      return [
        ...summed,
        'count',
        ...plain('measure'),
        ...rarer,
        ...names,
        ...[...names, ...plain('identifier')].map(name => `distinct ${name}`),
        ...over('measure', 'share'),
        ...over('measure', 'sum so far'),
      ]
    case 'number':
      return [...plain('measure'), ...summed, 'count', ...rarer]
    case 'names':
      return [...names, ...cycles, ...buckets, ...plain('measure')]
    case 'played':
      return [...buckets, ...cycles, ...names]
    case 'place':
      return [
        ...buckets,
        ...names,
        ...cycles,
        ...plain('time'),
        ...plain('measure'),
        ...over('measure', 'bins'),
        ...summed,
        'count',
        ...plain('identifier'),
      ]
  }
}

/** What is bound, as the library reads it; undefined for what it cannot read. */
export function meaningOf(bind: unknown, { table }: Pick<Place, 'table'>): Meaning | undefined {
  if (bind === undefined || bind === null) return undefined
  try {
    return readPhrase(bind, table, '')
  } catch {
    return undefined
  }
}

/** Whether what is bound sums rows up. */
export function sumsUp(bind: unknown, place: Pick<Place, 'table'>): boolean {
  const meaning = meaningOf(bind, place)
  return meaning !== undefined && isMeasure(meaning)
}
