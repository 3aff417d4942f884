import type { Bound } from '../bind/model.ts'
import { edgeMarks } from '../drawing/edge-marks.ts'
import type { Finding } from '../finding/error.ts'
import { emphasised } from '../guide/asked-ticks.ts'
import type { AxisLayout } from '../guide/axis-parts.ts'
import { gridShapes, labelShapes, zeroShapes } from '../guide/axis-shapes.ts'
import { TextBuilder } from '../guide/build.ts'
import { endNames } from '../guide/end-names.ts'
import { mirrored, runsLeft } from '../guide/mirror.ts'
import { ellipsis, LINE, wrap } from '../guide/text.ts'
import { arrangeOf } from '../resolve/looks.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Lines } from '../scene/scene.ts'
import { blend } from '../theme/contrast.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { layoutPlot, type PlotRoom } from './layout.ts'
import { besideLegends, isPlaced, type Legends, legendsInside, planLegends, sideWidth } from './legends.ts'
import type { Pane, PaneInput, PaneLayout } from './model.ts'
import { periodWords } from './period-words.ts'
import { planAxes } from './plan.ts'
import { lackOf } from './summary.ts'
import { TINY_LINE, tinyHasWords, tinyWords } from './tiny.ts'
import { placeWords } from './words.ts'

/** Below this width, in pixels, room goes to the shapes. */
const NARROW = 400
const TINY = 150

export const isTiny = (width: number, height: number): boolean => width < TINY || height < 90

/** Free space around a picture of this size, in pixels. */
export const marginOf = (width: number, height: number): number =>
  isTiny(width, height) ? 6 : width < NARROW ? 12 : 16

/** Lays a chart out in its box: axes, legends, words, and what they leave of the plot. */
export function layoutPane(input: PaneInput): PaneLayout {
  const { description, bound, frame, theme, measure, box } = input
  const { tongue } = bound
  const { locale } = tongue
  // A pane of a spread may be lower than a chart of its own.
  const tiny = isTiny(box.width, input.prefix === '' ? box.height : box.height + 50)
  const axes = planAxes({ ...input, labelRoom: box.width * 0.36 })
  if (input.sharedBelow) for (const axis of axes) if (axis.role === 'x') axis.hidden = true
  const { labels } = input
  const pies = new Map(
    bound.drawings
      .filter(one => labels && one.drawing.kind.parts)
      .map(one => [
        one,
        labels!.planPie(one, tiny || isPlaced(description) ? 0 : box.width, locale, theme, measure),
      ]),
  )
  const named = pies.size > 0 && [...pies.values()].every(plan => plan.beside)
  const largest = largestRadius(box)
  const legends = planLegends({ ...input, axes, tiny, named, largest })
  const inner = innerBox(box, legends)
  const words = placeWords({ ...input, legends: legends.list, axes, inner, tiny })
  // Ticks of an axis without values would be numbers out of thin air.
  const drawnOnes = bound.drawings.filter(one => !one.drawing.kind.aside)
  const empty = (drawnOnes.length > 0 ? drawnOnes : bound.drawings).every(isEmpty)
  const tinyLine = tiny && !empty && tinyHasWords(box)
  const room = {
    ...input,
    box: inner,
    axes,
    tiny,
    empty,
    top: words.top + (tinyLine ? TINY_LINE : 0),
    bottom: words.bottom,
    levelTitles: words.levelTitles,
    beside: legends.ends?.width ?? 0,
  }
  const alone = layoutPlot(room)
  return {
    insets: alone.insets,
    draw: insets => drawPane(insets ? layoutPlot({ ...room, insets }) : alone),
  }

  function drawPane({ plot, layouts, insets }: ReturnType<typeof layoutPlot>): Pane {
    const behind: Batch[] = []
    const zeros: Batch[] = []
    const guides: Batch[] = []
    const scales = new Map<string, PositionScale>()
    const findings: Finding[] = []
    for (const axis of axes) {
      const layout = layouts.get(axis.name)!
      scales.set(axis.name, layout.scale)
      if (empty || (axis.hidden && !input.sharedBelow)) continue
      let { look } = axis
      if (axis.look.emphasis && layout.scale.kind.name === 'time') {
        const ends = [...layout.scale.domain].sort((a, b) => a - b) as [number, number]
        const found = emphasised(
          axis.name,
          axis.look.emphasis.unit,
          ends,
          axis.role === 'x' ? plot.width : plot.height,
        )
        look = { ...look, emphasis: found.step }
        findings.push(...found.findings)
      }
      behind.push(...gridShapes(layout, look, plot, theme))
      if (axis.role === 'y' ? axis.input.percentOf === undefined : axis.grows)
        zeros.push(...zeroShapes(layout, axis.look.side, plot, theme))
      if (!tiny && !axis.hidden) guides.push(...labelShapes(layout, axis.look, plot, theme))
    }
    const drawn = bound.drawings.map(one => ({
      bound: one,
      batches: one.drawing.kind.draw({
        id: `drawing ${one.drawing.index}`,
        marks: input.preview === undefined ? one.marks : faded(one, input.preview, theme),
        x: scales.get(one.xScale)!,
        y: scales.get(one.yScale)!,
        plot,
        density: frame.density ?? 1,
        style: one.drawing.style,
        arrange: arrangeOf(one.drawing),
        between: one.drawing.between,
        points: one.drawing.points,
        order: one.drawing.order ?? (one.x.meaning.is === 'cycle' ? 'given' : undefined),
        largest,
        labelRoom: pies.get(one)?.room ?? { x: 0, y: 0 },
        locale,
        theme,
        options: one.drawing.options,
        memory: one.memory,
      }),
    }))
    for (const one of drawn)
      one.batches = withLinks(one.batches, one.bound).map(batch => ({
        ...batch,
        drawing: one.bound.drawing.index,
      }))
    const shapes = drawn.flatMap(one => one.batches)
    const slices = [...pies].flatMap(([one, plan]) => {
      const wedges = drawn.find(({ bound }) => bound === one)!.batches.find(batch => batch.kind === 'wedges')
      return wedges && !tiny ? labels!.pie(one, wedges, plan, plot, tongue, theme, measure) : []
    })
    const beyond =
      input.outside && !tiny
        ? bound.drawings
            .filter(one => !one.drawing.kind.parts && !one.drawing.kind.alone)
            .flatMap(one =>
              edgeMarks(
                `drawing ${one.drawing.index}`,
                one.marks,
                scales.get(one.xScale)!,
                scales.get(one.yScale)!,
                plot,
                one.drawing.kind.fromZero ? theme.background : one.drawing.style.color,
              ).map(batch => ({ ...batch, drawing: one.drawing.index })),
            )
        : []
    const worded =
      tiny || empty || !labels
        ? { value: [], findings: [] }
        : labels.shapes(drawn, tongue, plot, theme, measure)
    // Bars stand on the line at zero; other shapes cross it.
    const barsOnly = bound.drawings.every(one => one.drawing.kind.fromZero || one.drawing.kind.aside)
    const batches = [
      ...(tiny || empty ? [] : periodWords(description, plot, theme, measure)),
      // Where people read from the right, words begin there.
      ...(runsLeft(locale) ? mirrored(words.batches, box) : words.batches),
      ...behind,
      ...(barsOnly ? [] : zeros),
      ...shapes,
      ...(barsOnly ? zeros : []),
      ...beyond,
      ...guides,
      ...slices,
      ...(tinyLine ? tinyWords(description, bound, box, theme, measure) : []),
      ...worded.value,
      ...besideLegends(legends, box, plot),
      ...legendsInside(legends, plot, theme),
      ...(legends.ends && !empty
        ? endNames(
            legends.ends.entries,
            shapes.filter((batch): batch is Lines => batch.kind === 'lines'),
            plot,
            theme,
            measure,
          )
        : []),
      ...levelTitles(room, plot, layouts),
      ...(empty && !tiny ? nothing(bound, plot, theme, measure) : []),
    ]
    const full = new Map([...input.domains].map(([name, { min, max }]) => [name, [min, max] as const]))
    return {
      prefix: input.prefix,
      bound,
      plot,
      scales,
      full,
      batches: batches.map(batch => inScene(batch, input)),
      findings:
        tiny || empty
          ? []
          : [
              ...axes.filter(axis => !axis.hidden).flatMap(axis => layouts.get(axis.name)?.findings ?? []),
              ...findings,
              ...worded.findings,
            ],
      insets,
    }
  }
}

/** The shapes with the addresses that their marks lead to. */
function withLinks(batches: Batch[], { links, marks }: Bound['drawings'][number]): Batch[] {
  if (!links) return batches
  const byKey = new Map<string | number, string>()
  for (let mark = 0; mark < marks.length; mark++) {
    const link = links(mark)
    if (link) byKey.set(marks.keyOf(mark), link)
  }
  return batches.map(batch =>
    batch.part === 'data' && batch.keys.length > 0 && batch.kind !== 'lines' && batch.kind !== 'areas'
      ? { ...batch, links: shape => byKey.get(batch.keys[shape]) ?? '' }
      : batch,
  )
}

/** The marks with all series faded that an entry of the legend does not explain. */
function faded({ marks, explained }: Bound['drawings'][number], key: string, theme: Theme) {
  const known = explained.some(keys => keys.includes(key))
  if (!known) return marks
  const series = marks.series.map((one, s) =>
    explained[s].includes(key) ? one : { ...one, color: blend(one.color, theme.background, 0.78) },
  )
  return { ...marks, series }
}

/** Whether there is nothing to draw: no marks, or no slice. */
const isEmpty = ({ drawing, marks }: Bound['drawings'][number]) =>
  marks.length === 0 || (drawing.kind.parts === true && !marks.y.at.some(value => value > 0))

/** The radius of the largest point whose size is bound, in pixels: in proportion to the chart. */
const largestRadius = (box: Box) => Math.max(4, Math.min(22, Math.min(box.width, box.height) / 16))

/** What legends on the left and right leave of the box. */
function innerBox(box: Box, legends: Legends): Box {
  const left = sideWidth(legends, 'left', box)
  const right = sideWidth(legends, 'right', box)
  return { ...box, x: box.x + left, width: Math.max(20, box.width - left - right) }
}

/** The batch under its name in the whole scene. */
function inScene(batch: Batch, { pane, prefix }: PaneInput): Batch {
  if (prefix === '') return batch
  const { x, y } = batch.along ?? {}
  const along = batch.along && {
    x: x === undefined ? undefined : prefix + x,
    y: y === undefined ? undefined : prefix + y,
  }
  return { ...batch, id: prefix + batch.id, pane, along }
}

/** Titles of horizontal axes, at their right end. */
function levelTitles(room: PlotRoom, plot: Box, layouts: ReadonlyMap<string, AxisLayout>): Batch[] {
  if (!room.levelTitles || room.tiny || room.empty) return []
  const { theme, measure } = room
  const font = { size: theme.sizes.text, weight: 400 } as const
  const builder = new TextBuilder('axis title x', { ...font, anchor: 'end' })
  const axis = room.axes.find(
    one => one.role === 'x' && one.title !== '' && !one.hidden && one.look.side === 'bottom',
  )
  if (axis) {
    const down = axis.look.away + (layouts.get(axis.name)?.thickness ?? 0) + (axis.look.tickLength ?? 0)
    builder.add(
      ellipsis(axis.title, plot.width, font, measure),
      plot.x + plot.width,
      plot.y + plot.height + down + font.size * LINE + 3,
      theme.muted,
      axis.name,
    )
  }
  return builder.build()
}

function nothing(bound: Bound, plot: Box, theme: Theme, measure: Measure): Batch[] {
  const lack = lackOf(bound)
  const usual = bound.tongue.say(lack ?? 'Nothing to show')
  // What was found is said in English, so only where nothing else is spoken.
  const told =
    usual === 'Nothing to show' &&
    bound.findings.find(({ code }) => code === 'no-rows' || code === 'nothing-to-share')?.message
  const text = told || usual
  const font = { size: theme.sizes.subtitle, weight: 400 } as const
  const builder = new TextBuilder('nothing', { ...font, anchor: 'middle' })
  wrap(text, plot.width - 20, font, measure, 3).forEach((line, i, lines) => {
    builder.add(
      line,
      plot.x + plot.width / 2,
      plot.y + plot.height / 2 + (i - (lines.length - 1) / 2) * font.size * LINE,
      theme.muted,
      i,
    )
  })
  return builder.build()
}
