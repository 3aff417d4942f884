import type { Box, Discs } from '../../scene/scene.ts'
import { kind } from '../kind.ts'
import { paintOf } from '../paint-of.ts'

const RADIUS = 3.5
/** Points are solid as long as they cover no more than this share of the plot. */
const SOLID_COVER = 0.04

/** A disc for each mark; the more there are, the fainter and smaller each, so that overlap shows as density. */
export const scatter = kind({
  name: 'scatter',
  roles: { x: 'position', y: 'position', color: 'category', series: 'category', size: 'number' },
  swatch: 'disc',
  draw({ id, marks, x, y, plot, style, theme }) {
    const count = marks.length
    const px = new Float32Array(count)
    const py = new Float32Array(count)
    for (let i = 0; i < count; i++) {
      const xValue = marks.x.at[i]
      const yValue = marks.y.at[i]
      px[i] = x.kind.allows(xValue) ? x.map(xValue) : Number.NaN
      py[i] = y.kind.allows(yValue) ? y.map(yValue) : Number.NaN
    }
    const cover = (count * Math.PI * RADIUS ** 2) / Math.max(1, plot.width * plot.height)
    const crowded = cover > SOLID_COVER
    const radius = style.size ?? (crowded ? Math.max(1.5, RADIUS * (SOLID_COVER / cover) ** 0.25) : RADIUS)
    const alpha = style.opacity ?? (crowded ? Math.max(0.12, Math.min(1, (SOLID_COVER / cover) ** 0.35)) : 1)
    const discs: Discs = {
      kind: 'discs',
      id: `${id}/scatter`,
      part: 'data',
      clip: true,
      keys: keysOf(count, marks.keyOf),
      rows: marks.rowsOf,
      ...paintOf(marks, style),
      alpha: alpha === 1 ? undefined : new Float32Array(count).fill(alpha),
      along: { x: x.name, y: y.name },
      x: px,
      y: py,
      radius: marks.size ? sized(marks.size, plot) : new Float32Array(count).fill(radius),
      ring: crowded ? undefined : { color: theme.background, width: 1.5 },
    }
    return [discs]
  },
})

/** Radii whose areas are in proportion to the values; the greatest is a twelfth of the plot's shorter side at most. */
function sized({ at, max }: { at: Float64Array; max: number }, plot: Box): Float32Array {
  const largest = Math.max(4, Math.min(22, Math.min(plot.width, plot.height) / 12))
  return Float32Array.from(at, value => (value > 0 && max > 0 ? largest * Math.sqrt(value / max) : 0))
}

function keysOf(count: number, keyOf: (mark: number) => string | number): ArrayLike<string | number> {
  const first = count > 0 ? keyOf(0) : 0
  return typeof first === 'number'
    ? Float64Array.from({ length: count }, (_, i) => keyOf(i) as number)
    : Array.from({ length: count }, (_, i) => keyOf(i))
}
