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
  /** Where they end: before those of the next, where some have left. */
  ends: Uint32Array
  along: Tiling
  up: Tiling
}

const seenBy = (kind: ScaleKind, values: Float64Array): Float64Array =>
  kind.straight ? values : values.map(value => seen(kind, value))

/** A value as a scale sees it; missing where it does not allow it. */
export const seen = ({ straight, allows, forward }: ScaleKind, value: number): number =>
  straight ? value : allows(value) ? forward(value) : Number.NaN

/** Points in space, by which of so many colours each has; undefined where they do not lie apart in both directions. */
export function spacesOf(
  at: { x: Float64Array; y: Float64Array },
  kinds: { x: ScaleKind; y: ScaleKind },
  inks: number,
  inkOf: () => Uint16Array,
): InSpace[] | undefined {
  const [xs, ys] = [seenBy(kinds.x, at.x), seenBy(kinds.y, at.y)]
  const along = tilesOver(xs)
  const up = tilesOver(ys)
  if (!along || !up) return undefined
  const ink = inks > 1 ? inkOf() : undefined
  const tiles = new Uint16Array(xs.length)
  const starts = Array.from({ length: inks }, () => new Uint32Array(TILES * TILES + 1))
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    tiles[i] = tileAt(up, ys[i]) * TILES + tileAt(along, xs[i])
    starts[ink ? ink[i] : 0][tiles[i] + 1]++
  }
  const spaces = starts.map(own => {
    for (let tile = 0; tile < TILES * TILES; tile++) own[tile + 1] += own[tile]
    const count = own[TILES * TILES]
    return {
      x: new Float64Array(count),
      y: new Float64Array(count),
      starts: own,
      ends: own.slice(1),
      along,
      up,
    }
  })
  const next = starts.map(own => own.slice(0, TILES * TILES))
  for (let i = 0; i < xs.length; i++) {
    if (!(xs[i] === xs[i] && ys[i] === ys[i])) continue
    const own = ink ? ink[i] : 0
    const place = next[own][tiles[i]]++
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

/** The tile of a place. */
export const tileOf = ({ along, up }: InSpace, x: number, y: number): number =>
  tileAt(up, y) * TILES + tileAt(along, x)

/** The tile at a value, the first or last one for what lies beyond. */
const tileAt = ({ from, perUnit }: Tiling, value: number): number =>
  Math.max(0, Math.min(TILES - 1, Math.floor((value - from) * perUnit)))
