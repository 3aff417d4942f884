import type { Marks } from '../../describe/model.ts'
import type { PositionScale, ScaleKind } from '../../scale/scale.ts'
import type { Box } from '../../scene/scene.ts'
import { cellsOf } from './cells-in-space.ts'
import { cellCounter, edgeAt, type Place, type Places } from './count-cells.ts'
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
  const grid = (ink: number) => (grids[ink] ??= emptyGrid(ink, columns * rows))
  const to: Places = {
    column: placeOf(x, plot.x, columns / plot.width),
    row: placeOf(y, plot.y, rows / plot.height),
    columns,
    rows,
  }
  const known = inSpace(crowd, x.kind, y.kind)
  known?.spaces.forEach((space, ink) => {
    if (space.x.length > 0) countSpace(space, to, grid(ink))
  })
  const from = known?.count ?? 0
  if (from === marks.length) return grids
  if (inks === 1 && x.kind.straight && y.kind.straight)
    countSome(marks.x.at, marks.y.at, from, marks.length, to, grid(0), marks.crowd?.rows)
  else countMixed(marks, from, inkOf(), x.kind, y.kind, to, grid)
  return grids
}

/** By colour, room for counts, which any picture takes after the one before: room that is new is slow to write to. */
const room: Float32Array[] = []

function emptyGrid(ink: number, length: number): Float32Array {
  if (!(room[ink]?.length >= length)) room[ink] = new Float32Array(length)
  return room[ink].subarray(0, length).fill(0)
}

/** A point on the edge can come to lie this much beyond it, in elements, by what is lost in adding up. */
const NEAR = 1e-6

const placeOf = (scale: PositionScale, start: number, density: number): Place => ({
  factor: scale.factor * density,
  offset: (scale.offset - start) * density,
})

/** Points of several colours, or places with the rows that they stand for, in the order that they come in. */
function countMixed(
  { x, y, length, crowd }: Marks,
  from: number,
  inkOf: Uint16Array,
  along: ScaleKind,
  up: ScaleKind,
  { column: across, row: down, columns, rows }: Places,
  grid: (ink: number) => Float32Array,
): void {
  for (let i = from; i < length; i++) {
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

/** `times`: how many rows each point stands for. */
function countSome(
  xs: Float64Array,
  ys: Float64Array,
  from: number,
  to: number,
  { column: across, row: down, columns, rows }: Places,
  counts: Float32Array,
  times?: Float64Array,
): void {
  const [xf, xo, yf, yo] = [across.factor, across.offset, down.factor, down.offset]
  for (let i = from; i < to; i++) {
    const column = xs[i] * xf + xo
    const row = ys[i] * yf + yo
    if (column >= -NEAR && column <= columns + NEAR && row >= -NEAR && row <= rows + NEAR)
      counts[(row < rows ? row | 0 : rows - 1) * columns + (column < columns ? column | 0 : columns - 1)] +=
        times ? times[i] : 1
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
  const byCells = levels && cellCounter(space, levels, to, counts)
  for (const row of rows)
    for (const column of columns) {
      const tile = row.tile * TILES + column.tile
      const [from, end] = [starts[tile], starts[tile + 1]]
      if (from === end) continue
      if (byCells?.(tile, end - from)) continue
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
