/** Patterns of strokes over a colour: rising, falling, upright, or crossed. */
export type Hatch = 'rising' | 'falling' | 'upright' | 'crossed'

/** The patterns in order of use. */
export const HATCHES: readonly Hatch[] = ['rising', 'falling', 'upright', 'crossed']

/** By colour: the pattern that lies over it. */
export type Hatched = Readonly<Record<string, Hatch>>

/** Pixels from stroke to stroke, their width, and how much of the ground's colour is in them. */
export const HATCH = { step: 6, width: 1.4, opacity: 0.75 }

/** The directions of the strokes of a pattern, in degrees from the horizontal, clockwise. */
export const DIRECTIONS: Readonly<Record<Hatch, readonly number[]>> = {
  rising: [-45],
  falling: [45],
  upright: [90],
  crossed: [-45, 45],
}
