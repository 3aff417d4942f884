import type { Cells } from './cells-in-space.ts'
import { type InSpace, TILES, type Tiling } from './in-space.ts'
import { PARTS } from './opacity.ts'

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
/** So many points are counted in the time that one corner takes. */
const WORTH = 4

/** The edges of the elements that a row or column of tiles lies under, as shares of a tile. */
interface Edges {
  /** The first element that is in the picture. */
  first: number
  at: Float64Array
  /** Elements along a tile. */
  size: number
}

function edgesOf(tiling: Tiling, place: Place, tile: number, elements: number): Edges {
  const [from, to] = [edgeAt(tiling, place, tile), edgeAt(tiling, place, tile + 1)]
  const first = Math.max(0, Math.floor(Math.min(from, to)))
  const last = Math.min(elements, Math.ceil(Math.max(from, to)))
  // The last edge lies in the last cell, not after it.
  const share = (element: number) => Math.max(0, Math.min(1 - 1e-9, (element - from) / (to - from)))
  const at = Float64Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => share(first + i))
  return { first, at, size: Math.abs(to - from) }
}

/**
 * Counts a tile by its cells, and says whether it did: not where these are too coarse, or its points few beside the
 * elements that it lies under. What a cell holds is shared out among the elements it lies under, by how much each has.
 */
export function cellCounter(
  { along, up }: InSpace,
  levels: readonly Cells[],
  { column, row, columns, rows }: Places,
  elements: Int32Array,
): (tile: number, points: number) => boolean {
  const tiles = Array.from({ length: TILES }, (_, tile) => tile)
  const across = tiles.map(tile => edgesOf(along, column, tile, columns))
  const down = tiles.map(tile => edgesOf(up, row, tile, rows))
  // The cell in which each edge across lies, and how far into it; what lies up to it, along the edge down before.
  const longest = Math.max(...across.map(({ at }) => at.length))
  const cell = new Int32Array(longest)
  const into = new Float64Array(longest)
  const before = new Int32Array(longest)
  return (tile, points) => {
    const { first: left, at: edges, size: width } = across[tile % TILES]
    const { first: top, at: levelsDown, size: height } = down[Math.floor(tile / TILES)]
    if (points < WORTH * edges.length * levelsDown.length) return false
    const cells = levels.find(({ sides }) => Math.max(width, height) <= FINE * sides[tile])
    if (!cells) return false
    const { sums } = cells
    const side = cells.sides[tile]
    const wide = side + 1
    const length = edges.length
    for (let i = 0; i < length; i++) {
      cell[i] = edges[i] * side
      into[i] = edges[i] * side - cell[i]
    }
    before.fill(0)
    for (let j = 0; j < levelsDown.length; j++) {
      const cellDown = Math.floor(levelsDown[j] * side)
      const deep = levelsDown[j] * side - cellDown
      const start = cells.first[tile] + cellDown * wide
      const target = (top + j - 1) * columns + left - 1
      countRow(sums, start, wide, deep, cell, into, length, before, elements, target, j > 0)
    }
    return true
  }
}

/**
 * What lies between an edge down and the one before it, at each edge across; handed plain numbers, by which it takes less
 * time. `target`: the element before the first; `counts`: whether there was an edge before.
 */
function countRow(
  sums: Cells['sums'],
  start: number,
  wide: number,
  deep: number,
  cell: Int32Array,
  into: Float64Array,
  length: number,
  before: Int32Array,
  elements: Int32Array,
  target: number,
  counts: boolean,
): void {
  let so = 0
  for (let i = 0; i < length; i++) {
    const at = start + cell[i]
    const far = into[i]
    const upper = sums[at]
    const lower = sums[at + wide]
    const high = upper + (sums[at + 1] - upper) * far
    // Whole parts at each corner, so that none is lost between neighbours.
    const here = ((high + (lower + (sums[at + wide + 1] - lower) * far - high) * deep) * PARTS + 0.5) | 0
    const added = (here - before[i]) | 0
    before[i] = here
    // The first edge along has nothing before it.
    if (i > 0 && counts) {
      const parts = added - so
      elements[target + i] += parts < 0 ? -parts : parts
    }
    so = added
  }
}
