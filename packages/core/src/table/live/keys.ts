import { DapploError } from '../../finding/error.ts'
import { type Cells, cellText } from '../cells/cells.ts'

/** Parts of a key are joined by the unit separator, which no text that people write contains. */
const PARTS = '\u001f'

/** What a row is recognised by: its cells in the columns of the key, as texts. The rows need not be in a table yet. */
export const keyOf = (key: readonly string[], cells: ReadonlyMap<string, Cells>, row: number): string =>
  key.map(part => (cells.has(part) ? cellText(cells.get(part)!, row) : '')).join(PARTS)

/** Rows by their keys. Throws `duplicate-key` where two have the same. */
export function rowsByKey(
  key: readonly string[],
  cells: ReadonlyMap<string, Cells>,
  count: number,
  title: string,
): Map<string, number> {
  const index = new Map<string, number>()
  for (let row = 0; row < count; row++) {
    const own = keyOf(key, cells, row)
    if (index.has(own))
      throw duplicateKey(
        own,
        title,
        'key',
        'Name columns that together identify a row, or leave the key out.',
      )
    index.set(own, row)
  }
  return index
}

export const duplicateKey = (key: string, title: string, path: string, hint: string): DapploError => {
  const parts = key.split(PARTS).map(part => `"${part}"`)
  return new DapploError('duplicate-key', `Two rows of ${title} have the key ${parts.join(', ')}`, path, hint)
}
