import { MIDDLE } from '../guide/text.ts'
import type { Segments, Texts } from '../scene/scene.ts'
import type { GlideContext } from './blend.ts'

/** Pixels beyond the ends of an axis where its last tick may still stand. */
const SLACK = 2

/**
 * Ticks that come from or go to places beyond the ends of their axis are unseen while they are there, or they would
 * cross the title and the legend.
 */
export function keepInPlot(
  { from, to }: GlideContext,
  axis: 'x' | 'y',
  name: string,
): (batch: Segments | Texts) => typeof batch {
  const ranges = [from, to].flatMap(scene => scene.scales.get(name)?.range ?? [])
  const [low, high] = [Math.min(...ranges) - SLACK, Math.max(...ranges) + SLACK]
  return batch => {
    const places =
      batch.kind === 'texts' ? (axis === 'x' ? batch.x : batch.y) : axis === 'x' ? batch.x1 : batch.y1
    // Labels beside an axis stand a little below their tick's line.
    const below = batch.kind === 'texts' && axis === 'y' ? batch.size * MIDDLE : 0
    const outside = (place: number) => place - below < low || place - below > high
    if (!places.some(outside)) return batch
    const alpha = Float32Array.from(places, (place, i) => (outside(place) ? 0 : (batch.alpha?.[i] ?? 1)))
    return { ...batch, alpha }
  }
}
