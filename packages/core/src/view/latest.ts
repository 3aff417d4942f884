/** The last thing that was made, for as long as what it was made from stays. */
export class Latest<T> {
  private from: readonly unknown[] | undefined
  private made: T | undefined

  get(from: readonly unknown[], make: () => T): T {
    const { from: before } = this
    if (!before || from.some((own, i) => !Object.is(own, before[i]))) {
      this.made = make()
      this.from = from
    }
    return this.made as T
  }
}
