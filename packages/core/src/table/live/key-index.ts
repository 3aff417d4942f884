import type { Cells } from '../cells/cells.ts'
import { type Key, keyOf, rowsByKey } from './keys.ts'
import type { Serials } from './serials.ts'

/** Finds rows by their key, and is brought up to date as rows come, age and go. */
export class KeyIndex {
  private readonly key: readonly string[]
  private readonly title: string
  private readonly cells: (rows?: readonly number[]) => Map<string, Cells>
  private readonly serials: Serials
  /** The serial numbers of rows, which stay while places change. Undefined until it is needed. */
  private numbers: Map<Key, number> | undefined

  /** `cells`: those that some rows, or all, are recognised by now. */
  constructor(
    key: readonly string[],
    title: string,
    cells: (rows?: readonly number[]) => Map<string, Cells>,
    serials: Serials,
  ) {
    this.key = key
    this.title = title
    this.cells = cells
    this.serials = serials
  }

  /** Tells the row of a key; undefined where none has it. Throws `duplicate-key` where the rows are no index. */
  finder(count: number): (key: Key) => number | undefined {
    this.numbers ??= this.numbered(rowsByKey(this.key, this.cells(), count, this.title))
    const { numbers, serials } = this
    return key => {
      const number = numbers.get(key)
      return number === undefined ? undefined : serials.rowOf(number)
    }
  }

  added(first: number, count: number): void {
    if (!this.numbers) return
    const own = this.cells(Array.from({ length: count }, (_, i) => first + i))
    for (let i = 0; i < count; i++) this.numbers.set(keyOf(this.key, own, i), this.serials.of(first + i))
  }

  /** To be called before the cells of those rows are gone. */
  leaving(rows: readonly number[]): void {
    if (!this.numbers) return
    const own = this.cells(rows)
    for (let i = 0; i < rows.length; i++) this.numbers.delete(keyOf(this.key, own, i))
  }

  /** Starts anew, by an index of rows that is known already, or by the rows when it is needed. */
  restart(rows?: Map<Key, number>): void {
    this.numbers = rows && this.numbered(rows)
  }

  /** Serial numbers in place of rows. */
  private numbered(rows: Map<Key, number>): Map<Key, number> {
    if (!this.serials.areRows) for (const [key, row] of rows) rows.set(key, this.serials.of(row))
    return rows
  }
}
