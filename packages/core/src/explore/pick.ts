import type { BoundDrawing } from '../chart/bind.ts'
import type { Composition, Pane } from '../chart/compose.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { rootOf, rootRows } from '../table/selection.ts'
import type { Table } from '../table/table.ts'

/** A corner of an outline, in pixels. */
export type Corner = readonly [x: number, y: number]

/** Serial numbers of rows of a root table, each once, in rising order. */
export type Serials = Float64Array

/** The rows behind marks or readings, as serial numbers of the root table; rows of other root tables are left out. */
export function serialsOf(root: Table, found: Iterable<{ table: Table; rows: ArrayLike<number> }>): Serials {
  const seen = new Uint8Array(root.length)
  for (const { table, rows } of found) {
    if (rootOf(table) !== root) continue
    for (let i = 0; i < rows.length; i++) {
      if (!table.source) seen[rows[i]] = 1
      else {
        const behind = rootRows(table, rows[i])
        for (let k = 0; k < behind.length; k++) seen[behind[k]] = 1
      }
    }
  }
  const out: number[] = []
  for (let row = 0; row < seen.length; row++) if (seen[row]) out.push(root.serialOf(row))
  return Float64Array.from(out).sort()
}

/** The rows of all shapes that a box touches or, for points, holds. */
export function rowsInBox(composition: Composition, root: Table, box: Box): Serials {
  const holds = (x: number, y: number) =>
    x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height
  const meets = (other: Box) =>
    other.x <= box.x + box.width &&
    other.x + other.width >= box.x &&
    other.y <= box.y + box.height &&
    other.y + other.height >= box.y
  return serialsOf(root, marksWhere(composition, holds, meets))
}

/** The rows of all shapes whose middle lies within an outline. */
export function rowsInOutline(composition: Composition, root: Table, outline: readonly Corner[]): Serials {
  if (outline.length < 3) return new Float64Array(0)
  const holds = (x: number, y: number) => isInside(outline, x, y)
  const meets = ({ x, y, width, height }: Box) => holds(x + width / 2, y + height / 2)
  return serialsOf(root, marksWhere(composition, holds, meets))
}

/** The rows of every series that an entry of a legend explains. */
export function rowsOfEntry({ panes }: Composition, root: Table, key: string): Serials {
  const found: { table: Table; rows: ArrayLike<number> }[] = []
  for (const { bound } of panes)
    for (const { marks, explained, drawing } of bound.drawings)
      for (let mark = 0; mark < marks.length; mark++)
        if (explained[marks.seriesOf?.[mark] ?? 0]?.includes(key))
          found.push({ table: drawing.table, rows: marks.rowsOf(mark) })
  return serialsOf(root, found)
}

/** The rows at a place of a scale: those of a category or bucket. */
export function rowsAtPlace(pane: Pane, root: Table, scale: string, value: number): Serials {
  const found: { table: Table; rows: ArrayLike<number> }[] = []
  for (const { marks, drawing, xScale, yScale } of pane.bound.drawings) {
    const positions = xScale === scale ? marks.x : yScale === scale ? marks.y : undefined
    if (!positions) continue
    for (let mark = 0; mark < marks.length; mark++) {
      const within =
        positions.from && positions.to
          ? value >= positions.from[mark] && value < positions.to[mark]
          : positions.at[mark] === value
      if (within) found.push({ table: drawing.table, rows: marks.rowsOf(mark) })
    }
  }
  return serialsOf(root, found)
}

function* marksWhere(
  { panes }: Composition,
  holds: (x: number, y: number) => boolean,
  meets: (box: Box) => boolean,
): Generator<{ table: Table; rows: ArrayLike<number> }> {
  for (const pane of panes) {
    for (const bound of pane.bound.drawings) {
      if (bound.drawing.kind.aside) continue
      const { table } = bound.drawing
      const id = `${pane.prefix}drawing ${bound.drawing.index}/`
      const shapes = pane.batches.find(
        batch => batch.id.startsWith(id) && (batch.kind === 'rects' || batch.kind === 'wedges'),
      )
      if (shapes?.rows) for (const rows of shapesWhere(shapes, holds, meets)) yield { table, rows }
      else for (const mark of placesWhere(pane, bound, holds)) yield { table, rows: bound.marks.rowsOf(mark) }
    }
  }
}

function* shapesWhere(
  batch: Batch,
  holds: (x: number, y: number) => boolean,
  meets: (box: Box) => boolean,
): Generator<ArrayLike<number>> {
  const { rows } = batch
  if (!rows) return
  if (batch.kind === 'rects') {
    for (let i = 0; i < batch.x.length; i++) {
      const box = { x: batch.x[i], y: batch.y[i], width: batch.width[i], height: batch.height[i] }
      if (box.width > 0 && box.height > 0 && meets(box)) yield rows(i)
    }
  } else if (batch.kind === 'wedges') {
    for (let i = 0; i < batch.x.length; i++) {
      const angle = (batch.from[i] + batch.to[i]) / 2
      const reach = (batch.inner[i] + batch.outer[i]) / 2
      if (holds(batch.x[i] + Math.sin(angle) * reach, batch.y[i] - Math.cos(angle) * reach)) yield rows(i)
    }
  }
}

/** Marks whose place lies inside: points, and the corners of lines. */
function* placesWhere(
  { scales }: Pane,
  { marks, xScale, yScale }: BoundDrawing,
  holds: (x: number, y: number) => boolean,
): Generator<number> {
  const x = scales.get(xScale)
  const y = scales.get(yScale)
  if (!x || !y) return
  const xs = marks.x.at
  const ys = marks.y.at
  for (let mark = 0; mark < marks.length; mark++)
    if (x.kind.allows(xs[mark]) && y.kind.allows(ys[mark]) && holds(x.map(xs[mark]), y.map(ys[mark])))
      yield mark
}

/** Whether a point lies within an outline, by how often a ray from it crosses its edge. */
function isInside(outline: readonly Corner[], x: number, y: number): boolean {
  let inside = false
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [ax, ay] = outline[i]
    const [bx, by] = outline[j]
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
  }
  return inside
}
