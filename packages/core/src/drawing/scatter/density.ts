import type { Marks } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Box, Pixels } from '../../scene/scene.ts'
import { readColor } from '../../theme/contrast.ts'
import { countAll } from './count.ts'

/** From this many points on, a picture of how many lie where says more than discs on top of each other. */
export const CROWD = 20_000

/** A single point is this opaque, so that the lonely ones can be found; the most crowded places are solid. */
const LEAST = 0.42
/** The share of places whose crowd counts as solid. */
const SOLID = 0.01
/** Crowds larger than this at one place are all alike. */
const MOST = 4095

/** How many points lie at each picture element, as opacity; where series mix, their colours mix. */
export function densityOf(
  id: string,
  marks: Marks,
  paint: { colors: readonly string[]; color: Uint16Array },
  x: PositionScale,
  y: PositionScale,
  plot: Box,
  density: number,
  memory?: Map<string, unknown>,
): Pixels {
  const columns = Math.max(1, Math.round(plot.width * density))
  const rows = Math.max(1, Math.round(plot.height * density))
  const { inks, ...inked } = inksOf(paint)
  const grids = countAll({ marks, ...inked, inks: inks.length, memory }, { x, y, plot, columns, rows })
  const dot = dotOf(marks, x, y, density)
  const crowds = grids.map(grid => grid && gathered(grid, columns, rows, dot))
  const present = crowds.flatMap((crowd, c) => (crowd ? [{ crowd, ink: inks[c] }] : []))
  const total = present.length === 1 ? present[0].crowd : summed(crowds, columns * rows)
  const opacity = opacities(total)
  const rgba = new Uint8ClampedArray(columns * rows * 4)
  if (present.length === 1) oneInk(rgba, total, opacity, present[0].ink)
  else mixedInks(rgba, total, opacity, present)
  return {
    kind: 'pixels',
    id,
    part: 'data',
    clip: true,
    keys: [],
    colors: paint.colors,
    color: new Uint16Array(1),
    x: Float32Array.of(plot.x),
    y: Float32Array.of(plot.y),
    width: Float32Array.of(plot.width),
    height: Float32Array.of(plot.height),
    columns,
    rgba,
  }
}

/** What each point covers, in picture elements along a side: a place at which several lie as much as it is large. */
function dotOf({ crowd }: Marks, x: PositionScale, y: PositionScale, density: number): number {
  const dot = Math.max(1, Math.round(1.6 * density))
  if (!crowd) return dot
  const even = ({ kind }: PositionScale, log = false) => (log ? kind.name === 'log' : kind.straight === true)
  if (!even(x, crowd.logs?.x) || !even(y, crowd.logs?.y)) return dot
  const side = (scale: PositionScale, size: number) => Math.ceil(Math.abs(scale.factor * size * density))
  return Math.min(64, Math.max(dot, side(x, crowd.width), side(y, crowd.height)))
}

/** Colours that are counted in a grid of their own each; where there are more, they count as the nearest of a few. */
const MOST_INKS = 16

/** The different colours of a drawing, and which of them each point has: many series may share one. */
function inksOf({ colors, color }: { colors: readonly string[]; color: Uint16Array }): {
  inks: Ink[]
  inkOf: () => Uint16Array
  inkName: string
} {
  const places = new Map<string, number>()
  const inks: Ink[] = []
  const placeOf = Uint16Array.from(colors, text => {
    let place = places.get(text)
    if (place === undefined) {
      const ink = readColor(text) ?? ([128, 128, 128] as const)
      place = inks.length < MOST_INKS ? inks.push(ink) - 1 : nearestInk(inks, ink)
      places.set(text, place)
    }
    return place
  })
  return {
    inks,
    inkOf: () => (inks.length === colors.length ? color : color.map(index => placeOf[index])),
    inkName: placeOf.join(' '),
  }
}

function nearestInk(inks: readonly Ink[], [r, g, b]: Ink): number {
  const away = inks.map(ink => (ink[0] - r) ** 2 + (ink[1] - g) ** 2 + (ink[2] - b) ** 2)
  return away.indexOf(Math.min(...away))
}

type Ink = readonly [red: number, green: number, blue: number]

/** What is counted by cells can be less than one point at an element, and is as much fainter. */
const opacityAt = (opacity: Uint8Array, n: number): number =>
  n < 1 ? (n * opacity[1]) | 0 : opacity[Math.min(n + 0.5, MOST) | 0]

/** All four values of an element at once, in whichever order this machine keeps them. */
function oneInk(rgba: Uint8ClampedArray, total: Float32Array, opacity: Uint8Array, [r, g, b]: Ink): void {
  const elements = new Uint32Array(rgba.buffer)
  const [ink] = new Uint32Array(Uint8Array.of(r, g, b, 0).buffer)
  const [solid] = new Uint32Array(Uint8Array.of(0, 0, 0, 1).buffer)
  for (let i = 0; i < total.length; i++) {
    const n = total[i]
    if (n > 0) elements[i] = ink + opacityAt(opacity, n) * solid
  }
}

function mixedInks(
  rgba: Uint8ClampedArray,
  total: Float32Array,
  opacity: Uint8Array,
  present: readonly { crowd: Float32Array; ink: Ink }[],
): void {
  const crowds = present.map(({ crowd }) => crowd)
  const [reds, greens, blues] = [0, 1, 2].map(part => Float64Array.from(present, ({ ink }) => ink[part]))
  for (let i = 0, at = 0; i < total.length; i++, at += 4) {
    const n = total[i]
    if (n === 0) continue
    let red = 0
    let green = 0
    let blue = 0
    for (let c = 0; c < crowds.length; c++) {
      const own = crowds[c][i]
      if (own === 0) continue
      red += reds[c] * own
      green += greens[c] * own
      blue += blues[c] * own
    }
    rgba[at] = red / n
    rgba[at + 1] = green / n
    rgba[at + 2] = blue / n
    rgba[at + 3] = opacityAt(opacity, n)
  }
}

/** The points in a square of `dot` elements around each element: what each point covers. */
function gathered(grid: Float32Array, columns: number, rows: number, dot: number): Float32Array {
  if (dot === 1) return grid
  if (dot === 2) return gatheredByTwo(grid, columns)
  const before = dot >> 1
  const level = new Float32Array(grid.length)
  for (let row = 0; row < rows; row++) {
    const start = row * columns
    for (let column = 0; column < columns; column++) {
      const n = grid[start + column]
      if (n === 0) continue
      const from = Math.max(0, column - before)
      const to = Math.min(columns, column - before + dot)
      for (let c = from; c < to; c++) level[start + c] += n
    }
  }
  const out = new Float32Array(grid.length)
  for (let row = 0; row < rows; row++) {
    const from = Math.max(0, row - before)
    const to = Math.min(rows, row - before + dot)
    const start = row * columns
    for (let column = 0; column < columns; column++) {
      const n = level[start + column]
      if (n === 0) continue
      for (let r = from; r < to; r++) out[r * columns + column] += n
    }
  }
  return out
}

/** The same for squares of two, as on most screens: each element and its neighbours to the right and below, in place. */
function gatheredByTwo(grid: Float32Array, columns: number): Float32Array {
  const last = grid.length - columns
  for (let start = 0; start < grid.length; start += columns) {
    let before = 0
    for (let i = start + columns - 1; i >= start; i--) {
      const here = grid[i] + (start < last ? grid[i + columns] : 0)
      grid[i] = here + before
      before = here
    }
  }
  return grid
}

function summed(crowds: readonly (Float32Array | undefined)[], length: number): Float32Array {
  const out = new Float32Array(length)
  for (const crowd of crowds) if (crowd) for (let i = 0; i < length; i++) out[i] += crowd[i]
  return out
}

/** The opacity, 0 to 255, of each number of points: by its logarithm, solid from the most crowded hundredth on. */
function opacities(crowd: Float32Array): Uint8Array {
  const times = new Uint32Array(MOST + 1)
  let present = 0
  for (let i = 0; i < crowd.length; i++) {
    if (crowd[i] < 0.5) continue
    times[Math.min(crowd[i] + 0.5, MOST) | 0]++
    present++
  }
  let solid = MOST
  for (let above = 0; solid > 1; solid--) {
    above += times[solid]
    if (above > present * SOLID) break
  }
  const out = new Uint8Array(MOST + 1)
  for (let n = 1; n <= MOST; n++) {
    const place = solid > 1 ? Math.min(1, Math.log(n) / Math.log(solid)) : 1
    out[n] = Math.round(255 * (LEAST + (1 - LEAST) * place))
  }
  return out
}
