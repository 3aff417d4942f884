import type { Discs } from '../../scene/scene.ts'
import { kind } from '../kind.ts'

const RADIUS = 3.5
/** Points are solid as long as they cover no more than this share of the plot. */
const SOLID_COVER = 0.04

/** A disc for each mark; the more there are, the fainter and smaller each, so that overlap shows as density. */
export const scatter = kind({
  name: 'scatter',
  roles: { x: 'position', y: 'position', color: 'category', series: 'category' },
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
      colors: marks.series.map(one => style.color ?? one.color),
      color: marks.seriesOf ?? new Uint16Array(count),
      alpha: alpha === 1 ? undefined : new Float32Array(count).fill(alpha),
      along: { x: x.name, y: y.name },
      x: px,
      y: py,
      radius: new Float32Array(count).fill(radius),
      ring: crowded ? undefined : { color: theme.background, width: 1.5 },
    }
    return [discs]
  },
})

function keysOf(count: number, keyOf: (mark: number) => string | number): ArrayLike<string | number> {
  const first = count > 0 ? keyOf(0) : 0
  return typeof first === 'number'
    ? Float64Array.from({ length: count }, (_, i) => keyOf(i) as number)
    : Array.from({ length: count }, (_, i) => keyOf(i))
}
