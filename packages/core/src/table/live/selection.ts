import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import type { RowMask, RowTest } from './row-test.ts'
import type { Table } from './table.ts'

export type { RowMask, RowTest } from './row-test.ts'

/** The table from which others were derived. Selections belong to it, so that charts on any of them understand each other. */
export function rootOf(table: Table): Table {
  let root = table
  while (root.source) root = root.source
  return root
}

/** The rows of the root table that stand behind a row. */
export function rootRows(table: Table, row: number): ArrayLike<number> {
  if (!table.source || !table.sourceRows) return [row]
  const behind = table.sourceRows(row)
  const { source } = table
  if (!source.source) return behind
  return Array.from(behind).flatMap(own => Array.from(rootRows(source, own)))
}

/** What each chart on a table has selected, as serial numbers of its rows. */
export class Selections {
  private readonly table: Table
  private readonly all: Signal<ReadonlyMap<object, ArrayLike<number>>> = signal(new Map())

  constructor(table: Table) {
    this.table = table
  }

  /** Says what a chart has selected; nothing, or undefined, takes its selection away. */
  set(owner: object, serials: ArrayLike<number> | undefined): void {
    const before = this.all.peek().get(owner)
    if (before === serials || (before === undefined && !serials?.length)) return
    const next = new Map(this.all.peek())
    if (serials?.length) next.set(owner, serials)
    else next.delete(owner)
    this.all.value = next
  }

  /** What each chart but this one has selected. */
  listsOfOthers(owner: object): ReadonlySignal<readonly ArrayLike<number>[]> {
    let before: readonly ArrayLike<number>[] = []
    return computed(() => {
      const now = [...this.all.value].filter(([other]) => other !== owner).map(([, serials]) => serials)
      // What this chart itself selects is no change to others' selections: it would ask all anew.
      const same = now.length === before.length && now.every((serials, i) => serials === before[i])
      if (!same) before = now
      return before
    })
  }

  /** The rows that every chart but this one has selected; undefined where none has. */
  byOthers(owner: object): ReadonlySignal<RowMask | undefined> {
    return computed(() => {
      let mask: RowMask | undefined
      for (const [other, serials] of this.all.value) {
        if (other === owner) continue
        const own = maskOf(this.table, serials)
        if (!mask) mask = own
        else mask = mask.map((value, row) => value & own[row])
      }
      return mask
    })
  }
}

const stores = new WeakMap<Table, Selections>()

/** The selections on a root table, shared by all charts over it. */
export function selectionsOf(root: Table): Selections {
  let store = stores.get(root)
  if (!store) {
    store = new Selections(root)
    stores.set(root, store)
  }
  return store
}

/** Asks for the rows that no chart in particular leaves out. */
const NOBODY = {}

/**
 * The rows of a table that are selected in all charts on it together, as records: where several select, those in all of
 * their selections; none where nothing is selected. In time, since rows may be far.
 */
export async function selectedRows<R>(table: Table<R>): Promise<R[]> {
  const lists = selectionsOf(rootOf(table)).listsOfOthers(NOBODY).peek()
  const far = lists.length > 0 ? table.selectedElsewhere?.(lists) : undefined
  if (far) return far
  const mask = selectionsOf(rootOf(table)).byOthers(NOBODY).peek()
  if (!mask) return []
  const test = rowTest(table, mask)
  const rows: number[] = []
  for (let row = 0; row < table.length; row++) if (test(row)) rows.push(row)
  return table.rows(rows)
}

const masks = new WeakMap<object, { table: Table; version: number; mask: RowMask }>()

/** The rows with these serial numbers; those that are gone by now are left out. All charts that ask for the same get the same. */
export function maskOf(table: Table, serials: ArrayLike<number>): RowMask {
  const version = table.version.value
  const known = masks.get(serials)
  if (known?.table === table && known.version === version) return known.mask
  const mask = new Uint8Array(table.places)
  if (table.serialsAreRows) {
    for (let i = 0; i < serials.length; i++) if (serials[i] < mask.length) mask[serials[i]] = 1
  } else {
    for (let i = 0; i < serials.length; i++) {
      const row = table.rowOfSerial(serials[i])
      if (row !== undefined) mask[row] = 1
    }
  }
  masks.set(serials, { table, version, mask })
  return mask
}

const lists = new WeakMap<RowMask, Int32Array>()

/** The rows of a mask, in rising order. */
function rowsOfMask(mask: RowMask): Int32Array {
  let rows = lists.get(mask)
  if (!rows) {
    let count = 0
    for (let row = 0; row < mask.length; row++) count += mask[row]
    rows = new Int32Array(count)
    let at = 0
    for (let row = 0; row < mask.length; row++) if (mask[row]) rows[at++] = row
    lists.set(mask, rows)
  }
  return rows
}

/** Whether a row of a table, root or derived, is meant by a mask over its root. */
export function rowTest(table: Table, mask: RowMask): RowTest {
  if (!table.source)
    return Object.assign((row: number) => mask[row] === 1, { rows: () => rowsOfMask(mask), mask })
  return row => {
    const behind = rootRows(table, row)
    for (let i = 0; i < behind.length; i++) if (mask[behind[i]] === 1) return true
    return false
  }
}

/** The test that passes where all of these do. */
export const allTests = (tests: readonly RowTest[]): RowTest =>
  tests.length === 1 ? tests[0] : row => tests.every(test => test(row))

/** A test that these rows pass, of a table with so many. */
export function rowsTest(rows: Int32Array, length: number): RowTest {
  const mask = new Uint8Array(length)
  for (const row of rows) if (row < length) mask[row] = 1
  return Object.assign((row: number) => mask[row] === 1, { rows: () => rows })
}
