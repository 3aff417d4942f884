import type { RowTest } from '../live/selection.ts'
import type { Table } from '../live/table.ts'
import type { Meaning } from '../phrase/meaning.ts'
import { type Shaped, type ShapeOptions, shape } from './shape.ts'
import { type Conditions, rowsPassing, rowsWhere } from './where.ts'

/** What a drawing or a heading asks of a table: which of its rows, bound to what, gathered how. */
export interface Question extends Omit<ShapeOptions, 'rows'> {
  roles: ReadonlyMap<string, Meaning>
  where?: Conditions
  /** Where the conditions stand in the description, for messages. */
  path?: string
  /** Which of these rows, as others have selected them. */
  test?: RowTest
}

/** The marks asked for: at once, or in time. */
export type Answer = Shaped | Promise<Shaped>

/** Answers the questions about one table. */
export type Shaper = (table: Table, question: Question) => Answer

const shapers = new WeakMap<Table, Shaper>()

/** Has questions about a table answered by something else than its own columns, such as an engine that holds its rows. */
export function answeredBy(table: Table, shaper: Shaper): void {
  shapers.set(table, shaper)
}

/** Asks a table. Its own columns answer at once. */
export const ask: Shaper = (table, question) => (shapers.get(table) ?? askColumns)(table, question)

/** What a table's own columns answer. */
export function askColumns(table: Table, question: Question): Shaped {
  const { roles, where, path = 'where', test, ...options } = question
  return shape(table, roles, { ...options, rows: rowsPassing(table, rowsWhere(table, where, path), test) })
}

/** What stands for an answer that is not there: no marks, in the types that they will have. */
export function unanswered(table: Table, question: Question, why: Shaped['unanswered']): Shaped {
  const { roles, test: _, where: __, path: ___, ...options } = question
  const nothing = shape(table, roles, { ...options, rows: new Int32Array(0) })
  return { ...nothing, length: 0, unanswered: why }
}
