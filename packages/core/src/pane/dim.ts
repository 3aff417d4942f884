import type { BoundDrawing } from '../bind/model.ts'
import type { Marks } from '../describe/model.ts'
import { isLying } from '../drawing/is-lying.ts'
import { paintOf } from '../drawing/paint-of.ts'
import type { Areas, Batch, Discs, Lines, Pixels, Scene } from '../scene/scene.ts'
import { shapeCount } from '../scene/scene.ts'
import { picked } from '../table/cells/cells.ts'
import type { RowTest } from '../table/live/selection.ts'
import { partsOfRects, partsOfWedges, selectedShares } from './dim-parts.ts'
import type { Composition, Pane } from './model.ts'

/** By drawing: whether a row of its table is among those that stand out. */
export type RowTests = Map<BoundDrawing, RowTest>

/** From so many points on, what is selected lies on a layer of its own. */
const MANY = 1500
/** What is not selected keeps this share of its opacity. */
const DIM = 0.22
/** What is selected becomes this much more opaque, where it was not. */
const LIT = 2.5

/** The scene in which only shapes with a selected row stand out; the very same scene where nothing is selected. */
export function dimmed({ scene, panes }: Composition, tests: RowTests): Scene {
  if (tests.size === 0) return scene
  const batches = scene.batches.flatMap(batch => {
    const pane = panes[batch.pane ?? 0]
    const bound = batch.drawing === undefined ? undefined : pane?.bound.drawings[batch.drawing]
    const test = bound && tests.get(bound)
    if (!bound || !test) return [batch]
    const found = { test, pane, bound }
    if (batch.kind === 'pixels') return dimCrowd(batch, found)
    return batch.kind === 'discs' && batch.x.length >= MANY ? dimDiscs(batch, test) : dimBatch(batch, found)
  })
  return { ...scene, batches }
}

function dimBatch(batch: Batch, { test, bound }: { test: RowTest; bound: BoundDrawing }): Batch[] {
  if (batch.kind === 'lines' || batch.kind === 'areas') return dimLines(batch, test)
  const shares =
    batch.kind === 'rects' || batch.kind === 'wedges' ? selectedShares(bound, batch, test) : undefined
  const { rows } = batch
  const alpha = new Float32Array(shapeCount(batch))
  for (let i = 0; i < alpha.length; i++) {
    const own = batch.alpha ? batch.alpha[i] : 1
    // In a cloud, what is selected becomes more solid as well.
    const whole = shares ? shares[i] > 1 - 1e-9 : rows && has(rows(i), test)
    alpha[i] = rows && !whole ? own * DIM : Math.min(1, own * LIT)
  }
  if (!rows) alpha.fill(DIM)
  const faint = [{ ...batch, alpha }]
  // What is selected of a shape that stands for many rows is shown within it.
  if (!shares?.some(share => share > 0 && share < 1 - 1e-9)) return faint
  return batch.kind === 'rects'
    ? [...faint, partsOfRects(batch, shares, isLying(bound.marks))]
    : batch.kind === 'wedges'
      ? [...faint, partsOfWedges(batch, shares)]
      : faint
}

/** Faint batches, by what they were: while a selection is dragged they stay as they are, and are painted once. */
const faintDiscs = new WeakMap<Discs, Discs>()

/** Very many points stay faint on a layer of their own; over it lie those that are selected. */
function dimDiscs(batch: Discs, test: RowTest): Batch[] {
  const { rows, alpha, form, links } = batch
  let faint = faintDiscs.get(batch)
  if (!faint) {
    const all = alpha ? alpha.map(own => own * DIM) : new Float32Array(batch.x.length).fill(DIM)
    faint = { ...batch, alpha: all }
    faintDiscs.set(batch, faint)
  }
  if (!rows) return [faint]
  const lit: number[] = []
  for (let i = 0; i < batch.x.length; i++) if (has(rows(i), test)) lit.push(i)
  if (lit.length === 0) return [faint]
  const pick = <A extends Float32Array | Uint16Array | Uint8Array>(values: A): A =>
    picked(values, lit, values.slice(0, lit.length) as A)
  const top: Discs = {
    ...batch,
    id: `${batch.id}/selected`,
    keys: lit.map(i => batch.keys[i]),
    rows: i => rows(lit[i]),
    links: links && (i => links(lit[i])),
    x: pick(batch.x),
    y: pick(batch.y),
    radius: pick(batch.radius),
    color: pick(batch.color),
    alpha: alpha && pick(alpha).map(own => Math.min(1, own * LIT)),
    form: form && pick(form),
  }
  return [faint, top]
}

function has(rows: ArrayLike<number>, test: RowTest): boolean {
  for (let i = 0; i < rows.length; i++) if (test(rows[i])) return true
  return false
}

/** A line stays faint as a whole; over it lie the stretches whose rows are selected. */
function dimLines(batch: Lines | Areas, test: RowTest): Batch[] {
  const faint = { ...batch, alpha: new Float32Array(batch.names.length).fill(DIM) }
  const { rows } = batch
  if (!rows) return [faint]
  const lit = batch.x.slice()
  let any = false
  for (let i = 0; i < lit.length; i++) {
    const behind = rows(i)
    // Vertices that stand for a stretch of rows belong to it on either side.
    if (behind.length > 0 && !has(behind, test)) lit[i] = Number.NaN
    else if (behind.length > 0) any = true
  }
  if (!any) return [faint]
  const top = { ...batch, id: `${batch.id}/selected`, x: lit }
  return [faint, batch.kind === 'lines' ? { ...top, keys: [] } : top] as Batch[]
}

/** A crowd stays faint; over it lies the crowd of those that are selected. */
function dimCrowd(
  batch: Pixels,
  { test, pane, bound }: { test: RowTest; pane: Pane; bound: BoundDrawing },
): Batch[] {
  const { marks, drawing } = bound
  const faint = { ...batch, alpha: Float32Array.of(DIM) }
  const x = pane.scales.get(bound.xScale)
  const y = pane.scales.get(bound.yScale)
  const { crowd } = drawing.kind
  if (!x || !y || !crowd) return [faint]
  const paint = paintOf(marks, drawing.style)
  const room = roomFor(marks)
  const { rowOf } = marks
  const { mask } = test
  const { lit } = room
  let count = 0
  if (rowOf && mask) {
    for (let mark = 0; mark < marks.length; mark++) if (mask[rowOf(mark)]) lit[count++] = mark
  } else {
    for (let mark = 0; mark < marks.length; mark++)
      if (rowOf ? test(rowOf(mark)) : has(marks.rowsOf(mark), test)) lit[count++] = mark
  }
  if (count === 0) return [faint]
  const own = {
    ...marks,
    length: count,
    x: { ...marks.x, at: takenAt(marks.x.at, lit, count, room.x) },
    y: { ...marks.y, at: takenAt(marks.y.at, lit, count, room.y) },
    crowd: marks.crowd && { ...marks.crowd, rows: takenAt(marks.crowd.rows, lit, count, room.rows) },
  }
  const color = takenAt(paint.color, lit, count, room.color)
  const density = batch.columns / batch.width[0]
  const top = crowd(`${batch.id}/selected`, own, { ...paint, color }, x, y, pane.plot, density)
  return [faint, { ...top, pane: batch.pane, drawing: batch.drawing }]
}

/** In a loop of its own, which knows what it loops over: else each number would be wrapped up. */
function takenAt<V extends Float64Array | Uint16Array>(from: V, at: Int32Array, count: number, into: V): V {
  for (let i = 0; i < count; i++) into[i] = from[at[i]]
  return into.subarray(0, count) as V
}

interface Room {
  lit: Int32Array
  x: Float64Array
  y: Float64Array
  color: Uint16Array
  rows: Float64Array
}

/** So many marks have room that is kept. */
const KEPT = 200_000

let spare: Room | undefined

/** Room for those of the marks that are selected: while a person drags, it is filled anew in every frame. */
function roomFor({ length }: Marks): Room {
  let room = spare
  if (!room || room.x.length < length) {
    room = {
      lit: new Int32Array(length),
      x: new Float64Array(length),
      y: new Float64Array(length),
      color: new Uint16Array(length),
      rows: new Float64Array(length),
    }
    if (length <= KEPT) spare = room
  }
  return room
}
