import { firstAtLeast } from '../cells/search.ts'
import { takeOut } from '../cells/take-out.ts'

/**
 * Numbers that identify the rows of a table for as long as it lives. While no row has moved, row i has the number i and
 * nothing is kept.
 */
export class Serials {
  private numbers: Float64Array | undefined
  /** Where the first row's number stands: those of rows that aged lie before it. */
  private first = 0
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
    return this.written().subarray(this.first, this.first + this.count)
  }

  /** Whether every row's number is its place. */
  get areRows(): boolean {
    return this.numbers === undefined
  }

  of(row: number): number {
    return this.numbers ? this.numbers[this.first + row] : row
  }

  /** Numbers rows that are added at the end: those that are `kept` as they were, others anew. Returns their numbers. */
  add(count: number, kept?: readonly (number | undefined)[]): Float64Array {
    let numbers = this.written()
    if (numbers.length < this.first + this.count + count) {
      const grown = new Float64Array(Math.max(this.count + count, this.count * 2))
      grown.set(this.all)
      numbers = grown
      this.numbers = grown
      this.first = 0
    }
    const start = this.first + this.count
    for (let i = 0; i < count; i++) {
      const at = start + i
      numbers[at] = kept?.[i] ?? this.next++
      if (at > this.first && numbers[at] < numbers[at - 1]) this.rising = false
    }
    this.places = undefined
    this.count += count
    return numbers.subarray(start, start + count)
  }

  dropFirst(count: number): void {
    this.written()
    this.first += count
    this.count -= count
    this.places = undefined
  }

  /** Takes out rows, in rising order. */
  remove(rows: ArrayLike<number>): void {
    this.first += takeOut(this.written(), this.first, this.count, rows)
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
    const row = firstAtLeast(this.all, number)
    return row < this.count && this.of(row) === number ? row : undefined
  }

  /** Only these rows stay, in this order. */
  keep(rows: readonly number[]): void {
    this.numbers = Float64Array.from(rows, row => this.of(row))
    this.first = 0
    this.count = rows.length
    this.rising = this.numbers.every((number, row) => row === 0 || number > this.of(row - 1))
    this.places = undefined
  }

  /** Numbers so many rows as if there had never been others. */
  restart(count: number): void {
    this.numbers = undefined
    this.first = 0
    this.count = count
    this.rising = true
    this.places = undefined
  }

  private written(): Float64Array {
    this.numbers ??= Float64Array.from({ length: this.count }, (_, row) => row)
    return this.numbers
  }
}
