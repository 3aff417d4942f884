import type { BoundDrawing } from '../bind/model.ts'
import { remember } from '../describe/remember.ts'
import { isLying } from '../drawing/is-lying.ts'
import type { Composition, Pane } from '../pane/model.ts'
import { standsOf } from './stands.ts'

/** Where a person who walks through a chart by keys stands. */
export interface Standing {
  pane: number
  drawing: number
  mark: number
  /** In pixels: where the mark is. */
  x: number
  y: number
}

export type WalkStep = 'next' | 'previous' | 'up' | 'down' | 'first' | 'last'

/**
 * One step from mark to mark: along the axis within a series, or across to the neighbouring series or value at the
 * same place. Without a standing, or where its mark is gone, the first mark. Undefined where there is nothing to read.
 */
export function walk(
  composition: Composition,
  from: Standing | undefined,
  step: WalkStep,
): Standing | undefined {
  const places = composition.panes.flatMap((pane, p) =>
    pane.bound.drawings
      .filter(drawn => !drawn.drawing.kind.aside && drawn.marks.length > 0)
      .map(bound => ({ pane, p, bound })),
  )
  if (places.length === 0) return undefined
  const at = places.findIndex(place => place.p === from?.pane && place.bound.drawing.index === from.drawing)
  const here = places[at]
  if (!from || !here || from.mark >= here.bound.marks.length) {
    const { pane, p, bound } = places[0]
    return standing(pane, p, bound, walkOrder(bound)[step === 'last' ? bound.marks.length - 1 : 0])
  }
  const { pane, p, bound } = here
  const mark = stepWithin(pane, bound, from.mark, step)
  if (mark !== undefined) return standing(pane, p, bound, mark)
  if (step !== 'up' && step !== 'down') return standing(pane, p, bound, from.mark)
  // Beyond the last series lies the next drawing.
  const other = places[(at + (step === 'down' ? 1 : places.length - 1)) % places.length]
  return standing(other.pane, other.p, other.bound, nearestMark(other.pane, other.bound, from))
}

const isCloud = ({ drawing, marks }: BoundDrawing) =>
  drawing.kind.reads === 'point' && !marks.x.from && !marks.y.from

function stepWithin(pane: Pane, bound: BoundDrawing, mark: number, step: WalkStep): number | undefined {
  const { marks } = bound
  const order = walkOrder(bound)
  if (step === 'first') return order[0]
  if (step === 'last') return order[order.length - 1]
  if (bound.drawing.kind.parts || isCloud(bound)) {
    const by = step === 'up' || step === 'down' ? orderBy(bound, 'y') : order
    const i = by.indexOf(mark) + (step === 'next' || step === 'up' ? 1 : -1)
    return by[Math.max(0, Math.min(by.length - 1, i))]
  }
  const lying = isLying(marks)
  const places = lying ? marks.y : marks.x
  const values = lying ? marks.x : marks.y
  const series = (i: number) => marks.seriesOf?.[i] ?? 0
  const cells = bound.drawing.kind.cells
  if (step === 'next' || step === 'previous') {
    const sign = step === 'next' ? 1 : -1
    return closest(marks.length, i => {
      const same = cells ? values.at[i] === values.at[mark] : series(i) === series(mark)
      return same ? (places.at[i] - places.at[mark]) * sign : Number.NaN
    })
  }
  const sign = step === 'up' ? 1 : -1
  const scale = pane.scales.get(lying ? bound.xScale : bound.yScale)
  const pixel = (i: number) => scale?.map(values.at[i]) ?? Number.NaN
  return closest(marks.length, i => {
    if (places.at[i] !== places.at[mark]) return Number.NaN
    // Cells are walked as they lie; up is towards smaller pixels.
    if (cells) return (pixel(mark) - pixel(i)) * sign
    return (series(mark) - series(i)) * sign
  })
}

/** The index with the least distance above zero; undefined where there is none. */
function closest(count: number, distance: (i: number) => number): number | undefined {
  let best: number | undefined
  let least = Number.POSITIVE_INFINITY
  for (let i = 0; i < count; i++) {
    const far = distance(i)
    if (far > 0 && far < least) {
      least = far
      best = i
    }
  }
  return best
}

export function walkOrder(bound: BoundDrawing): Int32Array {
  if (bound.drawing.kind.parts) return orderBy(bound, 'y', true)
  return orderBy(bound, isLying(bound.marks) && !isCloud(bound) ? 'y' : 'x')
}

/** Marks by series and place, or, in clouds, by place alone; worked out once. */
function orderBy(bound: BoundDrawing, role: 'x' | 'y', falling = false): Int32Array {
  return remember(bound.memory, `walk ${role} ${falling}`, () => {
    const { marks } = bound
    const { at } = marks[role]
    const cloud = isCloud(bound) || bound.drawing.kind.parts
    const series = (i: number) => (cloud ? 0 : (marks.seriesOf?.[i] ?? 0))
    const present = Array.from(at, (_, i) => i).filter(i => !Number.isNaN(at[i]))
    const sign = falling ? -1 : 1
    return Int32Array.from(present.sort((a, b) => series(a) - series(b) || (at[a] - at[b]) * sign || a - b))
  })
}

function nearestMark(pane: Pane, bound: BoundDrawing, from: Standing): number {
  let best = 0
  let least = Number.POSITIVE_INFINITY
  for (let mark = 0; mark < bound.marks.length; mark++) {
    const { x, y } = placeOf(pane, bound, mark)
    const far = Math.hypot(x - from.x, (y - from.y) * 0.01)
    if (far < least) {
      least = far
      best = mark
    }
  }
  return best
}

function standing(pane: Pane, p: number, bound: BoundDrawing, mark: number): Standing | undefined {
  if (mark === undefined) return undefined
  return { pane: p, drawing: bound.drawing.index, mark, ...placeOf(pane, bound, mark) }
}

function placeOf(pane: Pane, bound: BoundDrawing, mark: number): { x: number; y: number } {
  const { marks, drawing } = bound
  const key = marks.keyOf(mark)
  for (const batch of pane.batches) {
    if (batch.drawing !== drawing.index) continue
    if (batch.kind === 'rects' && batch.x.length === marks.length)
      return { x: batch.x[mark] + batch.width[mark] / 2, y: batch.y[mark] + batch.height[mark] / 2 }
    if (batch.kind === 'wedges') {
      const i = Array.from(batch.keys).indexOf(key)
      if (i < 0) continue
      const angle = (batch.from[i] + batch.to[i]) / 2
      const reach = (batch.inner[i] + batch.outer[i]) / 2
      return { x: batch.x[i] + Math.sin(angle) * reach, y: batch.y[i] - Math.cos(angle) * reach }
    }
  }
  const { x, y } = standsOf(pane, bound)
  return { x: x(mark), y: y(mark) }
}
