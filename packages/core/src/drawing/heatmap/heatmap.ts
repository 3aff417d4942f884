import { kind } from '../../describe/kind.ts'
import type { Positions } from '../../describe/model.ts'
import type { PositionScale } from '../../scale/scale.ts'
import type { Rects } from '../../scene/scene.ts'
import { leastStep } from '../least-step.ts'
import { alphaOf, paintOf } from '../paint-of.ts'

/** Pixels between neighbouring cells; cells smaller than six times this touch. */
const GAP = 1

/** A cell for each crossing of x and y, coloured by a value. */
export const heatmap = kind({
  name: 'heatmap',
  looks: [],
  styles: ['color', 'opacity'],
  roles: { x: 'position', y: 'position', color: 'number', series: 'category' },
  swatch: 'rect',
  broad: true,
  cells: true,
  reads: 'cell',
  draw({ id, marks, x, y, style, density }) {
    const across = extents(marks.x, x, density)
    const up = extents(marks.y, y, density)
    const rects: Rects = {
      kind: 'rects',
      id: `${id}/heatmap`,
      part: 'data',
      clip: true,
      keys: Array.from({ length: marks.length }, (_, i) => marks.keyOf(i)),
      rows: marks.rowsOf,
      ...paintOf(marks, style),
      alpha: alphaOf(style.opacity ?? 1, marks.length),
      along: { x: x.name, y: y.name },
      x: across.start,
      y: up.start,
      width: across.length,
      height: up.length,
      round: new Uint8Array(marks.length),
      radius: 0,
    }
    return [rects]
  },
})

/** Where each cell begins and how long it is, on whole device pixels so that gaps are even. */
function extents(
  places: Positions,
  scale: PositionScale,
  density: number,
): { start: Float32Array; length: Float32Array } {
  const count = places.at.length
  const start = new Float32Array(count)
  const length = new Float32Array(count)
  const half = places.from ? 0 : leastStep(places.at) / 2
  const snap = (pixel: number) => Math.round(pixel * density) / density
  for (let i = 0; i < count; i++) {
    const a = snap(scale.map(places.from ? places.from[i] : places.at[i] - half))
    const b = snap(scale.map(places.to ? places.to[i] : places.at[i] + half))
    const whole = Math.abs(b - a)
    const gap = whole >= GAP * 6 ? GAP : 0
    start[i] = Math.min(a, b)
    length[i] = Math.max(whole - gap, 1 / density)
  }
  return { start, length }
}
