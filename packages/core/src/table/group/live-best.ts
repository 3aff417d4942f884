import type { TableColumn } from '../cells/column.ts'
import type { Table } from '../live/table.ts'
import { type How, type Meaning, untopped } from '../phrase/meaning.ts'
import { judged, judgeOf, type Kept, type Part, topOf } from './best.ts'
import type { Encoded } from './encoded.ts'
import type { Groups } from './group.ts'
import { summarise } from './summarise.ts'
import { keepTop } from './top.ts'
import type { Within } from './where.ts'

/** Follows the groups of a table; undefined where they cannot be followed. */
export type FollowsGroups = (
  table: Table,
  grouped: readonly Meaning[],
  within: Within | undefined,
) => { now(): Groups; encodings: Encoded[] } | undefined

/** What is grouped, and how it is kept up to date. */
export interface Following {
  by: readonly Part[]
  grouped: readonly Meaning[]
  /** What categories are judged by where nothing else is told. */
  measure: Meaning | undefined
  /** Follows the groups of all categories. */
  followGroups: FollowsGroups
  within: Within | undefined
}

/**
 * The best categories of one role, out of groups of all of them that are kept up to date: those that are left out go, and
 * those of the rest are put together, so that a changed row costs its groups. Undefined where they cannot be followed.
 */
export function followBest(
  table: Table,
  { by, grouped, measure, followGroups, within }: Following,
  options: Kept,
): { groups: Groups; encodings: Encoded[] } | undefined {
  const judgedParts = by.filter(({ role, meaning }) => topOf(role, meaning, options) !== undefined)
  // A second role is judged by what the first one leaves.
  if (new Set(judgedParts.map(({ at }) => at)).size !== 1) return undefined
  const [{ role, meaning, at }] = judgedParts
  const { count, rest, by: judge } = topOf(role, meaning, options)!
  const plain = grouped.map(untopped)
  const all = followGroups(table, plain, within)
  const own = plain.length === 1 ? all : followGroups(table, [plain[at]], within)
  if (!all || !own) return undefined
  const groups = all.now()
  const encoded = upToDate(all.encodings[at])
  const values = judged(table, judgeOf(judge ?? measure), own.now(), encoded)
  const kept = keepTop(
    { ...encoded, codes: groups.codes[at] },
    values,
    count,
    rest === true ? (options.other ?? rest) : rest,
  )
  return {
    groups: putTogether(groups, at, kept.codes, encoded.size),
    encodings: all.encodings.map((known, e) => (e === at ? kept : known)),
  }
}

/** Words may have come since their codes were first taken in. */
function upToDate(encoded: Encoded): Encoded {
  const cells = encoded.cellsOf(new Int32Array(0))
  return cells.type === 'text' ? { ...encoded, size: Math.max(encoded.size, cells.words.length) } : encoded
}

/** Groups with other codes at one place: below zero but for -1 they are left out, from `rest` on they are put together. */
function putTogether(groups: Groups, at: number, codes: Int32Array, rest: number): Groups {
  const members: number[][] = []
  const places = new Int32Array(groups.count).fill(-1)
  const ofRest = new Map<string, number>()
  for (let group = 0; group < groups.count; group++) {
    if (codes[group] < -1) continue
    if (codes[group] < rest) {
      places[group] = members.push([group]) - 1
      continue
    }
    const name = groups.codes.map((own, e) => (e === at ? '' : own[group])).join()
    const known = ofRest.get(name)
    places[group] = known ?? members.push([]) - 1
    ofRest.set(name, places[group])
    members[places[group]].push(group)
  }
  const rowsOf = (place: number) =>
    members[place]?.length === 1 ? groups.rowsOf(members[place][0]) : rowsOfAll(groups, members[place] ?? [])
  return {
    count: members.length,
    get ofRow() {
      return groups.ofRow.map(group => places[group] ?? -1)
    },
    rows: groups.rows,
    codes: groups.codes.map((own, e) =>
      Int32Array.from(members, ([first]) => (e === at ? codes : own)[first]),
    ),
    rowsOf,
    summary(how, column) {
      const known = summarise(how, column, groups)
      return Float64Array.from(members, (own, place) =>
        own.length === 1
          ? known[own[0]]
          : (together(
              how,
              own.map(group => known[group]),
            ) ?? ofRows(how, column, rowsOf(place))),
      )
    },
  }
}

function rowsOfAll(groups: Groups, members: readonly number[]): Int32Array {
  const lists = members.map(group => groups.rowsOf(group))
  const rows = new Int32Array(lists.reduce((length, list) => length + list.length, 0))
  let length = 0
  for (const list of lists) {
    rows.set(list, length)
    length += list.length
  }
  return rows.sort()
}

/** What summaries of several groups come to together; undefined where their rows must be looked at. */
function together(how: How, values: readonly number[]): number | undefined {
  if (how !== 'count' && how !== 'sum' && how !== 'min' && how !== 'max') return undefined
  const present = values.filter(value => !Number.isNaN(value))
  if (present.length === 0) return how === 'count' ? 0 : Number.NaN
  return how === 'min' || how === 'max'
    ? present.reduce((a, b) => Math[how](a, b))
    : present.reduce((a, b) => a + b)
}

function ofRows(how: How, column: TableColumn | undefined, rows: Int32Array): number {
  const ofRow = new Int32Array(rows.length === 0 ? 0 : rows[rows.length - 1] + 1)
  return summarise(how, column, { count: 1, ofRow, rows, codes: [], rowsOf: () => rows })[0]
}
