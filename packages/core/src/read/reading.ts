import type { BoundDrawing } from '../bind/model.ts'
import { labelOf } from '../bind/naming.ts'
import type { Kind } from '../describe/model.ts'
import { remember } from '../describe/remember.ts'
import { isLying } from '../drawing/is-lying.ts'
import type { Composition, Pane } from '../pane/model.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Box } from '../scene/scene.ts'
import { firstAtLeast } from '../table/cells/search.ts'
import { barOf, readCell, readPoint, readSlice } from './reading-marks.ts'
import {
  furtherValues,
  type Place,
  placeText,
  type Reading,
  type ReadingRow,
  valueAt,
} from './reading-texts.ts'
import { standsOf } from './stands.ts'

const MOST_ROWS = 12

/** What is nearest to a point of the plot: a place along x with every series there, or, among points, the nearest. */
export function readAt(composition: Composition, x: number, y: number): Reading | undefined {
  const pane = paneAt(composition, x, y)
  return pane && readPane({ ...composition, ...pane }, x, y)
}

/** Pixels along x within which a point of a cloud stands at a place that is pointed at elsewhere. */
const AT_PLACE = 6

/** What stands at a place along x, whatever its height: for those who point at it in another chart, or another pane. */
export function readAlong(composition: Composition, pane: Pane, x: number): Reading | undefined {
  const { plot } = pane
  if (x < plot.x - 1 || x > plot.x + plot.width + 1) return undefined
  const place = { ...composition, ...pane }
  const reading = readPane(place, x, plot.y + plot.height / 2)
  if (reading?.along !== 'point') return reading?.along === 'x' ? reading : undefined
  if (reading.within) return undefined
  const found = nearestAlong(pane, x)
  if (!found || Math.abs(found.x - x) > AT_PLACE) return undefined
  return readPane(place, found.x, found.y)
}

/** The mark whose place along x is nearest. */
function nearestAlong(pane: Pane, x: number): { x: number; y: number } | undefined {
  let best: { x: number; y: number } | undefined
  for (const drawn of pane.bound.drawings) {
    if (drawn.drawing.kind.aside) continue
    const stands = standsOf(pane, drawn)
    for (let mark = 0; mark < drawn.marks.length; mark++) {
      const px = stands.x(mark)
      const py = stands.y(mark)
      if (Number.isNaN(px + py) || (best && Math.abs(px - x) >= Math.abs(best.x - x))) continue
      best = { x: px, y: py }
    }
  }
  return best
}

/** The pane under a point, a little beyond its plot too, so that the first and last values are easy to reach. */
export function paneAt({ panes }: Composition, x: number, y: number): Pane | undefined {
  const slack = 16
  return panes.find(
    ({ plot }) =>
      x >= plot.x - slack &&
      x <= plot.x + plot.width + slack &&
      y >= plot.y - slack &&
      y <= plot.y + plot.height + slack,
  )
}

function readPane(composition: Place, x: number, y: number): Reading | undefined {
  const { bound } = composition
  const all = bound.drawings.filter(drawn => drawn.marks.length > 0)
  // What annotates is read where there is nothing else.
  const shown = all.filter(drawn => !drawn.drawing.kind.aside)
  const drawn =
    shown.length > 0 ? shown : all.filter(drawn => !drawn.marks.x.unbound && !drawn.marks.y.unbound)
  if (drawn.length === 0) return undefined
  const every = (reads: Kind['reads']) => drawn.every(drawn => drawn.drawing.kind.reads === reads)
  if (every('slice')) return readSlice(composition, drawn, x, y)
  // Points of intervals stand along them.
  if (every('point') && drawn.every(drawn => !drawn.marks.x.from && !drawn.marks.y.from))
    return readPoint(composition, drawn, x, y)
  if (every('cell')) return readCell(composition, drawn, x, y)
  const placed = drawn.filter(drawn => drawn.drawing.kind.reads !== 'slice')
  const along = placed.every(isReadUpwards) ? 'y' : 'x'
  return readPlace(composition, placed, along, x, y)
}

/** Whether values lie along x, so that the places to be read stand above each other. */
const isReadUpwards = ({ drawing, marks }: BoundDrawing): boolean =>
  drawing.kind.fromZero || marks.x.spans ? isLying(marks) : marks.x.measured && !marks.y.measured

function readPlace(
  composition: Place,
  drawn: BoundDrawing[],
  along: 'x' | 'y',
  x: number,
  y: number,
): Reading | undefined {
  const pointer = along === 'x' ? x : y
  let best: { value: number; pixel: number; drawing: BoundDrawing } | undefined
  for (const drawing of drawn) {
    const scale = composition.scales.get(along === 'x' ? drawing.xScale : drawing.yScale)!
    const value = nearestPlace(drawing, along, scale, pointer)
    if (value === undefined) continue
    const pixel = scale.map(value)
    if (!best || Math.abs(pixel - pointer) < Math.abs(best.pixel - pointer)) best = { value, pixel, drawing }
  }
  if (!best) return undefined
  const rows: ReadingRow[] = []
  const further = new Map<ReadingRow, { name: string; text: string }[]>()
  const boxes: (Box | undefined)[] = []
  let reach = 0
  for (const drawing of drawn) {
    const values = along === 'x' ? drawing.y : drawing.x
    const positions = along === 'x' ? drawing.marks.y : drawing.marks.x
    const scale = composition.scales.get(along === 'x' ? drawing.yScale : drawing.xScale)!
    const stands = standsOf(composition, drawing)
    for (const mark of marksAt(drawing, along, best.value)) {
      const series = drawing.marks.series[drawing.marks.seriesOf?.[mark] ?? 0]
      const box = barOf(composition, drawing, mark)
      const pixel = box
        ? along === 'x'
          ? box.y + box.height / 2
          : box.x + box.width / 2
        : scale.map(positions.at[mark])
      // In its slot, or beside others where bars are.
      const aside = drawing.slots && !box ? stands[along](mark) : best.pixel
      if (box)
        reach = Math.max(
          reach,
          Math.abs(scaleAlong(composition, drawing, along).map(best.value) - (along === 'x' ? box.x : box.y)),
          Math.abs((along === 'x' ? box.x + box.width : box.y + box.height) - best.pixel),
        )
      const name = series.name || labelOf(values.meaning, drawing.drawing.table, composition.tongue)
      const text = valueAt(values, positions, mark, composition.tongue.locale)
      const more = furtherValues(drawing, mark, composition.tongue)
      // A line and its points say the same of a row once.
      const table = drawing.drawing.table
      const key = drawing.marks.keyOf(mark)
      const again = rows.find(
        row =>
          row.key === key &&
          row.table === table &&
          row.text === text &&
          row.name === name &&
          row.series?.color === series.color,
      )
      if (again) {
        if (further.get(again)!.length === 0) further.set(again, more)
        continue
      }
      boxes.push(box)
      rows.push({
        name,
        text,
        series: { ...series, swatch: drawing.drawing.kind.swatch },
        pointed: false,
        x: along === 'x' ? aside : pixel,
        y: along === 'x' ? pixel : aside,
        rows: drawing.marks.rowsOf(mark),
        table,
        key,
        link: drawing.links?.(mark) || undefined,
      })
      further.set(rows[rows.length - 1], more)
    }
  }
  const across = along === 'x' ? y : x
  const distances = new Map(rows.map((row, i) => [row, distanceTo(row, boxes[i], along, x, y, across)]))
  const far = (row: ReadingRow) => distances.get(row)!
  const pointed = rows.reduce<ReadingRow | undefined>(
    (near, row) => (Number.isNaN(far(row)) || (near && far(near) <= far(row)) ? near : row),
    undefined,
  )
  if (pointed) pointed.pointed = true
  const listed = rows.length > MOST_ROWS ? nearestRows(rows, far) : rows
  const values = along === 'x' ? best.drawing.x : best.drawing.y
  const mark = marksAt(best.drawing, along, best.value)[0]
  return {
    heading: placeText(values, mark, best.value, composition),
    along,
    x: along === 'x' ? best.pixel : (pointed?.x ?? x),
    y: along === 'x' ? (pointed?.y ?? y) : best.pixel,
    reach,
    rows: listed.flatMap(row => [
      row,
      // Of all at the place, the one that is meant says everything.
      ...(row === pointed ? further.get(row)! : []).map(value => ({
        ...row,
        ...value,
        series: undefined,
        pointed: false,
      })),
    ]),
    more: rows.length - listed.length,
  }
}

const scaleAlong = (composition: Place, drawing: BoundDrawing, along: 'x' | 'y') =>
  composition.scales.get(along === 'x' ? drawing.xScale : drawing.yScale)!

/** How far the pointer is from a value: nothing within its bar, else the way to its place. */
function distanceTo(
  row: ReadingRow,
  box: Box | undefined,
  along: 'x' | 'y',
  x: number,
  y: number,
  across: number,
): number {
  if (!box) return Math.abs((along === 'x' ? row.y : row.x) - across)
  const outside = (value: number, low: number, length: number) =>
    Math.max(low - value, 0, value - low - length)
  return Math.hypot(outside(x, box.x, box.width), outside(y, box.y, box.height))
}

/** Of very many, the ones about the pointer, in their order. */
function nearestRows(rows: ReadingRow[], far: (row: ReadingRow) => number): ReadingRow[] {
  const near = new Set([...rows].sort((a, b) => (far(a) || 0) - (far(b) || 0)).slice(0, MOST_ROWS))
  return rows.filter(row => near.has(row))
}

/** Marks in the order of a position, for searching; worked out at the first look and kept with the marks. */
function orderAlong(
  drawing: BoundDrawing,
  along: 'x' | 'y',
): { at: Float64Array; marks: Int32Array | undefined } {
  const positions = drawing.marks[along]
  if (positions.sorted) return { at: positions.at, marks: undefined }
  return remember(drawing.memory, `order ${along}`, () => {
    const present: number[] = []
    for (let i = 0; i < drawing.marks.length; i++) if (positions.at[i] === positions.at[i]) present.push(i)
    const marks = Int32Array.from(present).sort((a, b) => positions.at[a] - positions.at[b] || a - b)
    return { marks, at: Float64Array.from(marks, mark => positions.at[mark]) }
  })
}

function nearestPlace(
  drawing: BoundDrawing,
  along: 'x' | 'y',
  scale: PositionScale,
  pixel: number,
): number | undefined {
  const { at } = orderAlong(drawing, along)
  if (at.length === 0) return undefined
  const next = firstAtLeast(at, scale.invert(pixel))
  const candidates = [at[next - 1], at[next]].filter(value => value !== undefined)
  return candidates.reduce((a, b) =>
    Math.abs(scale.map(b) - pixel) < Math.abs(scale.map(a) - pixel) ? b : a,
  )
}

function marksAt(drawing: BoundDrawing, along: 'x' | 'y', value: number): number[] {
  const { at, marks } = orderAlong(drawing, along)
  const found: number[] = []
  for (let i = firstAtLeast(at, value); i < at.length && at[i] === value; i++)
    found.push(marks ? marks[i] : i)
  const { seriesOf } = drawing.marks
  return seriesOf ? found.sort((a, b) => seriesOf[a] - seriesOf[b]) : found
}
