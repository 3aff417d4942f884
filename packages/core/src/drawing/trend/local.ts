import type { Curve } from './curve.ts'

/** The share of all points that has a say at each place. */
const SHARE = 0.5
/** Places at which the curve is worked out; between them it is straight. */
const PLACES = 80

/**
 * A curve that follows the points: at each place a straight line fitted to the nearest half of them, the nearer the
 * weightier (W. S. Cleveland, "Robust locally weighted regression and smoothing scatterplots", 1979, without his
 * repeated rounds against outliers).
 */
export function localCurve(x: readonly number[], y: readonly number[]): Curve | undefined {
  if (x.length < 2) return undefined
  const order = x.map((_, i) => i).sort((a, b) => x[a] - x[b])
  const xs = order.map(i => x[i])
  const ys = order.map(i => y[i])
  const count = xs.length
  const near = Math.max(2, Math.min(count, Math.ceil(count * SHARE)))
  const [low, high] = [xs[0], xs[count - 1]]
  const places = Array.from({ length: PLACES + 1 }, (_, i) => low + ((high - low) * i) / PLACES)
  let first = 0
  const heights = places.map(place => {
    // The window of nearest points only ever moves to the right.
    while (first + near < count && xs[first + near] - place < place - xs[first]) first++
    return heightAt(place, xs, ys, first, first + near)
  })
  return {
    at(value) {
      if (!(high > low)) return heights[0]
      const at = ((value - low) / (high - low)) * PLACES
      const i = Math.max(0, Math.min(PLACES - 1, Math.floor(at)))
      return heights[i] + (heights[i + 1] - heights[i]) * (at - i)
    },
    reach: () => [Number.NaN, Number.NaN],
    rSquared: Number.NaN,
    formula: undefined,
  }
}

function heightAt(place: number, xs: number[], ys: number[], from: number, to: number): number {
  // A little more than the farthest distance, so that the farthest point still counts.
  const widest = Math.max(place - xs[from], xs[to - 1] - place) * 1.001 || 1
  let [w, wx, wy, wxx, wxy] = [0, 0, 0, 0, 0]
  for (let i = from; i < to; i++) {
    const far = Math.abs(xs[i] - place) / widest
    const weight = (1 - far ** 3) ** 3
    const dx = xs[i] - place
    w += weight
    wx += weight * dx
    wy += weight * ys[i]
    wxx += weight * dx * dx
    wxy += weight * dx * ys[i]
  }
  const spread = w * wxx - wx * wx
  return spread > 1e-12 * w * wxx ? (wxx * wy - wx * wxy) / spread : wy / w
}
