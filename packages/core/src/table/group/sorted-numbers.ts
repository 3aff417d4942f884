import { firstAtLeast } from '../cells/search.ts'

/** All are sorted anew where more than one of so many has come. */
const FEW = 8

/** Numbers in order. Those that come and leave are sorted in and taken out at once, when somebody looks. */
export class SortedNumbers {
  private values = new Float64Array(16)
  private length = 0
  /** How many of them are in order. */
  private ordered = 0
  private leaving: number[] = []

  add(value: number): void {
    if (this.length === this.values.length) {
      const grown = new Float64Array(this.length * 2)
      grown.set(this.values)
      this.values = grown
    }
    this.values[this.length++] = value
  }

  remove(value: number): void {
    this.leaving.push(value)
  }

  get all(): Float64Array {
    this.order()
    this.takeOut()
    return this.values.subarray(0, this.length)
  }

  private order(): void {
    const { values, length, ordered } = this
    this.ordered = length
    if ((length - ordered) * FEW > length) {
      values.subarray(0, length).sort()
      return
    }
    const late = values.slice(ordered, length).sort()
    // From the greatest on, so that those in order move up once.
    let end = ordered
    for (let i = late.length - 1; i >= 0; i--) {
      const at = firstAtLeast(values, late[i], 0, end)
      values.copyWithin(at + i + 1, at, end)
      values[at + i] = late[i]
      end = at
    }
  }

  private takeOut(): void {
    const { values, length } = this
    const leaving = Float64Array.from(this.leaving).sort()
    this.leaving = []
    let from = 0
    let gone = 0
    for (const value of leaving) {
      const at = firstAtLeast(values, value, from, length)
      if (at === length || values[at] !== value) continue
      values.copyWithin(from - gone, from, at)
      from = at + 1
      gone++
    }
    if (gone > 0) values.copyWithin(from - gone, from, length)
    this.length -= gone
    this.ordered = this.length
  }
}
