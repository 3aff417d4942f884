import type { Span } from '../../table/cells/options.ts'
import { spanLength } from '../../table/live/keep.ts'
import { VertexList } from './path.ts'

/** The distance along x beyond which a line breaks. Months, years and days are not all of one length, and none of them breaks a line. */
export const reachOfSpan = (wish: number | Span): number =>
  typeof wish === 'number' ? wish : spanLength(wish) * LONGEST

/** A day with 25 hours, a month with 31 days, and a leap year are longer than the mean by less than this. */
const LONGEST = 1.05

/** Lines with a gap wherever two neighbours are farther apart: silence is no straight line. */
export function broken(
  vertices: VertexList,
  starts: Uint32Array<ArrayBuffer>,
  reach: number,
): { vertices: VertexList; starts: Uint32Array<ArrayBuffer> } {
  const out = new VertexList(vertices.length + 64)
  const from = new Uint32Array(starts.length)
  for (let line = 0; line < starts.length - 1; line++) {
    for (let i = starts[line]; i < starts[line + 1]; i++) {
      if (i > starts[line] && vertices.x[i] - vertices.x[i - 1] > reach)
        out.push((vertices.x[i] + vertices.x[i - 1]) / 2, Number.NaN, GAP)
      out.push(vertices.x[i], vertices.y[i], vertices.mark[i])
    }
    from[line + 1] = out.length
  }
  return { vertices: out, starts: from }
}

/** No mark: a gap. */
export const GAP = -1
