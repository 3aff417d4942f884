import type { Rgb } from '../../theme/contrast.ts'
import { inkPixel } from '../../theme/ink-pixel.ts'
import { Crowds, MOST, opacitiesOf, opacityAt } from './opacity.ts'

export type Ink = Rgb

/** Of larger pictures about so many elements tell how crowded places are. */
const LOOKED_AT = 50_000

/** Writes a picture of gathered points in one colour. */
export function writeOneInk(rgba: Uint8ClampedArray, crowd: Float32Array, ink: Ink): void {
  const elements = new Int32Array(rgba.buffer)
  const { written, steps } = writtenBySteps(opacitiesOf(crowd), ink)
  const most = written.length - 1
  for (let i = 0; i < crowd.length; i++) elements[i] = written[Math.min(crowd[i] * steps, most) | 0]
}

/** The same of points that cover two elements along a side, as on most screens, gathered as they are written. */
export function writeByTwo(rgba: Uint8ClampedArray, grid: Float32Array, columns: number, ink: Ink): void {
  const elements = new Int32Array(rgba.buffer)
  const { written, steps } = writtenBySteps(opacitiesByTwo(grid, columns), ink)
  const most = written.length - 1
  const end = grid.length - columns
  for (let start = 0; start <= end; start += columns) {
    // The last row has none below it.
    const below = start < end ? columns : 0
    const share = start < end ? steps : steps / 2
    let here = grid[start] + grid[start + below]
    let at = start
    for (const last = start + columns - 1; at < last; at++) {
      const next = grid[at + 1] + grid[at + 1 + below]
      const points = here + next
      // Empty room is as it should be.
      if (points !== 0) elements[at] = written[Math.min(points * share, most) | 0]
      here = next
    }
    elements[at] = written[Math.min(here * share, most) | 0]
  }
}

/** Points at an element are told apart by so many steps each, fine enough for each opacity of less than one of them. */
const FINEST = 128
/** Where places are more crowded, by fewer: to write a longer list took longer than to look up in it. */
const LONGEST = 1 << 15

/** The elements of a picture by steps of how many points they have: looked up, as deciding at each of them takes longer. */
function writtenBySteps(opacity: Uint8Array, ink: Ink): { written: Int32Array; steps: number } {
  const pixel = inkPixel(ink)
  const found = opacity.indexOf(255)
  const solid = found < 0 ? MOST : found
  const steps = Math.min(FINEST, Math.floor(LONGEST / solid))
  const written = new Int32Array(solid * steps + 1)
  for (let step = 1; step < written.length; step++)
    written[step] = pixel.ink + opacityAt(opacity, step / steps) * pixel.solid
  return { written, steps }
}

/** Elements at equal steps, which meet all columns in turn, so that points in rows or columns are met as others are. */
function opacitiesByTwo(grid: Float32Array, columns: number): Uint8Array {
  const crowds = new Crowds()
  const last = grid.length - columns
  let step = Math.max(1, Math.floor(grid.length / LOOKED_AT))
  while (!areApart(step, columns)) step++
  const below = (i: number) => (i < last ? grid[i] + grid[i + columns] : grid[i])
  for (let i = 0; i < grid.length; i += step)
    crowds.add(below(i) + ((i + 1) % columns > 0 ? below(i + 1) : 0))
  return crowds.opacities()
}

/** Whether two whole numbers have no divisor in common but one. */
function areApart(a: number, b: number): boolean {
  while (b > 0) [a, b] = [b, a % b]
  return a === 1
}
