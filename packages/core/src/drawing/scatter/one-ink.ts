import { Crowds, MOST, opacitiesOf, opacityAt } from './opacity.ts'

/** Red, green and blue, 0 to 255. */
export type Ink = readonly [red: number, green: number, blue: number]

/** Of larger pictures about so many elements tell how crowded places are. */
const LOOKED_AT = 100_000

/** One colour as a whole number that all four values of an element are written by, in whichever order this machine keeps them. */
function wordsOf([r, g, b]: Ink): { ink: number; solid: number } {
  const [ink] = new Uint32Array(Uint8Array.of(r, g, b, 0).buffer)
  const [solid] = new Uint32Array(Uint8Array.of(0, 0, 0, 1).buffer)
  return { ink, solid }
}

/** Writes a picture of gathered points in one colour. */
export function writeOneInk(rgba: Uint8ClampedArray, crowd: Float32Array, ink: Ink): void {
  const elements = new Uint32Array(rgba.buffer)
  const opacity = opacitiesOf(crowd)
  const words = wordsOf(ink)
  for (let i = 0; i < crowd.length; i++)
    if (crowd[i] > 0) elements[i] = words.ink + opacityAt(opacity, crowd[i]) * words.solid
}

/** The same of points that cover two elements along a side, as on most screens, gathered as they are written. */
export function writeByTwo(rgba: Uint8ClampedArray, grid: Float32Array, columns: number, ink: Ink): void {
  const elements = new Uint32Array(rgba.buffer)
  const opacity = opacitiesByTwo(grid, columns)
  const words = wordsOf(ink)
  const written = Uint32Array.from(opacity, (own, points) => (points > 0 ? words.ink + own * words.solid : 0))
  const last = grid.length - columns
  for (let start = 0; start < grid.length; start += columns) {
    const below =
      start < last ? grid.subarray(start + columns, start + 2 * columns) : new Float32Array(columns)
    let before = 0
    for (let column = columns - 1; column >= 0; column--) {
      const here = grid[start + column] + below[column]
      const n = here + before
      before = here
      if (n >= 1) elements[start + column] = written[Math.min(n + 0.5, MOST) | 0]
      else if (n > 0) elements[start + column] = words.ink + opacityAt(opacity, n) * words.solid
    }
  }
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
