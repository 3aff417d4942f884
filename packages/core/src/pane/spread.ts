import { formsOf } from '../bind/number-forms.ts'
import { footing, heading } from '../guide/heading.ts'
import { mirrored, mirroredBox, runsLeft } from '../guide/mirror.ts'
import { LINE } from '../guide/text.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { chartInput, mostOf } from './chart-input.ts'
import { isTiny, largestRadius, layoutPane } from './compose.ts'
import { BETWEEN_LEGENDS, layAligned, planLegends } from './legends.ts'
import type { Pane, PaneInput, PaneLayout, PictureInput, PlanContext, SpreadInput } from './model.ts'
import { planAxes } from './plan.ts'
import { sharedRoom } from './room-beyond.ts'
import { axisTitles } from './words.ts'

/** Free space between the charts of a spread, in pixels. */
const GUTTER = 14
/** The room that an axis below takes, as a rule, in pixels. */
const AXIS_ROOM = 34
/** The narrowest that a chart beside others may be, and a pane of one chart, in pixels. */
const NARROWEST = 220
const NARROWEST_PANE = 130
/** How much wider than high a pane is to be. */
const WIDER = 1.5
/** The largest share of the height that the legend of all panes takes. */
const LEGEND_SHARE = 0.2

/** Puts charts under each other or side by side, and their common words around them. */
export function composeSpread(input: PictureInput, spread: SpreadInput, box: Box, words: Batch[]): Pane[] {
  const { theme, measure, charts } = input
  let { y: top, height: room } = box
  // An area means the same in all panes, before it is known how large each is.
  const across = columnsOf(spread, charts.length, box.width, room)
  const largest =
    charts[0].description.scales?.size?.radius ??
    Math.min(
      ...charts.map(({ bound }) =>
        largestRadius(
          {
            width: box.width / across,
            height: (box.height / Math.ceil(charts.length / across)) * 0.8,
          },
          bound,
        ),
      ),
    )
  if (!isTiny(box.width, box.height)) {
    const head = heading(spread, box.x, box.y, box.width, theme, measure)
    const foot = footing(spread, box.x, box.y + box.height + 4, box.width, theme, measure)
    const all = [...head.batches, ...foot.batches]
    top += head.height > 0 ? head.height + 10 : 0
    if (spread.panes) {
      const common = commonWords(input, spread, { ...box, y: top }, largest)
      all.push(...common.batches)
      top += common.height
    }
    words.push(...(runsLeft(input.tongue.locale) ? mirrored(all, box) : all))
    room = box.y + box.height - top - (foot.height > 0 ? foot.height + 6 : 0)
  }
  const columns = columnsOf(spread, charts.length, box.width, room)
  const rows = Math.ceil(charts.length / columns)
  const shares = (scale: string) => spread.share?.includes(scale) ?? false
  const below = (i: number) => shares('x') && i + columns < charts.length
  const beside = (i: number) => spread.panes === true && shares('y') && i % columns > 0
  const boxOf = (i: number, { x, width }: Pick<Box, 'x' | 'width'>, axisRoom: number): Box => {
    const height = (room - GUTTER * (rows - 1) - axisRoom) / rows
    const y = top + Math.floor(i / columns) * (height + GUTTER)
    return { x, y, width, height: height + (below(i) ? 0 : axisRoom) }
  }
  const evenly = (box.width - GUTTER * (columns - 1)) / columns
  // Where people read from the right, the first column stands there.
  const placed = (cell: Box) => (runsLeft(input.tongue.locale) ? mirroredBox(cell, box) : cell)
  const share = spread.share ?? []
  /** What the axes of a chart are planned from, before it is known how large each is. */
  const planOf = (_: unknown, i: number): PlanContext => {
    const own = paneInput(input, spread, i)
    const cell = { width: evenly, height: room / rows }
    const radius =
      own.description.scales?.size?.radius ?? (spread.panes ? largest : largestRadius(cell, own.bound))
    const formOf = formsOf(own.bound.scales, own.domains, own.zoom)
    return { ...own, box: { ...box, ...cell }, formOf, largest: radius, labelRoom: evenly }
  }
  const beyond = share.length > 0 ? sharedRoom(charts.map(planOf), share) : undefined
  const layout = (i: number, cell: Box) =>
    layoutPane({
      ...paneInput(input, spread, i),
      box: placed(cell),
      pane: i,
      prefix: `${i}/`,
      sharedBelow: below(i),
      sharedBeside: beside(i),
      largest: spread.panes ? largest : undefined,
      titled: spread.panes && shares('y'),
      beyond,
    })
  // The last pane of a column carries the axis for all above it, and gets the room for that.
  const guessed = shares('x') && rows > 1 ? AXIS_ROOM : 0
  const place = (i: number) => ({ x: box.x + (i % columns) * (evenly + GUTTER), width: evenly })
  const tried = spread.panes ? charts.map((_, i) => layout(i, boxOf(i, place(i), guessed))) : []
  const most = (of: (i: number) => boolean, side: (layout: PaneLayout) => number) =>
    Math.max(0, ...tried.filter((_, i) => of(i)).map(side))
  const axisRoom = !spread.panes
    ? guessed
    : guessed > 0
      ? most(
          i => !below(i),
          ({ under }) => under,
        ) - most(below, ({ under }) => under)
      : 0
  // The first column has the axis of all, and room for it, so that all plots are of one width.
  const extra =
    columns > 1 && beside(1)
      ? most(
          i => i % columns === 0,
          ({ insets }) => insets.left,
        ) -
        most(
          i => i % columns > 0,
          ({ insets }) => insets.left,
        )
      : 0
  const width = (box.width - extra - GUTTER * (columns - 1)) / columns
  const columnOf = (i: number) =>
    i % columns === 0
      ? { x: box.x, width: width + extra }
      : { x: box.x + extra + (i % columns) * (width + GUTTER), width }
  const layouts = charts.map((_, i) => layout(i, boxOf(i, columnOf(i), axisRoom)))
  // Every pane is laid out by itself, then drawn once, beside the room that its neighbours need.
  const others = columns === 1 && input.beside ? [input.beside] : []
  const insetsOf = (column: number) => {
    const alike = (i: number) =>
      i % columns === column || (spread.panes === true && column > 0 && i % columns > 0)
    const own = mostOf([...layouts.filter((_, i) => alike(i)).map(({ insets }) => insets), ...others])
    return spread.panes ? { ...own, right: mostOf(layouts.map(({ insets }) => insets)).right } : own
  }
  const insets = layouts.map((_, i) => insetsOf(i % columns))
  const ends =
    share.length > 0
      ? agreedEnds(
          share,
          layouts.map((layout, i) => layout.ends(insets[i])),
        )
      : undefined
  return layouts.map((layout, i) => layout.draw(insets[i], ends))
}

/**
 * Where shared scales end in all panes: neat ends depend on the room for labels, and on the values, which differ from pane to
 * pane. Only those on which the panes do not agree by themselves;
 * undefined where they agree on all.
 */
function agreedEnds(
  share: readonly string[],
  all: readonly ReadonlyMap<string, readonly [number, number]>[],
): Map<string, readonly [number, number]> | undefined {
  const out = new Map<string, readonly [number, number]>()
  for (const name of share) {
    const own = all.map(ends => ends.get(name)).filter(ends => ends !== undefined)
    const values = own.flat()
    const joint = [Math.min(...values), Math.max(...values)] as const
    const agree = own.every(ends => Math.min(...ends) === joint[0] && Math.max(...ends) === joint[1])
    if (!agree) out.set(name, joint)
  }
  return out.size > 0 ? out : undefined
}

/** How many charts stand side by side: as told, as far as there is room; panes as many as make them of a good shape. */
function columnsOf({ columns, panes }: SpreadInput, count: number, width: number, height: number): number {
  const narrowest = panes ? NARROWEST_PANE : NARROWEST
  const most = Math.max(1, Math.min(count, Math.floor(width / narrowest)))
  if (!panes || columns !== undefined) return Math.min(columns ?? 1, most)
  const shape = (columns: number) => width / columns / (height / Math.ceil(count / columns)) / WIDER
  const off = (columns: number) => Math.abs(Math.log(Math.max(1e-6, shape(columns)))) + lonely(count, columns)
  return Array.from({ length: most }, (_, i) => i + 1).reduce((best, next) =>
    off(next) < off(best) ? next : best,
  )
}

/** Empty places in the last row look like something missing. */
const lonely = (count: number, columns: number) =>
  ((Math.ceil(count / columns) * columns - count) / count) * 0.8

/** A pane of one chart: its name is small, and the legend stands over all of them. */
function paneInput(
  input: PictureInput,
  { panes }: SpreadInput,
  i: number,
): Omit<PaneInput, 'box' | 'pane' | 'prefix'> {
  const own = chartInput(input, i)
  if (!panes) return own
  const { sizes } = own.theme
  return {
    ...own,
    theme: { ...own.theme, sizes: { ...sizes, title: sizes.subtitle } },
    description: { ...own.description, legend: false },
  }
}

/** What all panes have in common: the legend, and what their vertical scale measures. */
function commonWords(
  input: PictureInput,
  spread: SpreadInput,
  box: Box,
  largest: number,
): { height: number; batches: Batch[] } {
  const { theme, measure, charts } = input
  const own = { ...chartInput(input, 0), box, pane: 0, prefix: '' }
  const entries = new Map(
    charts.flatMap(({ bound }) => bound.legend).map(entry => [`${entry.by} ${entry.key}`, entry]),
  )
  const axes = planAxes({ ...own, formOf: () => ({}), largest: 0, labelRoom: box.width })
  const legends = planLegends({
    ...own,
    bound: { ...own.bound, legend: [...entries.values()] },
    axes,
    tiny: false,
    named: false,
    largest,
    apart: true,
  })
  const batches: Batch[] = []
  let height = 0
  // Wherever it was wished for, the legend of all panes stands over them.
  for (const legend of legends.list) {
    const block = layAligned(legend, box.x, box.y + height, box.width, box.height * LEGEND_SHARE)
    batches.push(...block.batches)
    height += block.height + BETWEEN_LEGENDS
  }
  const measured = axes.find(({ role, title, hidden }) => role === 'y' && title !== '' && !hidden)
  if (measured && spread.share?.includes('y')) {
    batches.push(...axisTitles([measured], box.x, box.y + height, box.width, theme, measure))
    height += theme.sizes.text * LINE + 8
  }
  return { height, batches }
}
