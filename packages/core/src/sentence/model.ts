import type { Description, SpreadOptions } from '../describe/description.ts'

/** Where something stands in a description: `['draw', 1, 'style', 'color']`. */
export type SettingPath = readonly (string | number)[]

/** One thing that a description says. */
export interface Setting {
  path: SettingPath
  value: unknown
}

/** Words of a sentence that stand for something a description says, and that could say something else. */
export interface SentenceChoice {
  text: string
  path: SettingPath
  value: unknown
}

/** Words between choices, or a choice. */
export type SentencePiece = string | SentenceChoice

/** One line of what is said. */
export interface SentenceLine {
  /** Which chart of several; undefined of a chart by itself, and of what is said of all. */
  chart: number | undefined
  pieces: readonly SentencePiece[]
}

/** A description in words. `descriptionOf` leads back to the very same description. */
export interface ChartSentence {
  /** The words in order; `text` is all of them. */
  pieces: readonly SentencePiece[]
  text: string
  /** The same as lines: of several charts one for each, and the last for what is said of them together. */
  lines: readonly SentenceLine[]
  /** All that is said in words. */
  said: readonly Setting[]
  /** What there are no words for yet: it is kept, and the sentence says that there is more. */
  unsaid: readonly Setting[]
}

/** How a description is put into words. */
export interface SentenceOptions {
  /** Other words, by those that are said without: a translation holds all of `SENTENCE_WORDS`. */
  words?: Readonly<Record<string, string>>
  /** A BCP 47 language tag, for numbers and lists. Default `en`. */
  locale?: string
  /** The types of the table's columns: a column that is called as a phrase is not taken for one, and bars lie where they do. */
  columns?: Readonly<Record<string, 'number' | 'time' | 'text'>>
}

/** A description over any table. */
export type AnyDescription = Description<any>
/** Several charts in one picture, as data: each a description, and what is said of them together. */
export type AnySpread = SpreadOptions & { spread: readonly AnyDescription[] }
/** What a picture is drawn from: a chart, or several in one picture. */
export type Drawn = AnyDescription | AnySpread

/** Whether a description is one of several charts. */
export const isSpreadData = (drawn: Drawn): drawn is AnySpread => 'spread' in drawn

/** The types of a table's columns, as sentences want them. */
export const typesOf = (table: {
  names: readonly string[]
  column(name: string): { type: 'number' | 'time' | 'text' } | undefined
}): NonNullable<SentenceOptions['columns']> =>
  Object.fromEntries(table.names.map(name => [name, table.column(name)!.type]))
