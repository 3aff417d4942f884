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
  const low = Math.min(...y.domain)
  const high = Math.max(...y.domain)
  const slack = (high - low) * 1e-9
  const paint = paintOf(marks, { color })
  const lines: { x: number; edge: number; into: number; color: number; key: string | number }[] = []
  for (let mark = 0; mark < marks.length && lines.length < MOST; mark++) {
    const value = marks.y.at[mark]
    if (!(value < low - slack || value > high + slack)) continue
    const pixel = x.map(marks.x.at[mark])
    if (!(pixel >= plot.x && pixel <= plot.x + plot.width)) continue
    const top = value > high === y.range[1] <= y.range[0]
    lines.push({
      x: pixel,
      edge: top ? plot.y : plot.y + plot.height,
      into: top ? TALL : -TALL,
      color: paint.color[mark],
      key: marks.keyOf(mark),
    })
  }
  if (lines.length === 0) return []
  const both = lines.flatMap(line => [
    { ...line, side: -HALF },
    { ...line, side: HALF },
  ])
  return [
    {
      kind: 'segments',
      id: `${id}/beyond`,
      part: 'guide',
      clip: false,
      keys: both.map(line => `${line.key} ${line.side}`),
      colors: paint.colors,
      color: Uint16Array.from(both, line => line.color),
      x1: Float32Array.from(both, line => line.x + line.side),
      y1: Float32Array.from(both, line => line.edge + line.into),
      x2: Float32Array.from(both, line => line.x),
      y2: Float32Array.from(both, line => line.edge),
      width: 2,
    },
  ]
}
