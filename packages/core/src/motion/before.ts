import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Scene } from '../scene/scene.ts'
import type { GlideContext } from './blend.ts'

/** Where in the picture that is left the value stood that has this place, in pixels, in the one that comes. */
export function placeBefore(
  { along }: Pick<Batch, 'along'>,
  pixel: number,
  axis: 'x' | 'y',
  { from, to }: Pick<GlideContext, 'from' | 'to'>,
): number {
  return placeIn(pixel, along?.[axis], to, from)
}

/** Where in the picture that comes the value stands that has this place in the one that is left. */
export function placeAfter(
  { along }: Pick<Batch, 'along'>,
  pixel: number,
  axis: 'x' | 'y',
  { from, to }: Pick<GlideContext, 'from' | 'to'>,
): number {
  return placeIn(pixel, along?.[axis], from, to)
}

function placeIn(pixel: number, name: string | undefined, own: Scene, other: Scene): number {
  if (name === undefined) return pixel
  const [here, there] = [own.scales.get(name), other.scales.get(name)]
  if (!here || !there || here.kind.name !== there.kind.name) return pixel
  const place = there.map(sameValue(here.invert(pixel), here, there))
  return Number.isFinite(place) ? place : pixel
}

/** A value on another scale: categories have other numbers where others stand before them. */
function sameValue(value: number, here: PositionScale, there: PositionScale): number {
  if (here.words.length === 0) return value
  const number = Math.round(value)
  const other = there.words.indexOf(here.words[number] ?? '')
  return other < 0 ? Number.NaN : other + value - number
}

/**
 * Where shapes that go one after the other stand while their scale goes as one: the value that a shape has reached, on the
 * scale as it is at that moment. Undefined where the scale stays, so that both are the same.
 */
export function carriedBy(
  { along }: Pick<Batch, 'along'>,
  axis: 'x' | 'y',
  { from, to }: Pick<GlideContext, 'from' | 'to'>,
): ((pixel: number, share: number, eased: number) => number) | undefined {
  const name = along?.[axis]
  const [before, after] = name === undefined ? [] : [from.scales.get(name), to.scales.get(name)]
  if (!before || !after || before.kind.name !== after.kind.name || before.kind.name === 'category')
    return undefined
  if (before.factor === after.factor && before.offset === after.offset) return undefined
  const mix = (a: number, b: number, t: number) => a + (b - a) * t
  return (pixel, share, eased) => {
    const factor = mix(before.factor, after.factor, share)
    if (factor === 0) return pixel
    const forward = (pixel - mix(before.offset, after.offset, share)) / factor
    return mix(before.offset, after.offset, eased) + mix(before.factor, after.factor, eased) * forward
  }
}
