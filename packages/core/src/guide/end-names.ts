import type { Batch, Box, Lines } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import { segments, TextBuilder } from './build.ts'
import type { LegendEntry } from './legend.ts'
import { clean, ellipsis } from './text.ts'

/** From one name to the next, in pixels: the name, the run of stroke under it, and room for a finger (WCAG 2.2, 2.5.8). */
export const NAME_STEP = 24
/** Pixels between the plot and the names. */
const AWAY = 12
/** Lines end early where they leave this share of the plot. */
const EARLY = 0.12
/** The widest a name may be, in pixels. */
const WIDEST = 150
const RUN = 20

/** The room that names at line ends take beside the plot, in pixels. */
export function endNamesWidth(entries: readonly LegendEntry[], theme: Theme, measure: Measure): number {
  const font = { size: theme.sizes.text, weight: 400 } as const
  return AWAY + Math.max(RUN, ...entries.map(entry => Math.min(WIDEST, measure(clean(entry.name), font))))
}

/** The names of lines at their ends, spread so that none touch, each underlined with its line's own stroke; leaders where one was moved. */
export function endNames(
  entries: readonly LegendEntry[],
  lines: readonly Lines[],
  plot: Box,
  theme: Theme,
  measure: Measure,
): Batch[] {
  const font = { size: theme.sizes.text, weight: 400 } as const
  const ends = entries
    .map(entry => ({
      entry,
      end: lines.map(batch => lastPoint(batch, entry.key, plot)).find(point => point !== undefined),
    }))
    .filter(
      (named): named is { entry: LegendEntry; end: { x: number; y: number } } =>
        named.end !== undefined && !named.entry.hidden,
    )
    .sort((a, b) => a.end.y - b.end.y)
  // Where all lines end well before the plot does, as those that grow, names stand where they end.
  const edge = plot.x + plot.width
  const reached = Math.max(...ends.map(({ end }) => end.x))
  const within = reached < edge - plot.width * EARLY
  const farthest = within ? reached : edge
  const left = farthest + AWAY
  const places = spreadOut(
    ends.map(named => named.end.y),
    NAME_STEP,
    plot.y + NAME_STEP / 2 - 6,
    plot.y + plot.height - NAME_STEP / 2 + (within ? -6 : 6),
  )
  const names = new TextBuilder('ends/names', { ...font, anchor: 'start' })
  const leaders: { x1: number; y1: number; x2: number; y2: number; key: string }[] = []
  ends.forEach(({ entry, end }, i) => {
    const y = places[i]
    names.add(
      ellipsis(clean(entry.name), WIDEST, font, measure),
      left,
      y + font.size * 0.3,
      theme.text,
      entry.key,
    )
    if (Math.abs(y - end.y) > 4 || end.x < farthest - 12)
      leaders.push({ x1: end.x + 3, y1: end.y, x2: left - 4, y2: y, key: entry.key })
  })
  if (ends.length === 0) return []
  const strokes: Lines = {
    kind: 'lines',
    id: 'ends/strokes',
    part: 'guide',
    clip: false,
    names: ends.map(named => named.entry.key),
    keys: [],
    colors: ends.map(named => named.entry.color),
    color: Uint16Array.from(ends, (_, i) => i),
    starts: Uint32Array.from({ length: ends.length + 1 }, (_, i) => i * 2),
    x: Float32Array.from(ends.flatMap(() => [left, left + RUN])),
    y: Float32Array.from(places.flatMap(y => [y + font.size * 0.3 + 4.5, y + font.size * 0.3 + 4.5])),
    atX: Float64Array.from(ends.flatMap(() => [0, 1])),
    atY: new Float64Array(ends.length * 2),
    width: new Float32Array(ends.length).fill(2),
    dash: ends.map(named => named.entry.dash),
  }
  return [...segments('ends/leaders', leaders, { color: theme.strong, width: 1 }), strokes, ...names.build()]
}

/** The last vertex of a line that lies in the plot. */
function lastPoint(batch: Lines, key: string, plot: Box): { x: number; y: number } | undefined {
  const line = batch.names.indexOf(key)
  if (line < 0) return undefined
  for (let i = batch.starts[line + 1] - 1; i >= batch.starts[line]; i--) {
    const x = batch.x[i]
    const y = batch.y[i]
    if (x >= plot.x - 1 && x <= plot.x + plot.width + 1 && y === y)
      return { x, y: Math.max(plot.y, Math.min(plot.y + plot.height, y)) }
  }
  return undefined
}

/**
 * Places as near as can be to where they are wished (rising), at least `step` apart and between the ends: neighbours that
 * would touch form a block around the mean of their wishes, and blocks that meet become one (pooling adjacent violators).
 */
export function spreadOut(wished: readonly number[], step: number, low: number, high: number): number[] {
  const blocks: { from: number; count: number; start: number }[] = []
  const settle = (block: { from: number; count: number; start: number }) => {
    let sum = 0
    for (let i = 0; i < block.count; i++) sum += wished[block.from + i] - i * step
    block.start = Math.max(low, Math.min(high - (block.count - 1) * step, sum / block.count))
  }
  wished.forEach((_, i) => {
    let block = { from: i, count: 1, start: 0 }
    settle(block)
    for (
      let before = blocks.at(-1);
      before && before.start + before.count * step > block.start;
      before = blocks.at(-1)
    ) {
      blocks.pop()
      block = { from: before.from, count: before.count + block.count, start: 0 }
      settle(block)
    }
    blocks.push(block)
  })
  return blocks.flatMap(block => Array.from({ length: block.count }, (_, i) => block.start + i * step))
}
