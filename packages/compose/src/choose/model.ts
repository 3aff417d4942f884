import type { Description, Table, TableLook } from '@dapplo/core'
import type { ColumnFacts, Drawn, SettingPath } from '@dapplo/core/sentence'

/** What a person who composes may change. */
export interface Allowed {
  /** The columns that are offered. Default all. */
  columns?: readonly string[]
  /** The kinds that are offered. Default all. */
  kinds?: readonly string[]
  /** The parts of the description that may be changed or added, such as `x`, `title` or `where`. Default all. */
  options?: readonly string[]
}

/** What choices are made from. */
export interface Place {
  table: Table
  facts: readonly ColumnFacts[]
  look: TableLook
  description: Description
  allowed: Allowed
}

/** What a word could say instead. */
export interface Option {
  /** In the words of sentences; `holes` fill them. */
  words: string
  holes?: Readonly<Record<string, string>>
  /** Whether the words are a phrase. */
  phrase?: boolean
  /** What is drawn with it. */
  next: Drawn
  /** What is changed, which is looked at next. */
  path: SettingPath
  /** A colour that is shown beside the words. */
  colour?: string
  /** Whether it is what is said now. */
  now?: boolean
  /** The heading under which it stands. */
  group?: string
}

/** What a person may write instead of choosing. */
export interface Writing {
  label: string
  value: string
  kind: 'words' | 'number'
  next(text: string): Drawn | undefined
}

/** What a word of the sentence offers. */
export interface Offer {
  options: readonly Option[]
  writings: readonly Writing[]
}
