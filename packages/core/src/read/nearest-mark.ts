import type { BoundDrawing } from '../bind/model.ts'
import { lasting } from '../describe/lasting.ts'
import type { NearMark } from '../describe/model.ts'
import { remember } from '../describe/remember.ts'
import type { PositionScale } from '../scale/scale.ts'
import { standsOf } from './stands.ts'

/** Among so many marks, all are looked at. */
const FEW = 20_000
/** An index of a million takes as long as so many looks at all of them: it is made for those that are pointed at again. */
const LOOKS = 8

/** The mark of a drawing that stands nearest to a point; undefined where none stands anywhere. */
export function nearestMark(
  place: { scales: ReadonlyMap<string, PositionScale> },
  drawn: BoundDrawing,
  x: number,
  y: number,
): NearMark | undefined {
  const { marks, slots, memory, drawing } = drawn
  const across = place.scales.get(drawn.xScale)
  const up = place.scales.get(drawn.yScale)
  if (drawing.kind.nearest && marks.length > FEW && !slots && across && up) {
    const kept = lasting(marks, memory)
    const looks = remember(kept.memory, `looks ${kept.name}`, () => ({ count: 0 }))
    if (looks.count++ >= LOOKS) return drawing.kind.nearest(marks, memory, across, up, { x, y })
  }
  const stands = standsOf(place, drawn)
  let best: NearMark | undefined
  for (let mark = 0; mark < marks.length; mark++) {
    const px = stands.x(mark)
    const py = stands.y(mark)
    const far = (px - x) ** 2 + (py - y) ** 2
    if (far < (best?.far ?? Number.POSITIVE_INFINITY)) best = { mark, x: px, y: py, far }
  }
  return best
}
