import { followersOf, type RowFollower } from '../live/followers.ts'
import type { Table } from '../live/table.ts'

const NAME = 'memory of rows'

/**
 * What is costly to work out of the rows of a table, by name, for as long as rows only come at the end: what was found out of
 * the first of them holds then. Of any other change what is remembered is told, or it is forgotten.
 */
export function followMemory(table: Table): Map<string, unknown> | undefined {
  if (!table.serialsRise) return undefined
  const followers = followersOf(table)
  let kept = followers.find<RowMemory>(NAME)
  if (!kept) {
    kept = new RowMemory()
    followers.set(NAME, kept)
  }
  return kept.memory
}

/** What is remembered may keep up with single rows that change or go; else it is forgotten then. */
interface KeepsUp {
  /** A row is about to change. */
  leave(row: number): void
  /** It has changed. */
  enter(row: number): void
  /** Rows are about to go, in rising order. */
  remove(rows: readonly number[]): void
}

const keepsUp = (value: unknown): value is KeepsUp =>
  typeof value === 'object' && value !== null && 'leave' in value

class RowMemory implements RowFollower {
  readonly memory = new Map<string, unknown>()

  append(): void {}

  leave(row: number): void {
    this.tell(kept => kept.leave(row))
  }

  enter(row: number): void {
    this.tell(kept => kept.enter(row))
  }

  dropFirst(count: number): void {
    this.remove(Array.from({ length: count }, (_, row) => row))
  }

  remove(rows: readonly number[]): void {
    this.tell(kept => kept.remove(rows))
  }

  private tell(act: (kept: KeepsUp) => void): void {
    for (const [name, value] of this.memory) {
      if (keepsUp(value)) act(value)
      else this.memory.delete(name)
    }
  }
}
