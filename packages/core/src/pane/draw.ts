import type { Bound, BoundDrawing } from '../bind/model.ts'
import type { FormOf } from '../bind/number-forms.ts'
import { edgeMarks } from '../drawing/edge-marks.ts'
import type { Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { strongLines } from '../guide/asked-ticks.ts'
import type { AxisLayout } from '../guide/axis-parts.ts'
import { gridShapes, labelShapes, zeroShapes } from '../guide/axis-shapes.ts'
import { boxes, TextBuilder } from '../guide/build.ts'
import { endNames } from '../guide/end-names.ts'
import type { SlicePlan } from '../guide/slice-labels.ts'
import { ellipsis, LINE } from '../guide/text.ts'
import { arrangeOf } from '../resolve/looks.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Lines } from '../scene/scene.ts'
import { blend } from '../theme/contrast.ts'
import { themeOnGround } from '../theme/house.ts'
import type { Theme } from '../theme/theme.ts'
import type { DrawnShapes } from './label/drawn.ts'
import type { PlotLayout, PlotRoom } from './layout.ts'
import { besideLegends, type Legends, legendsInside } from './legends.ts'
import { withLinks } from './links.ts'
import type { Pane, PaneInput, PlannedAxis } from './model.ts'
import { nothing } from './nothing.ts'
import { stampInside } from './stamp.ts'
import { tinyWords } from './tiny.ts'
import { tooMany } from './too-many.ts'
import type { PlacedWords } from './words.ts'

/** A pane whose parts are planned: all that drawing it needs beside the place of its plot. */
export interface PlannedPane {
  input: PaneInput
  room: PlotRoom
  legends: Legends
  words: PlacedWords
  /** How the words of pies stand, by drawing. */
  pies: ReadonlyMap<BoundDrawing, SlicePlan>
  /** Whether a tiny chart has a line of words. */
  tinyLine: boolean
  /** The radius of the largest point whose size is bound, in pixels. */
  largest: number
  /** How numbers are written that an axis reads. */
  formOf: FormOf
}

/** Draws a pane whose plot has its place. */
export function drawPane(planned: PlannedPane, { plot, layouts }: PlotLayout): Omit<Pane, 'insets'> {
  const { input, room, legends, words } = planned
  const { description, bound, theme: page, measure, box, labels } = input
  const { axes, tiny, empty } = room
  const ground = empty ? undefined : description.plot?.background
  // Rings and edges of letters part shapes from the ground that they stand on.
  const theme = ground === undefined ? page : themeOnGround(page, ground, undefined)
  const { tongue } = bound
  const scales = new Map(axes.map(({ name }) => [name, layouts.get(name)!.scale]))
  const guides = guideShapes(planned, plot, layouts)
  const drawn = drawAll({ ...planned, input: { ...input, theme } }, plot, scales)
  const shapes = drawn.flatMap(drawn => drawn.batches)
  const lines = shapes.filter((batch): batch is Lines => batch.kind === 'lines')
  const atEnds = legends.ends && !empty ? endNames(legends.ends.entries, lines, plot, theme, measure) : []
  const standing = [...legendsInside(legends, plot, theme), ...atEnds]
  const worded =
    tiny || empty || !labels
      ? { value: [], findings: [] }
      : labels.shapes(drawn, {
          tongue,
          formOf: planned.formOf,
          notes: description.notes ?? [],
          scales,
          zoomed: input.zoom !== undefined,
          sides: input.sides,
          standing,
          plot,
          theme,
          measure,
        })
  // Bars stand on the line at zero; other shapes cross it.
  const barsOnly = bound.drawings.every(drawn => drawn.drawing.kind.fromZero || drawn.drawing.kind.aside)
  const { behind, zeros, labels: axisLabels } = guides.value
  const batches = [
    ...(tiny || empty ? [] : stampInside({ ...description, figures: input.figures }, plot, theme, measure)),
    ...words.batches,
    ...(ground === undefined ? [] : boxes('plot ground', [{ ...plot, color: ground, key: 'ground' }])),
    ...behind,
    ...(barsOnly ? [] : zeros),
    ...shapes,
    ...(barsOnly ? zeros : []),
    ...(input.outside && !tiny ? beyondEdges(bound, scales, plot, theme) : []),
    ...axisLabels,
    ...(tiny ? [] : sliceWords(planned, drawn, plot)),
    ...(planned.tinyLine ? tinyWords(description, bound, box, theme, measure) : []),
    ...worded.value,
    ...besideLegends(legends, box, plot),
    ...standing,
    ...levelTitles(room, plot, layouts),
    ...(empty && !tiny ? nothing(bound, plot, theme, measure) : []),
  ]
  return {
    prefix: input.prefix,
    bound,
    plot,
    scales,
    full: new Map([...input.domains].map(([name, { min, max }]) => [name, [min, max] as const])),
    batches: batches.map(batch => inScene(batch, input)),
    findings: empty
      ? []
      : [
          ...(input.leftOut?.(
            { ...input, axes, tiny, needed: legends.needed, sizes: legends.sizes },
            batches,
          ) ?? []),
          ...axes
            .filter(axis => !axis.hidden && !tiny)
            .flatMap(axis => layouts.get(axis.name)?.findings ?? []),
          ...(tiny ? [] : guides.findings),
          ...worded.findings,
          ...drawn.flatMap(unmarked),
        ],
  }
}

/** The least height of a tiny plot that has gridlines, in pixels. */
const LEAST_GRID = 40

/** What axes draw behind the shapes, at zero, and beside the plot. */
function guideShapes(
  { input, room }: PlannedPane,
  plot: Box,
  layouts: ReadonlyMap<string, AxisLayout>,
): Found<{ behind: Batch[]; zeros: Batch[]; labels: Batch[] }> {
  const { theme, sharedBelow, sharedBeside } = input
  const value = { behind: [] as Batch[], zeros: [] as Batch[], labels: [] as Batch[] }
  const findings: Finding[] = []
  for (const axis of room.axes) {
    const layout = layouts.get(axis.name)!
    if (room.empty || (axis.hidden && !(axis.role === 'x' ? sharedBelow : sharedBeside))) continue
    const look = withStrongLines(axis, layout, plot)
    findings.push(...look.findings)
    // In a line of text there is no room to read numbers off lines.
    if (!room.tiny || plot.height >= LEAST_GRID)
      value.behind.push(...gridShapes(layout, look.value, plot, theme))
    if (axis.role === 'y' ? axis.input.percentOf === undefined : axis.grows)
      value.zeros.push(...zeroShapes(layout, axis.look.side, plot, theme))
    if (!room.tiny && !axis.hidden) value.labels.push(...labelShapes(layout, axis.look, plot, theme))
  }
  return { value, findings }
}

/** How an axis looks, with the stronger gridlines that it has room for. */
function withStrongLines(
  { name, role, look }: PlannedAxis,
  layout: AxisLayout,
  plot: Box,
): Found<PlannedAxis['look']> {
  if (!look.strongAt || layout.scale.kind.name !== 'time') return { value: look, findings: [] }
  const ends = [...layout.scale.domain].sort((a, b) => a - b) as [number, number]
  const found = strongLines(name, look.strongAt.unit, ends, role === 'x' ? plot.width : plot.height)
  return { value: { ...look, strongAt: found.step }, findings: found.findings }
}

/** The shapes of every drawing, each batch knowing which it is of. */
function drawAll(
  { input, pies, largest }: PlannedPane,
  plot: Box,
  scales: ReadonlyMap<string, PositionScale>,
): DrawnShapes[] {
  const { bound, frame, theme, preview } = input
  return bound.drawings.map(drawn => {
    const { drawing, marks } = drawn
    const batches = drawing.kind.draw({
      id: `drawing ${drawing.index}`,
      marks: preview === undefined ? marks : faded(drawn, preview, theme),
      x: scales.get(drawn.xScale)!,
      y: scales.get(drawn.yScale)!,
      plot,
      density: frame.density ?? 1,
      style: drawing.style,
      arrange: arrangeOf(drawing),
      slots: drawn.slots,
      between: drawing.between,
      points: drawing.points,
      order: drawing.order ?? (drawn.x.meaning.is === 'cycle' ? 'given' : undefined),
      largest,
      labelRoom: pies.get(drawn)?.room ?? { x: 0, y: 0 },
      locale: bound.tongue.locale,
      theme,
      options: drawing.options,
      memory: drawn.memory,
    })
    return {
      bound: drawn,
      batches: withLinks(batches, drawn).map(batch => ({ ...batch, drawing: drawing.index })),
    }
  })
}

/** Lines whose points are not marked although it is asked for: very many of them are drawn by their extremes. */
const unmarked = ({ bound, batches }: DrawnShapes): Finding[] =>
  bound.drawing.points &&
  bound.drawing.kind.looks?.includes('points') &&
  batches.some(batch => batch.kind === 'lines' && batch.keys.length === 0 && batch.x.length > 0)
    ? [tooMany('points', 'Points', bound)]
    : []

/** The words beside slices. */
function sliceWords({ input, pies }: PlannedPane, drawn: readonly DrawnShapes[], plot: Box): Batch[] {
  const { labels, bound, theme, measure } = input
  return [...pies].flatMap(([pie, plan]) => {
    const wedges = drawn.find(drawn => drawn.bound === pie)!.batches.find(batch => batch.kind === 'wedges')
    return wedges && labels ? labels.pie(pie, wedges, plan, plot, bound.tongue, theme, measure) : []
  })
}

/** Marks at the edges for values beyond fixed ends. */
const beyondEdges = (
  { drawings }: Bound,
  scales: ReadonlyMap<string, PositionScale>,
  plot: Box,
  theme: Theme,
): Batch[] =>
  drawings
    .filter(({ drawing }) => !drawing.kind.parts && !drawing.kind.alone)
    .flatMap(({ drawing, marks, xScale, yScale }) =>
      edgeMarks(
        `drawing ${drawing.index}`,
        marks,
        scales.get(xScale)!,
        scales.get(yScale)!,
        plot,
        drawing.kind.fromZero ? theme.background : drawing.style.color,
      ).map(batch => ({ ...batch, drawing: drawing.index })),
    )

/** The marks with all series faded that an entry of the legend does not explain. */
function faded({ marks, explained }: BoundDrawing, key: string, theme: Theme) {
  const known = explained.some(keys => keys.includes(key))
  if (!known) return marks
  const series = marks.series.map((series, s) =>
    explained[s].includes(key) ? series : { ...series, color: blend(series.color, theme.background, 0.78) },
  )
  return { ...marks, series }
}

/** The batch under its name in the whole scene. */
function inScene(batch: Batch, { pane, prefix }: PaneInput): Batch {
  if (prefix === '') return batch
  const { x, y } = batch.along ?? {}
  const along = batch.along && {
    x: x === undefined ? undefined : prefix + x,
    y: y === undefined ? undefined : prefix + y,
  }
  const named = { ...batch, id: prefix + batch.id, pane, along }
  if (named.kind !== 'texts') return named
  const { of, measuredOn } = named
  return {
    ...named,
    of: of === undefined ? undefined : prefix + of,
    measuredOn: measuredOn && { ...measuredOn, scale: prefix + measuredOn.scale },
  }
}

/** Titles of horizontal axes, at their right end. */
function levelTitles(room: PlotRoom, plot: Box, layouts: ReadonlyMap<string, AxisLayout>): Batch[] {
  if (!room.levelTitles || room.tiny || room.empty) return []
  const { theme, measure } = room
  const font = { size: theme.sizes.text, weight: 400 } as const
  const builder = new TextBuilder('axis title x', { ...font, anchor: 'end' })
  for (const side of ['bottom', 'top'] as const) {
    const axis = room.axes.find(
      ({ role, title, hidden, look }) => role === 'x' && title !== '' && !hidden && look.side === side,
    )
    if (!axis) continue
    const away = axis.look.away + (layouts.get(axis.name)?.thickness ?? 0) + (axis.look.tickLength ?? 0)
    builder.add(
      ellipsis(axis.title, plot.width, font, measure),
      plot.x + plot.width,
      side === 'bottom'
        ? plot.y + plot.height + away + font.size * LINE + 3
        : plot.y - away - font.size * 0.6,
      theme.muted,
      axis.name,
    )
  }
  return builder.build()
}
