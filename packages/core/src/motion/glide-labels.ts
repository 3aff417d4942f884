import type { Scene, Texts } from '../scene/scene.ts'
import { carriedBy } from './before.ts'
import { type BatchAt, faded, type GlideContext } from './blend.ts'
import { figuresBetween } from './figures.ts'
import { mixedScale } from './mixed-scale.ts'
import { givingWay, passesBetween, spanAcross } from './passing.ts'
import { type End, endsOf, startsOf } from './shape-ends.ts'

/** What goes is gone after this share of the motion. */
const LEAVING = 0.5

/** A label in one of the pictures. */
interface Placed {
  batch: Texts
  i: number
}

/** The labels at the shapes of one batch, before and after. */
export interface LabelGroup {
  ends: { before: Map<string | number, End>; after: Map<string | number, End> }
  starts: Map<string | number, End>
  old: Map<string | number, Placed>
  /** The labels that there will be, wherever they stand then. */
  coming: Map<string | number, Placed>
}

/** What labels of a batch of shapes go by: where those shapes stood, and will. */
export function labelGroup(of: string, { from, to }: GlideContext): LabelGroup {
  const shapes = (scene: Scene) => scene.batches.filter(batch => batch.id === of && batch.kind !== 'texts')
  const before = endsOf(shapes(from))
  const old = new Map<string | number, Placed>()
  for (const batch of from.batches)
    if (batch.kind === 'texts' && batch.of === of)
      for (let i = 0; i < batch.keys.length; i++)
        // In mid-motion a label may be there twice, as it goes and as it comes: that which comes is followed.
        if (!old.has(batch.keys[i]) || !batch.alpha || batch.alpha[i] > 0.5)
          old.set(batch.keys[i], { batch, i })
  const coming = new Map<string | number, Placed>()
  for (const batch of to.batches)
    if (batch.kind === 'texts' && batch.of === of)
      for (let i = 0; i < batch.keys.length; i++) coming.set(batch.keys[i], { batch, i })
  return {
    ends: { before, after: endsOf(shapes(to)) },
    starts: startsOf(shapes(to), before, { from, to }),
    old,
    coming,
  }
}

/** Whether a label changes its look, as one that comes to stand on its bar: then it goes in the old one and comes in the new. */
function turns(key: string | number, { old, coming }: LabelGroup): boolean {
  const [was, will] = [old.get(key), coming.get(key)]
  return (
    was !== undefined &&
    will !== undefined &&
    (was.batch.halo !== will.batch.halo || colorOf(was) !== colorOf(will))
  )
}

const colorOf = ({ batch, i }: Placed): string => batch.colors[batch.color[i]]

/**
 * Labels that ride on their shapes: they keep their distance from the end of their bar or point while it moves, also when
 * they come to stand on its other side, and say the value at which it stands at that moment.
 */
export function glideLabels(batch: Texts, group: LabelGroup, context: GlideContext): BatchAt {
  const { from, to } = context
  const count = batch.keys.length
  const fadesIn = new Uint8Array(count)
  const riders = Array.from({ length: count }, (_, i) => {
    const key = batch.keys[i]
    const after = group.ends.after.get(key)
    const start = group.starts.get(key)
    const old = group.old.get(key)
    const turned = turns(key, group)
    fadesIn[i] = old && !turned ? 0 : 1
    const away = { x: batch.x[i] - (after?.x ?? batch.x[i]), y: batch.y[i] - (after?.y ?? batch.y[i]) }
    const was = group.ends.before.get(key)
    const wasAway =
      old && was && !turned
        ? { x: old.batch.x[old.i] + shiftOf(old, batch) - was.x, y: old.batch.y[old.i] - was.y }
        : away
    const figures = batch.figures?.[i]
    const write = figures && figuresBetween(old?.batch.figures?.[old.i], figures, context.says)
    const text = old && context.says === 'before' ? old.batch.texts[old.i] : batch.texts[i]
    return {
      after: after ?? { x: batch.x[i], y: batch.y[i], index: i, count },
      start,
      away,
      wasAway,
      write,
      text,
    }
  })
  const startOf = (axis: 'x' | 'y') =>
    riders.map(({ after, start = after, wasAway }) => start[axis] + wasAway[axis])
  const passes = passesBetween({ x: startOf('x'), y: startOf('y') }, batch)
  const on = batch.measuredOn
  const ends = on && ([from.scales.get(on.scale), to.scales.get(on.scale)] as const)
  const carried = on && carriedBy({ along: { [on.axis]: on.scale } }, on.axis, context)
  const steady = ends?.[0] && ends[1] && ends[0].kind.name === ends[1].kind.name
  return (eased, time, each) => {
    const x = new Float32Array(count)
    const y = new Float32Array(count)
    const alpha = new Float32Array(count)
    const scale = steady ? mixedScale(ends[0]!, ends[1]!, eased) : undefined
    const texts = riders.map(({ after, start = after, away, wasAway, write, text }, i) => {
      const share = each ? each(after.index, after.count) : eased
      const end = { x: start.x + (after.x - start.x) * share, y: start.y + (after.y - start.y) * share }
      if (each && carried && on) end[on.axis] = carried(end[on.axis], share, eased)
      x[i] = end.x + wasAway.x + (away.x - wasAway.x) * share
      y[i] = end.y + wasAway.y + (away.y - wasAway.y) * share
      alpha[i] = (batch.alpha?.[i] ?? 1) * (fadesIn[i] ? Math.min(1, time * 2) : 1)
      const shown = on && scale ? scale.invert(end[on.axis]) : undefined
      return write ? write(share, shown) : text
    })
    return givingWay({ ...batch, x, y, alpha, texts }, passes)
  }
}

/** How far a text must go so that it stands where it stood, though it is placed by another of its edges. */
function shiftOf({ batch, i }: Placed, { anchor }: Texts): number {
  return spanAcross(batch, i)[0] - spanAcross(batch, i, anchor)[0]
}

/** Labels that will be no more, or in another look: those whose shape stays ride on with it while they fade. */
export function leavingLabels(old: Texts, group: LabelGroup, { from, to, says }: GlideContext): BatchAt {
  const on = old.measuredOn
  const ends = on && ([from.scales.get(on.scale), to.scales.get(on.scale)] as const)
  const steady = ends?.[0] && ends[1] && ends[0].kind.name === ends[1].kind.name
  const going = Array.from(old.keys, (key, i) => {
    const will = group.coming.get(key)
    const figures = will?.batch.figures?.[will.i]
    // What only changes its look goes on counting.
    return {
      key,
      i,
      goes: !will || turns(key, group),
      write: figures && figuresBetween(old.figures?.[i], figures, says),
    }
  }).filter(({ goes }) => goes)
  return (eased, time, each) => {
    if (time >= LEAVING || going.length === 0) return undefined
    const scale = steady ? mixedScale(ends[0]!, ends[1]!, eased) : undefined
    const away = (axis: 'x' | 'y') => going.map(({ key }) => ridden(key, axis, group, eased, each))
    const moved = { x: away('x'), y: away('y') }
    const batch: Texts = {
      ...old,
      keys: going.map(({ key }) => key),
      texts: going.map(({ key, i, write }, g) => {
        const after = group.ends.after.get(key)
        const end = on && group.ends.before.get(key)
        const share = each && after ? each(after.index, after.count) : eased
        return write
          ? write(share, end && scale ? scale.invert(end[on.axis] + moved[on.axis][g]) : undefined)
          : old.texts[i]
      }),
      figures: undefined,
      color: Uint16Array.from(going, ({ i }) => old.color[i]),
      alpha: Float32Array.from(going, ({ i }) => old.alpha?.[i] ?? 1),
      at: undefined,
      x: Float32Array.from(going, ({ i }, g) => old.x[i] + moved.x[g]),
      y: Float32Array.from(going, ({ i }, g) => old.y[i] + moved.y[g]),
    }
    return faded(batch, 1 - time / LEAVING)
  }
}

/** How far a shape has come from where it stood. */
function ridden(
  key: string | number,
  axis: 'x' | 'y',
  { ends }: LabelGroup,
  eased: number,
  each: Parameters<BatchAt>[2],
): number {
  const [before, after] = [ends.before.get(key), ends.after.get(key)]
  if (!before || !after) return 0
  return (after[axis] - before[axis]) * (each ? each(after.index, after.count) : eased)
}
