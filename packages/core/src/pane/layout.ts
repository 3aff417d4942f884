import { layoutAxis } from '../guide/axis.ts'
import type { AxisLayout } from '../guide/axis-parts.ts'
import { LINE } from '../guide/text.ts'
import type { Box } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { PaneInput, PlannedAxis } from './model.ts'

/** What the plot and its axes have to share. */
export type PlotRoom = Pick<PaneInput, 'box' | 'theme' | 'measure' | 'sharedBelow'> & {
  /** Room to leave beside the plot at least, so that it lines up with others. */
  insets?: { left: number; right: number }
  axes: PlannedAxis[]
  tiny: boolean
  empty: boolean
  top: number
  bottom: number
  levelTitles: boolean
  /** Room for the names of lines beside the plot, in pixels. */
  beside: number
}

/** Where the plot stands, and its axes by the names of their scales. */
export interface PlotLayout {
  plot: Box
  layouts: Map<string, AxisLayout>
  insets: { left: number; right: number }
}

/** Room between two axes on one side, in pixels. */
const BETWEEN_AXES = 12

/** Lays out the plot and its axes: heights decide vertical ticks, their labels the width, the width the horizontal ticks, and those the height again. */
export function layoutPlot(room: PlotRoom): PlotLayout {
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
        const base = axis.input.alignTo === undefined ? undefined : layouts.get(axis.input.alignTo)
        const layout = layoutAxis(axis.input, [plot.x, plot.x + plot.width], font, measure, base)
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
    const titleAt = (side: 'top' | 'bottom') =>
      room.levelTitles && level.some(axis => axis.title !== '' && labelled(axis) && axis.look.side === side)
        ? font.size * LINE + 4
        : 0
    const titles = titleAt('bottom')
    plot.y = room.top + (above > 0 ? above + 4 : 0) + titleAt('top')
    plot.height = Math.max(10, room.bottom - plot.y - Math.min(below + titles, (room.bottom - plot.y) * 0.6))
  }
  for (const axis of level) layouts.set(axis.name, withinChart(layouts.get(axis.name)!, box, font, measure))
  // The last word on vertical axes: the height is known now.
  layoutUpright()
  stack('left', upright)
  stack('right', upright)
  return { plot, layouts, insets }
}

/** An axis without the names at its ends that would be cut off by the edge of the chart. */
function withinChart(
  layout: AxisLayout,
  box: Box,
  font: { size: number; weight: 400 },
  measure: Measure,
): AxisLayout {
  if (layout.scale.kind.name !== 'category' || layout.turn !== 0) return layout
  // Beyond its box a chart has a margin, whose inner half words may use.
  const reach = 4
  const stays = layout.ticks.map((_, i) => {
    const half = Math.max(0, ...layout.labels[i].map(text => measure(text, font))) / 2
    const pixel = layout.scale.map(layout.labelAt[i])
    return pixel - half >= box.x - reach && pixel + half <= box.x + box.width + reach
  })
  if (stays.every(Boolean) || !stays.includes(true)) return layout
  const kept = <T>(list: readonly T[]) => list.filter((_, i) => stays[i])
  return {
    ...layout,
    ticks: kept(layout.ticks),
    labelAt: kept(layout.labelAt),
    labels: kept(layout.labels),
    larger: kept(layout.larger),
    pictures: kept(layout.pictures),
  }
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
