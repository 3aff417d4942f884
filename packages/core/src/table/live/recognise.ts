import type { Cells } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import { keyOf } from './keys.ts'

/** Of more rows nobody follows single ones with the eye. */
const MOST = 100_000

/**
 * The rows of a table without a key that new ones are, when all are exchanged: those with the same texts and times, where
 * these tell all rows apart, before and after. Undefined where they do not.
 */
export function recognisedByTexts(
  columns: ReadonlyMap<string, TableColumn>,
  before: number,
  cells: ReadonlyMap<string, Cells>,
  count: number,
): ((row: number) => number | undefined) | undefined {
  const names = [...columns].flatMap(([name, { type }]) => (type === 'number' ? [] : [name]))
  if (names.length === 0 || before === 0 || before > MOST || count > MOST) return undefined
  const old = new Map([...columns].map(([name, column]) => [name, column.cells]))
  const known = numbered(names, old, before)
  const rows = known && numbered(names, cells, count)
  if (!known || !rows) return undefined
  const places = new Map<number, number>()
  for (const [name, row] of rows) {
    const place = known.get(name)
    if (place !== undefined) places.set(row, place)
  }
  return row => places.get(row)
}

/** Rows by their texts and times; undefined where two have the same. */
function numbered(
  names: readonly string[],
  cells: ReadonlyMap<string, Cells>,
  count: number,
): Map<string, number> | undefined {
  const out = new Map<string, number>()
  for (let row = 0; row < count; row++) {
    const name = keyOf(names, cells, row)
    if (out.has(name)) return undefined
    out.set(name, row)
  }
  return out
}
