import type { Marks } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Box, Pixels } from '../../scene/scene.ts'
import { readColor } from '../../theme/contrast.ts'
import { inSpace, stretchesWithin } from './in-space.ts'

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
  const { inks, inkOf } = inksOf(paint)
  const points = pointsOf(marks, inkOf, inks.length > 1, x, y, plot, memory)
  const grids = countAll(points, inks.length, x, y, plot, columns, rows)
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
  inkOf: Uint16Array
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
  return { inks, inkOf: inks.length === colors.length ? color : color.map(index => placeOf[index]) }
}

function nearestInk(inks: readonly Ink[], [r, g, b]: Ink): number {
  const away = inks.map(ink => (ink[0] - r) ** 2 + (ink[1] - g) ** 2 + (ink[2] - b) ** 2)
  return away.indexOf(Math.min(...away))
}

type Ink = readonly [red: number, green: number, blue: number]

/** All four values of an element at once, in whichever order this machine keeps them. */
function oneInk(rgba: Uint8ClampedArray, total: Uint32Array, opacity: Uint8Array, [r, g, b]: Ink): void {
  const elements = new Uint32Array(rgba.buffer)
  const [ink] = new Uint32Array(Uint8Array.of(r, g, b, 0).buffer)
  const [solid] = new Uint32Array(Uint8Array.of(0, 0, 0, 1).buffer)
  for (let i = 0; i < total.length; i++) {
    const n = total[i]
    if (n > 0) elements[i] = ink + opacity[Math.min(n, MOST)] * solid
  }
}

function mixedInks(
  rgba: Uint8ClampedArray,
  total: Uint32Array,
  opacity: Uint8Array,
  present: readonly { crowd: Uint32Array; ink: Ink }[],
): void {
  for (let i = 0, at = 0; i < total.length; i++, at += 4) {
    const n = total[i]
    if (n === 0) continue
    let [r, g, b] = [0, 0, 0]
    for (const { crowd, ink } of present) {
      const own = crowd[i] / n
      r += ink[0] * own
      g += ink[1] * own
      b += ink[2] * own
    }
    rgba[at] = r
    rgba[at + 1] = g
    rgba[at + 2] = b
    rgba[at + 3] = opacity[Math.min(n, MOST)]
  }
}

/** What is counted: places, the colour of each, and which stretches of them can be in view. */
interface Points {
  xs: Float64Array
  ys: Float64Array
  color: Uint16Array
  stretches: readonly (readonly [from: number, to: number])[]
  /** How many rows each stands for; undefined for one each. */
  rows?: Float64Array
}

function pointsOf(
  marks: Marks,
  color: Uint16Array,
  colored: boolean,
  x: PositionScale,
  y: PositionScale,
  plot: Box,
  memory: Map<string, unknown> | undefined,
): Points {
  // Places are few enough to be counted in the order that they come in.
  const space = memory && !marks.crowd && inSpace(marks, memory)
  if (!space)
    return {
      xs: marks.x.at,
      ys: marks.y.at,
      color,
      stretches: [[0, marks.length]],
      rows: marks.crowd?.rows,
    }
  const ends = (scale: PositionScale, start: number, length: number): [number, number] => {
    const [a, b] = [scale.invert(start), scale.invert(start + length)]
    return [Math.min(a, b), Math.max(a, b)]
  }
  const { mark } = space
  return {
    xs: space.x,
    ys: space.y,
    color: colored ? Uint16Array.from(mark, i => color[i]) : color,
    stretches: stretchesWithin(space, ends(x, plot.x, plot.width), ends(y, plot.y, plot.height)),
  }
}

/** Points at each picture element, for each colour that occurs. Those on the last edge count to the last element. */
function countAll(
  { xs, ys, color, stretches, rows: weights }: Points,
  colors: number,
  x: PositionScale,
  y: PositionScale,
  plot: Box,
  columns: number,
  rows: number,
): (Uint32Array | undefined)[] {
  const grids: (Uint32Array | undefined)[] = Array.from({ length: colors }, () => undefined)
  const toColumn = pixelOf(x, plot.x, columns / plot.width)
  const toRow = pixelOf(y, plot.y, rows / plot.height)
  const grid = (c: number) => (grids[c] ??= new Uint32Array(columns * rows))
  const counts = colors === 1 ? grid(0) : undefined
  const straight = toColumn.straight && toRow.straight
  const [xf, xo, yf, yo] = [toColumn.factor, toColumn.offset, toRow.factor, toRow.offset]
  for (const [from, to] of stretches) {
    if (counts && straight && !weights) {
      // The common case without a call for each point.
      for (let i = from; i < to; i++) {
        const column = Math.floor(xs[i] * xf + xo)
        const row = Math.floor(ys[i] * yf + yo)
        if (column >= 0 && column <= columns && row >= 0 && row <= rows)
          counts[(row === rows ? row - 1 : row) * columns + (column === columns ? column - 1 : column)]++
      }
      continue
    }
    for (let i = from; i < to; i++) {
      const column = Math.floor(straight ? xs[i] * xf + xo : toColumn.map(xs[i]))
      const row = Math.floor(straight ? ys[i] * yf + yo : toRow.map(ys[i]))
      if (column >= 0 && column <= columns && row >= 0 && row <= rows)
        (counts ?? grid(color[i]))[
          (row === rows ? row - 1 : row) * columns + (column === columns ? column - 1 : column)
        ] += weights ? weights[i] : 1
    }
  }
  return grids
}

/** Values to picture elements. */
function pixelOf(scale: PositionScale, start: number, density: number) {
  const { kind } = scale
  return {
    straight: kind.straight === true,
    factor: scale.factor * density,
    offset: (scale.offset - start) * density,
    map: (value: number) => (kind.allows(value) ? (scale.map(value) - start) * density : -1),
  }
}

/** The points in a square of `dot` elements around each element: what each point covers. */
function gathered(grid: Uint32Array, columns: number, rows: number, dot: number): Uint32Array {
  if (dot === 1) return grid
  if (dot === 2) return gatheredByTwo(grid, columns)
  const before = dot >> 1
  const level = new Uint32Array(grid.length)
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
  const out = new Uint32Array(grid.length)
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

/** The same for squares of two, as on most screens: each element and its neighbours to the right and below. */
function gatheredByTwo(grid: Uint32Array, columns: number): Uint32Array {
  const out = new Uint32Array(grid.length)
  const last = grid.length - columns
  for (let start = 0; start < grid.length; start += columns) {
    let before = 0
    for (let i = start + columns - 1; i >= start; i--) {
      const here = grid[i] + (start < last ? grid[i + columns] : 0)
      out[i] = here + before
      before = here
    }
  }
  return out
}

function summed(crowds: readonly (Uint32Array | undefined)[], length: number): Uint32Array {
  const out = new Uint32Array(length)
  for (const crowd of crowds) if (crowd) for (let i = 0; i < length; i++) out[i] += crowd[i]
  return out
}

/** The opacity, 0 to 255, of each number of points: by its logarithm, solid from the most crowded hundredth on. */
function opacities(crowd: Uint32Array): Uint8Array {
  const times = new Uint32Array(MOST + 1)
  let present = 0
  for (let i = 0; i < crowd.length; i++) {
    if (crowd[i] === 0) continue
    times[Math.min(crowd[i], MOST)]++
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
