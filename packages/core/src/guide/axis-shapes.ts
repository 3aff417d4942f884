import { type TimeStep, timesEvery } from '../scale/time-ticks.ts'
import type { Batch, Box, Images } from '../scene/scene.ts'
import type { Theme } from '../theme/theme.ts'
import { type AxisLayout, LABEL_GAP, PICTURE, type Side } from './axis-parts.ts'
import { boxes, segments, TextBuilder } from './build.ts'
import { clean, LINE, MIDDLE } from './text.ts'

/** How an axis is drawn, beyond its numbers. */
export interface AxisLook {
  side: Side
  /** Pixels between the plot and this axis, where others stand between them. */
  away: number
  grid: boolean
  gridDash?: readonly number[]
  gridColor?: string
  stripes?: boolean
  /** The division of the calendar whose beginnings have stronger gridlines. */
  strongAt?: TimeStep
  /** Length of a stroke at each tick, in pixels; default none. */
  tickLength?: number
}

const isLevel = (side: Side) => side === 'bottom' || side === 'top'

/** A line across the plot at a value of the scale. */
function across(axis: AxisLayout, side: Side, plot: Box, value: number, pixel = axis.scale.map(value)) {
  return isLevel(side)
    ? { x1: pixel, y1: plot.y, x2: pixel, y2: plot.y + plot.height, key: value, at: value }
    : { x1: plot.x, y1: pixel, x2: plot.x + plot.width, y2: pixel, key: value, at: value }
}

const alongOf = (axis: AxisLayout, side: Side) =>
  isLevel(side) ? { x: axis.scale.name } : { y: axis.scale.name }

/** Everything of an axis that lies behind the data: stripes, gridlines, strong ones. */
export function gridShapes(axis: AxisLayout, look: AxisLook, plot: Box, theme: Theme): Batch[] {
  const { side } = look
  const { name, kind, domain, zone } = axis.scale
  const along = alongOf(axis, side)
  const out: Batch[] = []
  if (look.stripes) out.push(...stripes(axis, side, plot, theme))
  const lines = axis.ticks.filter(value => !isZero(axis, value)).map(value => across(axis, side, plot, value))
  if (look.grid) {
    const minor = axis.minor.map(value => across(axis, side, plot, value))
    const faint = segments(`grid ${name}/minor`, minor, {
      color: look.gridColor ?? theme.hairline,
      width: 1,
      along,
      dash: look.gridDash,
    })
    for (const batch of faint) batch.alpha = new Float32Array(minor.length).fill(0.55)
    out.push(
      ...faint,
      ...segments(`grid ${name}`, lines, {
        color: look.gridColor ?? theme.hairline,
        width: 1,
        along,
        dash: look.gridDash,
      }),
    )
  }
  if (look.strongAt && kind.name === 'time') {
    const times = timesEvery(look.strongAt, Math.min(...domain), Math.max(...domain), zone)
    out.push(
      ...segments(
        `grid ${name}/strong`,
        times.map(time => across(axis, side, plot, time)),
        { color: theme.strong, width: 1, along },
      ),
    )
  }
  return out
}

/** Every other room between ticks, or every other category, on a faint ground. */
function stripes(axis: AxisLayout, side: Side, plot: Box, theme: Theme): Batch[] {
  const { scale } = axis
  const low = Math.min(...scale.domain)
  const high = Math.max(...scale.domain)
  const category = scale.kind.name === 'category'
  const edges = category
    ? axis.ticks.map(i => i - 0.5).concat((axis.ticks.at(-1) ?? 0) + 0.5)
    : [low, ...axis.ticks.filter(value => value > low && value < high), high]
  const list = []
  for (let i = 1; i < edges.length - (category ? 1 : 0); i += 2) {
    const a = scale.map(edges[i])
    const b = scale.map(edges[Math.min(i + 1, edges.length - 1)])
    const start = Math.min(a, b)
    const length = Math.abs(b - a)
    if (length <= 0) continue
    list.push(
      isLevel(side)
        ? { x: start, y: plot.y, width: length, height: plot.height, color: theme.stripe, key: i }
        : { x: plot.x, y: start, width: plot.width, height: length, color: theme.stripe, key: i },
    )
  }
  return boxes(`stripes ${scale.name}`, list)
}

/** The line at zero: a little darker than the grid, since lengths are read from it. */
export function zeroShapes(axis: AxisLayout, side: Side, plot: Box, theme: Theme): Batch[] {
  const { name, domain, kind } = axis.scale
  if (kind.name === 'category' || kind.name === 'time' || kind.name === 'log') return []
  if (Math.min(...domain) > 0 || Math.max(...domain) < 0) return []
  return segments(`zero ${name}`, [across(axis, side, plot, 0)], {
    color: theme.strong,
    width: 1,
    along: alongOf(axis, side),
  })
}

const isZero = (axis: AxisLayout, value: number) =>
  value === 0 && axis.scale.kind.name !== 'category' && axis.scale.kind.name !== 'time'

/** Labels, pictures and strokes at the ticks and, for time, the names of the larger unit. */
export function labelShapes(axis: AxisLayout, look: AxisLook, plot: Box, theme: Theme): Batch[] {
  const size = theme.sizes.text
  const { side, away, tickLength = 0 } = look
  const { name } = axis.scale
  const level = isLevel(side)
  const along = alongOf(axis, side)
  const anchor = axis.turn !== 0 ? 'end' : level ? 'middle' : side === 'left' ? 'end' : 'start'
  const labels = new TextBuilder(`axis ${name}/labels`, {
    size,
    weight: 400,
    anchor,
    turn: axis.turn,
    along,
    tabular: !level && axis.scale.kind.name !== 'category',
  })
  const larger = new TextBuilder(`axis ${name}/larger`, { size, weight: 600, anchor: 'middle', along })
  const picture = axis.pictures.length > 0 ? PICTURE + 4 : 0
  // Outwards from the plot: a stroke, a gap, a picture, the label.
  const gap = away + LABEL_GAP + tickLength
  const foot = plot.y + plot.height + gap
  axis.ticks.forEach((value, i) => {
    const at = axis.labelAt[i]
    const pixel = axis.scale.map(at)
    const lines = axis.labels[i]
    const word = axis.scale.words[value]
    const whole =
      axis.wholes?.[i] ?? (word && lines.some(line => line.endsWith('…')) ? clean(word) : undefined)
    const baseline = (row: number): [x: number, y: number] => {
      if (axis.turn !== 0) return [pixel + size * 0.3, foot + picture + size * 0.6]
      if (side === 'bottom') return [pixel, foot + picture + size * 0.85 + row * size * LINE]
      if (side === 'top') return [pixel, plot.y - gap - picture - (lines.length - 1 - row) * size * LINE]
      return [
        side === 'left' ? plot.x - gap - picture : plot.x + plot.width + gap + picture,
        pixel + size * MIDDLE + (row - (lines.length - 1) / 2) * size * LINE,
      ]
    }
    lines.forEach((text, row) => {
      // A category's name goes where the category goes.
      const name = word ?? value
      const key = lines.length > 1 ? `${name} ${row}` : name
      labels.add(text, ...baseline(row), theme.muted, key, at, undefined, whole)
    })
    if (axis.larger[i])
      larger.add(
        axis.larger[i],
        pixel,
        side === 'top' ? plot.y - gap - size * LINE : foot + size * 0.85 + size * LINE,
        theme.text,
        value,
        at,
      )
  })
  return [
    ...strokes(axis, look, plot, theme),
    ...pictures(axis, look, plot),
    ...labels.build(),
    ...larger.build(),
  ]
}

function strokes(
  axis: AxisLayout,
  { side, away, tickLength = 0 }: AxisLook,
  plot: Box,
  theme: Theme,
): Batch[] {
  if (!(tickLength > 0)) return []
  const sign = side === 'top' || side === 'left' ? -1 : 1
  const edge =
    side === 'bottom'
      ? plot.y + plot.height
      : side === 'top'
        ? plot.y
        : side === 'left'
          ? plot.x
          : plot.x + plot.width
  const start = edge + sign * away
  const end = start + sign * tickLength
  const lines = axis.ticks.map(value => {
    const pixel = axis.scale.map(value)
    return isLevel(side)
      ? { x1: pixel, y1: start, x2: pixel, y2: end, key: value, at: value }
      : { x1: start, y1: pixel, x2: end, y2: pixel, key: value, at: value }
  })
  return segments(`axis ${axis.scale.name}/ticks`, lines, {
    color: theme.strong,
    width: 1,
    along: alongOf(axis, side),
  })
}

function pictures(axis: AxisLayout, { side, away, tickLength = 0 }: AxisLook, plot: Box): Images[] {
  const shown = axis.pictures
    .map((href, i) => ({ href, i }))
    .filter((image): image is { href: string; i: number } => image.href !== undefined)
  if (shown.length === 0) return []
  const gap = away + LABEL_GAP + tickLength
  const place = (i: number) => {
    const pixel = axis.scale.map(axis.labelAt[i])
    if (side === 'bottom') return { x: pixel - PICTURE / 2, y: plot.y + plot.height + gap - 2 }
    if (side === 'top') return { x: pixel - PICTURE / 2, y: plot.y - gap - PICTURE + 2 }
    return { x: side === 'left' ? plot.x - gap - PICTURE : plot.x + plot.width + gap, y: pixel - PICTURE / 2 }
  }
  return [
    {
      kind: 'images',
      id: `axis ${axis.scale.name}/pictures`,
      part: 'guide',
      clip: false,
      keys: shown.map(({ i }) => axis.ticks[i]),
      colors: ['none'],
      color: new Uint16Array(shown.length),
      x: Float32Array.from(shown, ({ i }) => place(i).x),
      y: Float32Array.from(shown, ({ i }) => place(i).y),
      width: new Float32Array(shown.length).fill(PICTURE),
      height: new Float32Array(shown.length).fill(PICTURE),
      hrefs: shown.map(({ href }) => href),
      words: shown.map(({ i }) => axis.labels[i].join(' ')),
    },
  ]
}
