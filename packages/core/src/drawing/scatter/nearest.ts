import Flatbush from 'flatbush'
import type { Marks, NearMark } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { PositionScale } from '../../scale/scale.ts'

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

/**
 * The mark that stands nearest to a point, among very many. Places are indexed as scales see them, before zoom and size: those
 * move and stretch them, mostly by as much along x as along y, so that what is near there is near on the screen.
 */
export function nearestByIndex(
  marks: Marks,
  memory: Map<string, unknown>,
  across: PositionScale,
  up: PositionScale,
  { x, y }: { x: number; y: number },
): NearMark | undefined {
  const [xs, ys] = [marks.x.at, marks.y.at]
  const ratio = Math.abs(across.factor / up.factor)
  const name = `places ${across.kind.name} ${up.kind.name}`
  const { index } = remember(memory, name, () => ({ index: indexOf(marks, across, up, ratio) }))
  if (!index) return undefined
  const { tree, own } = index
  const from = [((x - across.offset) / across.factor) * index.ratio, (y - up.offset) / up.factor] as const
  const standing = (point: number): NearMark => {
    const mark = own[point]
    const px = place(across, xs[mark]) * across.factor + across.offset
    const py = place(up, ys[mark]) * up.factor + up.offset
    return { mark, x: px, y: py, far: (px - x) ** 2 + (py - y) ** 2 }
  }
  let best = standing(tree.neighbors(...from, 1)[0])
  const consider = (point: number): boolean => {
    const found = standing(point)
    // Of several at one distance the first, as when all are looked at.
    if (found.far < best.far || (found.far === best.far && found.mark < best.mark)) best = found
    return false
  }
  const atMost = () => Math.sqrt(best.far) * (1 + LOST)
  const [wide, high] = [Math.abs(across.factor) / index.ratio, Math.abs(up.factor)]
  if (Math.abs(ratio - index.ratio) <= index.ratio * LOST)
    tree.neighbors(...from, Number.POSITIVE_INFINITY, (atMost() / high) * (1 + LOST)).forEach(consider)
  else {
    // Stretched otherwise than when they were indexed: what is nearest there may stand far from here on the screen. Around what is
    // known to be empty, boxes that are a little larger each are looked through.
    const empty = Math.hypot((best.x - x) / wide, (best.y - y) / high) * Math.min(wide, high)
    let reach = empty * Math.SQRT1_2
    do {
      reach = Math.min(reach * LARGER, atMost())
      const [alongX, alongY] = [reach / wide, reach / high]
      tree.search(from[0] - alongX, from[1] - alongY, from[0] + alongX, from[1] + alongY, consider)
    } while (reach * reach < best.far)
  }
  return best
}

const place = ({ kind }: PositionScale, value: number): number =>
  kind.allows(value) ? kind.forward(value) : Number.NaN

function indexOf(marks: Marks, across: PositionScale, up: PositionScale, ratio: number): Index | undefined {
  const [xs, ys] = [marks.x.at, marks.y.at]
  const own: number[] = []
  for (let mark = 0; mark < marks.length; mark++)
    if (!Number.isNaN(place(across, xs[mark]) + place(up, ys[mark]))) own.push(mark)
  if (own.length === 0) return undefined
  const tree = new Flatbush(own.length)
  for (const mark of own) tree.add(place(across, xs[mark]) * ratio, place(up, ys[mark]))
  tree.finish()
  return { tree, own: Int32Array.from(own), ratio }
}
