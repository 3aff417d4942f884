import { type Cells, MOST } from './cells-in-space.ts'
import { PARTS } from './opacity.ts'
import { type InSpace, TILES, type Tiling } from './spaces.ts'

/** From where scales see values to picture elements, as a fraction of them. */
export interface Place {
  factor: number
  offset: number
}

export interface Places {
  column: Place
  row: Place
  columns: number
  rows: number
}

export const edgeAt = ({ from, perUnit }: Tiling, { factor, offset }: Place, edge: number): number =>
  (from + edge / perUnit) * factor + offset

/** A cell is at most so much of an element wide and high, where it is counted in place of its points. */
const FINE = 1
/** From so many points for each corner on, corners are counted: two points take longer than one. */
const WORTH = 2

/** The edges of the elements that a row or column of tiles lies under, as shares of a tile. */
interface Edges {
  /** The first element that is in the picture. */
  first: number
  at: Float64Array
  /** Elements along a tile. */
  size: number
}

/** Between the picture's places of the first and the last edge of a tile's cells. */
function edgesOf(from: number, to: number, elements: number): Edges {
  const first = Math.max(0, Math.floor(Math.min(from, to)))
  const last = Math.min(elements, Math.ceil(Math.max(from, to)))
  const at = new Float64Array(Math.max(0, last - first + 1))
  for (let i = 0; i < at.length; i++) at[i] = Math.max(0, Math.min(1, (first + i - from) / (to - from)))
  return { first, at, size: Math.abs(to - from) }
}

/** Whether a tile was counted by its cells; not where its points or places are few beside the elements, or its cells too coarse. */
type ByCells = 'counted' | 'few' | 'coarse'

/**
 * Counts tiles by their cells: what a cell holds is shared out among the elements it lies under, by how much each has.
 * `places`: how many there are at which points of the tile lie.
 */
export function cellCounter(
  { along, up }: InSpace,
  levels: readonly Cells[],
  { column, row, columns, rows }: Places,
  elements: Int32Array,
): (tile: number, places: number) => ByCells {
  const tiles = Array.from({ length: TILES }, (_, tile) => tile)
  const across = tiles.map(tile =>
    edgesOf(edgeAt(along, column, tile), edgeAt(along, column, tile + 1), columns),
  )
  const down = tiles.map(tile => edgesOf(edgeAt(up, row, tile + 1), edgeAt(up, row, tile), rows))
  const sign = -Math.sign(column.factor * row.factor)
  return (tile, count) => {
    const { first: left, at: edges, size: width } = across[tile % TILES]
    const { first: top, at: levelsDown, size: height } = down[Math.floor(tile / TILES)]
    const cells = levels.find(({ sides }) => Math.max(width, height) <= FINE * sides[tile])
    if (!cells) return 'coarse'
    if (count < WORTH * edges.length * levelsDown.length) return 'few'
    const { sums } = cells
    const side = cells.sides[tile]
    const wide = side + 1
    const length = edges.length
    for (let i = 0; i < length; i++) {
      const at = edges[i] * side
      // The last edge lies at the end of the last cell, not after it.
      const cell = Math.min(side - 1, at | 0)
      places[i] = (cell << CELL_BITS) + (((at - cell) * INTO + 0.5) | 0)
    }
    before.fill(0, 0, length)
    for (let j = 0; j < levelsDown.length; j++) {
      const cellDown = Math.min(side - 1, Math.floor(levelsDown[j] * side))
      const deep = Math.round((levelsDown[j] * side - cellDown) * DEEP)
      const start = (cells.first[tile] + cellDown * wide) | 0
      // The first edge down has nothing before it.
      const target = ((top + Math.max(0, j - 1)) * columns + left - 1) | 0
      const counts = j > 0 ? sign : 0
      if (sums instanceof Uint16Array) countRow(sums, start, wide, deep, length, elements, target, counts)
      else countLargeRow(sums, start, wide, deep, length, elements, target, counts)
    }
    return 'counted'
  }
}

/** A place among cells is told to such a part of a cell, so that what lies up to it is worked out in whole numbers of 32 bits. */
const INTO_BITS = 8
const INTO = 256
/** The cell of a place, and below it how far into it, which is up to all of it. */
const CELL_BITS = 9
const CELL = 512
const DEEP_BITS = 7
const DEEP = 128
/** What is worked out so has 2 ** 15 parts for each point; this leaves it PARTS. */
const OVER_BITS = 10
const HALF = 512

// A tile is counted by cells where it has no more elements than cells, and an edge more than elements, of which two may be in part.
/** Where each edge across lies among the cells of the tile that is being counted. */
const places = /* @__PURE__ */ new Int32Array(MOST + 3)
/** What lies up to each edge across, along the edge down before. */
const before = /* @__PURE__ */ new Int32Array(MOST + 3)

/**
 * What lies between an edge down and the one before it, at each edge across; handed plain numbers, and in whole ones, by which it
 * takes two thirds of the time. `target`: the element before the first; `sign`: by what counts are multiplied, as edges may run
 * against the cells.
 */
function countRow(
  sums: Uint16Array,
  start: number,
  wide: number,
  deep: number,
  length: number,
  elements: Int32Array,
  target: number,
  sign: number,
): void {
  let so = 0
  for (let i = 0; i < length; i++) {
    const at = (start + (places[i] >> CELL_BITS)) | 0
    const far = places[i] & (CELL - 1)
    const upper = sums[at]
    const lower = sums[at + wide]
    const high = (upper << INTO_BITS) + Math.imul(sums[at + 1] - upper, far)
    const low = (lower << INTO_BITS) + Math.imul(sums[at + wide + 1] - lower, far)
    // Whole parts at each corner, so that none is lost between neighbours.
    const here = ((high << DEEP_BITS) + Math.imul(low - high, deep) + HALF) >> OVER_BITS
    const added = (here - before[i]) | 0
    before[i] = here
    // The first edge along has nothing before it.
    if (i > 0) elements[target + i] += Math.imul(added - so, sign)
    so = added
  }
}

/** The same where a tile holds more points than such whole numbers tell. */
function countLargeRow(
  sums: Int32Array,
  start: number,
  wide: number,
  deep: number,
  length: number,
  elements: Int32Array,
  target: number,
  sign: number,
): void {
  let so = 0
  for (let i = 0; i < length; i++) {
    const at = (start + (places[i] >> CELL_BITS)) | 0
    const far = (places[i] & (CELL - 1)) / INTO
    const upper = sums[at]
    const lower = sums[at + wide]
    const high = upper + (sums[at + 1] - upper) * far
    const low = lower + (sums[at + wide + 1] - lower) * far
    const here = ((high + ((low - high) * deep) / DEEP) * PARTS + 0.5) | 0
    const added = (here - before[i]) | 0
    before[i] = here
    if (i > 0) elements[target + i] += Math.imul(added - so, sign)
    so = added
  }
}
