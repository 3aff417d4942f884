import { takeOut } from './take-out.ts'

/** So many rows that have left from between others wait to be closed up together. */
const MOST_GAPS = 128

/**
 * A number for each row, to which rows are added at the end and from which they go anywhere. Those that go from the front
 * leave their places behind; those that go from between others leave gaps, which are stepped over as rows are read one by
 * one, and are closed up together when there are many, or when somebody looks at all.
 */
export class RowList<T extends Float64Array | Int32Array> {
  private buffer: T
  private first = 0
  /** Where in the buffer rows have left, in rising order; between the first row and the last. */
  private gaps: number[] = []
  /** False while the memory is the caller's, which is never written to. */
  private owned: boolean
  length: number

  constructor(values: T, owned = true) {
    this.buffer = values
    this.length = values.length
    this.owned = owned
  }

  get(row: number): number {
    return this.buffer[this.gaps.length === 0 ? this.first + row : this.placeOf(row)]
  }

  set(row: number, value: number): void {
    this.own()
    this.buffer[this.placeOf(row)] = value
  }

  push(value: number): void {
    const end = this.reserve(1)
    this.buffer[end] = value
    this.length++
  }

  append(values: T): void {
    const end = this.reserve(values.length)
    this.buffer.set(values as Float64Array & Int32Array, end)
    this.length += values.length
  }

  dropFirst(count: number): void {
    const first = count < this.length ? this.placeOf(count) : this.end
    this.gaps = this.gaps.filter(gap => gap >= first)
    this.first = first
    this.length -= count
  }

  /** Takes out rows, in rising order. */
  remove(rows: ArrayLike<number>): void {
    if (rows.length === 0) return
    if (this.gaps.length + rows.length > MOST_GAPS) {
      this.close()
      this.own()
      this.first += takeOut(this.buffer, this.first, this.length, rows)
    } else this.gaps = [...this.gaps, ...Array.from(rows, row => this.placeOf(row))].sort((a, b) => a - b)
    this.length -= rows.length
  }

  /** A view of all, valid until the next change. */
  get all(): T {
    this.close()
    return this.buffer.subarray(this.first, this.first + this.length) as T
  }

  /** The first row whose value is not below `value`, where values rise from row to row; their number where all are. */
  firstAtLeast(value: number): number {
    let low = 0
    let high = this.length
    while (low < high) {
      const middle = (low + high) >>> 1
      if (this.get(middle) < value) low = middle + 1
      else high = middle
    }
    return low
  }

  /** Behind the last row. */
  private get end(): number {
    return this.first + this.length + this.gaps.length
  }

  /** Where a row stands: as many places on as there are gaps before it. */
  private placeOf(row: number): number {
    const { gaps, first } = this
    let low = 0
    let high = gaps.length
    while (low < high) {
      const middle = (low + high) >>> 1
      if (gaps[middle] - first - middle <= row) low = middle + 1
      else high = middle
    }
    return first + row + low
  }

  private close(): void {
    const { gaps, first } = this
    if (gaps.length === 0) return
    this.own()
    this.gaps = []
    const places = gaps.map(gap => gap - first)
    this.first += takeOut(this.buffer, first, this.length + gaps.length, places)
  }

  /** Before anything is written: the caller's memory stays as it is. */
  private own(): void {
    if (!this.owned) this.buffer = this.buffer.slice() as T
    this.owned = true
  }

  /**
   * Makes room for so many more rows: where those that left were as many as stay, in their places, else in a larger buffer.
   * Returns where the next one goes.
   */
  private reserve(more: number): number {
    this.own()
    if (this.end + more <= this.buffer.length) return this.end
    const { all, buffer, length } = this
    const Kind = buffer.constructor as new (length: number) => T
    const reused = this.first >= length && length + more <= buffer.length
    this.buffer = reused ? buffer : new Kind(Math.max(64, length + more, length * 2))
    this.buffer.set(all as Float64Array & Int32Array)
    this.first = 0
    return length
  }
}
