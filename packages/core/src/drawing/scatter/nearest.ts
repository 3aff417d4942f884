import Flatbush from 'flatbush'
import type { Marks, NearMark } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { PositionScale } from '../../scale/scale.ts'

/** Pixels around the pointer that are looked through, one after the other. */
const REACHES = [2, 8, 32, 128, 512, 2048, 8192]

/**
 * The mark that stands nearest to a point, among very many. Places are indexed as scales see them, before zoom and size: those
 * only stretch and move them.
 */
export function nearestByIndex(
  marks: Marks,
  memory: Map<string, unknown>,
  across: PositionScale,
  up: PositionScale,
  { x, y }: { x: number; y: number },
): NearMark | undefined {
  const [xs, ys] = [marks.x.at, marks.y.at]
  const place = (scale: PositionScale, value: number) =>
    scale.kind.allows(value) ? scale.kind.forward(value) : Number.NaN
  const { index, own } = remember(memory, `places ${across.kind.name} ${up.kind.name}`, () => {
    const own: number[] = []
    for (let mark = 0; mark < marks.length; mark++)
      if (!Number.isNaN(place(across, xs[mark]) + place(up, ys[mark]))) own.push(mark)
    if (own.length === 0) return { index: undefined, own }
    const index = new Flatbush(own.length)
    for (const mark of own) index.add(place(across, xs[mark]), place(up, ys[mark]))
    index.finish()
    return { index, own: Int32Array.from(own) }
  })
  if (!index) return undefined
  let best: NearMark | undefined
  for (const reach of REACHES) {
    const ends = [x - reach, x + reach].map(pixel => (pixel - across.offset) / across.factor)
    const sides = [y - reach, y + reach].map(pixel => (pixel - up.offset) / up.factor)
    const found = index.search(Math.min(...ends), Math.min(...sides), Math.max(...ends), Math.max(...sides))
    for (const i of found) {
      const mark = own[i]
      const px = place(across, xs[mark]) * across.factor + across.offset
      const py = place(up, ys[mark]) * up.factor + up.offset
      const far = (px - x) ** 2 + (py - y) ** 2
      // Of several at one distance the first, as when all are looked at.
      if (!best || far < best.far || (far === best.far && mark < best.mark))
        best = { mark, x: px, y: py, far }
    }
    if (best && best.far <= reach * reach) break
  }
  return best
}
