import type { Marks } from '../describe/model.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Box, Segments } from '../scene/scene.ts'
import { paintOf } from './paint-of.ts'

/** Half the width, and the height, of the mark in pixels. */
const HALF = 3.5
const TALL = 4
/** More marks than these would be an edge of their own. */
const MOST = 300

/** A small chevron at the edge of the plot for every value that lies beyond it, so that none is just lost. */
export function edgeMarks(
  id: string,
  marks: Marks,
  x: PositionScale,
  y: PositionScale,
  plot: Box,
  color: string | undefined,
): Segments[] {
  const paint = paintOf(marks, { color })
  const lines: { x: number; y: number; dx: number; dy: number; color: number; key: string | number }[] = []
  for (let mark = 0; mark < marks.length && lines.length < MOST; mark++) {
    const [across, up] = [beyond(marks.x.at[mark], x), beyond(marks.y.at[mark], y)]
    if (across === 0 && up === 0) continue
    const place = { x: x.map(marks.x.at[mark]), y: y.map(marks.y.at[mark]) }
    // What is not there on one axis is nowhere at the edge of the other.
    if (Number.isNaN(place.x + place.y)) continue
    const [right, bottom] = [plot.x + plot.width, plot.y + plot.height]
    lines.push({
      x: Math.max(plot.x, Math.min(right, place.x)),
      y: Math.max(plot.y, Math.min(bottom, place.y)),
      // Towards where it lies, also at a corner.
      dx: across * (x.range[1] >= x.range[0] ? 1 : -1),
      dy: up * (y.range[1] >= y.range[0] ? 1 : -1),
      color: paint.color[mark],
      key: marks.keyOf(mark),
    })
  }
  if (lines.length === 0) return []
  const both = lines.flatMap(line => [
    { ...line, side: -1 },
    { ...line, side: 1 },
  ])
  // A chevron whose tip is at the edge: its arms reach back into the plot, on both sides of its direction.
  const arm = ({ dx, dy, side }: (typeof both)[number]) => {
    const long = Math.hypot(dx, dy)
    const [ux, uy] = [dx / long, dy / long]
    return { x: -ux * TALL - uy * HALF * side, y: -uy * TALL + ux * HALF * side }
  }
  return [
    {
      kind: 'segments',
      id: `${id}/beyond`,
      part: 'guide',
      clip: false,
      keys: both.map(line => `${line.key} ${line.side}`),
      colors: paint.colors,
      color: Uint16Array.from(both, line => line.color),
      x1: Float32Array.from(both, line => line.x + arm(line).x),
      y1: Float32Array.from(both, line => line.y + arm(line).y),
      x2: Float32Array.from(both, line => line.x),
      y2: Float32Array.from(both, line => line.y),
      width: 2,
    },
  ]
}

/** -1 below the ends of a scale, 1 above them, 0 within or nowhere. */
function beyond(value: number, { domain }: PositionScale): -1 | 0 | 1 {
  const low = Math.min(...domain)
  const high = Math.max(...domain)
  const slack = (high - low) * 1e-9
  return value < low - slack ? -1 : value > high + slack ? 1 : 0
}
