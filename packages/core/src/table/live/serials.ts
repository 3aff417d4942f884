import { RowList } from '../cells/row-list.ts'

/**
 * Numbers that identify the rows of a table for as long as it lives. While no row has moved, row i has the number i and
 * nothing is kept.
 */
export class Serials {
  private numbers: RowList<Float64Array> | undefined
  /** How many rows there are. */
  private count: number
  private next: number
  /** Whether numbers rise from row to row, so that a row is found by halving; else places are kept by number. */
  rising = true
  private places: Map<number, number> | undefined

  constructor(count: number) {
    this.count = count
    this.next = count
  }

  /** By row. */
  get all(): Float64Array {
    return this.written().all
  }

  /** Whether every row's number is its place. */
  get areRows(): boolean {
    return this.numbers === undefined
  }

  of(row: number): number {
    return this.numbers ? this.numbers.get(row) : row
  }

  /** Numbers rows that are added at the end: those that are `kept` as they were, others anew. Returns their numbers. */
  add(count: number, kept?: readonly (number | undefined)[]): Float64Array {
    const added = Float64Array.from({ length: count }, (_, i) => kept?.[i] ?? this.next++)
    let before = this.count > 0 ? this.of(this.count - 1) : Number.NEGATIVE_INFINITY
    for (const number of added) {
      if (number < before) this.rising = false
      before = number
    }
    this.written().append(added)
    this.places = undefined
    this.count += count
    return added
  }

  dropFirst(count: number): void {
    this.written().dropFirst(count)
    this.count -= count
    this.places = undefined
  }

  /** Takes out rows, in rising order. */
  remove(rows: ArrayLike<number>): void {
    this.written().remove(rows)
    this.count -= rows.length
    this.places = undefined
  }

  /** The row with a number; undefined where it is gone. */
  rowOf(number: number): number | undefined {
    if (!this.numbers)
      return Number.isInteger(number) && number >= 0 && number < this.count ? number : undefined
    if (!this.rising) {
      this.places ??= new Map(Array.from(this.all, (number, row) => [number, row]))
      return this.places.get(number)
    }
    const row = this.numbers.firstAtLeast(number)
    return row < this.count && this.of(row) === number ? row : undefined
  }

  /** Only these rows stay, in this order. */
  keep(rows: readonly number[]): void {
    const kept = Float64Array.from(rows, row => this.of(row))
    this.numbers = new RowList(kept)
    this.count = rows.length
    this.rising = kept.every((number, row) => row === 0 || number > kept[row - 1])
    this.places = undefined
  }

  /** Numbers so many rows as if there had never been others. */
  restart(count: number): void {
    this.numbers = undefined
    this.count = count
    this.rising = true
    this.places = undefined
  }

  private written(): RowList<Float64Array> {
    this.numbers ??= new RowList(Float64Array.from({ length: this.count }, (_, row) => row))
    return this.numbers
  }
}
