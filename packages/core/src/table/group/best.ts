import { DapploError } from '../../finding/error.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Table } from '../live/table.ts'
import { isMeasure, type Meaning } from '../phrase/meaning.ts'
import { encode } from './encode.ts'
import type { Encoded } from './encoded.ts'
import { type Groups, groupRows } from './group.ts'
import { measureOf } from './measure.ts'
import { keepTop } from './top.ts'
import type { GroupContext } from './window.ts'

/** Which rows, and which categories of them, are kept. */
export interface Kept {
  /** Only these rows. */
  rows?: Int32Array
  /** What `top` calls the rest where it has no name. Default `Other`. */
  other?: string
  /** Keeps the best categories of a role, judged by the first measure unless `by` says otherwise. */
  top?: { role: string; count: number; rest: boolean | string | undefined; by?: Meaning }
}

/** Where marks are rows: the rows of the best categories, and what the roles have by which they were kept. */
export function bestRows(
  table: Table,
  roles: ReadonlyMap<string, Meaning>,
  options: Kept,
): { kept: Map<string, Encoded>; rows: Int32Array | undefined } {
  const kept = new Map<string, Encoded>()
  const by: Part[] = []
  const encodings: Encoded[] = []
  for (const [role, meaning] of roles) {
    if (!('column' in meaning) || meaning.column === undefined) continue
    const told = topOf(role, meaning, options)
    if (!told) continue
    checkRest(role, told)
    const column = table.needColumn(meaning.column, '')
    by.push({ role, meaning, column, at: encodings.push(encode(meaning, column)) - 1 })
  }
  if (by.length === 0) return { kept, rows: options.rows }
  const rows = keepBest(table, by, measureOfRows(table, roles), encodings, options)
  for (const { role, at } of by) kept.set(role, encodings[at])
  return { kept, rows }
}

/** Where marks are rows, what `top` leaves out cannot stand at one place. */
export function checkRest(role: string, told: ReturnType<typeof topOf>): void {
  if (told?.rest && (role === 'x' || role === 'y'))
    throw new DapploError(
      'bad-option',
      'The rest of the rows cannot be gathered at one place without being added up',
      'rest',
      'Bind a summary, such as "sum of …", or leave rest out.',
    )
}

/** What categories are judged by: a rank or a share by what it ranks, and by their number where nothing is told. */
export function judgeOf(measured: Meaning | undefined): Meaning {
  if (measured?.is !== 'window') return measured ?? { is: 'summary', how: 'count' }
  return measured.column === undefined
    ? { is: 'summary', how: 'count' }
    : { is: 'summary', how: 'sum', column: measured.column }
}

/** How many categories of a role are kept, as its phrase or the drawing says; undefined for all of them. */
export function topOf(
  role: string,
  meaning: Meaning,
  { top }: Kept,
): Omit<NonNullable<Kept['top']>, 'role'> | undefined {
  if (meaning.top !== undefined) return { count: meaning.top, rest: meaning.rest, by: meaning.by }
  return top?.role === role ? top : undefined
}

/** What rows are judged by where nothing sums them up: the total of the number that they stand at. */
export function measureOfRows(table: Table, roles: ReadonlyMap<string, Meaning>): Meaning | undefined {
  for (const role of ['y', 'x', 'size']) {
    const meaning = roles.get(role)
    if (meaning?.is === 'column' && !isMeasure(meaning) && table.column(meaning.column)?.type === 'number')
      return { is: 'summary', how: 'sum', column: meaning.column }
  }
  return undefined
}

/** A role that groups, and which encoding it has. */
export interface Part {
  role: string
  meaning: Meaning
  column: TableColumn
  at: number
}

/** Keeps the best categories where `top` asks for it; returns the rows that stay. */
export function keepBest(
  table: Table,
  by: readonly Part[],
  measure: Meaning | undefined,
  encodings: Encoded[],
  options: Kept,
): Int32Array | undefined {
  let { rows } = options
  const done = new Set<number>()
  for (const { role, meaning, at } of by) {
    const told = topOf(role, meaning, options)
    if (!told || done.has(at)) continue
    done.add(at)
    const { count, rest } = told
    const groups = groupRows([encodings[at]], table.length, rows)
    const values = judged(table, judgeOf(told.by ?? measure), groups, encodings[at])
    encodings[at] = keepTop(encodings[at], values, count, rest === true ? (options.other ?? rest) : rest)
    const { codes } = encodings[at]
    const stays = (row: number) => codes[row] !== -2
    rows = rows
      ? rows.filter(stays)
      : Int32Array.from({ length: table.length }, (_, row) => row).filter(stays)
  }
  return rows
}

/** What each category of an encoding comes to, by its code; NaN where it has no group. */
export function judged(table: Table, judge: Meaning, groups: Groups, encoded: Encoded): Float64Array {
  const context: GroupContext = {
    table,
    groups,
    filled: { codes: groups.codes, count: groups.count },
    encodings: [encoded],
    encodingOf: () => 0,
    order: undefined,
    shareOf: 'whole',
  }
  const found = measureOf(judge, table, groups, groups.count, context)
  const values = new Float64Array(encoded.size).fill(Number.NaN)
  groups.codes[0].forEach((code, group) => {
    if (code >= 0) values[code] = found[group]
  })
  return values
}
