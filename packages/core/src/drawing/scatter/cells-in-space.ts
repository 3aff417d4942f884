import { type Repeated, repeatedIn } from './repeated.ts'
import { type InSpace, TILES, tileOf } from './spaces.ts'

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
  const { x, y, starts, ends } = space
  const tiles = TILES * TILES
  const sides = new Uint16Array(tiles)
  const first = new Uint32Array(tiles + 1)
  let most = 0
  for (let tile = 0; tile < tiles; tile++) {
    const points = ends[tile] - starts[tile]
    most = Math.max(most, points)
    // Two cells for each point: once they are coarser than elements of a picture, few points are in view.
    sides[tile] =
      points === 0 ? 0 : Math.min(MOST, Math.ceil(Math.sqrt(2 * points) / 2 ** MERGED) * 2 ** MERGED)
    first[tile + 1] = first[tile] + (sides[tile] + 1) ** 2
  }
  const sums = sumsOf(first[tiles], most)
  const occupied = new Uint32Array(tiles)
  for (let tile = 0; tile < tiles; tile++) {
    const side = sides[tile]
    const wide = side + 1
    const corner = first[tile] + wide + 1
    for (let i = starts[tile]; i < ends[tile]; i++)
      if (sums[corner + cellAt(space, tile, side, wide, x[i], y[i])]++ === 0) occupied[tile]++
    for (let row = 1; row < wide; row++) {
      let so = 0
      for (let at = first[tile] + row * wide + 1, end = at + side; at < end; at++) {
        so += sums[at]
        sums[at] = so + sums[at - wide]
      }
    }
  }
  const repeated = repeatedIn(space, occupied, sides, (tile, point) =>
    cellAt(space, tile, sides[tile], sides[tile], x[point], y[point]),
  )
  return { finest: { sides, first, sums }, repeated }
}

/** From the first of a tile's cells, how far the one at a place is along rows that have `wide` in memory. */
function cellAt(
  { along, up }: InSpace,
  tile: number,
  side: number,
  wide: number,
  x: number,
  y: number,
): number {
  const column = (((x - along.from) * along.perUnit - (tile % TILES)) * side) | 0
  const row = ((Math.floor(tile / TILES) + 1 - (y - up.from) * up.perUnit) * side) | 0
  return Math.max(0, Math.min(side - 1, row)) * wide + Math.max(0, Math.min(side - 1, column))
}

/** Takes a point out of its tile, and of what was counted there. */
export function takeOut(space: InSpace, x: number, y: number): void {
  const { starts, ends } = space
  const tile = tileOf(space, x, y)
  let point = starts[tile]
  while (point < ends[tile] && (space.x[point] !== x || space.y[point] !== y)) point++
  if (point === ends[tile]) return
  const last = --ends[tile]
  space.x[point] = space.x[last]
  space.y[point] = space.y[last]
  const counts = known.get(space)
  if (!counts) return
  const { levels, repeated } = counts
  const side = levels[levels.length - 1].sides[tile]
  const cell = cellAt(space, tile, side, side, x, y)
  const [column, row] = [cell % side, Math.floor(cell / side)]
  levels.forEach(({ sides, first, sums }, level) => {
    const merged = 2 ** (levels.length - 1 - level)
    const wide = sides[tile] + 1
    for (let r = Math.floor(row / merged) + 1; r < wide; r++)
      for (let c = Math.floor(column / merged) + 1; c < wide; c++) sums[first[tile] + r * wide + c]--
  })
  for (let place = repeated.starts[tile]; place < repeated.starts[tile + 1]; place++)
    if (cellAt(space, tile, side, side, repeated.x[place], repeated.y[place]) === cell)
      repeated.times[place]--
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
