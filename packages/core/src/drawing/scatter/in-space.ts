import type { Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'

/** Tiles along each side. */
const TILES = 64

/** Points in an order in which neighbours in the plot are neighbours in memory, tile by tile, row by row. */
export interface InSpace {
  x: Float64Array
  y: Float64Array
  /** The mark of each. */
  mark: Int32Array
  /** Where the points of each tile begin. */
  starts: Uint32Array
  /** Values of the first edge and tiles for each unit of value, along x and y. */
  along: { from: number; perUnit: number }
  up: { from: number; perUnit: number }
}

/**
 * The points in space, from the second time that they are counted on, as when a person zooms: for a single picture the
 * order would take longer than it saves.
 */
export function inSpace(marks: Marks, memory: Map<string, unknown>): InSpace | undefined {
  const counted = remember(memory, 'counted', () => ({ times: 0 }))
  if (counted.times++ < 1) return undefined
  return remember(memory, 'in space', () => ordered(marks))
}

function ordered({ x, y }: Marks): InSpace | undefined {
  const [xs, ys] = [x.at, y.at]
  const along = tilesOver(xs)
  const up = tilesOver(ys)
  if (!along || !up) return undefined
  const starts = new Uint32Array(TILES * TILES + 1)
  const tileOf = new Uint16Array(xs.length)
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    tileOf[i] = tileAt(up, ys[i]) * TILES + tileAt(along, xs[i])
    starts[tileOf[i] + 1]++
  }
  for (let tile = 0; tile < TILES * TILES; tile++) starts[tile + 1] += starts[tile]
  const count = starts[TILES * TILES]
  const out = { x: new Float64Array(count), y: new Float64Array(count), mark: new Int32Array(count) }
  const next = starts.slice(0, TILES * TILES)
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    const place = next[tileOf[i]]++
    out.x[place] = xs[i]
    out.y[place] = ys[i]
    out.mark[place] = i
  }
  return { ...out, starts, along, up }
}

function tilesOver(values: Float64Array): InSpace['along'] | undefined {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  for (let i = 0; i < values.length; i++) {
    if (values[i] < min) min = values[i]
    if (values[i] > max) max = values[i]
  }
  return max > min && Number.isFinite(max - min) ? { from: min, perUnit: TILES / (max - min) } : undefined
}

const tileAt = ({ from, perUnit }: InSpace['along'], value: number): number =>
  Math.max(0, Math.min(TILES - 1, Math.floor((value - from) * perUnit)))

/** Stretches of the order that hold all points between two values along x and two along y. */
export function stretchesWithin(
  { starts, along, up }: InSpace,
  [left, right]: readonly [number, number],
  [low, high]: readonly [number, number],
): [from: number, to: number][] {
  const [first, last] = [tileAt(along, left), tileAt(along, right)]
  const out: [number, number][] = []
  for (let row = tileAt(up, low); row <= tileAt(up, high); row++) {
    const from = starts[row * TILES + first]
    const to = starts[row * TILES + last + 1]
    const before = out.at(-1)
    if (before && before[1] === from) before[1] = to
    else if (to > from) out.push([from, to])
  }
  return out
}
