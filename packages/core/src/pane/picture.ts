import type { Bound, Domain } from '../bind/model.ts'
import type { Background, Settled, SpreadOptions } from '../describe/description.ts'
import type { Frame, State } from '../describe/frame.ts'
import { footing, heading } from '../guide/heading.ts'
import { mirrored, runsLeft } from '../guide/mirror.ts'
import type { HeadingFigures, HeadingWords } from '../resolve/model.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Scene } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import { isTiny, layoutPane, marginOf } from './compose.ts'
import { groundShapes } from './ground.ts'
import type { PlacesLabels } from './labels.ts'
import type { Composition, Insets, Pane, PaneInput } from './model.ts'

/** One chart of a picture, ready to be laid out. */
export interface PictureChart {
  description: Settled & HeadingWords
  /** The numbers in its heading. */
  figures: HeadingFigures
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  /** Whether some values lie outside fixed ends, so that marks stand at those edges. */
  outside: boolean
  labels: PlacesLabels | undefined
  leftOut: PaneInput['leftOut']
}

export interface PictureInput {
  charts: readonly PictureChart[]
  /** How the charts stand together; undefined for a single chart. */
  spread: SpreadOptions | undefined
  /** What lies behind everything, where told. */
  background: string | Background | undefined
  frame: Frame
  theme: Theme
  measure: Measure
  tongue: Tongue
  words: { title: string; description: string }
  zoom: State['zoom']
  /** The entry of a legend that stands out. */
  preview: string | undefined
  /** Room to leave beside plots at least, so that they line up with those of other pictures. */
  beside: Insets | undefined
}

/** Free space between the charts of a spread, in pixels. */
const GUTTER = 14

/** Composes a chart, or the charts of a spread, into one scene. */
export function composePicture(input: PictureInput): Composition {
  const { frame, theme } = input
  const width = Math.max(1, frame.width)
  const height = Math.max(1, frame.height)
  const margin = marginOf(width, height)
  const box: Box = {
    x: margin,
    y: margin,
    width: Math.max(1, width - margin * 2),
    height: Math.max(1, height - margin * 2),
  }
  const words: Batch[] = []
  const panes = input.spread
    ? composeSpread(input, input.spread, box, words)
    : [layoutPane({ ...common(input, 0), box, pane: 0, prefix: '' }).draw(input.beside)]
  const scales = new Map<string, PositionScale>()
  panes.forEach((pane, i) => {
    for (const [name, scale] of pane.scales) scales.set((input.spread ? `${i}/` : '') + name, scale)
  })
  const scene: Scene = {
    width,
    height,
    background: frame.background === false ? undefined : theme.background,
    font: theme.font,
    plots: panes.map(pane => pane.plot),
    batches: [
      ...(frame.background === false ? [] : groundShapes(input.background, width, height, theme)),
      ...words,
      ...panes.flatMap(pane => pane.batches),
    ],
    ...input.words,
    scales,
  }
  const aligned = panes.every(({ plot }) => plot.x === panes[0].plot.x)
  const insets = aligned ? mostOf(panes.map(pane => pane.insets)) : undefined
  return { scene, panes, insets, theme, tongue: input.tongue }
}

/** The room that is enough for all. */
const mostOf = (all: readonly Insets[]): Insets => ({
  left: Math.max(...all.map(({ left }) => left)),
  right: Math.max(...all.map(({ right }) => right)),
})

function common(input: PictureInput, i: number): Omit<PaneInput, 'box' | 'pane' | 'prefix'> {
  const { frame, theme, measure, zoom, preview } = input
  return { ...input.charts[i], frame, theme, measure, zoom, preview }
}

function composeSpread(input: PictureInput, spread: SpreadOptions, box: Box, words: Batch[]): Pane[] {
  const { theme, measure, charts } = input
  let { y: top, height: room } = box
  if (!isTiny(box.width, box.height)) {
    const head = heading(spread, box.x, box.y, box.width, theme, measure)
    const foot = footing(spread, box.x, box.y + box.height + 4, box.width, theme, measure)
    const all = [...head.batches, ...foot.batches]
    words.push(...(runsLeft(input.tongue.locale) ? mirrored(all, box) : all))
    top += head.height > 0 ? head.height + 10 : 0
    room = box.y + box.height - top - (foot.height > 0 ? foot.height + 6 : 0)
  }
  // A narrow frame stacks what a wide one puts side by side.
  const columns = Math.max(1, Math.min(spread.columns ?? 1, charts.length, Math.floor(box.width / 220) || 1))
  const rows = Math.ceil(charts.length / columns)
  const shared = spread.share?.includes('x') ?? false
  const below = (i: number) => shared && i + columns < charts.length
  const cellWidth = (box.width - GUTTER * (columns - 1)) / columns
  // The last pane of a column carries the axis for all above it, and gets the room for that.
  const axisRoom = shared && rows > 1 ? 34 : 0
  const cellHeight = (room - GUTTER * (rows - 1) - axisRoom) / rows
  const boxOf = (i: number): Box => ({
    x: box.x + (i % columns) * (cellWidth + GUTTER),
    y: top + Math.floor(i / columns) * (cellHeight + GUTTER),
    width: cellWidth,
    height: cellHeight + (below(i) ? 0 : axisRoom),
  })
  // Every pane is laid out by itself, then drawn once, beside the room that its neighbours need.
  const layouts = charts.map((_, i) =>
    layoutPane({ ...common(input, i), box: boxOf(i), pane: i, prefix: `${i}/`, sharedBelow: below(i) }),
  )
  const others = columns === 1 && input.beside ? [input.beside] : []
  const insetsOf = (column: number) =>
    mostOf([...layouts.filter((_, i) => i % columns === column).map(layout => layout.insets), ...others])
  return layouts.map((layout, i) => layout.draw(insetsOf(i % columns)))
}
