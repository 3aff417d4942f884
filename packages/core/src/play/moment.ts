import type { BoundDrawing } from '../bind/model.ts'
import type { Positions } from '../describe/model.ts'
import type { Progress } from '../motion/blend.ts'
import { decimalsBetween, roundedTo } from '../motion/figures.ts'
import type { Composition, Pane } from '../pane/model.ts'
import type { Scene } from '../scene/scene.ts'

/** What is shown on the way from one picture to another, to be read back: every value where its shape stands. `played`: lines grow on the way. */
export function momentBetween(
  before: Composition,
  after: Composition,
  scene: Scene,
  share: Progress,
  played = false,
): Composition {
  const single = after.panes.length === 1
  const panes = after.panes.map((pane, i): Pane => {
    const was = before.panes[i]
    const drawings = pane.bound.drawings.map((drawn, d) =>
      mixedDrawing(was?.bound.drawings[d], drawn, share, played),
    )
    return {
      ...pane,
      bound: { ...pane.bound, drawings },
      plot: scene.plots[i],
      scales: new Map(
        [...pane.scales].map(([name, scale]) => [name, scene.scales.get(pane.prefix + name) ?? scale]),
      ),
      batches: single ? scene.batches : scene.batches.filter(batch => batch.pane === i),
    }
  })
  return { ...after, scene, panes }
}

function mixedDrawing(
  was: BoundDrawing | undefined,
  drawn: BoundDrawing,
  share: Progress,
  played: boolean,
): BoundDrawing {
  const { marks } = drawn
  const marksBefore = new Map<string | number, number>()
  for (let mark = 0; mark < (was?.marks.length ?? 0); mark++) marksBefore.set(was!.marks.keyOf(mark), mark)
  const before = Int32Array.from(
    { length: marks.length },
    (_, mark) => marksBefore.get(marks.keyOf(mark)) ?? -1,
  )
  const mixed = (role: 'x' | 'y'): Positions => {
    const now = marks[role]
    const then = was?.marks[role]
    const grows = drawn.drawing.kind.fromZero === true && now.measured
    const at = mixedValues(then?.at, now.at, before, share, grows)
    // What a line that grows has not reached cannot be read yet.
    const joined = role === 'y' && played && drawn.drawing.kind.name === 'line'
    return {
      ...now,
      at: joined ? at.map((value, mark) => (before[mark] < 0 ? Number.NaN : value)) : at,
      from: now.from && mixedValues(then?.from, now.from, before, share, grows),
      to: now.to && mixedValues(then?.to, now.to, before, share, grows),
      pyramid: undefined,
      sorted: false,
    }
  }
  return { ...drawn, marks: { ...marks, x: mixed('x'), y: mixed('y') }, memory: new Map() }
}

/** Values on their way, with no more decimals than those at both ends; what is new to a bar's length comes from zero. */
function mixedValues(
  then: Float64Array | undefined,
  now: Float64Array,
  before: Int32Array,
  share: Progress,
  grows: boolean,
): Float64Array {
  return now.map((value, mark) => {
    const start = then && before[mark] >= 0 ? then[before[mark]] : grows ? 0 : value
    if (start === value || !Number.isFinite(start + value)) return value
    return roundedTo(start + (value - start) * share(mark, now.length), decimalsBetween(start, value))
  })
}
