import { type InSpace, TILES } from './in-space.ts'
import { type Repeated, repeatedIn } from './repeated.ts'

/** From so many points of one colour on they are counted by cells as well. */
const VERY_MANY = 500_000
/** Cells along a side of a tile, at most. */
export const MOST = 2048
/** How often cells are merged by two along each side: pictures of all the points need not read the finest. */
const MERGED = 3

/**
 * How many points each tile holds up to each corner of its cells: what lies between any four corners is then known at
 * once, however many points that are. A tile has the more cells the more it holds.
 */
export interface Cells {
  /** By tile: cells along a side. */
  sides: Uint16Array
  /** By tile: where its corners begin; side + 1 rows of side + 1, from the top, as pictures are mostly written. */
  first: Uint32Array
  sums: Sums
}

/** Half as much is to be read at each picture, where no tile holds more than such a number tells. */
type Sums = Uint16Array | Int32Array

const sumsOf = (length: number, most: number): Sums =>
  most < 2 ** 16 ? new Uint16Array(length) : new Int32Array(length)

/** What is known of very many points beside their places. */
export interface Counts {
  /** Their cells at several resolutions, the coarsest first. */
  levels: readonly Cells[]
  repeated: Repeated
}

const known = new WeakMap<InSpace, Counts>()

/** What is known of very many points; undefined where counting the points themselves is as quick. */
export function countsIn(space: InSpace): Counts | undefined {
  if (space.x.length < VERY_MANY) return undefined
  let counts = known.get(space)
  if (!counts) {
    const { finest, repeated } = counted(space)
    const levels = [finest]
    for (let level = 0; level < MERGED; level++) levels.unshift(merged(levels[0]))
    counts = { levels, repeated }
    known.set(space, counts)
  }
  return counts
}

function counted(space: InSpace): { finest: Cells; repeated: Repeated } {
  const { x, y, starts, along, up } = space
  const tiles = TILES * TILES
  const sides = new Uint16Array(tiles)
  const first = new Uint32Array(tiles + 1)
  let most = 0
  for (let tile = 0; tile < tiles; tile++) {
    const points = starts[tile + 1] - starts[tile]
    most = Math.max(most, points)
    // Two cells for each point: once they are coarser than elements of a picture, few points are in view.
    sides[tile] =
      points === 0 ? 0 : Math.min(MOST, Math.ceil(Math.sqrt(2 * points) / 2 ** MERGED) * 2 ** MERGED)
    first[tile + 1] = first[tile] + (sides[tile] + 1) ** 2
  }
  const sums = sumsOf(first[tiles], most)
  /** From the first cell of a tile, how far that of a point is along rows that have `wide` in memory. */
  const cellOf = (tile: number, point: number, wide: number): number => {
    const side = sides[tile]
    const column = (((x[point] - along.from) * along.perUnit - (tile % TILES)) * side) | 0
    const row = ((Math.floor(tile / TILES) + 1 - (y[point] - up.from) * up.perUnit) * side) | 0
    return Math.max(0, Math.min(side - 1, row)) * wide + Math.max(0, Math.min(side - 1, column))
  }
  const occupied = new Uint32Array(tiles)
  for (let tile = 0; tile < tiles; tile++) {
    const side = sides[tile]
    const wide = side + 1
    const corner = first[tile] + wide + 1
    for (let i = starts[tile]; i < starts[tile + 1]; i++)
      if (sums[corner + cellOf(tile, i, wide)]++ === 0) occupied[tile]++
    for (let row = 1; row < wide; row++) {
      let so = 0
      for (let at = first[tile] + row * wide + 1, end = at + side; at < end; at++) {
        so += sums[at]
        sums[at] = so + sums[at - wide]
      }
    }
  }
  const repeated = repeatedIn(space, occupied, sides, (tile, point) => cellOf(tile, point, sides[tile]))
  return { finest: { sides, first, sums }, repeated }
}

/** Four cells as one: every second corner. */
function merged(finer: Cells): Cells {
  const sides = finer.sides.map(side => side / 2)
  const first = new Uint32Array(sides.length + 1)
  sides.forEach((side, tile) => {
    first[tile + 1] = first[tile] + (side + 1) ** 2
  })
  const sums =
    finer.sums instanceof Uint16Array
      ? new Uint16Array(first[sides.length])
      : new Int32Array(first[sides.length])
  sides.forEach((side, tile) => {
    for (let row = 0, at = first[tile]; row <= side; row++)
      for (let column = 0; column <= side; column++, at++)
        sums[at] = finer.sums[finer.first[tile] + row * 2 * (2 * side + 1) + column * 2]
  })
  return { sides, first, sums }
}
