import { DapploError } from '../../finding/error.ts'
import { quoted } from '../../finding/plain-text.ts'
import type { Cells } from '../cells/cells.ts'
import type { Value } from '../cells/options.ts'
import type { Zone } from '../cells/zone.ts'
import type { RowTest } from '../live/selection.ts'
import type { Table } from '../live/table.ts'
import type { Meaning } from '../phrase/meaning.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { readIso } from '../read/date-text.ts'
import { encode } from './encode.ts'

/** Conditions on rows, all of which must hold: a value, a list of values, a span, or what they must not be. */
export type Conditions = Record<
  string,
  Value | Value[] | { from?: Value; until?: Value } | { not: Value | Value[] | null } | null
>

/** The rows that meet all conditions, in table order; undefined when there are none to meet. `until` is not included. */
export function rowsWhere(
  table: Table,
  conditions: Conditions | undefined,
  path: string,
): Int32Array | undefined {
  const entries = Object.entries(conditions ?? {}).filter(([, condition]) => condition !== undefined)
  if (entries.length === 0) return undefined
  const tests = entries.map(([phrase, condition]) => {
    const place = `${path}.${phrase}`
    const meaning = readPhrase(phrase, table, place)
    if (!choosesRows(meaning)) throw sumsUp(phrase, place)
    const column = table.needColumn(meaning.column, place)
    const encoded = meaning.is === 'column' ? undefined : encode(meaning, column)
    const cells = encoded ? encoded.cellsOf(encoded.codes) : column.cells
    return testOf(cells, condition, column.zone, place)
  })
  const rows: number[] = []
  for (let row = 0; row < table.length; row++) if (tests.every(test => test(row))) rows.push(row)
  return Int32Array.from(rows)
}

/** A meaning that each row has by itself. */
export const choosesRows = (
  meaning: Meaning,
): meaning is Meaning & { is: 'column' | 'bucket' | 'cycle' | 'bins' } =>
  meaning.is === 'column' || meaning.is === 'bucket' || meaning.is === 'cycle' || meaning.is === 'bins'

export const sumsUp = (phrase: string, path: string): DapploError =>
  new DapploError(
    'unknown-phrase',
    `"${phrase}" sums rows up, so it cannot choose among them`,
    path,
    'Filter by a column or by a bucket such as "month of departed".',
  )

/** Conditions that can be asked of single rows, as they change. */
export interface Within {
  /** The same for the same conditions. */
  name: string
  /** All rows that meet them. */
  rows(): Int32Array
  /** Whether a row meets them; valid until the next change. */
  test(): (row: number) => boolean
}

/** Conditions on columns as they are; undefined for others, such as those on buckets, which are worked out for all rows. */
export function within(table: Table, conditions: Conditions, path: string): Within | undefined {
  const entries = Object.entries(conditions).filter(([, condition]) => condition !== undefined)
  const columns = entries.map(([phrase, condition]) => {
    const meaning = readPhrase(phrase, table, `${path}.${phrase}`)
    return meaning.is === 'column'
      ? { phrase, condition, column: table.needColumn(meaning.column, path) }
      : undefined
  })
  if (columns.length === 0 || columns.some(own => own === undefined)) return undefined
  return {
    name: JSON.stringify(entries),
    rows: () => rowsWhere(table, conditions, path)!,
    test: () => {
      const tests = columns.map(own =>
        testOf(own!.column.cells, own!.condition, own!.column.zone, `${path}.${own!.phrase}`),
      )
      return row => tests.every(test => test(row))
    },
  }
}

/** The rows that pass a test, of these or of all. */
export function rowsPassing(
  table: Table,
  rows: Int32Array | undefined,
  test: RowTest | undefined,
): Int32Array | undefined {
  if (!test) return rows
  if (rows) return rows.filter(test)
  if (test.rows) return test.rows()
  const out = new Int32Array(table.length)
  let count = 0
  for (let row = 0; row < table.length; row++) if (test(row)) out[count++] = row
  return out.slice(0, count)
}

/** The test of a condition on cells. */
export function testOf(
  cells: Cells,
  condition: Conditions[string],
  zone: Zone,
  path: string,
): (row: number) => boolean {
  if (condition === null)
    return cells.type === 'text' ? row => cells.codes[row] < 0 : row => Number.isNaN(cells.values[row])
  if (Array.isArray(condition)) {
    const tests = condition.map(value => testOf(cells, value, zone, path))
    return row => tests.some(test => test(row))
  }
  if (typeof condition === 'object' && !(condition instanceof Date)) {
    if ('not' in condition) {
      const test = testOf(cells, condition.not, zone, path)
      return row => !test(row)
    }
    const unknown = Object.keys(condition).find(key => key !== 'from' && key !== 'until')
    if (unknown !== undefined)
      throw new DapploError(
        'bad-option',
        `"${unknown}" is no condition`,
        path,
        'Write a value, a list of values, { from, until } or { not }.',
      )
    if (cells.type === 'text') {
      const { from, until } = condition
      return row => {
        const word = cells.words[cells.codes[row]]
        return (
          word !== undefined &&
          (from === undefined || word >= String(from)) &&
          (until === undefined || word < String(until))
        )
      }
    }
    const low =
      condition.from === undefined
        ? Number.NEGATIVE_INFINITY
        : numberOf(condition.from, cells.type, zone, path)
    const high =
      condition.until === undefined
        ? Number.POSITIVE_INFINITY
        : numberOf(condition.until, cells.type, zone, path)
    return row => cells.values[row] >= low && cells.values[row] < high
  }
  if (cells.type === 'text') {
    const code = cells.words.indexOf(String(condition))
    return row => code >= 0 && cells.codes[row] === code
  }
  const wanted = numberOf(condition, cells.type, zone, path)
  return row => cells.values[row] === wanted
}

/**
 * A value of a description as a number on a column's line: times as milliseconds, read in the column's zone. Four figures
 * are a year: as milliseconds they would mean the first seconds of 1970.
 */
export function numberOf(value: Value, type: 'number' | 'time', zone: Zone, path: string): number {
  if (value instanceof Date) return value.getTime()
  if (typeof value === 'number') {
    const isYear = type === 'time' && Number.isInteger(value) && value >= 1000 && value <= 9999
    return isYear ? zone.toUtc(Date.UTC(value, 0)) : value
  }
  if (typeof value === 'string' && type === 'time') {
    const date = readIso(value)
    if (date) return date.offset !== undefined ? date.local - date.offset : zone.toUtc(date.local)
  } else if (typeof value === 'string' && value.trim() !== '' && Number.isFinite(Number(value)))
    return Number(value)
  throw new DapploError(
    'bad-option',
    `${quoted(value)} is no ${type}`,
    path,
    type === 'time' ? 'Write an ISO 8601 date such as "2024-03-01".' : 'Write a number.',
  )
}
