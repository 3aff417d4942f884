/** More steps back than a person takes in a day. */
const MOST = 2000

/** What was said before, to go back to and forth again. */
export class History<T> {
  private steps: T[]
  private at = 0

  constructor(first: T) {
    this.steps = [first]
  }

  get now(): T {
    return this.steps[this.at]
  }

  get first(): T {
    return this.steps[0]
  }

  get canUndo(): boolean {
    return this.at > 0
  }

  get canRedo(): boolean {
    return this.at < this.steps.length - 1
  }

  add(step: T): void {
    this.steps = [...this.steps.slice(0, this.at + 1), step]
    // How it was at first is kept, however long ago.
    if (this.steps.length > MOST) this.steps.splice(1, this.steps.length - MOST)
    this.at = this.steps.length - 1
  }

  move(by: -1 | 1): void {
    this.at = Math.max(0, Math.min(this.steps.length - 1, this.at + by))
  }
}
