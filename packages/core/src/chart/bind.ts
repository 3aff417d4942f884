import type { Marks, Positions, Series } from '../drawing/kind.ts'
import type { Finding } from '../finding/error.ts'
import { DapploError } from '../finding/error.ts'
import type { RampEntry } from '../guide/ramp-legend.ts'
import { tickTexts } from '../scale/number-format.ts'
import { momentText } from '../scale/time-format.ts'
import { extentOf, type TableColumn } from '../table/column.ts'
import { isMeasure } from '../table/meaning.ts'
import type { RoleValues, Shaped } from '../table/shape.ts'
import type { Theme } from '../theme/theme.ts'
import { categoriesOf } from './categories.ts'
import { type ColorScale, colorScale, isShaded } from './color-scale.ts'
import type { Description } from './description.ts'
import { labelOf, lookOf, measureTitle } from './naming.ts'
import type { ResolvedDrawing } from './resolve.ts'
import { seriesFor } from './series.ts'
import type { ShapedDrawing } from './shapes.ts'

/** A drawing in the terms of its scales. */
export interface BoundDrawing {
  drawing: ResolvedDrawing
  marks: Marks
  /** What the positions are, for titles and formats. */
  x: RoleValues
  y: RoleValues
  /** What colours the marks, where it is a number. */
  shade: RoleValues | undefined
  xScale: string
  yScale: string
  /** What the kind remembers between frames. */
  memory: Map<string, unknown>
}

/** Everything that places values on one scale. */
export interface ScaleInput {
  name: string
  role: 'x' | 'y'
  type: 'number' | 'time' | 'text'
  /** Categories in order; empty for numbers and times. */
  words: string[]
  uses: { bound: BoundDrawing; values: RoleValues; positions: Positions }[]
}

export interface Bound {
  drawings: BoundDrawing[]
  scales: Map<string, ScaleInput>
  /** The colours of numbers, where some are bound to colour. */
  ramp: RampEntry | undefined
  /** All series, hidden ones too, for the legend. */
  legend: LegendSeries[]
  findings: Finding[]
}

export interface LegendSeries extends Series {
  swatch: 'line' | 'rect' | 'disc'
  hidden: boolean
}

/** Gives every value its place: categories get numbers, buckets their intervals, marks their series and colours. */
export function bind(
  shapes: readonly ShapedDrawing[],
  description: Description,
  theme: Theme,
  locale: string,
  hidden: ReadonlySet<string>,
): Bound {
  const findings = shapes.flatMap(one => one.findings)
  const scales = new Map<string, ScaleInput>()
  const scaleOf = (name: string, role: 'x' | 'y', values: RoleValues, path: string): ScaleInput => {
    const wanted = description.scales?.[name]?.kind
    const type = wanted === 'category' ? 'text' : values.cells.type
    let input = scales.get(name)
    if (!input) {
      input = { name, role, type, words: [], uses: [] }
      scales.set(name, input)
    } else if (input.type !== type && values.cells.type !== input.type) {
      throw new DapploError(
        'mixed-scale',
        `The scale "${name}" is asked to hold ${type} values beside ${input.type} values`,
        path,
        role === 'y'
          ? 'Put one of them on another scale with against: "right".'
          : 'Bind phrases of one type to it.',
      )
    }
    return input
  }
  const parts = shapes.map(({ drawing, shaped }) => {
    const x = constantOr(shaped.roles.get('x'), drawing, 'x')
    const y = constantOr(shaped.roles.get('y'), drawing, 'y')
    const xInput = scaleOf('x', 'x', x, drawing.path ? `${drawing.path}.x` : 'x')
    const yInput = scaleOf(drawing.against, 'y', y, drawing.path ? `${drawing.path}.y` : 'y')
    return { drawing, shaped, x, y, xInput, yInput }
  })
  for (const input of scales.values()) {
    if (input.type !== 'text') continue
    const own = parts.filter(part => part.xInput === input || part.yInput === input)
    input.words = categoriesOf(
      own.map(part => ({
        values: input.role === 'x' ? part.x : part.y,
        measured: input.role === 'x' ? part.y : part.x,
      })),
      description.scales?.[input.name],
      own.find(part => part.drawing.order)?.drawing.order,
    )
  }
  const shaded = shapes
    .map(one => one.shaped.roles.get('color'))
    .filter(
      (values): values is RoleValues => values !== undefined && isShaded(values, description.scales?.color),
    )
  const shades = shaded.length > 0 ? colorScale(shaded, description.scales?.color, theme) : undefined
  const legend: LegendSeries[] = []
  const drawings = parts.map(({ drawing, shaped, x, y, xInput, yInput }) => {
    const all = seriesFor(
      drawing,
      shaped,
      description,
      theme,
      locale,
      findings,
      plainLook(drawing, parts, theme),
    )
    for (const one of all.series) {
      const swatch = drawing.kind.swatch
      if (one.name !== '' && !legend.some(entry => entry.key === one.key && entry.swatch === swatch)) {
        // The reader sees which series the second scale measures.
        const name = onTheRight(yInput.name, description) ? `${one.name} (right)` : one.name
        legend.push({ ...one, name, swatch, hidden: hidden.has(one.key) })
      }
    }
    const shown = all.series.some(one => hidden.has(one.key))
      ? marksShown(all.seriesOf, all.series, hidden, shaped.length)
      : undefined
    const xPositions = positions(x, xInput, shown)
    const yPositions = positions(y, yInput, shown)
    const seriesOf =
      shown && all.seriesOf ? Uint16Array.from(shown, mark => all.seriesOf![mark]) : all.seriesOf
    const markOf = (i: number) => (shown ? shown[i] : i)
    const marks: Marks = {
      length: shown ? shown.length : shaped.length,
      x: xPositions,
      y: yPositions,
      series: all.series,
      seriesOf,
      shade: shades && shadeOf(shaped.roles.get('color'), shades, shown, description),
      size: sizeOf(shaped.roles.get('size'), shown),
      keyOf: i => shaped.keyOf(markOf(i)),
      rowsOf: i => shaped.rowsOf(markOf(i)),
    }
    const bound: BoundDrawing = {
      drawing,
      marks,
      x,
      y,
      shade: shades && shaped.roles.get('color'),
      xScale: xInput.name,
      yScale: yInput.name,
      memory: new Map(),
    }
    xInput.uses.push({ bound, values: x, positions: xPositions })
    yInput.uses.push({ bound, values: y, positions: yPositions })
    return bound
  })
  return {
    drawings,
    scales,
    legend,
    ramp: shades && rampEntry(shaded[0], shades, drawings[0], locale),
    findings,
  }
}

function onTheRight(name: string, { axes }: Description): boolean {
  const axis = axes?.[name]
  return typeof axis === 'object' && axis.side !== undefined
    ? axis.side === 'right' && name !== 'y'
    : name === 'right'
}

/** Name and colour of a drawing that is not split into series: those of its measure, and apart from the others. */
function plainLook(
  drawing: ResolvedDrawing,
  parts: readonly { drawing: ResolvedDrawing; shaped: Shaped; x: RoleValues; y: RoleValues }[],
  theme: Theme,
): { name: string; color: string } {
  if (parts.length === 1) return { name: '', color: theme.colors[0] }
  const own = parts.find(part => part.drawing === drawing)!
  const values = isMeasure(own.x.meaning) && !isMeasure(own.y.meaning) ? own.x : own.y
  const split = (part: (typeof parts)[number]) =>
    ['color', 'series', 'columns'].some(role => part.shaped.roles.has(role))
  const alone = parts.filter(part => !split(part))
  // Beside series in colours, a plain drawing is drawn in ink.
  const color =
    alone.length < parts.length ? theme.text : theme.colors[alone.indexOf(own) % theme.colors.length]
  return { name: labelOf(values.meaning, drawing.table), color }
}

function shadeOf(
  values: RoleValues | undefined,
  { colors, indexOf }: ColorScale,
  shown: Int32Array | undefined,
  description: Description,
): Marks['shade'] {
  if (!values || values.cells.type === 'text' || !isShaded(values, description.scales?.color))
    return undefined
  const all = values.cells.values
  return {
    colors,
    of: shown ? Uint16Array.from(shown, mark => indexOf(all[mark])) : Uint16Array.from(all, indexOf),
  }
}

function sizeOf(values: RoleValues | undefined, shown: Int32Array | undefined): Marks['size'] {
  if (!values || values.cells.type === 'text') return undefined
  const all = values.cells.values
  const { max } = extentOf({ type: 'number', values: all })
  return { at: shown ? Float64Array.from(shown, mark => all[mark]) : all, max }
}

function rampEntry(
  values: RoleValues,
  { colors, edges, min, max }: ColorScale,
  first: BoundDrawing,
  locale: string,
): RampEntry {
  const labels =
    values.cells.type === 'time'
      ? [min, max].map(time => momentText(time, undefined, locale, values.zone))
      : tickTexts(edges ?? [min, max].map(value => Number(value.toPrecision(3))), {
          ...lookOf(values),
          locale,
        })
  return { title: measureTitle(values, first.x, first.drawing.table), colors: colors.slice(0, -1), labels }
}

function constantOr(values: RoleValues | undefined, drawing: ResolvedDrawing, role: string): RoleValues {
  if (values) return values
  throw new DapploError(
    'missing-role',
    `A ${drawing.kind.name} needs ${role} bound to rows`,
    drawing.path ? `${drawing.path}.${role}` : role,
    `Bind it to a phrase, such as ${role}: "count".`,
  )
}

function marksShown(
  seriesOf: Uint16Array | undefined,
  series: readonly Series[],
  hidden: ReadonlySet<string>,
  length: number,
): Int32Array {
  const shown: number[] = []
  for (let mark = 0; mark < length; mark++)
    if (!hidden.has(series[seriesOf ? seriesOf[mark] : 0].key)) shown.push(mark)
  return Int32Array.from(shown)
}

function positions(values: RoleValues, input: ScaleInput, shown: Int32Array | undefined): Positions {
  const { cells, ends, column } = values
  const measured = isMeasure(values.meaning)
  let at: Float64Array
  let from: Float64Array | undefined
  let to: Float64Array | undefined
  let sorted = false
  /** The column whose cells these are, untouched. */
  let whole: TableColumn | undefined
  if (input.type === 'text') {
    const words = cells.type === 'text' ? cells.words : undefined
    const index = new Map(input.words.map((word, i) => [word, i]))
    const codes = cells.type === 'text' ? cells.codes : undefined
    // Numbers can be drawn as names too: a year is no quantity.
    const place = words ? words.map(word => index.get(word) ?? Number.NaN) : undefined
    const numbers = cells.type === 'text' ? undefined : cells.values
    const length = codes?.length ?? numbers!.length
    at = new Float64Array(length)
    for (let i = 0; i < length; i++)
      at[i] = codes
        ? codes[i] < 0
          ? Number.NaN
          : place![codes[i]]
        : (index.get(String(numbers![i])) ?? Number.NaN)
    from = at.map(i => i - 0.5)
    to = at.map(i => i + 0.5)
  } else if (cells.type === 'text') {
    throw new DapploError(
      'wrong-type',
      `The scale "${input.name}" cannot hold the texts of "${column?.name}"`,
      `scales.${input.name}`,
      'Set its kind to "category".',
    )
  } else if (ends) {
    from = cells.values
    to = ends
    at = from.map((start, i) => (start + to![i]) / 2)
  } else {
    at = cells.values
    if (column && column.cells.type !== 'text' && sameMemory(column.cells.values, at)) whole = column
    sorted = whole?.extent.sorted ?? false
  }
  if (shown) {
    const pick = (array: Float64Array) => Float64Array.from(shown, mark => array[mark])
    return { at: pick(at), from: from && pick(from), to: to && pick(to), sorted: false, measured }
  }
  const known = whole
  return {
    at,
    pyramid: known && (() => known.pyramid),
    from,
    to,
    sorted: sorted || (from !== undefined && extentOf({ type: 'number', values: at }).sorted),
    measured,
  }
}

/** Least and greatest of positions; for a whole column this is known already. */
export function extentOfPositions(values: RoleValues, positions: Positions): { min: number; max: number } {
  const { column } = values
  const known = column && column.cells.type !== 'text' && sameMemory(column.cells.values, positions.at)
  return known ? column.extent : extentOf({ type: 'number', values: positions.at })
}

/** Whether two views are the whole of the same cells. */
export const sameMemory = (a: Float64Array, b: Float64Array): boolean =>
  a.buffer === b.buffer && a.byteOffset === b.byteOffset && a.length === b.length
