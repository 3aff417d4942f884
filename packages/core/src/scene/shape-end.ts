import type { Batch } from './scene.ts'

/** Where a shape ends, in pixels: a bar at its value, a point or cell in its middle, a line at a vertex, a stroke at its end. */
export function shapeEnd(batch: Batch, i: number): { x: number; y: number } | undefined {
  switch (batch.kind) {
    case 'rects': {
      const [x, y, width, height] = [batch.x[i], batch.y[i], batch.width[i], batch.height[i]]
      const middle = { x: x + width / 2, y: y + height / 2 }
      const side = batch.round[i]
      if (side === 1) return { x: middle.x, y }
      if (side === 2) return { x: x + width, y: middle.y }
      if (side === 3) return { x: middle.x, y: y + height }
      return side === 4 ? { x, y: middle.y } : middle
    }
    case 'discs':
    case 'lines':
      return { x: batch.x[i], y: batch.y[i] }
    case 'segments':
      return { x: batch.x2[i], y: batch.y2[i] }
    default:
      return undefined
  }
}
