import type { PositionScale } from '../../scale/scale.ts'
import type { Box } from '../../scene/scene.ts'
import { extremes, type Pyramid } from '../../table/cells/pyramid.ts'
import { firstAbove, firstAtLeast } from '../../table/cells/search.ts'

/** One line's vertices in data units, in the order in which they are joined. */
export interface Run {
  x: Float64Array
  y: Float64Array
  /** The mark of each vertex; undefined where vertex i is mark i. */
  marks: Int32Array | undefined
  /** The same, where it takes looking up. */
  markOf?: (vertex: number) => number
  pyramid: Pyramid
}

/** Collects vertices without knowing beforehand how many there will be. */
export class VertexList {
  x: Float64Array
  y: Float64Array
  mark: Int32Array
  length = 0

  constructor(room: number) {
    this.x = new Float64Array(room)
    this.y = new Float64Array(room)
    this.mark = new Int32Array(room)
  }

  push(x: number, y: number, mark: number): void {
    if (this.length === this.x.length) this.grow()
    this.x[this.length] = x
    this.y[this.length] = y
    this.mark[this.length++] = mark
  }

  private grow(): void {
    const room = Math.max(64, this.x.length * 2)
    const wider = <A extends Float64Array | Int32Array>(from: A, to: A): A => {
      to.set(from)
      return to
    }
    this.x = wider(this.x, new Float64Array(room))
    this.y = wider(this.y, new Float64Array(room))
    this.mark = wider(this.mark, new Int32Array(room))
  }
}

/**
 * The vertices that show a run in the window. More rows than pixels are drawn as first, least, greatest and last
 * of each pixel column: the same picture as all rows, for no more work than the plot is wide.
 * Returns whether vertices were left out.
 */
export function visiblePath(
  run: Run,
  x: PositionScale,
  plot: Box,
  density: number,
  into: VertexList,
): boolean {
  const { x: xs, y: ys, marks, pyramid } = run
  const left = x.invert(x.range[0] <= x.range[1] ? plot.x : plot.x + plot.width)
  const right = x.invert(x.range[0] <= x.range[1] ? plot.x + plot.width : plot.x)
  const low = Math.min(left, right)
  const high = Math.max(left, right)
  // One place beyond each edge, so that lines run out of the picture rather than end in it; where a line rises there at
  // once, all of its vertices.
  const first = Math.max(0, firstAtLeast(xs, low) - 1)
  const edge = firstAtLeast(xs, high, first)
  const last = edge === xs.length ? edge : firstAbove(xs, xs[edge], edge)
  const columns = Math.max(1, Math.round(plot.width * density))
  const markOf = run.markOf ?? ((i: number) => (marks ? marks[i] : i))
  if (last - first <= columns * 4) {
    for (let i = first; i < last; i++) into.push(xs[i], ys[i], markOf(i))
    return false
  }
  const rising = x.range[0] <= x.range[1]
  let from = first
  for (let column = 1; column <= columns + 1 && from < last; column++) {
    const pixel = rising
      ? plot.x + (column * plot.width) / columns
      : plot.x + plot.width - (column * plot.width) / columns
    const to = column > columns ? last : Math.min(last, gallop(xs, x.invert(pixel), from, last))
    if (to <= from) continue
    if (to - from <= 4) for (let i = from; i < to; i++) into.push(xs[i], ys[i], markOf(i))
    else {
      const { min, max } = extremes(pyramid, from + 1, to - 1)
      into.push(xs[from], ys[from], markOf(from))
      const middle = (xs[from] + xs[to - 1]) / 2
      if (min <= max) {
        // The nearer extreme first, which keeps the strokes short.
        const fallsFirst = Math.abs(ys[from] - min) < Math.abs(ys[from] - max)
        into.push(middle, fallsFirst ? min : max, -1)
        into.push(middle, fallsFirst ? max : min, -1)
      } else into.push(middle, Number.NaN, -1)
      into.push(xs[to - 1], ys[to - 1], markOf(to - 1))
    }
    from = to
  }
  return true
}

/** Like firstAtLeast, but quick where the answer lies near `from`. */
function gallop(values: Float64Array, value: number, from: number, end: number): number {
  let step = 64
  let low = from
  while (low + step < end && values[low + step] < value) {
    low += step
    step *= 2
  }
  return firstAtLeast(values, value, low, Math.min(end, low + step + 1))
}
