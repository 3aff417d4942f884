// What a drawing shows, worked out from raw rows in the plainest way: a list of marks, each with its values.

import { groupedBy } from '../../support/grouping.ts'
import { firstInstant, type Period, periodOf, placeOf, shown } from './calendar.ts'
import { exactSum } from './exact.ts'
import { type Meaning, meaningOf, sumsUp, type Type, type Types } from './phrase.ts'
import { type Cell, summary } from './summary.ts'

export interface Raw {
  types: Types
  /** Times as milliseconds; numbers; texts; null where missing. */
  rows: Record<string, Cell>[]
  zone?: string
}

/** A value of a role: a period or bin has both ends, a cycle the number of its place. */
export type Value = number | string | Period | null

export interface Mark {
  values: Record<string, Value>
  rows: number[]
}

export interface Read {
  marks: Mark[]
  meanings: Record<string, Meaning>
}

/** Roles that tell groups apart. Labels and links never do. */
const GROUPING = ['x', 'x to', 'y', 'y to', 'color', 'series', 'size', 'shape', 'dash', 'panes', 'through']

export const REST = '\u0000rest'

/** The bound roles of a drawing with what they mean; undefined where a phrase is beyond this reader. */
export function meaningsOf(
  bound: Record<string, unknown>,
  types: Types,
): Record<string, Meaning> | undefined {
  const out: Record<string, Meaning> = {}
  for (const [role, phrase] of Object.entries(bound)) {
    if (phrase === undefined || phrase === null) continue
    const extent = phrase as { from?: unknown; to?: unknown }
    const parts: [string, unknown][] =
      typeof phrase === 'object' && 'from' in phrase
        ? [
            [role, extent.from],
            [`${role} to`, extent.to],
          ]
        : [[role, phrase]]
    for (const [name, part] of parts) {
      const meaning = meaningOf(part, types)
      if (!meaning) return undefined
      out[name] = meaning
    }
  }
  return out
}

export interface Wishes {
  where?: Record<string, unknown>
  top?: number
  rest?: boolean | string
  /** Over what shares are taken: all marks at the same x, or all. */
  whole?: boolean
}

/** The marks of a drawing; undefined where it hangs on chance which of equal categories are kept. */
export function marksOf(raw: Raw, meanings: Record<string, Meaning>, wishes: Wishes): Mark[] | undefined {
  const zone = raw.zone ?? 'UTC'
  const all = raw.rows.map((_, i) => i).filter(i => meets(raw, i, wishes.where ?? {}))
  const named = Object.entries(meanings)
  const grouping = named.filter(([role, meaning]) => !sumsUp(meaning) && GROUPING.includes(role))
  const value = (role: string, row: number) => ofRow(meanings[role], raw, row, zone)
  const category = ['x', 'y', 'color', 'series'].find(
    role => meanings[role] && isCategory(meanings[role], raw.types),
  )
  const kept =
    wishes.top !== undefined && category ? best(raw, meanings, category, wishes.top, all, zone) : undefined
  if (kept === 'equal') return undefined
  const rest = wishes.rest !== undefined && wishes.rest !== false
  const rows =
    kept && !rest ? all.filter(row => value(category!, row) === null || kept.has(value(category!, row))) : all
  const shownValue = (role: string, row: number): Value => {
    const own = value(role, row)
    // What has no name is not judged, and stays.
    if (!kept || own === null || kept.has(own)) return own
    return same(meanings[role], meanings[category!]) ? REST : own
  }
  if (!named.some(([, meaning]) => sumsUp(meaning)))
    return rows.map(row => ({
      rows: [row],
      values: Object.fromEntries(named.map(([role]) => [role, shownValue(role, row)])),
    }))

  const groups = new Map<string, Mark>()
  for (const row of rows) {
    const values = Object.fromEntries(grouping.map(([role]) => [role, shownValue(role, row)]))
    const key = JSON.stringify(values)
    const group = groups.get(key) ?? { values, rows: [] }
    group.rows.push(row)
    groups.set(key, group)
  }
  const marks = [...groups.values()]
  const along = meanings.x && sumsUp(meanings.x) ? 'y' : 'x'
  if (meanings[along]?.is === 'period' || meanings[along]?.is === 'bins')
    fillBetween(marks, meanings[along], along, zone)
  for (const [role, meaning] of named) {
    if (!sumsUp(meaning)) continue
    if (meaning.is !== 'window')
      for (const mark of marks) mark.values[role] = measured(meaning, raw, mark.rows)
    else
      windows(
        marks,
        role,
        meaning,
        raw,
        along,
        grouping.map(([role]) => role),
        meanings,
        wishes.whole === true,
      )
  }
  return marks
}

const same = (a: Meaning, b: Meaning) => JSON.stringify(a) === JSON.stringify(b)
const isCategory = (meaning: Meaning, types: Types) =>
  meaning.is === 'cycle' || (meaning.is === 'column' && types[meaning.column] === 'text')

function ofRow(meaning: Meaning, raw: Raw, row: number, zone: string): Value {
  const cell = 'column' in meaning && meaning.column !== undefined ? raw.rows[row][meaning.column] : null
  if (meaning.is === 'column' || cell === null || cell === undefined) return cell ?? null
  if (meaning.is === 'period') return periodOf(Number(cell), meaning.unit, zone)
  if (meaning.is === 'cycle') return placeOf(Number(cell), meaning.cycle, zone)
  if (meaning.is === 'bins') {
    const from = Math.floor(Number(cell) / meaning.width) * meaning.width
    return { from, until: from + meaning.width }
  }
  return null
}

function measured(meaning: Meaning, raw: Raw, rows: readonly number[]): number | null {
  const cells = (column: string) => rows.map(row => raw.rows[row][column])
  if (meaning.is === 'ratio') {
    const [over, under] = [summary('sum', cells(meaning.column)), summary('sum', cells(meaning.to))]
    return over === null || under === null || under === 0 ? null : over / under
  }
  if (meaning.is !== 'summary') return null
  if (meaning.how === 'count') return rows.length
  if (rows.length === 0) return meaning.how === 'sum' || meaning.how === 'distinct' ? 0 : null
  return summary(meaning.how, cells(meaning.column!))
}

/** The categories with the greatest measure over all of their rows. */
function best(
  raw: Raw,
  meanings: Record<string, Meaning>,
  role: string,
  top: number,
  rows: number[],
  zone: string,
): Set<Value> | 'equal' {
  const measure = Object.entries(meanings).find(([, meaning]) => sumsUp(meaning))?.[1]
  const plain = ['y', 'x']
    .map(role => meanings[role])
    .find(meaning => meaning?.is === 'column' && raw.types[meaning.column] === 'number')
  const judged: Meaning = measure
    ? measure.is === 'window'
      ? measure.over
      : measure
    : plain?.is === 'column'
      ? { is: 'summary', how: 'sum', column: plain.column }
      : { is: 'summary', how: 'count' }
  const byName = new Map<Value, number[]>()
  for (const row of rows) {
    const name = ofRow(meanings[role], raw, row, zone)
    if (name !== null) byName.set(name, [...(byName.get(name) ?? []), row])
  }
  const judgedNames = [...byName].map(([name, of]) => ({
    name,
    size: measured(judged, raw, of) ?? Number.NEGATIVE_INFINITY,
  }))
  judgedNames.sort((a, b) => b.size - a.size)
  if (judgedNames.length > top && judgedNames[top - 1].size === judgedNames[top].size) return 'equal'
  return new Set(judgedNames.slice(0, top).map(({ name }) => name))
}

/** Adds the periods without rows between the first and the last of each series. */
function fillBetween(marks: Mark[], meaning: Meaning, along: string, zone: string): void {
  const series = groupedBy(marks, ({ values }) => JSON.stringify({ ...values, [along]: null }))
  for (const members of series.values()) {
    const has = members.map(({ values }) => values[along] as Period | null).filter(one => one !== null)
    if (has.length === 0) continue
    const last = Math.max(...has.map(({ from }) => from))
    const known = new Set(has.map(({ from }) => from))
    let at = has.reduce((a, b) => (a.from <= b.from ? a : b))
    while (at.from < last) {
      at =
        meaning.is === 'period'
          ? periodOf(at.until, meaning.unit, zone)
          : { from: at.until, until: at.until * 2 - at.from }
      if (!known.has(at.from)) marks.push({ rows: [], values: { ...members[0].values, [along]: at } })
    }
  }
}

function windows(
  marks: Mark[],
  role: string,
  meaning: Meaning & { is: 'window' },
  raw: Raw,
  along: string,
  grouping: string[],
  meanings: Record<string, Meaning>,
  whole: boolean,
): void {
  const base = new Map(marks.map(mark => [mark, measured(meaning.over, raw, mark.rows)]))
  // What is bound twice groups once, and is known by the first role.
  const distinct = new Map([...grouping].reverse().map(role => [JSON.stringify(meanings[role]), role]))
  const within =
    meaning.within === undefined
      ? undefined
      : [...distinct.values()].filter(role => same(meanings[role], meaningOf(meaning.within, raw.types)!))
  const parts =
    within && meaning.how !== 'so far'
      ? within
      : meaning.how === 'so far'
        ? [...distinct.values()].filter(other => other !== along)
        : meaning.how === 'share' && !whole && distinct.size > 1
          ? [along]
          : []
  for (const members of groupedBy(marks, ({ values }) =>
    JSON.stringify(parts.map(part => values[part])),
  ).values()) {
    const sizes = members.map(mark => base.get(mark) ?? null)
    const there = sizes.filter(size => size !== null)
    if (meaning.how === 'share') {
      const total = exactSum(there).value
      members.forEach((mark, i) => {
        mark.values[role] = sizes[i] === null || total === 0 ? null : sizes[i] / total
      })
    } else if (meaning.how === 'rank')
      members.forEach((mark, i) => {
        mark.values[role] = sizes[i] === null ? null : 1 + there.filter(other => other > sizes[i]!).length
      })
    else {
      const order = [...members].sort((a, b) => compared(a.values[along], b.values[along]))
      order.forEach((mark, i) => {
        mark.values[role] = exactSum(order.slice(0, i + 1).map(one => base.get(one) ?? 0)).value
      })
    }
  }
}

const ordinal = (value: Value) => (value !== null && typeof value === 'object' ? value.from : value)
function compared(a: Value, b: Value): number {
  const [x, y] = [ordinal(a), ordinal(b)]
  return typeof x === 'number' && typeof y === 'number' ? x - y : 0
}

/** Whether a row meets all conditions. Ends of ranges count as the documentation says. */
export function meets(raw: Raw, row: number, where: Record<string, unknown>): boolean {
  return Object.entries(where).every(([phrase, condition]) => {
    const meaning = meaningOf(phrase, raw.types)!
    const value = ordinal(ofRow(meaning, raw, row, raw.zone ?? 'UTC'))
    const type: Type =
      meaning.is === 'cycle' || meaning.is === 'bins'
        ? 'number'
        : raw.types[(meaning as { column: string }).column]
    return holds(value, condition, type, raw.zone ?? 'UTC')
  })
}

function holds(value: number | string | null, condition: unknown, type: Type, zone: string): boolean {
  if (condition === null) return value === null
  if (Array.isArray(condition)) return condition.some(one => holds(value, one, type, zone))
  if (typeof condition === 'object' && 'not' in condition) return !holds(value, condition.not, type, zone)
  if (typeof condition === 'object') {
    const { from, until } = condition as { from?: unknown; until?: unknown }
    if (value === null) return false
    const [low, high] = [from, until].map(end => (end === undefined ? undefined : read(end, type, zone)))
    return (low === undefined || value >= low) && (high === undefined || value < high)
  }
  return value !== null && value === read(condition, type, zone)
}

/** A value of a description in the terms of its column. */
export function read(value: unknown, type: Type, zone: string): number | string {
  if (type === 'text') return String(value)
  if (type === 'number') return Number(value)
  const text = String(value)
  return /[Z+]|-\d\d:\d\d$/.test(text.slice(10))
    ? Date.parse(text)
    : firstInstant(
        Date.parse(`${text.length === 4 ? `${text}-01` : text}${text.length > 10 ? 'Z' : ''}`),
        zone,
      )
}

export { shown }
