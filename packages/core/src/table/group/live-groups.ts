import type { TableColumn } from '../cells/column.ts'
import { RowList } from '../cells/row-list.ts'
import { firstAtLeast } from '../cells/search.ts'
import { followersOf, type RowFollower } from '../live/followers.ts'
import { type How, meaningKey } from '../phrase/meaning.ts'
import { encode } from './encode.ts'
import type { Encoded } from './encoded.ts'
import { type Groups, groupRows, type RowsByGroup, rowsByGroup } from './group.ts'
import { type FollowsGroups, followBest } from './live-best.ts'
import { followMemory } from './live-memory.ts'
import { followRuns } from './live-runs.ts'
import { running } from './live-summaries.ts'
import type { Running } from './live-summary.ts'
import type { Within } from './where.ts'

/** One value that rows are grouped by. */
interface GroupedBy {
  encoded: Encoded
  column: TableColumn
}

/** What is kept up to date as rows come, change and age. */
export interface Follows {
  groups: FollowsGroups
  /** The best categories, and the rest of them, out of groups of all. */
  best: typeof followBest
  runs: typeof followRuns
  memory: typeof followMemory
}

const followGroups: FollowsGroups = (table, grouped, within) => {
  const followers = followersOf(table)
  const name = `groups ${grouped.map(meaning => meaningKey(meaning)).join('\u001e')}${within ? ` within ${within.name}` : ''}`
  const known = followers.find<LiveGroups>(name)
  if (known?.holds) return known
  const by = grouped.map(meaning => {
    const column = table.needColumn('column' in meaning ? (meaning.column ?? '') : '', '')
    return { column, encoded: encode(meaning, column) }
  })
  if (by.some(({ encoded }) => !encoded.codeOf)) return undefined
  const live = new LiveGroups(table.length, by, within)
  followers.set(name, live)
  return live
}

/**
 * The part that keeps groups, and the rows of lines in their order, up to date as single rows come, change and age, so that
 * what is asked again costs what has changed; for `chartMaker({}, { following })` of the small face, where all is else
 * worked out anew with each change.
 */
export const following: Follows = {
  groups: followGroups,
  best: followBest,
  runs: followRuns,
  memory: followMemory,
}

/** What codes mean, without the code of every row, which the groups have taken in. */
const withoutRows = ({ size, some, codeOf, still, cellsOf, endOf }: Encoded): Encoded => ({
  codes: new Int32Array(0),
  size,
  some,
  codeOf,
  still,
  cellsOf,
  endOf,
})

export class LiveGroups implements RowFollower {
  readonly encodings: Encoded[]
  private readonly by: readonly GroupedBy[]
  /** The group of each row, once somebody looks, or something changes. */
  private rowGroups: RowList<Int32Array> | undefined
  /** By group: the code of each value it is grouped by. */
  private readonly codes: number[][] = []
  /** How many rows each group has, and the first of them, counted from the first row that there ever was. */
  private readonly sizes: number[] = []
  private readonly firsts: number[] = []
  /** Groups whose first row has left. */
  private readonly headless = new Set<number>()
  private gone = 0
  private byCodes: Map<string, number> | undefined
  private readonly summaries = new Map<string, Running>()
  /** False once a value came that these codes do not know. */
  private known = true
  private index: RowsByGroup | undefined
  private snapshot: Groups | undefined
  /** The groups as they were found; undefined once something has changed. */
  private found: Groups | undefined

  private readonly within: Within | undefined

  constructor(length: number, by: readonly GroupedBy[], within: Within | undefined) {
    this.by = by.map(({ encoded, column }) => ({ encoded: withoutRows(encoded), column }))
    this.within = within
    const rows = within?.rows()
    const found = groupRows(
      by.map(({ encoded }) => encoded),
      length,
      rows,
    )
    this.encodings = this.by.map(({ encoded }) => encoded)
    this.found = found
    if (rows) {
      const ofRow = new Int32Array(length).fill(-1)
      for (let i = 0; i < rows.length; i++) ofRow[rows[i]] = found.ofRow[rows[i]]
      this.rowGroups = new RowList(ofRow)
    }
  }

  private get ofRow(): RowList<Int32Array> {
    this.rowGroups ??= new RowList(this.found!.ofRow)
    return this.rowGroups
  }

  begin(): void {
    this.rowGroups = this.ofRow
  }

  /** Counts the groups, before the first change. */
  private wake(): void {
    const { found, codes, sizes, firsts } = this
    if (!found) return
    const ofRow = this.ofRow.all
    this.found = undefined
    for (let group = 0; group < found.count; group++) {
      codes.push(found.codes.map(codes => codes[group]))
      sizes.push(0)
      firsts.push(0)
    }
    for (let row = ofRow.length - 1; row >= 0; row--) {
      if (ofRow[row] < 0) continue
      sizes[ofRow[row]]++
      firsts[ofRow[row]] = row
    }
    for (const summary of this.summaries.values()) summary.counted?.(sizes)
  }

  /** Whether all rows could be followed, and codes still mean what they meant. */
  get holds(): boolean {
    return this.known && this.by.every(({ encoded }) => encoded.still?.() ?? true)
  }

  leave(row: number): void {
    this.changed()
    const group = this.ofRow.get(row)
    if (group < 0) return
    this.sizes[group]--
    if (this.firsts[group] === row + this.gone) this.headless.add(group)
    for (const summary of this.summaries.values()) summary.leave(group, row)
  }

  enter(row: number, test = this.within?.test()): void {
    this.changed()
    if (test && !test(row)) {
      this.ofRow.set(row, -1)
      return
    }
    const group = this.groupOf(row)
    this.ofRow.set(row, group)
    const first = row + this.gone
    if (this.sizes[group]++ === 0 || first <= this.firsts[group]) {
      this.firsts[group] = first
      this.headless.delete(group)
    }
    for (const summary of this.summaries.values()) summary.enter(group, row)
  }

  append(first: number, count: number): void {
    this.changed()
    const test = this.within?.test()
    for (let row = first; row < first + count; row++) {
      this.ofRow.push(-1)
      this.enter(row, test)
    }
  }

  dropFirst(count: number): void {
    for (let row = 0; row < count; row++) this.leaveForGood(row)
    this.ofRow.dropFirst(count)
    for (const summary of this.summaries.values()) summary.dropFirst?.(count)
    this.gone += count
  }

  remove(rows: readonly number[]): void {
    for (const row of rows) this.leaveForGood(row)
    this.ofRow.remove(rows)
    // Others move up by as many as have gone before them.
    const { firsts, gone } = this
    for (let group = 0; group < firsts.length; group++)
      firsts[group] -= firstAtLeast(rows, firsts[group] - gone)
    for (const summary of this.summaries.values()) summary.remove?.(rows)
  }

  /** What looks for another row in its place must not find one that has left as well. */
  private leaveForGood(row: number): void {
    this.leave(row)
    this.ofRow.set(row, -1)
  }

  /** The groups as they stand now, in order of first appearance. */
  now(): Groups {
    this.snapshot ??= this.groups()
    return this.snapshot
  }

  private groups(): Groups {
    const { found } = this
    if (found) {
      // Not copied, which would write out the group of each row.
      found.summary = (how, column) => {
        const summary = this.summaryOf(how, column)
        return Float64Array.from({ length: found.count }, (_, group) => summary.valueOf(group))
      }
      return found
    }
    this.findFirsts()
    const { codes, ofRow, firsts, sizes } = this
    const order: number[] = []
    for (let group = 0; group < sizes.length; group++) if (sizes[group] > 0) order.push(group)
    order.sort((a, b) => firsts[a] - firsts[b])
    const places = new Int32Array(sizes.length).fill(-1)
    order.forEach((group, place) => {
      places[group] = place
    })
    const rowsOf = (place: number): Int32Array => {
      const group = order[place]
      if (group === undefined) return new Int32Array(0)
      const { starts, sorted } = this.rowsByGroup()
      return sorted.subarray(starts[group], starts[group + 1])
    }
    return {
      count: order.length,
      get ofRow() {
        return ofRow.all.map(group => places[group])
      },
      rows: undefined,
      codes: this.by.map((_, e) => Int32Array.from(order, group => codes[group][e])),
      rowsOf,
      summary: (how, column) => {
        const summary = this.summaryOf(how, column)
        return Float64Array.from(order, group => summary.valueOf(group))
      },
    }
  }

  private summaryOf(how: How, column: TableColumn | undefined): Running {
    const name = `${how} ${column?.name ?? ''}`
    let known = this.summaries.get(name)
    if (!known) {
      const { found } = this
      known = running(how, {
        column,
        ofRow: () => this.ofRow,
        runs: found?.runs,
        count: found?.count ?? this.sizes.length,
      })
      this.summaries.set(name, known)
    }
    return known
  }

  /** From where its first row left, the next of a group is mostly near. */
  private findFirsts(): void {
    const { headless, ofRow, firsts, gone, sizes } = this
    for (const group of headless) {
      if (sizes[group] === 0) continue
      let row = Math.max(0, firsts[group] - gone)
      while (row < ofRow.length && ofRow.get(row) !== group) row++
      firsts[group] = row + gone
    }
    headless.clear()
  }

  private groupOf(row: number): number {
    const own = this.by.map(({ encoded, column }) => {
      const code = encoded.codeOf!(column.numberAt(row))
      if (code === undefined) this.known = false
      return code ?? -1
    })
    this.byCodes ??= new Map(this.codes.map((codes, group) => [codes.join(), group]))
    const name = own.join()
    let group = this.byCodes.get(name)
    if (group === undefined) {
      group = this.codes.push(own) - 1
      this.sizes.push(0)
      this.firsts.push(0)
      this.byCodes.set(name, group)
    }
    return group
  }

  private rowsByGroup(): RowsByGroup {
    if (this.index) return this.index
    this.index = rowsByGroup(this.ofRow.all, this.sizes.length)
    return this.index
  }

  private changed(): void {
    this.wake()
    this.index = undefined
    this.snapshot = undefined
  }
}
