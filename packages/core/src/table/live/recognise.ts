import type { Cells } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import { type Key, keyOf } from './keys.ts'

/** Of more rows nobody follows single ones with the eye. */
const MOST = 100_000

/**
 * The rows of a table without a key that new ones are, when all are exchanged: those with the same texts and times, else
 * with the same texts, where these tell all rows apart, before and after, and most rows are found. Undefined where not.
 */
export function recognisedByTexts(
  columns: ReadonlyMap<string, TableColumn>,
  before: number,
  cells: ReadonlyMap<string, Cells>,
  count: number,
): ((row: number) => number | undefined) | undefined {
  if (before === 0 || count === 0 || before > MOST || count > MOST) return undefined
  const old = new Map([...columns].map(([name, column]) => [name, column.cells]))
  const all = [...columns].flatMap(([name, { type }]) => (type === 'number' ? [] : [name]))
  // Times may be those of the latest news, which no two states have in common.
  const texts = all.filter(name => columns.get(name)!.type === 'text')
  for (const names of texts.length < all.length ? [all, texts] : [all]) {
    const known = names.length > 0 ? numbered(names, old, before) : undefined
    const rows = known && numbered(names, cells, count)
    if (!known || !rows) continue
    const places = new Map<number, number>()
    for (const [name, row] of rows) {
      const place = known.get(name)
      if (place !== undefined) places.set(row, place)
    }
    if (places.size * 2 >= Math.min(before, count)) return row => places.get(row)
  }
  return undefined
}

/** Rows by their texts and times; undefined where two have the same. */
function numbered(
  names: readonly string[],
  cells: ReadonlyMap<string, Cells>,
  count: number,
): Map<Key, number> | undefined {
  const out = new Map<Key, number>()
  for (let row = 0; row < count; row++) {
    const name = keyOf(names, cells, row)
    if (out.has(name)) return undefined
    out.set(name, row)
  }
  return out
}
