import type { Bound } from '../bind/model.ts'
import { formsOf } from '../bind/number-forms.ts'
import type { Box } from '../scene/scene.ts'
import { drawPane, type PlannedPane } from './draw.ts'
import { fromItsSide } from './from-right.ts'
import { layoutPlot, type PlotLayout } from './layout.ts'
import { isPlaced, type Legends, planLegends, sideWidth } from './legends.ts'
import type { Insets, PaneInput, PaneLayout, PlannedAxis } from './model.ts'
import { planAxes } from './plan.ts'
import { TINY_LINE, tinyHasWords } from './tiny.ts'
import { placeWords } from './words.ts'

/** Below this width, in pixels, room goes to the shapes. */
const NARROW = 400
const TINY = 150
/** What an axis that stands at another pane would take here, in pixels. */
const AXIS_BESIDE = 40

export const isTiny = (width: number, height: number): boolean => width < TINY || height < 90

/** Free space around a picture of this size, in pixels. */
export const marginOf = (width: number, height: number): number =>
  isTiny(width, height) ? 6 : width < NARROW ? 12 : 16

/** Lays a chart out in its box: axes, legends, words, and what they leave of the plot. */
export function layoutPane(input: PaneInput): PaneLayout {
  const { description, bound, theme, measure, box, labels } = input
  const { locale } = bound.tongue
  // A pane of a spread may be lower than a chart of its own.
  const tiny = isTiny(
    box.width + (input.sharedBeside ? AXIS_BESIDE : 0),
    input.prefix === '' ? box.height : box.height + 50,
  )
  const largest = description.scales?.size?.radius ?? input.largest ?? largestRadius(box, bound)
  const formOf = formsOf(bound.scales, input.domains, input.zoom)
  const axes = planAxes({ ...input, formOf, largest, labelRoom: box.width * 0.36 })
  for (const axis of axes) {
    if (axis.role === 'x' ? input.sharedBelow : input.sharedBeside) axis.hidden = true
    if (axis.role === 'y' && input.titled) axis.title = ''
  }
  const pies = new Map(
    bound.drawings
      .filter(drawn => labels && drawn.drawing.kind.parts)
      .map(drawn => [
        drawn,
        labels!.planPie(
          drawn,
          tiny || isPlaced(description) ? { width: 0, height: 0 } : box,
          locale,
          theme,
          measure,
        ),
      ]),
  )
  const named = pies.size > 0 && [...pies.values()].every(plan => plan.beside)
  const legends = planLegends({ ...input, axes, tiny, named, largest })
  const inner = innerBox(box, legends)
  const words = placeWords({ ...input, legends: legends.list, axes, inner, tiny })
  // Ticks of an axis without values would be numbers out of thin air.
  const drawnOnes = bound.drawings.filter(drawn => !drawn.drawing.kind.aside)
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
  const planned: PlannedPane = { input, room, legends, words, pies, tinyLine, largest, formOf }
  const alone = layoutPlot(room)
  // Legends at the sides are part of the room that stands beside the plot.
  const left = inner.x - box.x
  const right = box.width - inner.width - left
  const insets = {
    left: alone.insets.left + left,
    right: alone.insets.right + right,
    beyond: axes.find(({ name }) => name === 'x')?.needs,
  }
  const beside = (most: Insets): Insets => ({
    left: Math.max(insets.left, most.left) - left,
    right: Math.max(insets.right, most.right) - right,
  })
  /** The room that is to be left beside the plot, where that is more than it needs itself. */
  const wider = (most: Insets | undefined) =>
    most && (most.left > insets.left || most.right > insets.right) ? { insets: beside(most) } : undefined
  /** Laid out where its ends are asked for, and drawn then. */
  let widened: { most: Insets; layout: PlotLayout } | undefined
  const layoutBeside = (most: Insets | undefined): PlotLayout => {
    const more = wider(most)
    if (!most || !more) return alone
    if (widened?.most !== most) widened = { most, layout: layoutPlot({ ...room, ...more }) }
    return widened.layout
  }
  const layoutEnding = (most: Insets | undefined, ends: Ends): PlotLayout =>
    layoutPlot({ ...room, ...wider(most), axes: axes.map(axis => withEnds(axis, ends)) })
  return {
    insets,
    under: box.y + box.height - alone.plot.y - alone.plot.height,
    ends: most => new Map([...layoutBeside(most).layouts].map(([name, { scale }]) => [name, scale.domain])),
    draw: (most, ends) => {
      const layout = ends ? layoutEnding(most, ends) : layoutBeside(most)
      return { ...fromItsSide(drawPane(planned, layout), box), insets }
    },
  }
}

type Ends = ReadonlyMap<string, readonly [number, number]>

/** An axis that ends where it is told to. */
function withEnds(axis: PlannedAxis, ends: Ends): PlannedAxis {
  const told = ends.get(axis.name)
  if (!told) return axis
  const [min, max] = told
  return { ...axis, input: { ...axis.input, min, max, round: { min: false, max: false }, beyond: undefined } }
}

/** Whether there is nothing to draw: no marks, or no slice. */
const isEmpty = ({ drawing, marks }: Bound['drawings'][number]) =>
  marks.length === 0 || (drawing.kind.parts === true && !marks.y.at.some(value => value > 0))

/** The least radius of the largest point, in pixels, and the share of a chart that all points may cover together. */
const LEAST_RADIUS = 4
const COVER = 0.7

/**
 * The radius of the largest point whose size is bound, in pixels: in proportion to the chart, and smaller where points would
 * cover each other. In steps, so that a few more points do not change the size of all.
 */
export function largestRadius({ width, height }: Pick<Box, 'width' | 'height'>, bound: Bound): number {
  let radius = Math.max(LEAST_RADIUS, Math.min(22, Math.min(width, height) / 16))
  let discs = 0
  for (const { marks } of bound.drawings) {
    if (!marks.size || !(marks.size.max > 0)) continue
    for (const value of marks.size.at) if (value > 0) discs += value / marks.size.max
  }
  while (radius > LEAST_RADIUS && discs * Math.PI * radius ** 2 > width * height * COVER)
    radius = Math.max(LEAST_RADIUS, radius / Math.SQRT2)
  return radius
}

/** What legends on the left and right leave of the box. */
function innerBox(box: Box, legends: Legends): Box {
  const left = sideWidth(legends, 'left', box)
  const right = sideWidth(legends, 'right', box)
  return { ...box, x: box.x + left, width: Math.max(20, box.width - left - right) }
}
