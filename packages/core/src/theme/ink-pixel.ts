import type { Rgb } from './contrast.ts'

/** A colour as a whole number that all four values of a pixel are written by, without opacity and with what its least part adds, in whichever order this machine keeps them. */
export function inkPixel([r, g, b]: Rgb): { ink: number; solid: number } {
  const [ink] = new Uint32Array(Uint8ClampedArray.of(r, g, b, 0).buffer)
  const [solid] = new Uint32Array(Uint8ClampedArray.of(0, 0, 0, 1).buffer)
  return { ink, solid }
}
