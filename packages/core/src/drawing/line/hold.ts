import type { Between, Marks } from '../../describe/model.ts'
import { buildPyramid } from '../../table/cells/pyramid.ts'
import type { Run } from './path.ts'

/**
 * The run as steps: a value holds from its place on (`hold`), from midway before to midway after it (`hold middle`),
 * or up to its place (`hold next`). A bucket's value holds for its whole interval.
 */
export function held(run: Run, marks: Marks, between: Between): Run {
  const count = run.x.length
  const x = new Float64Array(count * 2)
  const y = new Float64Array(count * 2)
  const of = new Int32Array(count * 2)
  const { from, to } = marks.x
  for (let i = 0; i < count; i++) {
    const mark = run.marks ? run.marks[i] : i
    const before = run.x[Math.max(0, i - 1)]
    const after = run.x[Math.min(count - 1, i + 1)]
    const here = run.x[i]
    let start = here
    let end = here
    if (from && to) [start, end] = [from[mark], to[mark]]
    else if (between === 'hold') end = after
    else if (between === 'hold next') start = before
    else [start, end] = [(before + here) / 2, (here + after) / 2]
    x[i * 2] = start
    x[i * 2 + 1] = end
    y[i * 2] = run.y[i]
    y[i * 2 + 1] = run.y[i]
    of[i * 2] = mark
    of[i * 2 + 1] = mark
  }
  return { x, y, marks: of, pyramid: buildPyramid(y) }
}
