import { DapploError } from '../../finding/error.ts'
import { type Cells, cellText } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Value } from '../cells/options.ts'
import type { Intake } from '../read/intake.ts'

/** Parts of a key are joined by the unit separator, which no text that people write contains. */
const PARTS = '\u001f'

/** What a row is recognised by: the number of a single column of numbers or times, else its cells as texts. */
export type Key = number | string

/** The key of a row, by its cells in the columns of the key. The rows need not be in a table yet. */
export function keyOf(key: readonly string[], cells: ReadonlyMap<string, Cells>, row: number): Key {
  const only = key.length === 1 ? cells.get(key[0]) : undefined
  return only && only.type !== 'text' ? only.values[row] : keyText(key, cells, row)
}

/** The same as a text, for messages. */
export const keyText = (key: readonly string[], cells: ReadonlyMap<string, Cells>, row: number): string =>
  key.map(part => (cells.has(part) ? cellText(cells.get(part)!, row) : '')).join(PARTS)

/** Rows by their keys. Throws `duplicate-key` where two have the same. */
export function rowsByKey(
  key: readonly string[],
  cells: ReadonlyMap<string, Cells>,
  count: number,
  title: string,
): Map<Key, number> {
  const index = new Map<Key, number>()
  for (let row = 0; row < count; row++) {
    const own = keyOf(key, cells, row)
    if (index.has(own))
      throw duplicateKey(
        keyText(key, cells, row),
        title,
        'key',
        'Name columns that together identify a row, or leave the key out.',
      )
    index.set(own, row)
  }
  return index
}

/** Keys as cells, read as the columns of the key were, so that "2024-03-01" is the key of that day. */
export const keyCellsOf = (
  key: readonly string[],
  keys: readonly (readonly Value[])[],
  columns: ReadonlyMap<string, TableColumn>,
  intake: Intake,
): Map<string, Cells> =>
  new Map(
    key.flatMap((part, i) => {
      const column = columns.get(part)
      return column
        ? [
            [
              part,
              intake.values(
                column,
                keys.map(own => own[i]),
              ),
            ] as const,
          ]
        : []
    }),
  )

export const duplicateKey = (key: string, title: string, path: string, hint: string): DapploError => {
  const parts = key.split(PARTS).map(part => `"${part}"`)
  return new DapploError('duplicate-key', `Two rows of ${title} have the key ${parts.join(', ')}`, path, hint)
}

export const noKey = (call: string, title: string): DapploError =>
  new DapploError(
    'no-key',
    `${call} needs a table with a key, and ${title} has none`,
    'key',
    'Name the column that identifies a row: table(rows, { key: "id" }).',
  )
