import type { Chart, Description, House, Table, TableLook } from '@dapplo/core'
import type { Live } from 'dapplo'
import type { Allowed } from './choose/model.ts'

/** What a composer is given. */
export interface ComposeOptions {
  /** The data at hand: one table, or several by name, of which the first is the chart's own. */
  tables: Table | Readonly<Record<string, Table>>
  /** What is in the columns of the chart's own table, where its rows are elsewhere: `await lookFar(table)` of `dapplo/far`. */
  look?: TableLook
  /** What is drawn at first. Default: a person chooses among charts that are worth seeing for the data. */
  chart?: Description | Chart
  /** What a person may change. Default everything. */
  allow?: Allowed & {
    /** Whether a CSV file may be dropped in instead of the data. Default false. */
    files?: boolean
  }
  theme?: 'day' | 'night' | 'auto'
  /** A BCP 47 language tag. Default `en`. */
  locale?: string
  house?: House
  /** The words of sentences and of the composer in another language, by those that are said without: `germanWords`. */
  words?: Readonly<Record<string, string>>
  /** Told of the description after each step. */
  onChange?: (description: Description) => void
  /** Told when the person is done. */
  onDone?: (description: Description) => void
}

/** A composer on a page. */
export interface Composed {
  readonly element: HTMLElement
  /** What is drawn now; undefined before a person has begun. */
  readonly description: Description | undefined
  /** The chart on the page, once a person has begun. */
  readonly live: Live | undefined
  /** What is drawn now, in words. */
  readonly sentence: string
  /** Draws something else, as one step that can be undone. Throws what the description makes impossible. */
  show(description: Description): void
  undo(): void
  redo(): void
  /** Goes back to what was drawn at first. */
  restart(): void
  /** Takes the composer off the page. */
  destroy(): void
}
