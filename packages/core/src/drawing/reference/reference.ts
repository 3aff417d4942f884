import { kind } from '../../describe/kind.ts'
import type { DrawInput, Positions } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Batch, Box, Rects, Segments } from '../../scene/scene.ts'
import { alphaOf, paintOf } from '../paint-of.ts'
import { slotShift } from '../slots.ts'

/** Half the length of the cross strokes at the ends of an extent, in pixels. */
const CAP = 4

/**
 * Lines, ranges and extents to read other shapes by. A value on one axis is a line across the whole plot, an extent a
 * shaded range; with both axes bound, an extent is an error bar, two extents are a box, and two values a mark as wide
 * as the place it stands at.
 */
export const reference = kind({
  name: 'reference',
  looks: ['arrange'],
  arrange: 'overlap',
  arranges: ['side', 'overlap'],
  styles: ['color', 'opacity', 'width', 'dash', 'caps'],
  roles: { x: 'optional position', y: 'optional position', color: 'category', series: 'category' },
  swatch: 'line',
  aside: true,
  alone: true,
  labelled: true,
  draw(input) {
    const { marks, x, y, plot } = input
    const across = reachOf(marks.x, x, plot.x, plot.x + plot.width)
    const up = reachOf(marks.y, y, plot.y + plot.height, plot.y)
    const flat = { x: isExtent(marks.x), y: isExtent(marks.y) }
    if ((flat.x || marks.x.unbound) && (flat.y || marks.y.unbound) && (flat.x || flat.y))
      return [rangesOf(input, across, up)]
    return strokesOf(input, across, up)
  },
})

interface Reach {
  /** Pixels of both ends, by mark; equal where the mark is a single value. */
  from: Float64Array
  to: Float64Array
}

const isExtent = (positions: Positions) => positions.spans === true

/** From where to where each mark reaches along one axis; the whole plot where nothing is bound. */
function reachOf(positions: Positions, scale: PositionScale | undefined, start: number, end: number): Reach {
  const count = positions.at.length
  const place = (value: number) => (scale?.kind.allows(value) ? scale.map(value) : Number.NaN)
  if (positions.unbound)
    return { from: new Float64Array(count).fill(start), to: new Float64Array(count).fill(end) }
  if (positions.spans && positions.from && positions.to)
    return { from: positions.from.map(place), to: positions.to.map(place) }
  const at = positions.at.map(place)
  return { from: at, to: at }
}

function rangesOf({ id, marks, style, plot, theme }: DrawInput, across: Reach, up: Reach): Rects {
  const count = marks.length
  const span = (reach: Reach, low: number, high: number) => {
    const start = reach.from.map((a, i) => Math.max(low, Math.min(a, reach.to[i])))
    const length = reach.from.map((a, i) => Math.max(0, Math.min(high, Math.max(a, reach.to[i])) - start[i]))
    return { start: Float32Array.from(start), length: Float32Array.from(length) }
  }
  const level = span(across, plot.x, plot.x + plot.width)
  const upright = span(up, plot.y, plot.y + plot.height)
  return {
    kind: 'rects',
    id: `${id}/range`,
    part: 'data',
    clip: true,
    keys: Array.from({ length: count }, (_, i) => marks.keyOf(i)),
    rows: marks.rowsOf,
    ...paintOf(marks, { color: style.color ?? (marks.series.length > 1 ? undefined : theme.text) }),
    alpha: alphaOf(style.opacity ?? 0.09, count),
    x: level.start,
    y: upright.start,
    width: level.length,
    height: upright.length,
    round: new Uint8Array(count),
    radius: 0,
  }
}

function strokesOf(input: DrawInput, across: Reach, up: Reach): Batch[] {
  const { id, marks, style, x, y, plot, slots } = input
  const lines: { x1: number; y1: number; x2: number; y2: number; mark: number; part: string }[] = []
  const shift = slots && slotShift(slots, marks, input[slots.along].map)
  const share = (along: 'x' | 'y') => (slots?.along === along ? 1 / slots.count : 1)
  for (let mark = 0; mark < marks.length; mark++) {
    let [x1, x2, y1, y2] = [across.from[mark], across.to[mark], up.from[mark], up.to[mark]]
    if ([x1, x2, y1, y2].some(Number.isNaN)) continue
    if (shift && slots.along === 'x') [x1, x2] = [x1 + shift(mark), x2 + shift(mark)]
    if (shift && slots.along === 'y') [y1, y2] = [y1 + shift(mark), y2 + shift(mark)]
    if (x1 === x2 && y1 === y2) {
      // A mark at a place is as wide as the place: a category's or bucket's room.
      const wide = roomOf(marks.x, x, mark) * share('x')
      const high = roomOf(marks.y, y, mark) * share('y')
      if (wide > 0 || high <= 0) [x1, x2] = [x1 - (wide || 16) / 2, x1 + (wide || 16) / 2]
      else [y1, y2] = [y1 - high / 2, y1 + high / 2]
    } else if (style.caps !== false && (isExtent(marks.x) || isExtent(marks.y))) {
      const tall = x1 === x2
      for (const [end, px, py] of [
        ['from', x1, y1],
        ['to', x2, y2],
      ] as const) {
        const [dx, dy] = tall ? [CAP, 0] : [0, CAP]
        lines.push({ x1: px - dx, y1: py - dy, x2: px + dx, y2: py + dy, mark, part: end })
      }
    }
    lines.push({ x1, y1, x2, y2, mark, part: '' })
  }
  const paint = paintOf(marks, style)
  const whole = marks.x.unbound || marks.y.unbound
  const width = style.width ?? (whole ? 1.25 : 2)
  // The stroke itself has the mark's key, so that labels stand at it; cross strokes have keys of their own.
  const batch: Segments = {
    kind: 'segments',
    id: `${id}/reference`,
    part: 'data',
    clip: !whole || beyond(lines, plot),
    keys: lines.map(line =>
      line.part === '' ? marks.keyOf(line.mark) : `${marks.keyOf(line.mark)} ${line.part}`,
    ),
    rows: i => marks.rowsOf(lines[i].mark),
    colors: paint.colors,
    color: Uint16Array.from(lines, line => paint.color[line.mark]),
    alpha: style.opacity === undefined ? undefined : alphaOf(style.opacity, lines.length),
    x1: Float32Array.from(lines, line => line.x1),
    y1: Float32Array.from(lines, line => line.y1),
    x2: Float32Array.from(lines, line => line.x2),
    y2: Float32Array.from(lines, line => line.y2),
    width,
    dash: style.dash,
  }
  return [batch]
}

/** Most of the room that a category or bucket has, in pixels; 0 for plain values. */
function roomOf(positions: Positions, scale: PositionScale, mark: number): number {
  if (!positions.from || !positions.to || positions.spans) return 0
  return Math.abs(scale.map(positions.to[mark]) - scale.map(positions.from[mark])) * 0.8
}

function beyond(lines: readonly { x1: number; y1: number }[], plot: Box): boolean {
  return lines.some(
    ({ x1, y1 }) =>
      x1 < plot.x - 1 || x1 > plot.x + plot.width + 1 || y1 < plot.y - 1 || y1 > plot.y + plot.height + 1,
  )
}
