import { edgeMarks } from '../drawing/edge-marks.ts'
import { layoutAxis } from '../guide/axis.ts'
import type { AxisLayout } from '../guide/axis-parts.ts'
import { gridShapes, labelShapes, zeroShapes } from '../guide/axis-shapes.ts'
import { TextBuilder } from '../guide/build.ts'
import { endNames, endNamesWidth } from '../guide/end-names.ts'
import { ellipsis, LINE, wrap } from '../guide/text.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Lines, Scene } from '../scene/scene.ts'
import type { Measure } from '../theme/measure.ts'
import type { Theme } from '../theme/theme.ts'
import type { Bound } from './bind.ts'
import type { Description } from './description.ts'
import type { Domain } from './domain.ts'
import type { Frame, State } from './frame.ts'
import { type PlannedAxis, planAxes } from './plan.ts'
import { arrangeOf } from './resolve.ts'
import { namesAtEnds, placeWords } from './words.ts'

/** One plot with its axes and words, and what it was made from, for reading values back. */
export interface Pane {
  bound: Bound
  plot: Box
  scales: ReadonlyMap<string, PositionScale>
  batches: Batch[]
  /** Room that labels take on either side of the plot, in pixels: panes that line up share the largest. */
  insets: { left: number; right: number }
}

/** A scene with the panes that it shows: one for a chart, several for a spread. */
export interface Composition {
  scene: Scene
  panes: Pane[]
  theme: Theme
  locale: string
}

export interface PaneInput {
  description: Description
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  frame: Frame
  theme: Theme
  measure: Measure
  zoom: State['zoom']
  box: Box
  /** Which plot of the scene this is, and what its batches and scales are called in it. */
  pane: number
  prefix: string
  /** Room to leave beside the plot at least, so that it lines up with others. */
  insets?: { left: number; right: number }
  /** Whether another pane below shows the same horizontal axis. */
  sharedBelow?: boolean
}

/** Below this width, in pixels, room goes to the shapes. */
const NARROW = 400
const TINY = 150

export const isTiny = (width: number, height: number): boolean => width < TINY || height < 90

/** Free space around a picture of this size, in pixels. */
export const marginOf = (width: number, height: number): number =>
  isTiny(width, height) ? 6 : width < NARROW ? 12 : 16

/** Lays a chart out in its box and draws it: words, axes, shapes. */
export function composePane(input: PaneInput): Pane {
  const { description, bound, frame, theme, measure, box } = input
  // A pane of a spread may be lower than a chart of its own.
  const tiny = isTiny(box.width, input.prefix === '' ? box.height : box.height + 50)
  const axes = planAxes(description, bound, input.domains, input.zoom, frame.locale ?? 'en', box.width * 0.36)
  if (input.sharedBelow) for (const axis of axes) if (axis.role === 'x') axis.hidden = true
  const named = namesAtEnds(description, bound, axes, box, tiny)
  const words = placeWords(description, bound, axes, box, tiny, theme, measure, named)
  // Ticks of an axis without values would be numbers out of thin air.
  const empty = bound.drawings.every(one => one.marks.length === 0)
  const room = {
    ...input,
    axes,
    tiny,
    empty,
    top: words.top,
    bottom: words.bottom,
    levelTitles: words.levelTitles,
    beside: named ? endNamesWidth(bound.legend, theme, measure) : 0,
  }
  const { plot, layouts, insets } = layoutPlot(room)

  const behind: Batch[] = []
  const zeros: Batch[] = []
  const guides: Batch[] = []
  const scales = new Map<string, PositionScale>()
  for (const axis of axes) {
    const layout = layouts.get(axis.name)!
    scales.set(axis.name, layout.scale)
    if (empty || (axis.hidden && !input.sharedBelow)) continue
    behind.push(...gridShapes(layout, axis.look, plot, theme))
    if (axis.role === 'y' ? axis.input.percentOf === undefined : axis.grows)
      zeros.push(...zeroShapes(layout, axis.look.side, plot, theme))
    if (!tiny && !axis.hidden) guides.push(...labelShapes(layout, axis.look, plot, theme))
  }
  const shapes = bound.drawings.flatMap(one =>
    one.drawing.kind.draw({
      id: `drawing ${one.drawing.index}`,
      marks: one.marks,
      x: scales.get(one.xScale)!,
      y: scales.get(one.yScale)!,
      plot,
      density: frame.density ?? 1,
      style: one.drawing.style,
      arrange: arrangeOf(one.drawing),
      between: one.drawing.between,
      points: one.drawing.points,
      theme,
      options: one.drawing.options,
      memory: one.memory,
    }),
  )
  const told = bound.findings.some(finding => finding.code === 'outside-domain')
  const beyond =
    told && !tiny
      ? bound.drawings.flatMap(one =>
          edgeMarks(
            `drawing ${one.drawing.index}`,
            one.marks,
            scales.get(one.xScale)!,
            scales.get(one.yScale)!,
            plot,
            one.drawing.kind.fromZero ? theme.background : one.drawing.style.color,
          ),
        )
      : []
  // Bars stand on the line at zero; other shapes cross it.
  const barsOnly = bound.drawings.every(one => one.drawing.kind.fromZero)
  const batches = [
    ...words.batches,
    ...behind,
    ...(barsOnly ? [] : zeros),
    ...shapes,
    ...(barsOnly ? zeros : []),
    ...beyond,
    ...guides,
    ...(named && !empty
      ? endNames(
          bound.legend,
          shapes.filter((batch): batch is Lines => batch.kind === 'lines'),
          plot,
          theme,
          measure,
        )
      : []),
    ...levelTitles(room, plot, layouts),
    ...(empty && !tiny ? nothing(bound, plot, theme, measure) : []),
  ]
  return { bound, plot, scales, batches: batches.map(batch => inScene(batch, input)), insets }
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

type Room = PaneInput & {
  axes: PlannedAxis[]
  tiny: boolean
  empty: boolean
  top: number
  bottom: number
  levelTitles: boolean
  /** Room for the names of lines beside the plot, in pixels. */
  beside: number
}

/** Room between two axes on one side, in pixels. */
const BETWEEN_AXES = 12

/** Heights decide vertical ticks, their labels the width, the width the horizontal ticks, and those the height again. */
function layoutPlot(room: Room): {
  plot: Box
  layouts: Map<string, AxisLayout>
  insets: { left: number; right: number }
} {
  const { axes, box, theme, measure, tiny } = room
  const font = { size: theme.sizes.text, weight: 400 } as const
  const margin = box.x
  const end = box.x + box.width
  const plot: Box = {
    x: box.x,
    y: room.top,
    width: box.width,
    height: Math.max(10, room.bottom - room.top - 22),
  }
  const layouts = new Map<string, AxisLayout>()
  const upright = axes.filter(axis => axis.role === 'y')
  const level = axes.filter(axis => axis.role === 'x')
  const labelled = (axis: PlannedAxis) => !axis.hidden && !tiny && !room.empty
  const full = (axis: PlannedAxis) => (layouts.get(axis.name)?.thickness ?? 0) + (axis.look.tickLength ?? 0)
  const layoutUpright = () => {
    for (const axis of upright) {
      const base = axis.input.alignTo === undefined ? undefined : layouts.get(axis.input.alignTo)
      const layout = layoutAxis(axis.input, [plot.y + plot.height, plot.y], font, measure, base)
      layouts.set(
        axis.name,
        axis.input.percentOf === undefined ? layout : percentLayout(axis, [plot.y + plot.height, plot.y]),
      )
    }
  }
  const percentLayout = (axis: PlannedAxis, range: [number, number]) => {
    // Read from the very scale that it translates, rounded ends and all.
    const { domain } = layouts.get('y')!.scale
    const total = axis.input.percentOf!
    return layoutAxis({ ...axis.input, min: domain[0] / total, max: domain[1] / total }, range, font, measure)
  }
  /** Stacks the axes of one side outwards; returns the room that they take. */
  const stack = (side: string, list: PlannedAxis[]) => {
    let away = 0
    for (const axis of list) {
      if (axis.look.side !== side || !labelled(axis)) continue
      axis.look.away = away
      away += full(axis) + BETWEEN_AXES
    }
    return Math.max(0, away - BETWEEN_AXES)
  }
  let insets = { left: 0, right: 0 }
  let above = 0
  for (let round = 0; round < 2; round++) {
    layoutUpright()
    insets = {
      left: Math.max(stack('left', upright), room.insets?.left ?? 0),
      right: Math.max(stack('right', upright), room.beside, room.insets?.right ?? 0),
    }
    // Where the chart is squeezed, labels may take up to two fifths of its width.
    plot.x = margin + Math.min(insets.left, box.width * 0.4)
    let right = end - Math.min(insets.right, box.width * 0.4)
    for (let pass = 0; pass < 2; pass++) {
      plot.width = Math.max(10, right - plot.x)
      for (const axis of level) {
        const layout = layoutAxis(axis.input, [plot.x, plot.x + plot.width], font, measure)
        layouts.set(axis.name, layout)
        if (pass > 0 || tiny || room.empty || (axis.hidden && !room.sharedBelow) || room.insets) continue
        const reach = overhang(layout, font, measure)
        const over = reach.right - end
        if (over > 0 && insets.right < over) right -= Math.min(over, box.width * 0.2)
        const out = margin - 4 - reach.left
        if (out > 0) plot.x += Math.min(out, box.width * 0.2)
      }
    }
    insets = { left: plot.x - margin, right: end - plot.x - plot.width }
    above = stack('top', level)
    const below =
      stack('bottom', level) + (level.some(axis => labelled(axis) && axis.look.side === 'bottom') ? 4 : 0)
    const titles =
      room.levelTitles && level.some(axis => axis.title !== '' && labelled(axis)) ? font.size * LINE + 4 : 0
    plot.y = room.top + (above > 0 ? above + 4 : 0)
    plot.height = Math.max(10, room.bottom - plot.y - Math.min(below + titles, (room.bottom - plot.y) * 0.6))
  }
  // The last word on vertical axes: the height is known now.
  layoutUpright()
  stack('left', upright)
  stack('right', upright)
  return { plot, layouts, insets }
}

/** How far labels reach beyond the plot's ends, in pixels of the chart. */
function overhang(
  layout: AxisLayout,
  font: { size: number; weight: 400 },
  measure: Measure,
): { left: number; right: number } {
  let left = Number.POSITIVE_INFINITY
  let right = 0
  layout.ticks.forEach((_, i) => {
    const pixel = layout.scale.map(layout.labelAt[i])
    const widths = layout.labels[i].map(text => measure(text, font))
    if (layout.turn !== 0) {
      left = Math.min(left, ...widths.map(width => pixel - width * Math.cos((layout.turn * Math.PI) / 180)))
      return
    }
    if (layout.larger[i]) widths.push(measure(layout.larger[i], { ...font, weight: 600 }))
    for (const width of widths) {
      left = Math.min(left, pixel - width / 2)
      right = Math.max(right, pixel + width / 2)
    }
  })
  return { left, right }
}

/** Titles of horizontal axes, at their right end. */
function levelTitles(room: Room, plot: Box, layouts: ReadonlyMap<string, AxisLayout>): Batch[] {
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
  const text = bound.findings.find(finding => finding.code === 'no-rows')?.message ?? 'Nothing to show'
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
