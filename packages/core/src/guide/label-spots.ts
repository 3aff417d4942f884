import type { Box, Discs, Lines, Rects, Segments } from '../scene/scene.ts'
import { inkOn } from '../theme/contrast.ts'
import type { Font } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import {
  type Anchor,
  atBar,
  boxOf,
  GAP,
  inBox,
  type LabelItem,
  type LabelJob,
  type LabelSpot,
  type Leader,
  type Spot,
  type Way,
} from './bar-labels.ts'
import { type LabelRoom, textBox } from './label-room.ts'
import { MIDDLE } from './text.ts'

/** The place for a label at its shape; undefined where none is free. `way`: how all labels of its bars stand. */
export function spotFor(
  item: LabelItem,
  job: LabelJob,
  room: LabelRoom,
  plot: Box,
  font: Font,
  theme: Theme,
  way: Way | undefined,
): LabelSpot | undefined {
  const { batch } = job
  switch (batch.kind) {
    case 'rects':
      if (job.at === 'reference') return inRange(item, batch, room, font, theme)
      return job.at === 'bar'
        ? atBar(item, batch, room, plot, font, theme, way)
        : inBox(item, boxOf(batch, item.shape), batch, room, font, theme)
    case 'discs':
      return atPoint(item, centre(batch, item.shape), batch.radius[item.shape], room, font, theme)
    case 'lines':
      return batch.labels
        ? atLine(item, batch, room, plot, font, theme)
        : atPoint(item, centre(batch, item.shape), 2, room, font, theme, NEAR_LINES)
    case 'segments':
      return atStroke(item, batch, room, plot, font, theme)
    default:
      return undefined
  }
}

const centre = (batch: Discs | Lines, i: number) => ({ x: batch.x[i], y: batch.y[i] })

/** In the upper corner of a range. */
function inRange(
  item: LabelItem,
  batch: Rects,
  room: LabelRoom,
  font: Font,
  theme: Theme,
): LabelSpot | undefined {
  const { x, y, width, height } = boxOf(batch, item.shape)
  const top = Math.max(y, room.limits.y) + font.size + 2
  const bottom = Math.min(y + height, room.limits.y + room.limits.height) - 6
  const spots: Spot[] = [
    { x: x + 6, y: top, anchor: 'start' },
    { x: x + width - 6, y: top, anchor: 'end' },
    { x: x + 6, y: bottom, anchor: 'start' },
    { x: x + width - 6, y: bottom, anchor: 'end' },
    // A narrow range has its words beside it.
    { x: x + width + 5, y: top, anchor: 'start' },
    { x: x - 5, y: top, anchor: 'end' },
  ]
  const found = best(item, spots, room, font, theme)
  // On nothing but the range itself, words need no edge.
  const bare = found && room.isBare(textBox(item.width, font, found.x, found.y, found.anchor))
  return found && { ...found, halo: found.halo && !bare }
}

/** The first spot that is free, best without shapes under it. */
function best(
  { width, side }: LabelItem,
  spots: readonly Spot[],
  room: LabelRoom,
  font: Font,
  theme: Theme,
): LabelSpot | undefined {
  const color = theme.text
  const box = ({ x, y, anchor }: Spot) => textBox(width, font, x, y, anchor)
  const free = lastFirst(spots, side).filter(spot => room.isFree(box(spot)))
  const spot = free.find(spot => room.isBare(box(spot))) ?? free[0]
  if (!spot) return undefined
  const ground = room.groundOf(box(spot))
  const ink = ground === undefined ? undefined : inkOn(ground, theme)
  return { ...spot, color: ink ?? color, halo: ink === undefined, side: spots.indexOf(spot) }
}

/** Places in the order in which they are tried: that which a label had before is the first, so that it does not jump. */
const lastFirst = (spots: readonly Spot[], side: number | undefined): readonly Spot[] =>
  side === undefined || side >= spots.length ? spots : [spots[side], ...spots.filter((_, i) => i !== side)]

/** Distances from a point at which a label is tried, in pixels; from the second on a leader joins them. */
const RINGS = [0, 12, 26, 44]
/** Along lines the next point is near, and a label farther off would seem to be its. */
const NEAR_LINES = [0, 8, 20]

/** Beside a point: right, left, above, below and between; farther off with a leader where all of those are taken. */
function atPoint(
  { width, side }: LabelItem,
  point: { x: number; y: number },
  radius: number,
  room: LabelRoom,
  font: Font,
  theme: Theme,
  rings: readonly number[] = RINGS,
): LabelSpot | undefined {
  if (Number.isNaN(point.x + point.y)) return undefined
  const { limits } = room
  if (point.x < limits.x || point.x > limits.x + limits.width) return undefined
  if (point.y < limits.y || point.y > limits.y + limits.height) return undefined
  const level = font.size * MIDDLE
  if (radius === 0) {
    const spot: Spot = { x: point.x, y: point.y + level, anchor: 'middle' }
    if (room.isFree(textBox(width, font, spot.x, spot.y, spot.anchor)))
      return { ...spot, color: theme.text, halo: true }
  }
  for (const ring of rings) {
    const away = radius + GAP + ring
    const slant = away * 0.72
    const spots: Spot[] = [
      { x: point.x + away, y: point.y + level, anchor: 'start' },
      { x: point.x - away, y: point.y + level, anchor: 'end' },
      { x: point.x, y: point.y - away, anchor: 'middle' },
      { x: point.x, y: point.y + away + font.size * 0.76, anchor: 'middle' },
      { x: point.x + slant, y: point.y - slant, anchor: 'start' },
      { x: point.x - slant, y: point.y - slant, anchor: 'end' },
      { x: point.x + slant, y: point.y + slant + font.size * 0.7, anchor: 'start' },
      { x: point.x - slant, y: point.y + slant + font.size * 0.7, anchor: 'end' },
    ]
    for (const spot of lastFirst(spots, side)) {
      const box = textBox(width, font, spot.x, spot.y, spot.anchor)
      if (!room.isFree(box) || !room.isClear(box)) continue
      const leader = ring > 0 ? leaderOf(box, point, radius) : undefined
      if (leader && !room.isLeaderClear(leader)) continue
      return { ...spot, color: theme.text, halo: true, leader, side: spots.indexOf(spot) }
    }
  }
  return undefined
}

/** From the rim of a point to the nearest place on the edge of a box. */
function leaderOf({ x, y, width, height }: Box, point: { x: number; y: number }, radius: number): Leader {
  const x2 = Math.max(x - 2, Math.min(x + width + 2, point.x))
  const y2 = Math.max(y - 1, Math.min(y + height + 1, point.y))
  const far = Math.hypot(x2 - point.x, y2 - point.y) || 1
  const rim = (radius + 1) / far
  return { x1: point.x + (x2 - point.x) * rim, y1: point.y + (y2 - point.y) * rim, x2, y2 }
}

/** Along a line across the plot, at its end; beside the upper end of an extent. */
function atStroke(
  item: LabelItem,
  { x1, y1, x2, y2 }: Segments,
  room: LabelRoom,
  plot: Box,
  font: Font,
  theme: Theme,
): LabelSpot | undefined {
  const i = item.shape
  const [left, right] = [Math.min(x1[i], x2[i]), Math.max(x1[i], x2[i])]
  const [top, bottom] = [Math.min(y1[i], y2[i]), Math.max(y1[i], y2[i])]
  const rise = font.size * 0.76
  if (left === right && top < bottom) {
    const whole = bottom - top > plot.height - 2
    const high = whole ? Math.max(top, plot.y) + rise + 2 : top + rise / 2
    const low = bottom - 6
    const spots: Spot[] = [high, ...(whole ? [(high + low) / 2, low] : [])].flatMap(y => [
      { x: right + 5, y, anchor: 'start' as const },
      { x: left - 5, y, anchor: 'end' as const },
    ])
    if (!whole) spots.push({ x: left, y: top - 5, anchor: 'middle' })
    return best(item, spots, room, font, theme)
  }
  const ends: [number, Anchor][] = [
    [right - 2, 'end'],
    [left + 2, 'start'],
    [(left + right) / 2, 'middle'],
  ]
  const spots = ends.flatMap(([x, anchor]) => [
    { x, y: top - GAP, anchor },
    { x, y: bottom + GAP + rise, anchor },
  ])
  // A short stroke has its words beside it.
  if (right - left < item.width) spots.unshift({ x: right + GAP, y: top + rise / 2, anchor: 'start' })
  return best(item, spots, room, font, theme)
}

/** Near the last point of a line, where the line itself does not run through the words. */
function atLine(
  item: LabelItem,
  batch: Lines,
  room: LabelRoom,
  plot: Box,
  font: Font,
  theme: Theme,
): LabelSpot | undefined {
  const spots: Spot[] = []
  const [start, end] = [batch.starts[item.shape], batch.starts[item.shape + 1]]
  for (const share of [1, 0.85, 0.7, 0.5, 0.3, 0.15]) {
    const i = Math.min(end - 1, Math.round(start + (end - 1 - start) * share))
    const [x, y] = [batch.x[i], batch.y[i]]
    if (!(y >= plot.y && y <= plot.y + plot.height)) continue
    const anchor: Anchor = share === 1 ? 'end' : 'middle'
    for (const away of [10, 22, 36]) {
      spots.push({ x, y: y - away, anchor }, { x, y: y + away + font.size * 0.76, anchor })
    }
  }
  // In a cloud of points, a corner of the plot is more readable than the neighbourhood of the line.
  for (const y of [plot.y + font.size, plot.y + plot.height - 8])
    spots.push({ x: plot.x + plot.width - 4, y, anchor: 'end' }, { x: plot.x + 6, y, anchor: 'start' })
  return best(item, spots, room, font, theme)
}
