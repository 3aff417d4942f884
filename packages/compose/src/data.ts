import { Chart, chart, DapploError, type Description, lookAt, Table, type TableLook } from '@dapplo/core'
import { answeredElsewhere } from '@dapplo/core/internal'
import { type ColumnFacts, factsOf } from '@dapplo/core/sentence'
import type { ComposeOptions } from './options.ts'

/** The data at hand, what is known of their columns, and the charts that can be made of them. */
export class Data {
  readonly table: Table
  private readonly others: Readonly<Record<string, Table>>
  private readonly given: TableLook | undefined
  private readonly columns: readonly string[] | undefined
  private known: { look: TableLook; facts: readonly ColumnFacts[]; at: unknown } | undefined

  /** `columns`: those that are offered. Default all. */
  constructor(tables: ComposeOptions['tables'], look?: TableLook, columns?: readonly string[]) {
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
    this.columns = columns
    this.others = tables instanceof Table ? {} : tables
  }

  /** What each column that is offered is; looked at anew once the table has changed. */
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
      const whole = this.given ?? lookAt(this.table)
      const offered = whole.columns.filter(({ name }) => !this.columns || this.columns.includes(name))
      const look = { ...whole, columns: offered }
      this.known = { look, facts: factsOf(this.table, look), at }
    }
    return this.known
  }

  /** The chart of a description, or what makes it impossible. */
  make(description: Description): Chart | DapploError {
    try {
      return chart(this.table, description, this.others)
    } catch (error) {
      if (error instanceof DapploError) return error
      throw error
    }
  }

  /** The chart of a description, where one can be made. */
  readonly chartOf = (description: Description): Chart | undefined => {
    const made = this.make(description)
    return made instanceof Chart ? made : undefined
  }
}
