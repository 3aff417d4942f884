import { LATE, lasting } from '../../describe/lasting.ts'
import type { Begun, Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { ScaleKind } from '../../scale/scale.ts'
import { firstAtLeast } from '../../table/cells/search.ts'
import { takeOut } from './cells-in-space.ts'
import { type InSpace, seen, spacesOf } from './spaces.ts'

/** What is counted: marks, and which of the colours each has; a name tells one such assignment from another. */
export interface Crowd {
  marks: Marks
  inks: number
  inkOf: () => Uint16Array
  inkName: string
  memory: Map<string, unknown> | undefined
}

/** The first points in space, and how many those are. */
export interface Spaces {
  spaces: readonly InSpace[]
  count: number
  /** Those of the first that have changed since, and are in none of the spaces. */
  changed: ReadonlySet<number>
}

/**
 * The points in space, by colour, from the second time that they are counted on, as when a person zooms: for a single
 * picture the order would take longer than it saves. It holds for the first points while others come after them, which are
 * counted as they are, and, where all have one colour, while single ones change or go.
 */
export function inSpace(crowd: Crowd, x: ScaleKind, y: ScaleKind): Spaces | undefined {
  const { marks, inkName, inks } = crowd
  // Places are few enough to be counted in the order that they come in.
  if (!crowd.memory || marks.crowd) return undefined
  const { memory, name } = lasting(marks, crowd.memory)
  const kept = remember(
    memory,
    `in space ${x.name} ${y.name} ${inkName} ${name}`,
    () => new Kept({ x, y }, inks === 1 ? marks.begun?.at : undefined),
  )
  const counted = remember(crowd.memory, 'counted', () => ({ times: 0 }))
  return kept.of(crowd, counted.times++ > 0)
}

/** So many changes in a row are no single ones. */
const SINGLE = 2

/** What is kept of points in space, for scales and colours. */
class Kept implements Spaces {
  spaces: readonly InSpace[] = []
  count = 0
  changed = new Set<number>()
  /** How many points there were when they were last counted. */
  private last: number | undefined
  private changes = 0
  private readonly kinds: { x: ScaleKind; y: ScaleKind }
  private readonly at: Begun['at'] | undefined

  constructor(kinds: { x: ScaleKind; y: ScaleKind }, at: Begun['at'] | undefined) {
    this.kinds = kinds
    this.at = at
  }

  /** `again`: whether these very points have been counted before. */
  of({ marks, inks, inkOf }: Crowd, again: boolean): Spaces | undefined {
    // Points that keep coming or changing are counted again as well.
    const moves = this.changes >= SINGLE || (this.last !== undefined && marks.length > this.last)
    this.last = marks.length
    if (!again && !moves && this.spaces.length === 0) return undefined
    const late = marks.length - this.count + this.changed.size
    if (late > marks.length * LATE) {
      this.forget()
      const at = { x: marks.x.at, y: marks.y.at }
      this.spaces = spacesOf(at, this.kinds, inks, inkOf) ?? []
      this.count = this.last = marks.length
    }
    return this.spaces.length > 0 ? this : undefined
  }

  leave(row: number): void {
    if (!this.at) {
      this.forget()
      return
    }
    this.changes++
    const [space] = this.spaces
    if (!space || row >= this.count || this.changed.delete(row)) return
    const [x, y] = this.at(row)
    takeOut(space, seen(this.kinds.x, x), seen(this.kinds.y, y))
  }

  enter(row: number): void {
    if (row < this.count) this.changed.add(row)
  }

  remove(rows: readonly number[]): void {
    for (const row of rows) this.leave(row)
    this.changed = new Set(Array.from(this.changed, row => row - firstAtLeast(rows, row)))
    this.count -= firstAtLeast(rows, this.count)
  }

  private forget(): void {
    this.spaces = []
    this.count = 0
    this.changed.clear()
    this.last = undefined
  }
}
