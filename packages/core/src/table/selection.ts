import { computed, type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import type { Table } from './table.ts'

/** Which rows of a table are meant: 1 for those that are, by row. */
export type RowMask = Uint8Array

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

  /** The rows that every chart but this one has selected; undefined where none has. */
  byOthers(owner: object): ReadonlySignal<RowMask | undefined> {
    return computed(() => {
      let mask: RowMask | undefined
      for (const [other, serials] of this.all.value) {
        if (other === owner) continue
        const own = maskOf(this.table, serials)
        if (!mask) mask = own
        else for (let row = 0; row < mask.length; row++) mask[row] &= own[row]
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

/** The rows with these serial numbers; those that are gone by now are left out. */
export function maskOf(table: Table, serials: ArrayLike<number>): RowMask {
  const mask = new Uint8Array(table.length)
  void table.version.value
  const inOrder = table.serialsAreRows
  const rows = inOrder ? undefined : table.rowsBySerial
  for (let i = 0; i < serials.length; i++) {
    const row = rows ? rows.get(serials[i]) : serials[i]
    if (row !== undefined && row < mask.length) mask[row] = 1
  }
  return mask
}

/** Whether a row of a table, root or derived, is meant by a mask over its root. */
export function rowTest(table: Table, mask: RowMask): (row: number) => boolean {
  if (!table.source) return row => mask[row] === 1
  return row => {
    const behind = rootRows(table, row)
    for (let i = 0; i < behind.length; i++) if (mask[behind[i]] === 1) return true
    return false
  }
}
