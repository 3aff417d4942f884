import type { OnItsWay } from '../group/question.ts'

/** Answers are kept up to so many values in all; the oldest go first. */
const MOST = 4_000_000

/** Keeps answers by their questions: equal ones are asked once, also while the first of them is on its way. */
export class Kept<T extends object> {
  private readonly known = new Map<string, { value: T; size: number }>()
  private readonly onTheirWay = new Map<string, { promise: OnItsWay<T>; waiting: number }>()
  private readonly sizeOf: (value: T) => number
  private held = 0
  private age = 0

  constructor(sizeOf: (value: T) => number) {
    this.sizeOf = sizeOf
  }

  /**
   * The answer, at once where it is known. `find` is told what gives it up, part by part, and says by `passing` that what it
   * finds will be asked for again.
   */
  find(
    key: string,
    find: (began: (cancel: () => void) => void, passing: () => void) => Promise<T>,
  ): T | OnItsWay<T> {
    const known = this.known.get(key)
    if (known) {
      // What is asked for again is young again.
      this.known.delete(key)
      this.known.set(key, known)
      return known.value
    }
    const going = this.onTheirWay.get(key)
    if (going) return going.promise
    const cancels: (() => void)[] = []
    let givenUp = false
    const began = (cancel: () => void) => {
      if (givenUp) cancel()
      else cancels.push(cancel)
    }
    const { age } = this
    let passes = false
    const passing = () => {
      passes = true
    }
    const promise: OnItsWay<T> = find(began, passing).then(
      value => {
        this.leave(key, own)
        if (age === this.age && !passes) this.keep(key, value)
        return value
      },
      error => {
        this.leave(key, own)
        throw error
      },
    )
    const own = { promise, waiting: 0 }
    promise.hold = () => {
      own.waiting++
    }
    promise.release = () => {
      own.waiting--
      if (own.waiting > 0 || this.onTheirWay.get(key) !== own) return
      givenUp = true
      this.onTheirWay.delete(key)
      for (const cancel of cancels) cancel()
    }
    this.onTheirWay.set(key, own)
    return promise
  }

  /** All that is known. */
  *entries(): Generator<[key: string, value: T]> {
    for (const [key, { value }] of this.known) yield [key, value]
  }

  /** What is known no longer holds, and neither does what is on its way. */
  forget(): void {
    this.known.clear()
    this.onTheirWay.clear()
    this.held = 0
    this.age++
  }

  private leave(key: string, own: object): void {
    if (this.onTheirWay.get(key) === own) this.onTheirWay.delete(key)
  }

  private keep(key: string, value: T): void {
    const size = this.sizeOf(value)
    this.known.set(key, { value, size })
    this.held += size
    for (const [oldest, { size }] of this.known) {
      if (this.held <= MOST || oldest === key) break
      this.known.delete(oldest)
      this.held -= size
    }
  }
}
