import type { Batch, Rects } from '../scene/scene.ts'
import { shapeEnd } from '../scene/shape-end.ts'
import { placeBefore } from './before.ts'
import type { GlideContext } from './blend.ts'

type Scenes = Pick<GlideContext, 'from' | 'to'>

/** Where the value end of a shape stands, in pixels, and which of how many it is. */
export interface End {
  x: number
  y: number
  index: number
  count: number
}

type Ends = Map<string | number, End>

/** Where the shapes of batches end, by key: bars at their values, points and cells in their middle, lines at a vertex. */
export function endsOf(batches: readonly Batch[]): Ends {
  const ends: Ends = new Map()
  for (const batch of batches) {
    const count = batch.keys.length
    for (let i = 0; i < count; i++) {
      const place = shapeEnd(batch, i)
      if (place && place.x === place.x && place.y === place.y)
        ends.set(batch.keys[i], { ...place, index: i, count })
    }
  }
  return ends
}

/** Where those shapes start from when they glide: where their key ended before, else on their baseline. */
export function startsOf(batches: readonly Batch[], before: Ends, context: Scenes): Ends {
  const starts: Ends = new Map()
  for (const batch of batches)
    for (let i = 0; i < batch.keys.length; i++) {
      const known = before.get(batch.keys[i])
      const place = known ?? (batch.kind === 'rects' ? baseOf(batch, i, context) : undefined)
      if (place) starts.set(batch.keys[i], { x: place.x, y: place.y, index: i, count: batch.keys.length })
    }
  return starts
}

function baseOf(batch: Rects, i: number, scenes: Scenes): { x: number; y: number } | undefined {
  const base = footOf(batch, i)
  const lying = batch.round[i] === 2 || batch.round[i] === 4
  return (
    base && {
      x: lying ? placeBefore(batch, base.x, 'x', scenes) : base.x,
      y: lying ? base.y : placeBefore(batch, base.y, 'y', scenes),
    }
  )
}

function footOf(batch: Rects, i: number): { x: number; y: number } | undefined {
  const [x, y, width, height] = [batch.x[i], batch.y[i], batch.width[i], batch.height[i]]
  switch (batch.round[i]) {
    case 1:
      return { x: x + width / 2, y: y + height }
    case 2:
      return { x, y: y + height / 2 }
    case 3:
      return { x: x + width / 2, y }
    case 4:
      return { x: x + width, y: y + height / 2 }
    default:
      return undefined
  }
}
