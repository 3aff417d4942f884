import { reportFault } from '../../finding/report-fault.ts'

/** What changed in a table since the last time its watchers were told. Rows are named by their serial numbers. */
export interface Change {
  added: number[]
  changed: number[]
  removed: number[]
  /** All rows were replaced at once; the lists are then the difference. */
  replaced: boolean
}

/** Gathers changes until they are told, as long as somebody watches, so that a burst of updates is one piece of news. */
export class ChangeLog {
  private added = new Set<number>()
  private changed = new Set<number>()
  private removed = new Set<number>()
  private replaced = false
  private due = false
  private readonly listeners = new Set<(change: Change) => void>()

  watch(listener: (change: Change) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  add(serial: number): void {
    if (!this.watched) return
    if (this.removed.delete(serial)) this.changed.add(serial)
    else this.added.add(serial)
  }

  change(serial: number): void {
    if (!this.watched) return
    if (!this.added.has(serial)) this.changed.add(serial)
  }

  remove(serial: number): void {
    if (!this.watched) return
    this.changed.delete(serial)
    if (!this.added.delete(serial)) this.removed.add(serial)
  }

  replace(): void {
    if (this.watched) this.replaced = true
  }

  get watched(): boolean {
    return this.listeners.size > 0
  }

  /** Tells the watchers once the running code has ended. */
  tellSoon(): void {
    if (this.due || !this.watched) return
    this.due = true
    Promise.resolve().then(() => this.tell())
  }

  private tell(): void {
    this.due = false
    const change: Change = {
      added: [...this.added],
      changed: [...this.changed],
      removed: [...this.removed],
      replaced: this.replaced,
    }
    this.added = new Set()
    this.changed = new Set()
    this.removed = new Set()
    this.replaced = false
    if (change.added.length + change.changed.length + change.removed.length === 0 && !change.replaced) return
    for (const listener of [...this.listeners]) {
      try {
        listener(change)
      } catch (error) {
        // One that fails must neither starve the others nor end the program.
        reportFault(error)
      }
    }
  }
}
