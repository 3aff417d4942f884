import type { Batch, Keys } from '../scene/scene.ts'

/** Where a key stood, in pixels: the value end of a bar, the middle of a point, the vertex of a line. */
export type Places = Map<string | number, { x: number; y: number }>

/** Where the keyed data shapes of these batches stand. */
export function placesOf(batches: readonly Batch[]): Places {
  const places: Places = new Map()
  for (const batch of batches) {
    if (batch.part !== 'data') continue
    const { keys } = batch
    for (let i = 0; i < keys.length; i++) {
      if (batch.kind === 'rects') {
        const side = batch.round[i]
        const lying = side === 2 || side === 4
        places.set(keys[i], {
          x: lying ? batch.x[i] + (side === 2 ? batch.width[i] : 0) : batch.x[i] + batch.width[i] / 2,
          y: lying ? batch.y[i] + batch.height[i] / 2 : batch.y[i] + (side === 3 ? batch.height[i] : 0),
        })
      } else if (batch.kind === 'wedges') {
        const angle = (batch.from[i] + batch.to[i]) / 2
        const reach = (batch.inner[i] + batch.outer[i]) / 2
        places.set(keys[i], {
          x: batch.x[i] + Math.sin(angle) * reach,
          y: batch.y[i] - Math.cos(angle) * reach,
        })
      } else if (batch.kind === 'areas') {
        if (i < batch.x.length) places.set(keys[i], { x: batch.x[i], y: batch.top[i] })
      } else if (batch.kind === 'discs' || batch.kind === 'lines')
        places.set(keys[i], { x: batch.x[i], y: batch.y[i] })
    }
  }
  return places
}

/** For each key of `keys`, its index in `others`, or -1. */
export function matches(keys: Keys, others: Keys): Int32Array {
  const out = new Int32Array(keys.length).fill(-1)
  // Appending leaves all keys where they were; then there is nothing to look up.
  let same = 0
  while (same < keys.length && same < others.length && keys[same] === others[same]) {
    out[same] = same
    same++
  }
  if (same === keys.length) return out
  const index = new Map<string | number, number>()
  for (let i = same; i < others.length; i++) index.set(others[i], i)
  for (let i = same; i < keys.length; i++) out[i] = index.get(keys[i]) ?? -1
  return out
}

/** The places in a list of numbers, -1 for none, that rise in the longest run: what keeps its order. */
export function longestInOrder(numbers: ArrayLike<number>): Set<number> {
  const runs: number[][] = []
  let best: number[] = []
  for (let i = 0; i < numbers.length; i++) {
    if (numbers[i] < 0) continue
    const before = runs.filter(run => numbers[run[run.length - 1]] < numbers[i])
    const run = [...before.reduce((a, b) => (b.length > a.length ? b : a), []), i]
    runs.push(run)
    if (run.length > best.length) best = run
  }
  return new Set(best)
}
