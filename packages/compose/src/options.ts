import type { Chart, House, Spread, Table, TableLook } from '@dapplo/core'
import type { Drawn } from '@dapplo/core/sentence'
import type { Live } from 'dapplo'
import type { ColumnTypes } from './chart-from.ts'
import type { Allowed } from './choose/model.ts'

/** What a composer is given. */
export interface ComposeOptions {
  /** The data at hand: one table, or several by name, of which the first is the chart's own. */
  tables: Table | Readonly<Record<string, Table>>
  /** What is in the columns of the chart's own table, where its rows are elsewhere: `await lookFar(table)` of `dapplo/far`. */
  look?: TableLook
  /** What is drawn at first. Default: a person chooses among charts that are worth seeing for the data. */
  chart?: Drawn | Chart | Spread
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
  /** Told of the description after each step: of a chart, or of several in one picture, which `chartFrom` makes a chart of. */
  onChange?: (description: Drawn) => void
  /** What columns are read as at first, where that is not what they were found to be: as `onTypes` told of it. */
  types?: ColumnTypes
  /**
   * Told of what columns are read as once a person has corrected it; `chartFrom` takes it along with the description. Without
   * it, columns stay what they were found to be.
   */
  onTypes?: (types: ColumnTypes) => void
  /** Told when the person is done. */
  onDone?: (description: Drawn) => void
}

/** A composer on a page. */
export interface Composed {
  readonly element: HTMLElement
  /** What is drawn now; undefined before a person has begun. */
  readonly description: Drawn | undefined
  /** The chart on the page, once a person has begun. */
  readonly live: Live | undefined
  /** What is drawn now, in words. */
  readonly sentence: string
  /** Draws something else, as one step that can be undone. Throws what the description makes impossible. */
  show(description: Drawn): void
  undo(): void
  redo(): void
  /** Goes back to what was drawn at first. */
  restart(): void
  /** Takes the composer off the page. */
  destroy(): void
}
