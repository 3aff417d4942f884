import type { TableColumn } from '../cells/column.ts'
import type { RowList } from '../cells/row-list.ts'
import { firstAtLeast } from '../cells/search.ts'
import { type How, shareOfPercentile } from '../phrase/meaning.ts'
import type { Running, RunningRows } from './live-summary.ts'
import { Counts, Sums } from './live-sums.ts'
import { SortedNumbers } from './sorted-numbers.ts'
import { percentileOf } from './summarise.ts'

/** A running summary that has taken in all rows. */
export function running(how: How, rows: RunningRows): Running {
  const made = begin(how, rows)
  if (made instanceof Sums) {
    made.takeAll(rows)
    return made
  }
  const ofRow = rows.ofRow()
  for (let row = 0; row < ofRow.length; row++) {
    const group = ofRow.get(row)
    if (group >= 0) made.enter(group, row)
  }
  return made
}

function begin(how: How, { column, ofRow, count }: RunningRows): Running {
  if (how === 'count') return new Counts(count)
  if (how === 'sum' || how === 'mean') return new Sums(column!, count, how === 'mean')
  if (how === 'distinct') return new Distinct(column!)
  if (how === 'first' || how === 'last') return new Ends(column!, ofRow(), how)
  if (how === 'min' || how === 'max') return new Extremes(column!, ofRow(), how === 'min' ? 1 : -1)
  return new Percentiles(column!, how === 'median' ? 0.5 : shareOfPercentile(how)!)
}

/** How many different values there are; missing ones are none. */
class Distinct implements Running {
  private readonly seen: Map<number, number>[] = []
  private readonly column: TableColumn

  constructor(column: TableColumn) {
    this.column = column
  }

  private valueAt(row: number): number {
    const value = this.column.numberAt(row)
    return this.column.type === 'text' && value < 0 ? Number.NaN : value
  }

  enter(group: number, row: number): void {
    const value = this.valueAt(row)
    if (value !== value) return
    this.seen[group] ??= new Map()
    this.seen[group].set(value, (this.seen[group].get(value) ?? 0) + 1)
  }

  leave(group: number, row: number): void {
    const value = this.valueAt(row)
    const seen = this.seen[group]
    const times = seen?.get(value)
    if (times === undefined) return
    if (times === 1) seen.delete(value)
    else seen.set(value, times - 1)
  }

  valueOf(group: number): number {
    return this.seen[group]?.size ?? 0
  }
}

/** The value of the first or last row that has one. */
class Ends implements Running {
  /** By group: its row, counted from the first that there ever was; none where no row of it has a value. */
  private readonly rows: number[] = []
  private gone = 0
  private readonly column: TableColumn
  private readonly ofRow: RowList<Int32Array>
  private readonly step: 1 | -1

  constructor(column: TableColumn, ofRow: RowList<Int32Array>, how: 'first' | 'last') {
    this.column = column
    this.ofRow = ofRow
    this.step = how === 'first' ? 1 : -1
  }

  enter(group: number, row: number): void {
    const value = this.column.numberAt(row)
    const known = this.rows[group]
    if (value !== value) return
    if (known === undefined || (row + this.gone - known) * this.step <= 0) this.rows[group] = row + this.gone
  }

  leave(group: number, row: number): void {
    if (this.rows[group] !== row + this.gone) return
    const { ofRow, column, step } = this
    // From where it stood the next one of the group is mostly near.
    for (let next = row + step; next >= 0 && next < ofRow.length; next += step)
      if (ofRow.get(next) === group && column.numberAt(next) === column.numberAt(next)) {
        this.rows[group] = next + this.gone
        return
      }
    delete this.rows[group]
  }

  dropFirst(count: number): void {
    this.gone += count
  }

  remove(rows: readonly number[]): void {
    const { gone } = this
    this.rows.forEach((row, group) => {
      this.rows[group] = row - firstAtLeast(rows, row - gone)
    })
  }

  valueOf(group: number): number {
    const row = this.rows[group]
    return row === undefined ? Number.NaN : this.column.numberAt(row - this.gone)
  }
}

/** The least value, or with a sign of -1 the greatest; where it has left, the group is looked through. */
class Extremes implements Running {
  private readonly least: (number | undefined)[] = []
  private readonly lost = new Set<number>()
  private readonly column: TableColumn
  private readonly ofRow: RowList<Int32Array>
  private readonly sign: 1 | -1

  constructor(column: TableColumn, ofRow: RowList<Int32Array>, sign: 1 | -1) {
    this.column = column
    this.ofRow = ofRow
    this.sign = sign
  }

  enter(group: number, row: number): void {
    const value = this.column.numberAt(row) * this.sign
    if (value !== value || this.lost.has(group)) return
    const least = this.least[group]
    if (least === undefined || value < least) this.least[group] = value
  }

  leave(group: number, row: number): void {
    if (this.column.numberAt(row) * this.sign === this.least[group]) this.lost.add(group)
  }

  /** All lost groups are looked for in one pass. */
  private find(): void {
    const { lost, least, ofRow, sign } = this
    for (const group of lost) least[group] = undefined
    const all = ofRow.all
    for (let row = 0; row < all.length; row++) {
      if (!lost.has(all[row])) continue
      const value = this.column.numberAt(row) * sign
      const known = least[all[row]]
      if (value === value && (known === undefined || value < known)) least[all[row]] = value
    }
    lost.clear()
  }

  valueOf(group: number): number {
    if (this.lost.size > 0) this.find()
    const least = this.least[group]
    return least === undefined ? Number.NaN : least * this.sign
  }
}

/** Percentiles of values that are kept sorted. */
class Percentiles implements Running {
  private readonly sorted: SortedNumbers[] = []
  private readonly column: TableColumn
  private readonly share: number

  constructor(column: TableColumn, share: number) {
    this.column = column
    this.share = share
  }

  enter(group: number, row: number): void {
    const value = this.column.numberAt(row)
    if (value !== value) return
    this.sorted[group] ??= new SortedNumbers()
    this.sorted[group].add(value)
  }

  leave(group: number, row: number): void {
    const value = this.column.numberAt(row)
    if (value === value) this.sorted[group]?.remove(value)
  }

  valueOf(group: number): number {
    return percentileOf(this.sorted[group] ?? [], this.share)
  }
}
