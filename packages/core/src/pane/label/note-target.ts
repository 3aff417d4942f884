import type { Batch } from '../../scene/scene.ts'
import { shapeEnd } from '../../scene/shape-end.ts'

/** What an arrow points at, in pixels: a place, and how far a shape reaches around it. */
export interface PointTarget {
  x: number
  y: number
  radius: number
}

/** The end of the shape with a key, as an arrow points at it. */
export function pointAtShape(batches: readonly Batch[], key: string | number): PointTarget | undefined {
  for (const batch of batches) {
    if (batch.part !== 'data' || batch.kind === 'texts' || batch.kind === 'segments') continue
    const i = Array.prototype.indexOf.call(batch.keys, key)
    const end =
      i < 0 ? undefined : batch.kind === 'areas' ? { x: batch.x[i], y: batch.top[i] } : shapeEnd(batch, i)
    if (end && !Number.isNaN(end.x + end.y)) return around(batch, i, end)
  }
  return undefined
}

/** What points at a bar stops before it, by so many pixels. */
const BEFORE = 2

function around(batch: Batch, i: number, { x, y }: { x: number; y: number }): PointTarget {
  if (batch.kind === 'discs') return { x, y, radius: batch.radius[i] }
  if (batch.kind !== 'rects') return { x, y, radius: batch.kind === 'lines' ? 2 : 1 }
  const side = batch.round[i]
  const across = side === 2 ? BEFORE : side === 4 ? -BEFORE : 0
  const down = side === 3 ? BEFORE : side === 1 ? -BEFORE : 0
  return { x: x + across, y: y + down, radius: 0 }
}
