import { openUp } from '../cells/open-up.ts'
import { firstAbove, firstAtLeast } from '../cells/search.ts'

/** So many that have come or left are looked at beside the others; more are sorted in and taken out. */
const ASIDE = 32
/** All are sorted anew where more than one of so many has come. */
const ANEW = 8

/** Numbers in order, of which single ones come and leave without moving the others. */
export class SortedNumbers {
  /** Those that are in order, then those that have come. */
  private values = new Float64Array(16)
  private ordered = 0
  private end = 0
  private leaving: number[] = []

  add(value: number): void {
    if (this.end === this.values.length) {
      const grown = new Float64Array(this.end * 2)
      grown.set(this.values)
      this.values = grown
    }
    this.values[this.end++] = value
  }

  /** Takes out a number that is there. */
  remove(value: number): void {
    this.leaving.push(value)
  }

  get length(): number {
    return this.end - this.leaving.length
  }

  /** The number at a place, from the least on. */
  at(place: number): number {
    if (this.end - this.ordered + this.leaving.length > ASIDE) this.settle()
    const inOrder = this.values.subarray(0, this.ordered)
    const come = this.values.subarray(this.ordered, this.end).sort()
    const left = this.leaving.sort((a, b) => a - b)
    if (come.length === 0 && left.length === 0) return inOrder[place]
    const isUpTo = (value: number) =>
      firstAbove(inOrder, value) + firstAbove(come, value) - firstAbove(left, value) > place
    let low = 0
    let high = inOrder.length
    while (low < high) {
      const middle = (low + high) >>> 1
      if (isUpTo(inOrder[middle])) high = middle
      else low = middle + 1
    }
    const found = low < inOrder.length ? inOrder[low] : Number.POSITIVE_INFINITY
    return come.find(value => value < found && isUpTo(value)) ?? found
  }

  private settle(): void {
    this.sortIn()
    if (this.leaving.length > 0) this.takeOut()
  }

  private sortIn(): void {
    const { values, ordered, end } = this
    this.ordered = end
    if ((end - ordered) * ANEW > end) {
      values.subarray(0, end).sort()
      return
    }
    const come = values.slice(ordered, end).sort()
    const places = come.map(value => firstAtLeast(values, value, 0, ordered))
    openUp(values, 0, ordered, places)
    come.forEach((value, i) => {
      values[places[i] + i] = value
    })
  }

  private takeOut(): void {
    const { values, end } = this
    const leaving = this.leaving.sort((a, b) => a - b)
    this.leaving = []
    let from = 0
    let gone = 0
    for (const value of leaving) {
      const at = firstAtLeast(values, value, from, end)
      values.copyWithin(from - gone, from, at)
      from = at + 1
      gone++
    }
    values.copyWithin(from - gone, from, end)
    this.end -= gone
    this.ordered = this.end
  }
}
