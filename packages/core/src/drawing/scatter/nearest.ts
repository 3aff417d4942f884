import Flatbush from 'flatbush'
import { LATE, lasting } from '../../describe/lasting.ts'
import type { Marks, NearMark } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { PositionScale } from '../../scale/scale.ts'
import { seen } from './spaces.ts'

/** What is lost in adding up and dividing, as a share of a distance. */
const LOST = 1e-9
/** By so much do boxes grow in which the nearest is looked for: what is read in vain is what lies in the last one. */
const LARGER = 1.1

interface Index {
  tree: Flatbush
  /** The mark of each of its points. */
  own: Int32Array
  /** How many units along y a unit along x was as long as on the screen. */
  ratio: number
}

/** An index of the first marks: those that came after them are looked at one by one. */
interface Kept {
  index?: Index
  count: number
}

type Point = Pick<NearMark, 'x' | 'y'>

/**
 * The mark that stands nearest to a point, among very many. Places are indexed as scales see them, before zoom and size: those
 * move and stretch them, mostly by as much along x as along y, so that what is near there is near on the screen.
 */
export function nearestByIndex(
  marks: Marks,
  memory: Map<string, unknown>,
  across: PositionScale,
  up: PositionScale,
  { x, y }: Point,
): NearMark | undefined {
  const [xs, ys] = [marks.x.at, marks.y.at]
  const { memory: longest, name } = lasting(marks, memory)
  const named = `places ${across.kind.name} ${up.kind.name} ${name}`
  const kept = remember(longest, named, (): Kept => ({ count: 0 }))
  if (marks.length - kept.count > marks.length * LATE) {
    kept.index = indexOf(marks, across, up)
    kept.count = marks.length
  }
  let best: NearMark | undefined
  /** Looks at a mark, and says how far the nearest is by now. */
  const consider = (mark: number): number => {
    const px = seen(across.kind, xs[mark]) * across.factor + across.offset
    const py = seen(up.kind, ys[mark]) * up.factor + up.offset
    const far = (px - x) ** 2 + (py - y) ** 2
    // Of several at one distance the first, as when all are looked at.
    if (best ? far < best.far || (far === best.far && mark < best.mark) : far === far)
      best = { mark, x: px, y: py, far }
    return best?.far ?? Number.POSITIVE_INFINITY
  }
  for (let mark = kept.count; mark < marks.length; mark++) consider(mark)
  if (kept.index) lookAround(kept.index, marks, across, up, { x, y }, consider)
  return best
}

/** Has all marks of an index considered that may stand nearest to a point. */
function lookAround(
  { tree, own, ratio }: Index,
  marks: Marks,
  across: PositionScale,
  up: PositionScale,
  { x, y }: Point,
  consider: (mark: number) => number,
): void {
  const [wide, high] = [Math.abs(across.factor) / ratio, Math.abs(up.factor)]
  const from = [((x - across.offset) / across.factor) * ratio, (y - up.offset) / up.factor] as const
  const first = own[tree.neighbors(...from, 1)[0]]
  let far = consider(first)
  const look = (point: number): boolean => {
    far = consider(own[point])
    return false
  }
  const atMost = () => Math.sqrt(far) * (1 + LOST)
  if (Math.abs(wide - high) <= high * LOST) {
    tree.neighbors(...from, Number.POSITIVE_INFINITY, (atMost() / high) * (1 + LOST)).forEach(look)
    return
  }
  // Stretched otherwise than when they were indexed: what is nearest there may stand far from here on the screen. Around what is
  // known to be empty, boxes that are a little larger each are looked through.
  const [alongX, alongY] = [seen(across.kind, marks.x.at[first]) * ratio, seen(up.kind, marks.y.at[first])]
  const empty = Math.hypot(alongX - from[0], alongY - from[1]) * Math.min(wide, high)
  let reach = empty * Math.SQRT1_2
  do {
    reach = Math.min(reach * LARGER, atMost())
    const [dx, dy] = [reach / wide, reach / high]
    tree.search(from[0] - dx, from[1] - dy, from[0] + dx, from[1] + dy, look)
  } while (reach * reach < far)
}

function indexOf(marks: Marks, across: PositionScale, up: PositionScale): Index | undefined {
  const [xs, ys] = [marks.x.at, marks.y.at]
  const ratio = Math.abs(across.factor / up.factor)
  const own: number[] = []
  for (let mark = 0; mark < marks.length; mark++)
    if (!Number.isNaN(seen(across.kind, xs[mark]) + seen(up.kind, ys[mark]))) own.push(mark)
  if (own.length === 0) return undefined
  const tree = new Flatbush(own.length)
  for (const mark of own) tree.add(seen(across.kind, xs[mark]) * ratio, seen(up.kind, ys[mark]))
  tree.finish()
  return { tree, own: Int32Array.from(own), ratio }
}
