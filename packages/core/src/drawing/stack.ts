import type { Marks, Positions } from '../describe/model.ts'
import { remember } from '../describe/remember.ts'

/** Where each mark of a stack begins and ends, in data units. */
export interface Stack {
  from: Float64Array
  to: Float64Array
  /** 1 for the outermost mark of its stack. */
  outer: Uint8Array
}

type Piles = Map<number, { sum: number; last: number }>

/** Values of one place on top of each other, those below zero downwards; series order from the baseline outwards. */
export function stacked(marks: Marks, values: Positions, places: Positions, share: boolean): Stack {
  const count = marks.length
  const from = new Float64Array(count)
  const to = new Float64Array(count)
  const outer = new Uint8Array(count)
  const order = Array.from({ length: count }, (_, i) => i)
  const { seriesOf } = marks
  if (seriesOf) order.sort((a, b) => seriesOf[a] - seriesOf[b])
  const up = new Map<number, { sum: number; last: number }>()
  const down = new Map<number, { sum: number; last: number }>()
  for (const i of order) {
    const value = values.at[i]
    // What has no place stands on nothing.
    if (Number.isNaN(value) || Number.isNaN(places.at[i])) continue
    const piles = value < 0 ? down : up
    const pile = piles.get(places.at[i]) ?? { sum: 0, last: -1 }
    from[i] = pile.sum
    pile.sum += value
    to[i] = pile.sum
    if (value !== 0) pile.last = i
    piles.set(places.at[i], pile)
  }
  if (share) toShares(places, from, to, up, down)
  for (const piles of [up, down]) for (const { last } of piles.values()) if (last >= 0) outer[last] = 1
  return { from, to, outer }
}

/** Every stack is stretched to the whole: the sums of both directions together are 1. */
function toShares(places: Positions, from: Float64Array, to: Float64Array, up: Piles, down: Piles): void {
  for (let i = 0; i < from.length; i++) {
    const total = (up.get(places.at[i])?.sum ?? 0) - (down.get(places.at[i])?.sum ?? 0)
    from[i] = total === 0 ? 0 : from[i] / total
    to[i] = total === 0 ? 0 : to[i] / total
  }
}

/** The stack of these marks, worked out once for all frames in which they stay the same. */
export function rememberedStack(
  memory: Map<string, unknown>,
  marks: Marks,
  values: Positions,
  places: Positions,
  share: boolean,
): Stack {
  return remember(memory, share ? 'stack of shares' : 'stack', () => stacked(marks, values, places, share))
}
