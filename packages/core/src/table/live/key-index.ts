import type { Cells } from '../cells/cells.ts'
import { keyOf, rowsByKey } from './keys.ts'

/** Finds rows by their key, and is brought up to date as rows come and age. */
export class KeyIndex {
  private readonly key: readonly string[]
  private readonly title: string
  private readonly cells: () => Map<string, Cells>
  /** Rows counted from the first that there ever was: those that aged are `gone`. Undefined until it is needed. */
  private rows: Map<string, number> | undefined
  private gone = 0

  /** `cells`: those that the rows are recognised by now. */
  constructor(key: readonly string[], title: string, cells: () => Map<string, Cells>) {
    this.key = key
    this.title = title
    this.cells = cells
  }

  /** Tells the row of a key; undefined where none has it. Throws `duplicate-key` where the rows are no index. */
  finder(count: number): (key: string) => number | undefined {
    this.rows ??= rowsByKey(this.key, this.cells(), count, this.title)
    const { rows, gone } = this
    return key => {
      const at = rows.get(key)
      return at === undefined ? undefined : at - gone
    }
  }

  added(first: number, count: number): void {
    if (!this.rows) return
    const own = this.cells()
    for (let row = first; row < first + count; row++)
      this.rows.set(keyOf(this.key, own, row), row + this.gone)
  }

  /** To be called before the cells of those rows are gone. */
  dropFirst(count: number): void {
    if (!this.rows) return
    const own = this.cells()
    for (let row = 0; row < count; row++) this.rows.delete(keyOf(this.key, own, row))
    this.gone += count
  }

  /** Starts anew, by an index that is known already, or by the rows when it is needed. */
  restart(rows?: Map<string, number>): void {
    this.rows = rows
    this.gone = 0
  }
}
