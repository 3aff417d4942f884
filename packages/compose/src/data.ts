import { type Chart, DapploError, lookAt, type Spread, Table, type TableLook } from '@dapplo/core'
import { answeredElsewhere } from '@dapplo/core/internal'
import { type ColumnFacts, type Drawn, factsOf } from '@dapplo/core/sentence'
import { type ColumnTypes, chartOver, tableFrom } from './chart-from.ts'
import type { ComposeOptions } from './options.ts'

/** The data at hand, what is known of their columns, and the charts that can be made of them. */
export class Data {
  readonly table: Table
  /** What columns are read as, where a person has said so. */
  readonly types: ColumnTypes
  private readonly tables: ComposeOptions['tables']
  private readonly given: TableLook | undefined
  private readonly columns: readonly string[] | undefined
  private known: { look: TableLook; facts: readonly ColumnFacts[]; at: unknown } | undefined

  /** `columns`: those that are offered. Default all. */
  constructor(
    tables: ComposeOptions['tables'],
    look?: TableLook,
    columns?: readonly string[],
    types: ColumnTypes = {},
  ) {
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
    this.table = tableFrom(tables, types)
    this.types = types
    this.given = look
    this.columns = columns
    this.tables = tables
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

  /** The same data with a column read as another type. */
  retyped(column: string, type: ColumnTypes[string]): Data {
    return new Data(this.tables, undefined, this.columns, { ...this.types, [column]: type })
  }

  /** The chart of a description, or what makes it impossible. */
  make(drawn: Drawn): Chart | Spread | DapploError {
    try {
      return chartOver(this.table, this.tables instanceof Table ? {} : this.tables, drawn)
    } catch (error) {
      if (error instanceof DapploError) return error
      throw error
    }
  }

  /** The chart of a description, where one can be made. */
  readonly chartOf = (drawn: Drawn): Chart | Spread | undefined => {
    const made = this.make(drawn)
    return made instanceof DapploError ? undefined : made
  }
}
