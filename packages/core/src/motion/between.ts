import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Scene, Texts } from '../scene/scene.ts'
import { type BatchAt, type GlideContext, joined, type Progress } from './blend.ts'
import { enter, leave, revealLines } from './enter-leave.ts'
import { glideAreas } from './glide-areas.ts'
import { glideLabels, type LabelGroup, labelGroup, leavingLabels } from './glide-labels.ts'
import { glideLines } from './glide-lines.ts'
import { glidePiles, isPiles, type Piles } from './glide-piles.ts'
import { glideRects } from './glide-rects.ts'
import { glideDiscs, glideSegments, glideTexts } from './glide-shapes.ts'
import { glideWedges } from './glide-wedges.ts'
import { mixedScale } from './mixed-scale.ts'
import { partedLabels } from './passing.ts'
import { placesOf } from './places.ts'

/** The scene at a moment between two scenes; at time 1 it is the second one itself. */
export type Between = (eased: number, time: number, each?: Progress) => Scene

/**
 * Prepares the motion from one scene to another. Shapes are matched by key within batches of the same id and
 * glide; where a drawing has changed its kind, shapes start from where the same key stood before; newcomers grow
 * or fade in, leavers fade out. `says`: whose words texts say on the way. Costs are paid here, so that each frame only blends arrays.
 */
export function between(from: Scene, to: Scene, says: GlideContext['says'] = 'after'): Between {
  const context = { from, to, says }
  const before = new Map<string, Batch[]>()
  for (const batch of from.batches) {
    const name = `${batch.kind} ${batch.id}`
    before.set(name, [...(before.get(name) ?? []), batch])
  }
  const steps: BatchAt[] = []
  const places = placesOf(from.batches.filter(batch => !to.batches.some(other => other.id === batch.id)))
  // Leavers lie under those that stay, so that they fade behind the news.
  const gone = from.batches.filter(
    batch => !to.batches.some(other => other.id === batch.id && other.kind === batch.kind),
  )
  let leaversDue = gone.filter(batch => batch.part === 'data')
  const groups = new Map<string, LabelGroup>()
  const groupOf = (of: string) => {
    const group = groups.get(of) ?? labelGroup(of, context)
    groups.set(of, group)
    return group
  }
  for (const batch of gone)
    if (batch.part === 'guide')
      steps.push(isLabels(batch) ? leavingLabels(batch, groupOf(batch.of), context) : leave(batch))
  for (const batch of to.batches) {
    if (batch.part === 'data' && leaversDue.length > 0) {
      steps.push(...leaversDue.map(leave))
      leaversDue = []
    }
    const old = before.get(`${batch.kind} ${batch.id}`)
    if (isLabels(batch)) {
      const group = groupOf(batch.of)
      for (const labels of old ?? [])
        if (labels.kind === 'texts') steps.push(leavingLabels(labels, group, context))
      steps.push(glideLabels(batch, group, context))
    } else steps.push(...(old ? glide(joined(old), batch, context) : [enter(batch, places, context)]))
  }
  steps.push(...leaversDue.map(leave))
  const names = new Set([...from.scales.keys(), ...to.scales.keys()])
  const mix = (a: number, b: number, t: number) => a + (b - a) * t
  return (eased, time, each) => {
    if (time >= 1) return to
    const batches: Batch[] = []
    for (const step of steps) {
      const batch = step(eased, time, each)
      if (batch) batches.push(batch)
    }
    const scales = new Map<string, PositionScale>()
    for (const name of names) {
      const a = from.scales.get(name)
      const b = to.scales.get(name)
      if (a && b) scales.set(name, mixedScale(a, b, eased))
      else scales.set(name, (b ?? a)!)
    }
    const plots = to.plots.map((plot, i) => {
      const old = from.plots[i] ?? plot
      return {
        x: mix(old.x, plot.x, eased),
        y: mix(old.y, plot.y, eased),
        width: mix(old.width, plot.width, eased),
        height: mix(old.height, plot.height, eased),
      }
    })
    return { ...to, plots, batches: partedLabels(batches), scales }
  }
}

const isLabels = (batch: Batch): batch is Texts & { of: string } =>
  batch.kind === 'texts' && batch.of !== undefined

function glide(old: Batch, batch: Batch, context: GlideContext): BatchAt[] {
  switch (batch.kind) {
    case 'rects':
      return isPiles(batch) && isPiles(old as typeof batch)
        ? glidePiles(old as typeof batch & Piles, batch, context)
        : glideRects(old as typeof batch, batch, context)
    case 'discs':
      return glideDiscs(old as typeof batch, batch)
    case 'lines':
      return glideLines(old as typeof batch, batch, context)
    case 'areas':
      return glideAreas(old as typeof batch, batch, context)
    case 'segments':
      return glideSegments(old as typeof batch, batch, context)
    case 'texts':
      return glideTexts(old as typeof batch, batch, context)
    case 'wedges':
      return glideWedges(old as typeof batch, batch)
    case 'images':
      return [() => batch]
    // A picture of colour values has no shapes that could move; the new one takes the old one's place.
    case 'pixels':
      return [leave(old), enter(batch, new Map(), context)]
  }
}

/** The motion of a scene's first appearance: bars grow, lines are revealed from the left, the rest fades in. */
export function appear(to: Scene): Between {
  const context: GlideContext = { from: { ...to, batches: [] }, to, says: 'after' }
  const steps = to.batches.map(batch =>
    isLabels(batch)
      ? glideLabels(batch, labelGroup(batch.of, context), context)
      : batch.part === 'guide'
        ? (): Batch => batch
        : batch.kind === 'lines'
          ? revealLines(batch, to)
          : enter(batch, new Map(), context),
  )
  return (eased, time, each) =>
    time >= 1
      ? to
      : { ...to, batches: steps.map(step => step(eased, time, each)).filter(batch => batch !== undefined) }
}
