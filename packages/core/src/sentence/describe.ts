import type { AnyDescription, Drawn, SentenceOptions } from './model.ts'
import { typesOf } from './model.ts'
import { sentenceOf } from './sentence.ts'

/** A chart, or several in one picture, as far as it is put into words. */
type Described =
  | { description: AnyDescription; table: Parameters<typeof typesOf>[0] }
  | {
      description: object
      charts: readonly { description: AnyDescription; table: Parameters<typeof typesOf>[0] }[]
    }

/** What a chart, or several in one picture, are drawn from, as data. */
export const drawnOf = (shown: Described): Drawn =>
  'charts' in shown
    ? { ...shown.description, spread: shown.charts.map(({ description }) => description) }
    : shown.description

/** A chart or a spread in words, for people who review it, or hear it. Throws `bad-locale` for a language that is none. */
export function describe(shown: Described, options: Omit<SentenceOptions, 'columns'> = {}): string {
  const charts = 'charts' in shown ? shown.charts : [shown]
  // A column has one type wherever it is found first.
  const columns = Object.assign({}, ...[...charts].reverse().map(({ table }) => typesOf(table)))
  return sentenceOf(drawnOf(shown), { ...options, columns }).text
}
