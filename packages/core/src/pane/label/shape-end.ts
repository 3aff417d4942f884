import type { Batch } from '../../scene/scene.ts'

/** Where the value end of a shape stands, in pixels, and how far it reaches around that. */
export function shapeEnd(
  batches: readonly Batch[],
  key: string | number,
): { x: number; y: number; radius: number } | undefined {
  for (const batch of batches) {
    if (batch.part !== 'data' || batch.kind === 'texts') continue
    const i = Array.prototype.indexOf.call(batch.keys, key)
    if (i < 0) continue
    const found = endOf(batch, i)
    if (found && !Number.isNaN(found.x + found.y)) return found
  }
  return undefined
}

/** What points at a bar stops before it, by so many pixels. */
const BEFORE = 2

function endOf(batch: Batch, i: number): { x: number; y: number; radius: number } | undefined {
  switch (batch.kind) {
    case 'rects': {
      const [x, y, width, height] = [batch.x[i], batch.y[i], batch.width[i], batch.height[i]]
      const middle = { x: x + width / 2, y: y + height / 2, radius: 0 }
      const side = batch.round[i]
      if (side === 1) return { ...middle, y: y - BEFORE }
      if (side === 2) return { ...middle, x: x + width + BEFORE }
      if (side === 3) return { ...middle, y: y + height + BEFORE }
      return side === 4 ? { ...middle, x: x - BEFORE } : middle
    }
    case 'discs':
      return { x: batch.x[i], y: batch.y[i], radius: batch.radius[i] }
    case 'lines':
      return { x: batch.x[i], y: batch.y[i], radius: 2 }
    case 'areas':
      return { x: batch.x[i], y: batch.top[i], radius: 1 }
    default:
      return undefined
  }
}
