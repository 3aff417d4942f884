import type { BoundDrawing } from '../bind/model.ts'
import type { Composition, Pane } from '../pane/model.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { isInside } from '../table/cells/outline.ts'
import { answeredElsewhere } from '../table/group/question.ts'
import { rootOf, rootRows } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { farBox, farOutline } from './pick-far.ts'
import { standsOf } from './stands.ts'

/** A corner of an outline, in pixels. */
export type Corner = readonly [x: number, y: number]

/** Serial numbers of rows of a root table, each once, in rising order. */
export type Serials = Float64Array

/** Gathers rows of any tables over one root; rows of other roots are left out. */
class Gathering {
  private readonly root: Table
  private readonly seen: Uint8Array
  /** Marks of rows that are elsewhere are numbered as they are asked for. */
  private readonly far: Set<number> | undefined
  private table: Table | undefined
  private known = false

  constructor(root: Table) {
    this.root = root
    this.seen = new Uint8Array(root.places)
    this.far = answeredElsewhere(root) ? new Set() : undefined
  }

  take(table: Table, row: number): void {
    if (table !== this.table) {
      this.table = table
      this.known = rootOf(table) === this.root
    }
    if (!this.known) return
    if (this.far) this.far.add(row)
    else if (!table.source) this.seen[row] = 1
    else {
      const behind = rootRows(table, row)
      for (let k = 0; k < behind.length; k++) this.seen[behind[k]] = 1
    }
  }

  takeAll(table: Table, rows: ArrayLike<number>): void {
    for (let i = 0; i < rows.length; i++) this.take(table, rows[i])
  }

  get serials(): Serials {
    if (this.far) return Float64Array.from(this.far).sort()
    const { seen, root } = this
    let count = 0
    for (let row = 0; row < seen.length; row++) count += seen[row]
    const out = new Float64Array(count)
    let at = 0
    if (root.serialsAreRows) {
      for (let row = 0; row < seen.length; row++) if (seen[row]) out[at++] = row
      return out
    }
    for (let row = 0; row < seen.length; row++) if (seen[row]) out[at++] = root.serialOf(row)
    return out.sort()
  }
}

/** The rows behind marks or readings, as serial numbers of the root table; rows of other root tables are left out. */
export function serialsOf(root: Table, found: Iterable<{ table: Table; rows: ArrayLike<number> }>): Serials {
  const all = new Gathering(root)
  for (const { table, rows } of found) all.takeAll(table, rows)
  return all.serials
}

/** Pixels around a box that count with it: what stands on its edge, such as the greatest value at the end of an axis, is in it. */
const EDGE = 0.5

/** The rows of all shapes that a box touches or, for points, holds. `drawn`: the box is one that a person draws. */
export function rowsInBox(composition: Composition, root: Table, box: Box, drawn = false): Serials {
  const [left, top] = [box.x - EDGE, box.y - EDGE]
  const [right, bottom] = [box.x + box.width + EDGE, box.y + box.height + EDGE]
  const holds = (x: number, y: number) => x >= left && x <= right && y >= top && y <= bottom
  const meets = (other: Box) =>
    other.x <= right && other.x + other.width >= left && other.y <= bottom && other.y + other.height >= top
  const ends: Corner[] = [
    [left, top],
    [right, bottom],
  ]
  return marksWhere(
    composition,
    root,
    holds,
    meets,
    drawn ? (pane, bound) => farBox(pane, bound, ends) : undefined,
  )
}

/** The rows of all shapes whose middle lies within an outline. */
export function rowsInOutline(composition: Composition, root: Table, outline: readonly Corner[]): Serials {
  if (outline.length < 3) return new Float64Array(0)
  const holds = (x: number, y: number) => isInside(outline, x, y)
  const meets = ({ x, y, width, height }: Box) => holds(x + width / 2, y + height / 2)
  return marksWhere(composition, root, holds, meets, (pane, bound) => farOutline(pane, bound, outline))
}

/** The rows of every series that an entry of a legend explains. */
export function rowsOfEntry({ panes }: Composition, root: Table, key: string): Serials {
  const all = new Gathering(root)
  for (const { bound } of panes)
    for (const { marks, explained, drawing } of bound.drawings)
      for (let mark = 0; mark < marks.length; mark++)
        if (explained[marks.seriesOf?.[mark] ?? 0]?.includes(key))
          all.takeAll(drawing.table, marks.rowsOf(mark))
  return all.serials
}

/** The rows at a place of a scale: those of a category or bucket. */
export function rowsAtPlace(pane: Pane, root: Table, scale: string, value: number): Serials {
  const all = new Gathering(root)
  for (const { marks, drawing, xScale, yScale } of pane.bound.drawings) {
    const positions = xScale === scale ? marks.x : yScale === scale ? marks.y : undefined
    if (!positions) continue
    for (let mark = 0; mark < marks.length; mark++) {
      const within =
        positions.from && positions.to
          ? value >= positions.from[mark] && value < positions.to[mark]
          : positions.at[mark] === value
      if (within) all.takeAll(drawing.table, marks.rowsOf(mark))
    }
  }
  return all.serials
}

function marksWhere(
  { panes }: Composition,
  root: Table,
  holds: (x: number, y: number) => boolean,
  meets: (box: Box) => boolean,
  far?: (pane: Pane, bound: BoundDrawing) => number | undefined,
): Serials {
  const all = new Gathering(root)
  for (const pane of panes) {
    for (const bound of pane.bound.drawings) {
      if (bound.drawing.kind.aside) continue
      const shapes = pane.batches.find(
        batch => batch.drawing === bound.drawing.index && (batch.kind === 'rects' || batch.kind === 'wedges'),
      )
      const row = answeredElsewhere(bound.drawing.table) ? far?.(pane, bound) : undefined
      if (row !== undefined) all.take(bound.drawing.table, row)
      else if (shapes) takeShapes(shapes, bound.drawing.table, all, holds, meets)
      else takePlaces(pane, bound, all, holds)
    }
  }
  return all.serials
}

function takeShapes(
  batch: Batch,
  table: Table,
  into: Gathering,
  holds: (x: number, y: number) => boolean,
  meets: (box: Box) => boolean,
): void {
  const { rows } = batch
  if (!rows) return
  if (batch.kind === 'rects') {
    for (let i = 0; i < batch.x.length; i++) {
      const box = { x: batch.x[i], y: batch.y[i], width: batch.width[i], height: batch.height[i] }
      if (box.width > 0 && box.height > 0 && meets(box)) into.takeAll(table, rows(i))
    }
  } else if (batch.kind === 'wedges') {
    for (let i = 0; i < batch.x.length; i++) {
      const angle = (batch.from[i] + batch.to[i]) / 2
      const reach = (batch.inner[i] + batch.outer[i]) / 2
      if (holds(batch.x[i] + Math.sin(angle) * reach, batch.y[i] - Math.cos(angle) * reach))
        into.takeAll(table, rows(i))
    }
  }
}

/** Marks whose place lies inside: points, and the corners of lines. */
function takePlaces(
  pane: Pane,
  bound: BoundDrawing,
  into: Gathering,
  holds: (x: number, y: number) => boolean,
): void {
  const { marks, drawing } = bound
  const { rowOf } = marks
  const { x, y } = standsOf(pane, bound)
  for (let mark = 0; mark < marks.length; mark++) {
    if (!holds(x(mark), y(mark))) continue
    if (rowOf) into.take(drawing.table, rowOf(mark))
    else into.takeAll(drawing.table, marks.rowsOf(mark))
  }
}
