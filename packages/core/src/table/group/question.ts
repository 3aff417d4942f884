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
  /**
   * What may stand for rows that are too many to be fetched one by one: the ends and extremes of stretches along x, places
   * with how many rows lie there, the middles of stretches with how far rows spread there, or rows evenly chosen. Tables whose rows are here have no need of it.
   */
  gathers?: Gathers
  /** What is in view of each position, in its units, where a person has zoomed and rows are elsewhere. */
  view?: { x?: readonly [number, number]; y?: readonly [number, number] }
  /** Which positions stand on a logarithmic scale, where rows are elsewhere. */
  logs?: { x: boolean; y: boolean }
  /** Only the rows that marks of these questions stand for; with `leader`, those of the mark with the greatest value there. */
  among?: { drawn: readonly Question[]; leader?: string }
}

export type Gathers = 'stretches' | 'places' | 'means' | 'sample'

/** The marks asked for: at once, or in time. */
export type Answer = Shaped | OnItsWay

/** An answer on its way, that can be let go of. */
export interface OnItsWay<T = Shaped> extends Promise<T> {
  /** Somebody waits for it. */
  hold?(): void
  /** Somebody who waited for it does not any more; when nobody does, it is given up. */
  release?(): void
}

/** Answers the questions about one table. */
export type Shaper = (table: Table, question: Question) => Answer

const shapers = new WeakMap<Table, Shaper>()

/** Has questions about a table answered by something else than its own columns, such as an engine that holds its rows. */
export function answeredBy(table: Table, shaper: Shaper): void {
  shapers.set(table, shaper)
}

/** Whether questions about a table are answered by something else than its own columns. */
export const answeredElsewhere = (table: Table): boolean => shapers.has(table)

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
  if (leader !== undefined) {
    const shaped = askColumns(table, drawn[0])
    const lead = leadingMark(shaped, leader)
    return Int32Array.from(lead === undefined ? [] : shaped.rowsOf(lead))
  }
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

/** The mark with the greatest value in a role; undefined where none has a value. */
export function leadingMark(shaped: Shaped, role: string): number | undefined {
  const cells = shaped.roles.get(role)?.cells
  let lead = -1
  if (cells && cells.type !== 'text')
    for (let mark = 0; mark < shaped.length; mark++)
      if (!Number.isNaN(cells.values[mark]) && (lead < 0 || cells.values[mark] > cells.values[lead]))
        lead = mark
  return lead < 0 ? undefined : lead
}

/** What stands for an answer that is not there: no marks, in the types that they will have. */
export function unanswered(table: Table, question: Question, why: Shaped['unanswered']): Shaped {
  const { roles, test: _, where: __, path: ___, among: ____, ...options } = question
  const nothing = shape(table, roles, { ...options, rows: new Int32Array(0) })
  return { ...nothing, length: 0, unanswered: why }
}
