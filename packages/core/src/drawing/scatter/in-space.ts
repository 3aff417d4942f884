import { LATE, lasting } from '../../describe/lasting.ts'
import type { Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { ScaleKind } from '../../scale/scale.ts'

/** Tiles along each side. */
export const TILES = 32

/** Where tiles begin along one direction, as its scale sees values, and how many of them there are for each unit. */
export interface Tiling {
  from: number
  perUnit: number
}

/**
 * Points of one colour, where scales see them before they stretch them to pixels, in an order in which neighbours in the plot are
 * neighbours in memory, tile by tile, row by row.
 */
export interface InSpace {
  x: Float64Array
  y: Float64Array
  /** Where the points of each tile begin; one more at the end. */
  starts: Uint32Array
  along: Tiling
  up: Tiling
}

/** What is counted: marks, and which of the colours each has; a name tells one such assignment from another. */
export interface Crowd {
  marks: Marks
  inks: number
  inkOf: () => Uint16Array
  inkName: string
  memory: Map<string, unknown> | undefined
}

/** The first points in space, and how many those are. */
export interface Spaces {
  spaces: readonly InSpace[]
  count: number
}

/**
 * The points in space, by colour, from the second time that they are counted on, as when a person zooms: for a single
 * picture the order would take longer than it saves. It holds for the first points while others come after them, which are
 * counted as they are.
 */
export function inSpace(crowd: Crowd, x: ScaleKind, y: ScaleKind): Spaces | undefined {
  const { marks, inkName } = crowd
  // Places are few enough to be counted in the order that they come in.
  if (!crowd.memory || marks.crowd) return undefined
  const { memory, name } = lasting(marks, crowd.memory)
  const kept = remember<Kept>(memory, `in space ${x.name} ${y.name} ${inkName} ${name}`, () => ({}))
  const counted = remember(crowd.memory, 'counted', () => ({ times: 0 }))
  // Points that keep coming are counted again as well.
  const grows = kept.seen !== undefined && marks.length > kept.seen
  kept.seen = marks.length
  if (counted.times++ < 1 && !kept.spaces && !grows) return undefined
  const late = marks.length - (kept.count ?? 0)
  if (late < 0 || late > marks.length * LATE) {
    kept.count = marks.length
    kept.spaces = ordered(crowd, seenBy(x, marks.x.at), seenBy(y, marks.y.at))
  }
  return kept.spaces && { spaces: kept.spaces, count: kept.count ?? 0 }
}

/** What is kept of points in space, for scales and colours. */
interface Kept extends Partial<Spaces> {
  /** How many points there were when they were last counted. */
  seen?: number
}

const seenBy = ({ straight, allows, forward }: ScaleKind, values: Float64Array): Float64Array =>
  straight ? values : values.map(value => (allows(value) ? forward(value) : Number.NaN))

function ordered({ inks, inkOf }: Crowd, xs: Float64Array, ys: Float64Array): InSpace[] | undefined {
  const along = tilesOver(xs)
  const up = tilesOver(ys)
  if (!along || !up) return undefined
  const ink = inks > 1 ? inkOf() : undefined
  const tileOf = new Uint16Array(xs.length)
  const starts = Array.from({ length: inks }, () => new Uint32Array(TILES * TILES + 1))
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    tileOf[i] = tileAt(up, ys[i]) * TILES + tileAt(along, xs[i])
    starts[ink ? ink[i] : 0][tileOf[i] + 1]++
  }
  const spaces = starts.map(own => {
    for (let tile = 0; tile < TILES * TILES; tile++) own[tile + 1] += own[tile]
    const count = own[TILES * TILES]
    return { x: new Float64Array(count), y: new Float64Array(count), starts: own, along, up }
  })
  const next = starts.map(own => own.slice(0, TILES * TILES))
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    const own = ink ? ink[i] : 0
    const place = next[own][tileOf[i]]++
    spaces[own].x[place] = xs[i]
    spaces[own].y[place] = ys[i]
  }
  return spaces
}

function tilesOver(values: Float64Array): Tiling | undefined {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  for (let i = 0; i < values.length; i++) {
    if (values[i] < min) min = values[i]
    if (values[i] > max) max = values[i]
  }
  return max > min && Number.isFinite(max - min) ? { from: min, perUnit: TILES / (max - min) } : undefined
}

/** The tile at a value, the first or last one for what lies beyond. */
const tileAt = ({ from, perUnit }: Tiling, value: number): number =>
  Math.max(0, Math.min(TILES - 1, Math.floor((value - from) * perUnit)))
