import type { Series } from '../drawing/kind.ts'
import { valueText } from '../scale/number-format.ts'
import type { PositionScale } from '../scale/scale.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import type { Box } from '../scene/scene.ts'
import { firstAtLeast } from '../table/search.ts'
import type { RoleValues } from '../table/shape.ts'
import type { BoundDrawing } from './bind.ts'
import type { Composition, Pane } from './compose.ts'
import { labelOf, lookOf } from './naming.ts'

/** One value in a reading. */
export interface ReadingRow {
  /** Name of the series, or of the value. */
  name: string
  text: string
  /** The stroke that the name is underlined with; undefined for values that are no series. */
  series: (Series & { swatch: 'line' | 'rect' | 'disc' }) | undefined
  /** Whether it is the one nearest to the pointer. */
  pointed: boolean
  /** Where it stands, in pixels. */
  x: number
  y: number
  /** Rows of the table behind it. */
  rows: ArrayLike<number>
}

/** What is read at a point: the content of a tooltip, as plain data. */
export interface Reading {
  heading: string
  /** `x`: all series at one place along x; `y`: along y; `point`: a single mark. */
  along: 'x' | 'y' | 'point'
  /** What is pointed at, in pixels. */
  x: number
  y: number
  /** Pixels that what is pointed at reaches to either side along x (or y): half the width of a bar. */
  reach: number
  rows: ReadingRow[]
  /** How many more values there are at the place than are listed. */
  more: number
}

const MOST_ROWS = 12

/** What is nearest to a point of the plot: a place along x with every series there, or, among points, the nearest. */
export function readAt(composition: Composition, x: number, y: number): Reading | undefined {
  const pane = paneAt(composition, x, y)
  return pane && readPane({ ...composition, ...pane }, x, y)
}

/** What reading works with: the pane, and how it is shown. */
type Place = Pane & Pick<Composition, 'scene' | 'locale'>

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
  const drawn = bound.drawings.filter(one => one.marks.length > 0)
  if (drawn.length === 0) return undefined
  if (drawn.every(one => one.drawing.kind.swatch === 'disc' && !one.marks.x.from && !one.marks.y.from))
    return readPoint(composition, drawn, x, y)
  const cells = drawn.filter(one => one.drawing.kind.cells)
  if (cells.length === drawn.length) return readCell(composition, cells, x, y)
  const along = drawn.every(one => one.marks.x.measured && !one.marks.y.measured) ? 'y' : 'x'
  return readPlace(composition, drawn, along, x, y)
}

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
  const boxes: (Box | undefined)[] = []
  let reach = 0
  for (const drawing of drawn) {
    const values = along === 'x' ? drawing.y : drawing.x
    const positions = along === 'x' ? drawing.marks.y : drawing.marks.x
    const scale = composition.scales.get(along === 'x' ? drawing.yScale : drawing.xScale)!
    for (const mark of marksAt(drawing, along, best.value)) {
      const series = drawing.marks.series[drawing.marks.seriesOf?.[mark] ?? 0]
      const box = barOf(composition, drawing, mark)
      const pixel = box
        ? along === 'x'
          ? box.y + box.height / 2
          : box.x + box.width / 2
        : scale.map(positions.at[mark])
      if (box)
        reach = Math.max(
          reach,
          Math.abs(scaleAlong(composition, drawing, along).map(best.value) - (along === 'x' ? box.x : box.y)),
          Math.abs((along === 'x' ? box.x + box.width : box.y + box.height) - best.pixel),
        )
      boxes.push(box)
      rows.push({
        name: series.name || labelOf(values.meaning, drawing.drawing.table),
        text: textOf(values, positions.at[mark], composition.locale),
        series: { ...series, swatch: drawing.drawing.kind.swatch },
        pointed: false,
        x: along === 'x' ? best.pixel : pixel,
        y: along === 'x' ? pixel : best.pixel,
        rows: drawing.marks.rowsOf(mark),
      })
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
    rows: listed,
    more: rows.length - listed.length,
  }
}

const scaleAlong = (composition: Place, drawing: BoundDrawing, along: 'x' | 'y') =>
  composition.scales.get(along === 'x' ? drawing.xScale : drawing.yScale)!

/** The bar that stands for a mark; undefined for kinds without bars. */
function barOf({ batches }: Place, { drawing, marks }: BoundDrawing, mark: number): Box | undefined {
  if (drawing.kind.swatch !== 'rect') return undefined
  const id = `drawing ${drawing.index}/`
  const batch = batches.find(
    one => one.kind === 'rects' && one.id.includes(id) && one.x.length === marks.length,
  )
  if (batch?.kind !== 'rects' || Number.isNaN(batch.x[mark])) return undefined
  return { x: batch.x[mark], y: batch.y[mark], width: batch.width[mark], height: batch.height[mark] }
}

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
  const name = `order ${along}`
  let order = drawing.memory.get(name) as { at: Float64Array; marks: Int32Array } | undefined
  if (!order) {
    const present: number[] = []
    for (let i = 0; i < drawing.marks.length; i++) if (positions.at[i] === positions.at[i]) present.push(i)
    const marks = Int32Array.from(present).sort((a, b) => positions.at[a] - positions.at[b] || a - b)
    order = { marks, at: Float64Array.from(marks, mark => positions.at[mark]) }
    drawing.memory.set(name, order)
  }
  return order
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

/** The cell nearest to the pointer: its place as heading, its value as the row. */
function readCell(composition: Place, drawn: BoundDrawing[], x: number, y: number): Reading | undefined {
  let best: { drawing: BoundDrawing; mark: number; box: Box } | undefined
  let least = Number.POSITIVE_INFINITY
  for (const drawing of drawn) {
    for (let mark = 0; mark < drawing.marks.length; mark++) {
      const box = barOf(composition, drawing, mark)
      if (!box) continue
      const far = Math.hypot(
        Math.max(box.x - x, 0, x - box.x - box.width),
        Math.max(box.y - y, 0, y - box.y - box.height),
      )
      if (far < least) {
        least = far
        best = { drawing, mark, box }
      }
    }
  }
  if (!best) return undefined
  const { drawing, mark, box } = best
  const { marks, shade } = drawing
  const place = (values: RoleValues, at: number) => placeText(values, mark, at, composition)
  const centre = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  const value = shade && shade.cells.type !== 'text' ? shade.cells.values[mark] : Number.NaN
  const color = marks.shade ? marks.shade.colors[marks.shade.of[mark]] : marks.series[0].color
  const rows = shade
    ? [
        {
          name: labelOf(shade.meaning, drawing.drawing.table),
          text: textOf(shade, value, composition.locale),
          series: { key: '', name: '', color, dash: [], swatch: 'rect' as const },
          pointed: true,
          ...centre,
          rows: marks.rowsOf(mark),
        },
      ]
    : []
  return {
    heading: `${place(drawing.x, marks.x.at[mark])}, ${place(drawing.y, marks.y.at[mark])}`,
    along: 'point',
    ...centre,
    reach: box.width / 2,
    rows,
    more: 0,
  }
}

function readPoint(composition: Place, drawn: BoundDrawing[], x: number, y: number): Reading | undefined {
  let best: { drawing: BoundDrawing; mark: number; x: number; y: number } | undefined
  let least = Number.POSITIVE_INFINITY
  for (const drawing of drawn) {
    const xScale = composition.scales.get(drawing.xScale)!
    const yScale = composition.scales.get(drawing.yScale)!
    const { marks } = drawing
    for (let mark = 0; mark < marks.length; mark++) {
      const px = xScale.map(marks.x.at[mark])
      const py = yScale.map(marks.y.at[mark])
      const far = (px - x) ** 2 + (py - y) ** 2
      if (far < least) {
        least = far
        best = { drawing, mark, x: px, y: py }
      }
    }
  }
  if (!best) return undefined
  const { drawing, mark } = best
  const { marks } = drawing
  const series = marks.series[marks.seriesOf?.[mark] ?? 0]
  const row = (values: RoleValues, value: number) => ({
    name: labelOf(values.meaning, drawing.drawing.table),
    text: textOf(values, value, composition.locale),
    series: undefined,
    pointed: false,
    x: best.x,
    y: best.y,
    rows: marks.rowsOf(mark),
  })
  return {
    heading: series.name,
    along: 'point',
    x: best.x,
    y: best.y,
    reach: 0,
    rows: [
      { ...row(drawing.x, marks.x.at[mark]), series: { ...series, swatch: drawing.drawing.kind.swatch } },
      row(drawing.y, marks.y.at[mark]),
    ],
    more: 0,
  }
}

/** A value as it is read out: the way its column is written, with its unit. */
function textOf(values: RoleValues, value: number, locale: string): string {
  if (values.cells.type === 'time') return momentText(value, undefined, locale, values.zone)
  return valueText(value, { ...lookOf(values), locale, unit: values.column?.options.unit })
}

function placeText(values: RoleValues, mark: number | undefined, value: number, composition: Place): string {
  const { cells, meaning, zone } = values
  const { locale } = composition
  if (cells.type === 'text') {
    const word = mark === undefined || cells.codes[mark] < 0 ? '' : cells.words[cells.codes[mark]]
    return meaning.is === 'cycle' ? cycleText(meaning.cycle, Number(word), locale, 'long') : word
  }
  const start = mark === undefined ? value : cells.values[mark]
  if (cells.type === 'time')
    return momentText(start, meaning.is === 'bucket' ? meaning.unit : undefined, locale, zone)
  const look = { ...lookOf(values), locale, unit: values.column?.options.unit }
  if (values.ends && mark !== undefined)
    return `${valueText(start, { ...look, unit: undefined })} – ${valueText(values.ends[mark], look)}`
  return valueText(start, look)
}
