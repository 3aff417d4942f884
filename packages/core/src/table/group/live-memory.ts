import { followersOf, type RowFollower } from '../live/followers.ts'
import type { Table } from '../live/table.ts'

const NAME = 'memory of rows'

/**
 * What is costly to work out of the rows of a table, by name, for as long as rows only come at the end: what was found out of
 * the first of them holds then. Any other change empties it.
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

class RowMemory implements RowFollower {
  memory = new Map<string, unknown>()

  append(): void {}

  leave(): void {
    this.forget()
  }

  enter(): void {
    this.forget()
  }

  dropFirst(): void {
    this.forget()
  }

  remove(): void {
    this.forget()
  }

  private forget(): void {
    if (this.memory.size > 0) this.memory = new Map()
  }
}
