import type { Marks } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Box, Pixels } from '../../scene/scene.ts'
import { readColor } from '../../theme/contrast.ts'
import { countAll } from './count.ts'
import { gathered } from './gather.ts'
import { type Ink, writeByTwo, writeOneInk } from './one-ink.ts'
import { opacitiesOf, opacityAt } from './opacity.ts'

/** From this many points on, a picture of how many lie where says more than discs on top of each other. */
export const CROWD = 20_000

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
  const { box, columns, rows } = elementsOver(plot, density)
  const { inks, ...inked } = inksOf(paint)
  const { grids, filled } = countAll(
    { marks, ...inked, inks: inks.length, memory },
    { x, y, plot: box, columns, rows },
  )
  const dot = dotOf(marks, x, y, density)
  const present = grids.flatMap((crowd, c) => (crowd ? [{ crowd, ink: inks[c] }] : []))
  const rgba = new Uint8ClampedArray(columns * rows * 4)
  if (present.length === 1 && dot === 2) writeByTwo(rgba, present[0].crowd, columns, present[0].ink, filled)
  else {
    for (const own of present) own.crowd = gathered(own.crowd, columns, rows, dot)
    if (present.length === 1) writeOneInk(rgba, present[0].crowd, present[0].ink)
    else writeMixed(rgba, present)
  }
  return {
    kind: 'pixels',
    id,
    part: 'data',
    clip: true,
    keys: [],
    colors: paint.colors,
    color: new Uint16Array(1),
    x: Float32Array.of(box.x),
    y: Float32Array.of(box.y),
    width: Float32Array.of(box.width),
    height: Float32Array.of(box.height),
    columns,
    rgba,
  }
}

/** What is lost in adding up is no part of an element. */
const NEAR = 1e-6

/** The pixels of a screen that a plot lies on, also in part: a picture between them would be blurred, and take long to draw. */
function elementsOver(plot: Box, density: number): { box: Box; columns: number; rows: number } {
  const along = (from: number, size: number) => {
    const first = Math.floor(from * density + NEAR)
    return [first, Math.max(1, Math.ceil((from + size) * density - NEAR) - first)]
  }
  const [left, columns] = along(plot.x, plot.width)
  const [top, rows] = along(plot.y, plot.height)
  const box = { x: left / density, y: top / density, width: columns / density, height: rows / density }
  return { box, columns, rows }
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

function writeMixed(rgba: Uint8ClampedArray, present: readonly { crowd: Int32Array; ink: Ink }[]): void {
  const crowds = present.map(({ crowd }) => crowd)
  const total = summed(crowds, rgba.length / 4)
  const opacity = opacitiesOf(total)
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

function summed(crowds: readonly Int32Array[], length: number): Int32Array {
  const out = new Int32Array(length)
  for (const crowd of crowds) for (let i = 0; i < length; i++) out[i] += crowd[i]
  return out
}
