import type { Rgb } from '../../theme/contrast.ts'
import { inkPixel } from '../../theme/ink-pixel.ts'
import type { Filled } from './count.ts'
import { Crowds, MOST, opacitiesOf, opacityAt, PARTS } from './opacity.ts'

export type Ink = Rgb

/** Of larger pictures about so many elements tell how crowded places are. */
const LOOKED_AT = 16_000

/** Writes a picture of gathered points in one colour. */
export function writeOneInk(rgba: Uint8ClampedArray, crowd: Int32Array, ink: Ink): void {
  const elements = new Int32Array(rgba.buffer)
  const { written, coarse } = writtenByParts(opacitiesOf(crowd), ink)
  const most = written.length - 1
  for (let i = 0; i < crowd.length; i++) elements[i] = written[Math.min(crowd[i] >> coarse, most)]
}

/**
 * The same of points that cover two elements along a side, as on most screens, gathered as they are written. `filled`: where
 * points are; what lies elsewhere is clear already.
 */
export function writeByTwo(
  rgba: Uint8ClampedArray,
  grid: Int32Array,
  columns: number,
  ink: Ink,
  filled?: readonly Filled[],
): void {
  const elements = new Int32Array(rgba.buffer)
  const { written, coarse } = writtenByParts(opacitiesByTwo(grid, columns), ink)
  const most = written.length - 1
  const end = grid.length - columns
  for (const { left, right, top, bottom } of filled ?? [everywhere(grid, columns)]) {
    // Each point covers the element before it and the one above, too.
    const skipped = Math.max(0, left - 1)
    for (let start = Math.max(0, top - 1) * columns; start < bottom * columns; start += columns) {
      // The last row has none below it.
      const below = start < end ? columns : 0
      const share = start < end ? coarse : coarse + 1
      const last = start + Math.min(right, columns - 1)
      writeRow(elements, grid, written, start + skipped, last, below, share)
      // The last column has none beside it.
      if (right === columns)
        elements[last] = written[Math.min((grid[last] + grid[last + below]) >> share, most)]
    }
  }
}

/** Elements from one to another; handed plain numbers, by which it takes less time. */
function writeRow(
  elements: Int32Array,
  grid: Int32Array,
  written: Int32Array,
  from: number,
  to: number,
  below: number,
  share: number,
): void {
  const most = written.length - 1
  let here = (grid[from] + grid[from + below]) | 0
  for (let at = from; at < to; ) {
    const beside = at + 1
    const next = (grid[beside] + grid[beside + below]) | 0
    const parts = (here + next) | 0
    // Empty room is as it should be.
    if (parts !== 0) elements[at] = written[Math.min(parts >> share, most)]
    here = next
    at = beside
  }
}

const everywhere = (grid: Int32Array, columns: number): Filled => ({
  left: 0,
  right: columns,
  top: 0,
  bottom: grid.length / columns,
})

/** The longest list of what elements are written as: to write a longer one took longer than to look up in it. */
const LONGEST = 1 << 15

/**
 * The elements of a picture by the parts of points that they have: looked up, as deciding at each of them takes longer. Where
 * places are more crowded, parts are taken together: each place of the list stands for two to the power of `coarse`.
 */
function writtenByParts(opacity: Uint8Array, ink: Ink): { written: Int32Array; coarse: number } {
  const pixel = inkPixel(ink)
  const found = opacity.indexOf(255)
  const solid = (found < 0 ? MOST : found) * PARTS
  const coarse = Math.max(0, Math.ceil(Math.log2(solid / LONGEST)))
  const written = new Int32Array((solid >> coarse) + 1)
  for (let place = 1; place < written.length; place++)
    written[place] = pixel.ink + opacityAt(opacity, place << coarse) * pixel.solid
  return { written, coarse }
}

/** Elements at equal steps, which meet all columns in turn, so that points in rows or columns are met as others are. */
function opacitiesByTwo(grid: Int32Array, columns: number): Uint8Array {
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
