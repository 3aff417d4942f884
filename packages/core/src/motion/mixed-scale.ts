import { nearPixel, type PositionScale } from '../scale/scale.ts'

const mix = (a: number, b: number, t: number) => a + (b - a) * t

/** The scale on which shapes stand that are on their way from one scale to another, in pixels, by a share. */
export function mixedScale(from: PositionScale, to: PositionScale, share: number): PositionScale {
  // Scales of two kinds have no common way back from pixels: the goal has the word.
  if (from.kind.name !== to.kind.name)
    return { ...to, map: value => mix(from.map(value), to.map(value), share) }
  const { kind } = to
  const factor = mix(from.factor, to.factor, share)
  const offset = mix(from.offset, to.offset, share)
  const range = [mix(from.range[0], to.range[0], share), mix(from.range[1], to.range[1], share)] as const
  const invert = (pixel: number) => (factor === 0 ? to.domain[0] : kind.backward((pixel - offset) / factor))
  return {
    ...to,
    factor,
    offset,
    range,
    domain: [invert(range[0]), invert(range[1])],
    map: value => nearPixel(factor * kind.forward(value) + offset),
    invert,
  }
}
