import { takeOut } from './take-out.ts'

/** A whole number for each row, to which rows are added at the end and from which they go at the front. */
export class RowList {
  private buffer: Int32Array
  private first = 0
  length: number

  /** Takes over what it is given. */
  constructor(values: Int32Array) {
    this.buffer = values
    this.length = values.length
  }

  get(row: number): number {
    return this.buffer[this.first + row]
  }

  set(row: number, value: number): void {
    this.buffer[this.first + row] = value
  }

  push(value: number): void {
    if (this.first + this.length === this.buffer.length) {
      // Room that aged rows have left is used before more is taken.
      const room =
        this.first >= this.length && this.first > 0
          ? this.buffer
          : new Int32Array(Math.max(64, this.length * 2))
      room.set(this.all)
      this.buffer = room
      this.first = 0
    }
    this.buffer[this.first + this.length++] = value
  }

  dropFirst(count: number): void {
    this.first += count
    this.length -= count
  }

  /** Takes out rows, in rising order. */
  remove(rows: ArrayLike<number>): void {
    this.first += takeOut(this.buffer, this.first, this.length, rows)
    this.length -= rows.length
  }

  /** A view of all, valid until the next change. */
  get all(): Int32Array {
    return this.buffer.subarray(this.first, this.first + this.length)
  }
}
