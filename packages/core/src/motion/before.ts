import type { Batch } from '../scene/scene.ts'
import type { GlideContext } from './blend.ts'

/** Where in the picture that is left the value stood that has this place, in pixels, in the one that comes. */
export function placeBefore(
  { along }: Pick<Batch, 'along'>,
  pixel: number,
  axis: 'x' | 'y',
  { from, to }: Pick<GlideContext, 'from' | 'to'>,
): number {
  const name = along?.[axis]
  const [before, after] = name === undefined ? [] : [from.scales.get(name), to.scales.get(name)]
  if (!before || !after || before.kind.name !== after.kind.name) return pixel
  const place = before.map(after.invert(pixel))
  return Number.isFinite(place) ? place : pixel
}
