import type { RowTest } from '../live/selection.ts'
import type { Table } from '../live/table.ts'
import type { Meaning } from '../phrase/meaning.ts'
import { type Shaped, type ShapeOptions, shape } from './shape.ts'
import { type Conditions, rowsPassing, rowsWhere, within } from './where.ts'

/** What a drawing or a heading asks of a table: which of its rows, bound to what, gathered how. */
export interface Question extends Omit<ShapeOptions, 'rows' | 'within'> {
  roles: ReadonlyMap<string, Meaning>
  where?: Conditions
  /** Where the conditions stand in the description, for messages. */
  path?: string
  /** Which of these rows, as others have selected them. */
  test?: RowTest
  /** Only the rows that marks of these questions stand for; with `leader`, those of the mark with the greatest value there. */
  among?: { drawn: readonly Question[]; leader?: string }
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
  const { roles, where, path = 'where', test, among, ...options } = question
  // Groups of rows that meet plain conditions are followed as those of all rows are.
  const followed = where && !test && !among ? within(table, where, path) : undefined
  if (followed) return shape(table, roles, { ...options, within: followed })
  const rows = among ? rowsAmong(table, among) : rowsPassing(table, rowsWhere(table, where, path), test)
  return shape(table, roles, { ...options, rows })
}

/** The rows that marks stand for; undefined for all of them. */
function rowsAmong(table: Table, { drawn, leader }: NonNullable<Question['among']>): Int32Array | undefined {
  if (leader !== undefined) return rowsOfLeader(askColumns(table, drawn[0]), leader)
  const kept = new Uint8Array(table.length)
  for (const question of drawn) {
    const { where, path = 'where', test } = question
    const shaped = keepsSome(question) ? askColumns(table, question) : undefined
    if (shaped)
      for (let mark = 0; mark < shaped.length; mark++)
        for (const row of Array.from(shaped.rowsOf(mark))) kept[row] = 1
    else {
      const rows = rowsPassing(table, rowsWhere(table, where, path), test)
      if (!rows) return undefined
      for (const row of rows) kept[row] = 1
    }
  }
  return Int32Array.from({ length: table.length }, (_, row) => row).filter(row => kept[row] === 1)
}

/** Whether a question leaves out rows beside those of its conditions. */
export const keepsSome = ({ top, roles }: Question): boolean =>
  (top !== undefined && !top.rest) || [...roles.values()].some(({ top, rest }) => top !== undefined && !rest)

function rowsOfLeader(shaped: Shaped, role: string): Int32Array {
  const cells = shaped.roles.get(role)?.cells
  let lead = -1
  if (cells && cells.type !== 'text')
    for (let mark = 0; mark < shaped.length; mark++)
      if (!Number.isNaN(cells.values[mark]) && (lead < 0 || cells.values[mark] > cells.values[lead]))
        lead = mark
  return Int32Array.from(lead < 0 ? [] : shaped.rowsOf(lead))
}

/** What stands for an answer that is not there: no marks, in the types that they will have. */
export function unanswered(table: Table, question: Question, why: Shaped['unanswered']): Shaped {
  const { roles, test: _, where: __, path: ___, among: ____, ...options } = question
  const nothing = shape(table, roles, { ...options, rows: new Int32Array(0) })
  return { ...nothing, length: 0, unanswered: why }
}
