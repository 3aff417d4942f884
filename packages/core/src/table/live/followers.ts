/** Something that is kept of a table's rows and brought up to date row by row, such as groups with their sums. */
export interface RowFollower {
  /** Rows are about to change: what is read from columns for later must be read now. */
  begin?(): void
  /** A row is about to change or to go; it may enter again. */
  leave(row: number): void
  /** A row has changed, or has come. */
  enter(row: number): void
  /** Rows have come at the end. */
  append(first: number, count: number): void
  /** The first rows are about to go. */
  dropFirst(count: number): void
  /** Rows are about to go, in rising order; those after them move up. */
  remove(rows: readonly number[]): void
}

/** Followers beyond this many of one table give way to newer ones. */
const MOST = 24
/**
 * Where more rows than these, and than this share of a table, have changed since somebody asked for a follower, it is sooner
 * worked out anew, and maybe by nobody.
 */
const SOME = 1000
const MUCH = 0.1

interface Kept {
  follower: RowFollower
  /** How many rows have changed since somebody asked for it. */
  unasked: number
}

const all = new WeakMap<object, Followers>()

/** What follows the rows of a table; made when it is first asked for. */
export function followersOf(table: object): Followers {
  let own = all.get(table)
  if (!own) {
    own = new Followers()
    all.set(table, own)
  }
  return own
}

/** What is brought up to date as the rows of a table change, by name. */
export class Followers {
  private readonly kept = new Map<string, Kept>()

  /** The follower of a name, where there is one. */
  find<F extends RowFollower>(name: string): F | undefined {
    const known = this.kept.get(name)
    if (!known) return undefined
    // The latest stand last, so that those unused for longest are the first to go.
    this.set(name, known.follower)
    return known.follower as F
  }

  set(name: string, follower: RowFollower): void {
    this.kept.delete(name)
    this.kept.set(name, { follower, unasked: 0 })
    if (this.kept.size > MOST) this.kept.delete(this.kept.keys().next().value!)
  }

  /** Forgets all of them: rows have changed in a way that is no matter of single rows. */
  clear(): void {
    this.kept.clear()
  }

  /** Begins a change of so many rows of a table that has `rows` of them. */
  begin(count: number, rows: number): void {
    for (const [name, kept] of this.kept) {
      kept.unasked += count
      if (kept.unasked > SOME && kept.unasked > rows * MUCH) this.kept.delete(name)
      else kept.follower.begin?.()
    }
  }

  leave(row: number): void {
    for (const { follower } of this.kept.values()) follower.leave(row)
  }

  enter(row: number): void {
    for (const { follower } of this.kept.values()) follower.enter(row)
  }

  append(first: number, count: number): void {
    for (const { follower } of this.kept.values()) follower.append(first, count)
  }

  dropFirst(count: number): void {
    for (const { follower } of this.kept.values()) follower.dropFirst(count)
  }

  remove(rows: readonly number[]): void {
    for (const { follower } of this.kept.values()) follower.remove(rows)
  }
}
