import { type Chart, chart, DapploError, type Description, Table } from '@dapplo/core'
import { type ColumnFacts, factsOf } from '@dapplo/core/sentence'
import type { ComposeOptions } from './options.ts'

/** The data at hand, what is known of their columns, and the charts that can be made of them. */
export class Data {
  readonly table: Table
  private readonly others: Readonly<Record<string, Table>>
  private known: { facts: readonly ColumnFacts[]; at: unknown } | undefined

  constructor(tables: ComposeOptions['tables']) {
    const [first] = tables instanceof Table ? [tables] : Object.values(tables ?? {})
    if (!(first instanceof Table))
      throw new DapploError(
        'bad-rows',
        'A composer needs a table',
        'tables',
        'Make one with table(rows) or readCsv(text), and give it as tables.',
      )
    this.table = first
    this.others = tables instanceof Table ? {} : tables
  }

  /** What each column is; looked at anew once the table has changed. */
  get facts(): readonly ColumnFacts[] {
    const at = this.table.version.value
    if (this.known?.at !== at) this.known = { facts: factsOf(this.table), at }
    return this.known.facts
  }

  /** Throws what the description makes impossible. */
  chart(description: Description): Chart {
    return chart(this.table, description, this.others)
  }

  /** What makes a description impossible; undefined where it can be drawn. */
  fault(description: Description): DapploError | undefined {
    try {
      this.chart(description)
      return undefined
    } catch (error) {
      if (error instanceof DapploError) return error
      throw error
    }
  }

  /** The chart of a description, where one can be made. */
  readonly chartOf = (description: Description): Chart | undefined =>
    this.fault(description) ? undefined : this.chart(description)
}
