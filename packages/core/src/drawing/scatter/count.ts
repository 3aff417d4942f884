import type { Marks } from '../../describe/model.ts'
import type { PositionScale, ScaleKind } from '../../scale/scale.ts'
import type { Box } from '../../scene/scene.ts'
import { type Counts, countsIn } from './cells-in-space.ts'
import { cellCounter, edgeAt, type Place, type Places } from './count-cells.ts'
import { type Crowd, inSpace } from './in-space.ts'
import { PARTS } from './opacity.ts'
import { type InSpace, TILES, type Tiling } from './spaces.ts'

/** The elements of a picture that fills a plot. */
export interface Elements {
  x: PositionScale
  y: PositionScale
  plot: Box
  columns: number
  rows: number
}

/** What was counted. */
export interface Counted {
  /** Parts of points at each picture element, for each colour that occurs, to be used before the next ones are counted. */
  grids: (Int32Array | undefined)[]
  /** Boxes of elements outside which there are no points, where that is known. */
  filled: readonly Filled[] | undefined
}

/** Elements from a column and a row on, up to but without others. */
export interface Filled {
  left: number
  right: number
  top: number
  bottom: number
}

/** Counts points at each picture element. Those on the last edge count to the last element. */
export function countAll(crowd: Crowd, elements: Elements): Counted {
  const { marks, inkOf, inks } = crowd
  const { x, y, plot, columns, rows } = elements
  const grids: (Int32Array | undefined)[] = Array.from({ length: inks }, () => undefined)
  const grid = (ink: number) => (grids[ink] ??= emptyGrid(ink, columns * rows))
  const to: Places = {
    column: placeOf(x, plot.x, columns / plot.width),
    row: placeOf(y, plot.y, rows / plot.height),
    columns,
    rows,
  }
  const known = inSpace(crowd, x.kind, y.kind)
  const filled: Filled[] = []
  known?.spaces.forEach((space, ink) => {
    if (space.x.length > 0) countSpace(space, to, grid(ink), filled)
  })
  const from = known?.count ?? 0
  const changed = known?.changed ?? []
  if (inks === 1 && x.kind.straight && y.kind.straight) {
    for (const row of changed) countSome(marks.x.at, marks.y.at, row, row + 1, to, grid(0))
    if (from < marks.length)
      countSome(marks.x.at, marks.y.at, from, marks.length, to, grid(0), marks.crowd?.rows)
    if (!known || known.changed.size > FEW) return { grids, filled: undefined }
    for (const row of changed) filled.push(boxOf(marks, row, row + 1, to))
    if (from < marks.length) filled.push(boxOf(marks, from, marks.length, to))
    return { grids, filled }
  }
  if (from === marks.length && known?.changed.size === 0) return { grids, filled }
  const inkAt = inkOf()
  for (const row of changed) countMixed(marks, row, row + 1, inkAt, x.kind, y.kind, to, grid)
  countMixed(marks, from, marks.length, inkAt, x.kind, y.kind, to, grid)
  return { grids, filled: undefined }
}

/** Of so many points that have changed it is found where they lie, as that takes less than writing all elements. */
const FEW = 100

/** The elements that points lie on which came after others, and one more at either end. */
function boxOf({ x, y }: Marks, from: number, end: number, { column, row, columns, rows }: Places): Filled {
  const box = { left: columns, right: 0, top: rows, bottom: 0 }
  for (let i = from; i < end; i++) {
    const along = x.at[i] * column.factor + column.offset
    const down = y.at[i] * row.factor + row.offset
    if (along < box.left) box.left = along
    if (along > box.right) box.right = along
    if (down < box.top) box.top = down
    if (down > box.bottom) box.bottom = down
  }
  return {
    left: Math.max(0, Math.floor(box.left) - 1),
    right: Math.min(columns, Math.ceil(box.right) + 1),
    top: Math.max(0, Math.floor(box.top) - 1),
    bottom: Math.min(rows, Math.ceil(box.bottom) + 1),
  }
}

/** By colour, room for counts, which any picture takes after the one before: room that is new is slow to write to. */
const room: Int32Array[] = []

function emptyGrid(ink: number, length: number): Int32Array {
  if (!(room[ink]?.length >= length)) room[ink] = new Int32Array(length)
  return room[ink].subarray(0, length).fill(0)
}

/** A point on the edge can come to lie this much beyond it, in elements, by what is lost in adding up. */
const NEAR = 1e-6

const placeOf = (scale: PositionScale, start: number, density: number): Place => ({
  factor: scale.factor * density,
  offset: (scale.offset - start) * density,
})

/** So many parts are a crowd like any larger one, and dozens of them still a whole number of 32 bits. */
const ENOUGH = 2 ** 24

function add(counts: Int32Array, at: number, points: number): void {
  counts[at] = Math.min(counts[at] + points * PARTS, ENOUGH)
}

/** Points of several colours, or places with the rows that they stand for, in the order that they come in. */
function countMixed(
  { x, y, crowd }: Marks,
  from: number,
  end: number,
  inkOf: Uint16Array,
  along: ScaleKind,
  up: ScaleKind,
  { column: across, row: down, columns, rows }: Places,
  grid: (ink: number) => Int32Array,
): void {
  for (let i = from; i < end; i++) {
    const [xValue, yValue] = [x.at[i], y.at[i]]
    if (!along.allows(xValue) || !up.allows(yValue)) continue
    const column = along.forward(xValue) * across.factor + across.offset
    const row = up.forward(yValue) * down.factor + down.offset
    if (column >= -NEAR && column <= columns + NEAR && row >= -NEAR && row <= rows + NEAR)
      add(
        grid(inkOf[i]),
        (row < rows ? row | 0 : rows - 1) * columns + (column < columns ? column | 0 : columns - 1),
        crowd ? crowd.rows[i] : 1,
      )
  }
}

/** `times`: how many rows each point stands for. */
function countSome(
  xs: Float64Array,
  ys: Float64Array,
  from: number,
  to: number,
  { column: across, row: down, columns, rows }: Places,
  counts: Int32Array,
  times?: Float64Array,
): void {
  const [xf, xo, yf, yo] = [across.factor, across.offset, down.factor, down.offset]
  for (let i = from; i < to; i++) {
    const column = xs[i] * xf + xo
    const row = ys[i] * yf + yo
    if (column >= -NEAR && column <= columns + NEAR && row >= -NEAR && row <= rows + NEAR)
      add(
        counts,
        (row < rows ? row | 0 : rows - 1) * columns + (column < columns ? column | 0 : columns - 1),
        times ? times[i] : 1,
      )
  }
}

/** Stretches of points that are known to lie well within the plot, in one loop over plain numbers: what is called for each tile takes a third longer. */
function countWithin(
  xs: Float64Array,
  ys: Float64Array,
  stretches: readonly number[],
  { column: across, row: down, columns }: Places,
  counts: Int32Array,
): void {
  const [xf, xo, yf, yo] = [across.factor, across.offset, down.factor, down.offset]
  for (let stretch = 0; stretch < stretches.length; stretch += 2)
    for (let i = stretches[stretch], to = stretches[stretch + 1]; i < to; i++)
      counts[((ys[i] * yf + yo) | 0) * columns + ((xs[i] * xf + xo) | 0)] += PARTS
}

function countSpace(space: InSpace, to: Places, counts: Int32Array, filled: Filled[]): void {
  const { x, y, starts, ends, along, up } = space
  const stretches: number[] = []
  const columns = tilesIn(along, to.column, to.columns)
  const rows = tilesIn(up, to.row, to.rows)
  const known = countsIn(space)
  const byKnown = known && tileCounter(space, known, to, counts)
  for (const row of rows) {
    let box: Filled | undefined
    for (const column of columns) {
      const tile = row.tile * TILES + column.tile
      const [from, end] = [starts[tile], ends[tile]]
      if (from === end) continue
      // Tiles beside each other have elements in common.
      if (box && column.first <= box.right && column.last >= box.left) {
        box.left = Math.min(box.left, column.first)
        box.right = Math.max(box.right, column.last)
      } else {
        box = { left: column.first, right: column.last, top: row.first, bottom: row.last }
        filled.push(box)
      }
      if (byKnown?.(tile)) continue
      if (column.within && row.within) stretches.push(from, end)
      else countSome(x, y, from, end, to, counts)
    }
  }
  countWithin(x, y, stretches, to, counts)
}

/** Counts a tile by its cells, or by the places that its points share where those are few; says whether it did. */
function tileCounter(
  space: InSpace,
  { levels, repeated: { x, y, times, starts } }: Counts,
  to: Places,
  counts: Int32Array,
): (tile: number) => boolean {
  const byCells = cellCounter(space, levels, to, counts)
  return tile => {
    const [from, end] = [starts[tile], starts[tile + 1]]
    const how = byCells(tile, end - from || space.ends[tile] - space.starts[tile])
    if (how !== 'few' || from === end) return how === 'counted'
    countSome(x, y, from, end, to, counts, times)
    return true
  }
}

interface TileInView {
  tile: number
  /** Whether it is in view with an element to spare at either end. */
  within: boolean
  /** The elements that it lies on, and one more at either end, up to but without the last. */
  first: number
  last: number
}

/** The tiles along one direction that are in view. */
function tilesIn(tiling: Tiling, place: Place, size: number): TileInView[] {
  const out: TileInView[] = []
  for (let tile = 0; tile < TILES; tile++) {
    const ends = [tile, tile + 1].map(edge => edgeAt(tiling, place, edge))
    const [low, high] = [Math.min(...ends), Math.max(...ends)]
    // Whatever is lost in adding up: a point at the edge of a tile may lie a little beyond.
    if (high >= -1 && low <= size + 1)
      out.push({
        tile,
        within: low >= 1 && high <= size - 1,
        first: Math.max(0, Math.floor(low) - 1),
        last: Math.min(size, Math.ceil(high) + 1),
      })
  }
  return out
}
