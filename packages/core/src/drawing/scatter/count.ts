import type { Marks } from '../../describe/model.ts'
import { remember } from '../../describe/remember.ts'
import type { PositionScale, ScaleKind } from '../../scale/scale.ts'
import type { Box } from '../../scene/scene.ts'
import { type Cells, cellsOf } from './cells-in-space.ts'
import { type Crowd, type InSpace, inSpace, TILES, type Tiling } from './in-space.ts'

/** The elements of a picture that fills a plot. */
export interface Elements {
  x: PositionScale
  y: PositionScale
  plot: Box
  columns: number
  rows: number
}

/**
 * Points at each picture element, for each colour that occurs, to be used before the next ones are counted. Those on the
 * last edge count to the last element.
 */
export function countAll(crowd: Crowd, elements: Elements): (Float32Array | undefined)[] {
  const { marks, inkOf, inks } = crowd
  const { x, y, plot, columns, rows } = elements
  const grids: (Float32Array | undefined)[] = Array.from({ length: inks }, () => undefined)
  const grid = (ink: number) => (grids[ink] ??= emptyGrid(crowd.memory, ink, columns * rows))
  const to: Places = {
    column: placeOf(x, plot.x, columns / plot.width),
    row: placeOf(y, plot.y, rows / plot.height),
    columns,
    rows,
  }
  const spaces = inSpace(crowd, x.kind, y.kind)
  if (spaces) {
    spaces.forEach((space, ink) => {
      if (space.x.length > 0) countSpace(space, to, grid(ink))
    })
  } else if (inks === 1 && x.kind.straight && y.kind.straight && !marks.crowd) {
    countSome(marks.x.at, marks.y.at, 0, marks.length, to, grid(0))
  } else {
    countMixed(marks, inkOf(), x.kind, y.kind, to, grid)
  }
  return grids
}

/** Counts that are kept for the next picture of the same points: room that is new is slow to write to. */
function emptyGrid(memory: Map<string, unknown> | undefined, ink: number, length: number): Float32Array {
  const kept = memory && remember(memory, 'grids', (): Float32Array[] => [])
  if (!kept) return new Float32Array(length)
  if (kept[ink]?.length === length) kept[ink].fill(0)
  else kept[ink] = new Float32Array(length)
  return kept[ink]
}

/** A point on the edge can come to lie this much beyond it, in elements, by what is lost in adding up. */
const NEAR = 1e-6

/** From where scales see values to picture elements, as a fraction of them. */
interface Place {
  factor: number
  offset: number
}

interface Places {
  column: Place
  row: Place
  columns: number
  rows: number
}

const placeOf = (scale: PositionScale, start: number, density: number): Place => ({
  factor: scale.factor * density,
  offset: (scale.offset - start) * density,
})

/** Points of several colours, or places with the rows that they stand for, in the order that they come in. */
function countMixed(
  { x, y, length, crowd }: Marks,
  inkOf: Uint16Array,
  along: ScaleKind,
  up: ScaleKind,
  { column: across, row: down, columns, rows }: Places,
  grid: (ink: number) => Float32Array,
): void {
  for (let i = 0; i < length; i++) {
    const [xValue, yValue] = [x.at[i], y.at[i]]
    if (!along.allows(xValue) || !up.allows(yValue)) continue
    const column = along.forward(xValue) * across.factor + across.offset
    const row = up.forward(yValue) * down.factor + down.offset
    if (column >= -NEAR && column <= columns + NEAR && row >= -NEAR && row <= rows + NEAR)
      grid(inkOf[i])[
        (row < rows ? row | 0 : rows - 1) * columns + (column < columns ? column | 0 : columns - 1)
      ] += crowd ? crowd.rows[i] : 1
  }
}

function countSome(
  xs: Float64Array,
  ys: Float64Array,
  from: number,
  to: number,
  { column: across, row: down, columns, rows }: Places,
  counts: Float32Array,
): void {
  const [xf, xo, yf, yo] = [across.factor, across.offset, down.factor, down.offset]
  for (let i = from; i < to; i++) {
    const column = xs[i] * xf + xo
    const row = ys[i] * yf + yo
    if (column >= -NEAR && column <= columns + NEAR && row >= -NEAR && row <= rows + NEAR)
      counts[(row < rows ? row | 0 : rows - 1) * columns + (column < columns ? column | 0 : columns - 1)]++
  }
}

/** The same for points that are known to lie well within the plot. */
function countWithin(
  { x, y }: InSpace,
  from: number,
  to: number,
  { column: across, row: down, columns }: Places,
  counts: Float32Array,
): void {
  const [xf, xo, yf, yo] = [across.factor, across.offset, down.factor, down.offset]
  for (let i = from; i < to; i++) counts[((y[i] * yf + yo) | 0) * columns + ((x[i] * xf + xo) | 0)]++
}

function countSpace(space: InSpace, to: Places, counts: Float32Array): void {
  const { starts, along, up } = space
  const columns = tilesIn(along, to.column, to.columns)
  const rows = tilesIn(up, to.row, to.rows)
  const levels = cellsOf(space)
  for (const row of rows)
    for (const column of columns) {
      const tile = row.tile * TILES + column.tile
      const [from, end] = [starts[tile], starts[tile + 1]]
      if (from === end) continue
      if (levels && countCells(space, levels, tile, end - from, to, counts)) continue
      if (column.within && row.within) countWithin(space, from, end, to, counts)
      else countSome(space.x, space.y, from, end, to, counts)
    }
}

/** The tiles along one direction that are in view, and whether they are so with an element to spare at either end. */
function tilesIn(tiling: Tiling, place: Place, size: number): { tile: number; within: boolean }[] {
  const out: { tile: number; within: boolean }[] = []
  for (let tile = 0; tile < TILES; tile++) {
    const ends = [tile, tile + 1].map(edge => edgeAt(tiling, place, edge))
    const [low, high] = [Math.min(...ends), Math.max(...ends)]
    // Whatever is lost in adding up: a point at the edge of a tile may lie a little beyond.
    if (high >= -1 && low <= size + 1) out.push({ tile, within: low >= 1 && high <= size - 1 })
  }
  return out
}

const edgeAt = ({ from, perUnit }: Tiling, { factor, offset }: Place, edge: number): number =>
  (from + edge / perUnit) * factor + offset

/** A cell is at most so much of an element wide and high, where it is counted in place of its points. */
const FINE = 1

/** The edges of the elements that a tile lies under, as places between its cells. */
interface Edges {
  /** The first element that is in the picture. */
  first: number
  /** The cell in which each edge lies, and how far into it. */
  cell: Int32Array
  into: Float64Array
}

function edgesOf(tiling: Tiling, place: Place, tile: number, side: number, elements: number): Edges {
  const [from, to] = [edgeAt(tiling, place, tile), edgeAt(tiling, place, tile + 1)]
  const first = Math.max(0, Math.floor(Math.min(from, to)))
  const last = Math.min(elements, Math.ceil(Math.max(from, to)))
  const length = Math.max(0, last - first + 1)
  const cell = new Int32Array(length)
  const into = new Float64Array(length)
  for (let i = 0; i < length; i++) {
    const at = Math.max(0, Math.min(side, ((first + i - from) / (to - from)) * side))
    cell[i] = Math.min(side - 1, Math.floor(at))
    into[i] = at - cell[i]
  }
  return { first, cell, into }
}

/**
 * Counts a tile by its cells; false where these are too coarse, or its points fewer than the elements it lies under. What
 * a cell holds is shared out among the elements it lies under, by how much of it each has.
 */
function countCells(
  { along, up }: InSpace,
  levels: readonly Cells[],
  tile: number,
  points: number,
  to: Places,
  elements: Float32Array,
): boolean {
  const [column, row] = [tile % TILES, Math.floor(tile / TILES)]
  const width = Math.abs(edgeAt(along, to.column, column + 1) - edgeAt(along, to.column, column))
  const height = Math.abs(edgeAt(up, to.row, row + 1) - edgeAt(up, to.row, row))
  const cells = levels.find(({ sides }) => Math.max(width, height) <= FINE * sides[tile])
  if (!cells) return false
  const { sides, first, sums } = cells
  const side = sides[tile]
  const across = edgesOf(along, to.column, column, side, to.columns)
  const down = edgesOf(up, to.row, row, side, to.rows)
  if (points < across.cell.length * down.cell.length) return false
  const wide = side + 1
  let before = new Float64Array(across.cell.length)
  let here = new Float64Array(across.cell.length)
  for (let j = 0; j < down.cell.length; j++) {
    const start = first[tile] + down.cell[j] * wide
    const deep = down.into[j]
    for (let i = 0; i < here.length; i++) {
      const at = start + across.cell[i]
      const upper = sums[at] + (sums[at + 1] - sums[at]) * across.into[i]
      const lower = sums[at + wide] + (sums[at + wide + 1] - sums[at + wide]) * across.into[i]
      here[i] = upper + (lower - upper) * deep
    }
    if (j > 0) {
      const start = (down.first + j - 1) * to.columns + across.first
      for (let i = 1; i < here.length; i++)
        elements[start + i - 1] += Math.abs(here[i] - here[i - 1] - before[i] + before[i - 1])
    }
    const free = before
    before = here
    here = free
  }
  return true
}
