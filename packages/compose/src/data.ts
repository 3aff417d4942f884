import { type Chart, chart, DapploError, type Description, lookAt, Table, type TableLook } from '@dapplo/core'
import { answeredElsewhere } from '@dapplo/core/internal'
import { type ColumnFacts, factsOf } from '@dapplo/core/sentence'
import type { ComposeOptions } from './options.ts'

/** The data at hand, what is known of their columns, and the charts that can be made of them. */
export class Data {
  readonly table: Table
  private readonly others: Readonly<Record<string, Table>>
  private known: { look: TableLook; facts: readonly ColumnFacts[]; at: unknown } | undefined

  private readonly given: TableLook | undefined

  constructor(tables: ComposeOptions['tables'], look?: TableLook) {
    const [first] = tables instanceof Table ? [tables] : Object.values(tables ?? {})
    if (!(first instanceof Table))
      throw new DapploError(
        'bad-rows',
        'A composer needs a table',
        'tables',
        'Make one with table(rows) or readCsv(text), and give it as tables.',
      )
    // Rows that are elsewhere are looked at by whoever has them.
    if (!look && answeredElsewhere(first))
      throw new DapploError(
        'bad-rows',
        'The rows of the table are elsewhere, and nobody has looked at them',
        'look',
        'Give what is in its columns: look: await lookFar(table), from dapplo/far.',
      )
    this.table = first
    this.given = look
    this.others = tables instanceof Table ? {} : tables
  }

  /** What each column is; looked at anew once the table has changed. */
  get facts(): readonly ColumnFacts[] {
    return this.now.facts
  }

  /** What is in the columns. */
  get look(): TableLook {
    return this.now.look
  }

  private get now() {
    const at = this.table.version.value
    if (this.known?.at !== at) {
      const look = this.given ?? lookAt(this.table)
      this.known = { look, facts: factsOf(this.table, look), at }
    }
    return this.known
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
