import { type ReadonlySignal, signal } from '@preact/signals-core'
import { isPlainObject } from '../finding/check-tree.ts'
import { useColumns } from '../table/read/common-columns.ts'
import type { House } from './house.ts'

const common = signal<House | undefined>(undefined)

/** The house style that all charts of the application have in common. */
export const commonHouse: ReadonlySignal<House | undefined> = common

/**
 * Gives all charts of an application one house style, with what each is given itself before it, key by key; its `columns`
 * and `timeZone` count for tables that are made afterwards. Charts on a page follow at once. Undefined takes it back.
 */
export function setHouse(house: House | undefined): void {
  useColumns(house ?? {})
  common.value = house
}

const joined = new WeakMap<House, WeakMap<House, House>>()

/** A chart's own house style, with that of the application under it. The same styles come to the same object. */
export function withCommon(own: House | undefined): House | undefined {
  const shared = common.value
  if (!shared || !own) return own ?? shared
  const known = joined.get(shared) ?? new WeakMap<House, House>()
  joined.set(shared, known)
  let house = known.get(own)
  if (!house) {
    house = under(own, shared) as House
    known.set(own, house)
  }
  return house
}

/** Objects are joined key by key; what is said nearer goes before. */
function under(own: unknown, shared: unknown): unknown {
  if (own === undefined) return shared
  if (!isPlainObject(own) || !isPlainObject(shared)) return own
  const out: Record<string, unknown> = { ...shared }
  for (const [key, value] of Object.entries(own)) out[key] = under(value, shared[key])
  return out
}
