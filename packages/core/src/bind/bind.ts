import type { Settled } from '../describe/description.ts'
import type { Marks } from '../describe/model.ts'
import { readBy } from '../resolve/looks.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { extentOf } from '../table/cells/extent.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isMeasure, meaningKey, wholeKey } from '../table/phrase/meaning.ts'
import { blend } from '../theme/contrast.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import { categoriesOf, runAlongCategories } from './categories.ts'
import { type ColorScale, colorScale, isShaded } from './color-scale.ts'
import { levelOf } from './level.ts'
import type { Bound, BoundDrawing, LegendSeries, ScaledPart, ScaleInput, ShapedDrawing } from './model.ts'
import { labelOf } from './naming.ts'
import { partFindings } from './part-findings.ts'
import { positions, unboundPositions } from './positions.ts'
import { rampEntry, sizeEntry } from './reading-keys.ts'
import { begunOf, runsKept } from './runs-kept.ts'
import { scaleAll, unbound } from './scaling.ts'
import { DASHES, type SeriesOfDrawing, seriesFor } from './series.ts'
import { onlyShown, shownMarks } from './shown.ts'
import { giveSlots } from './slots.ts'
import { labelValues, linkTexts } from './values.ts'

/** How much of the ground is in the ink of a second plain drawing. */
const FAINTER = 0.35

/** Gives every value its place: categories get numbers, buckets their intervals, marks their series and colours. */
export function bind(
  shapes: readonly ShapedDrawing[],
  description: Settled,
  theme: Theme,
  tongue: Tongue,
  hidden: ReadonlySet<string>,
): Bound {
  const findings = shapes.flatMap(shape => shape.findings)
  const scales = new Map<string, ScaleInput>()
  const parts = scaleAll(shapes, description, scales)
  for (const input of scales.values()) {
    if (input.type !== 'text') continue
    const own = parts
      .filter(scaled => scaled.xInput === input || scaled.yInput === input)
      .sort((a, b) => Number(a.drawing.kind.aside ?? false) - Number(b.drawing.kind.aside ?? false))
    input.words = categoriesOf(
      own.map(scaled => ({
        values: scaled.xInput === input ? scaled.x : scaled.y,
        measured: scaled.xInput === input ? scaled.y : scaled.x,
      })),
      description.scales?.[input.name],
      own.find(scaled => scaled.drawing.order)?.drawing.order,
    )
  }
  for (const part of parts) runAlongCategories(part)
  const shaded = shapes
    .filter(shape => !shape.drawing.kind.parts)
    .map(shape => shape.shaped.roles.get('color'))
    .filter(
      (values): values is RoleValues =>
        values !== undefined &&
        // Without rows there is nothing to tell apart.
        (values.cells.type === 'text' || values.cells.values.length > 0) &&
        isShaded(values, description.scales?.color),
    )
  const shades = shaded.length > 0 ? colorScale(shaded, description.scales?.color, theme) : undefined
  const legend: LegendSeries[] = []
  const explained = new Set<string>()
  const onlyAsides = parts.every(scaled => scaled.drawing.kind.aside)
  let byName = true
  const drawings: BoundDrawing[] = []
  // What stands at a level of the others can only be placed after them.
  for (const piece of [...parts].sort((a, b) => Number(!!a.drawing.level) - Number(!!b.drawing.level))) {
    const { drawing, shaped } = piece
    const plain = plainLook(drawing, parts, theme, tongue)
    const { value: all, findings: told } = seriesFor(drawing, shaped, description, theme, tongue, plain)
    findings.push(...told)
    if (!all.together && all.entries.length > 0 && all.entries[0].key !== all.series[0]?.key) byName = false
    if (!drawing.kind.aside || onlyAsides)
      addEntries(legend, all, drawing, secondSide(piece, description), hidden, explained, tongue)
    const hides = all.series.map((_, i) => all.explained[i].some(key => hidden.has(key)))
    const shown = shownMarks(all.seriesOf, hides, shaped.length)
    const own = shown ? onlyShown(piece, shown) : piece
    const ofShown = shown && all.seriesOf ? { ...all, seriesOf: pickedSeries(all.seriesOf, shown) } : all
    const bound = bindOne(own, ofShown, shades, description)
    // Hiding some points leaves the others as large as they were.
    bound.marks.size = sizeOf(own.shaped.roles.get('size'), shaped.roles.get('size'))
    findings.push(...partFindings(bound))
    if (drawing.level) levelOf(bound, drawings)
    bound.labelValues = labelValues(bound, own.shaped)
    bound.links = linkTexts(own.shaped)
    drawings[drawing.index] = bound
    for (const role of ['x', 'y'] as const) {
      const input = role === 'x' ? piece.xInput : piece.yInput
      const use = { bound, values: bound[role], positions: bound.marks[role] }
      if (input && !use.positions.unbound) (drawing.kind.aside ? input.asides : input.uses).push(use)
    }
  }
  for (const input of scales.values())
    if (input.uses.length === 0) [input.uses, input.asides] = [input.asides, []]
  for (const [name, input] of scales) if (input.uses.length === 0) scales.delete(name)
  findings.push(...giveSlots(drawings, scales))
  const sized = shapes.find(shape => shape.shaped.roles.has('size'))
  return {
    drawings,
    scales,
    legend,
    byName,
    ramp: shades && rampEntry(shaded[0], shades, drawings[0], tongue),
    sizes:
      sized &&
      sizeEntry(sized.shaped.roles.get('size')!, sized.drawing, tongue, description.scales?.size?.steps),
    findings,
    tongue,
  }
}

function bindOne(
  { drawing, shaped, x, y, xInput, yInput }: ScaledPart,
  { series, seriesOf, explained, by }: SeriesOfDrawing,
  shades: ColorScale | undefined,
  description: Settled,
): BoundDrawing {
  const { length } = shaped
  const place = (values: RoleValues, input: ScaleInput | undefined) =>
    values === unbound
      ? unboundPositions(length)
      : positions(values, input ?? { name: '', type: values.cells.type, words: [] })
  const at = { x: place(x, xInput), y: place(y, yInput) }
  return {
    drawing,
    marks: {
      length,
      ...at,
      runOf: runsKept(shaped, { x, y }, at, seriesOf, by),
      // Colours of numbers go by how far these reach, which the next may change.
      begun: shades ? undefined : begunOf(shaped, { x, y }, at, series),
      series,
      seriesOf,
      shade: shades && shadeOf(shaped.roles.get('color'), shades, drawing, description),
      size: undefined,
      keyOf: shaped.keyOf,
      rowsOf: shaped.rowsOf,
      rowOf: shaped.rowOf,
      ...(shaped.crowd ? { crowd: shaped.crowd } : {}),
    },
    x,
    y,
    shade: shades && shaped.roles.get('color'),
    size: shaped.roles.get('size'),
    disagreeing: shaped.disagreeing,
    explained,
    links: undefined,
    labelValues: [],
    unanswered: shaped.unanswered,
    slots: undefined,
    xScale: xInput?.name ?? 'x',
    yScale: yInput?.name ?? 'y',
    memory: new Map(),
  }
}

function addEntries(
  legend: LegendSeries[],
  { entries }: SeriesOfDrawing,
  { kind, unlisted, points }: ResolvedDrawing,
  side: 'right' | 'top' | undefined,
  hidden: ReadonlySet<string>,
  explained: Set<string>,
  tongue: Tongue,
): void {
  if (unlisted) return
  for (const entry of entries) {
    // What is drawn twice alike, as an area with its line, is explained once.
    const known = [entry.key, entry.name, entry.color, entry.dash, entry.shape].join('\u001f')
    if (entry.name === '' || explained.has(known)) continue
    explained.add(known)
    // The reader sees which series the second scale measures.
    const name = side ? tongue.say(`{name} (${side})`, { name: entry.name }) : entry.name
    const swatch = entry.by === 'dash' ? 'line' : kind.swatch
    const pointed = swatch === 'line' && points && readBy(kind, 'points')
    legend.push({ ...entry, name, swatch, hidden: hidden.has(entry.key), ...(pointed ? { pointed } : {}) })
  }
}

/** Where the second scale stands that measures a drawing; undefined where the first does. */
function secondSide({ xInput, yInput }: ScaledPart, description: Settled): 'right' | 'top' | undefined {
  if (xInput && xInput.name !== 'x') return 'top'
  return onTheRight(yInput?.name, description) ? 'right' : undefined
}

function onTheRight(name: string | undefined, { axes }: Settled): boolean {
  const axis = name === undefined ? undefined : axes?.[name]
  return typeof axis === 'object' && axis.side !== undefined
    ? axis.side === 'right' && name !== 'y'
    : name === 'right'
}

/** Name and colour of a drawing that is not split into series: those of its measure, and apart from the others. */
function plainLook(
  drawing: ResolvedDrawing,
  parts: readonly ScaledPart[],
  theme: Theme,
  tongue: Tongue,
): { name: string; color: string; dash?: readonly number[] } {
  const drawn = parts.filter(scaled => !scaled.drawing.kind.aside)
  if (drawing.kind.aside && drawn.length > 0) return { name: '', color: theme.text }
  if (drawn.length <= 1) return { name: '', color: theme.colors[0] }
  const own = parts.find(scaled => scaled.drawing === drawing)!
  const { x, y } = own
  const lies = isMeasure(x.meaning)
    ? !isMeasure(y.meaning)
    : !isMeasure(y.meaning) && y.cells.type === 'text' && x.cells.type !== 'text'
  const values = lies ? x : y
  const split = (scaled: ScaledPart) =>
    ['color', 'series', 'columns', 'shape', 'dash'].some(role => scaled.shaped.roles.has(role))
  const alone = drawn.filter(scaled => !split(scaled))
  const name = labelOf(values.meaning, drawing.table, tongue)
  // What is drawn twice, as an area with its line, is one thing in one colour.
  const things = alone.filter((scaled, i) => !alone.slice(0, i).some(other => sameThing(other, scaled)))
  const place = Math.max(
    0,
    things.findIndex(thing => thing === own || sameThing(thing, own)),
  )
  if (alone.length === drawn.length) return { name, color: theme.colors[place % theme.colors.length] }
  // Beside series in colours, a plain drawing is drawn in ink; a second one fainter, and lines in dashes of their own.
  const color = place === 0 ? theme.text : blend(theme.text, theme.background, FAINTER)
  return { name, color, dash: drawing.kind.swatch === 'line' ? DASHES[place % DASHES.length] : undefined }
}

/** Whether two drawings show the same values. Bars are a thing of their own: a line of their colour would not show on them. */
function sameThing(a: ScaledPart, b: ScaledPart): boolean {
  const of = ({ drawing, x, y }: ScaledPart) =>
    wholeKey([meaningKey(x.meaning), meaningKey(y.meaning), drawing.where, drawing.top, drawing.name])
  return (
    !a.drawing.kind.broad &&
    !b.drawing.kind.broad &&
    a.drawing.table === b.drawing.table &&
    a.drawing.against === b.drawing.against &&
    of(a) === of(b)
  )
}

function shadeOf(
  values: RoleValues | undefined,
  { colors, indexOf }: ColorScale,
  { kind }: ResolvedDrawing,
  description: Settled,
): Marks['shade'] {
  if (!values || kind.parts || values.cells.type === 'text' || !isShaded(values, description.scales?.color))
    return undefined
  return { colors, of: Uint16Array.from(values.cells.values, indexOf) }
}

function sizeOf(values: RoleValues | undefined, all: RoleValues | undefined): Marks['size'] {
  if (values?.cells.type !== 'number' || all?.cells.type !== 'number') return undefined
  return { at: values.cells.values, max: extentOf(all.cells).max }
}

const pickedSeries = (seriesOf: Uint16Array, shown: Int32Array): Uint16Array =>
  Uint16Array.from(shown, mark => seriesOf[mark])
