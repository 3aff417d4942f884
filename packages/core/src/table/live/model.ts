import type { Column } from '../cells/options.ts'
import type { CellParts } from '../read/plain-csv.ts'

/** A number that goes up with every change: what reads its `value` while it is worked out is worked out again. */
export interface Counter {
  value: number
  /** The value, without following it. */
  peek(): number
}

/** What a table is told beside its rows. */
export interface TableOptions<R = any> {
  /** Used in messages and, in JSON, to refer to the table. Default `table`. */
  name?: string
  /** What its rows are, as people read it, such as `Sailings`: so counts of them are called. Default `Count`. */
  rowsAre?: string
  /** The column or columns whose values identify a row. Default: the order of arrival. */
  key?: (keyof R & string) | (keyof R & string)[]
  columns?: { [name in keyof R & string]?: Column }
  /** Zone in which times without an offset are read, where the column names none. Default UTC. */
  timeZone?: string
}

/** Raw values by column, before they are read. */
export interface RawColumns {
  names: string[]
  columns: ArrayLike<unknown>[]
  /** Words that a text column already has, in the order of their codes: colours go by them. */
  words?: Record<string, readonly string[]>
  /** The columns part by part, in their place. */
  parts?: CellParts
  /** Text line of a row, for messages. */
  lineOf?: (row: number) => number
}
