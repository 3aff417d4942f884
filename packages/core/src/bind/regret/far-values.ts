import type { Positions } from '../../describe/model.ts'
import type { Finding } from '../../finding/error.ts'
import { partPath } from '../../finding/part-path.ts'
import { quoted } from '../../finding/plain-text.ts'
import type { RoleValues } from '../../table/group/shape.ts'
import type { ScaleInput } from '../model.ts'

/** A value so many times as large as the next leaves the others no height to be told apart by. */
const FAR = 20
/** Of fewer values each is seen. */
const FEW = 5

/** Tells of one far value that squeezes all others flat. */
export function farValues(input: ScaleInput): Finding[] {
  for (const { positions, bound, values } of input.uses) {
    if (positions.from && values.meaning.is === 'bins') {
      const found = farBin(
        positions,
        bound.marks[input.role === 'x' ? 'y' : 'x'].at,
        values,
        bound.drawing.path,
        input.role,
      )
      if (found) return [found]
    }
    if (positions.from || input.type !== 'number' || bound.drawing.kind.aside) continue
    let [greatest, next, count] = [0, 0, 0]
    const { at } = positions
    for (let mark = 0; mark < at.length; mark++) {
      const size = Math.abs(at[mark])
      if (size !== size) continue
      count++
      if (size > greatest) [greatest, next] = [size, greatest]
      else if (size > next) next = size
    }
    if (count < FEW || next === 0 || greatest < next * FAR) continue
    const name = values.column?.name ?? input.name
    return [
      {
        code: 'far-value',
        message: `One value of "${name}" is ${Math.floor(greatest / next)} times as large as the next, so the others look alike`,
        remedy: `Set scales.${input.name}.kind to "signed log", or end scales.${input.name}.domain before it.`,
        path: `scales.${input.name}`,
      },
    ]
  }
  return []
}

/** Empty bins between a few far values and the others make this share of the width, and squeeze the others. */
const EMPTY = 0.5

/** Tells of a few values so far beyond the others that most of the bins between them are empty. */
function farBin(
  { from, to }: Positions,
  counts: Float64Array,
  { meaning, column }: RoleValues,
  path: string,
  role: 'x' | 'y',
): Finding | undefined {
  if (!from || !to) return undefined
  const starts = [...new Set(from.filter((_, bin) => counts[bin] > 0))].sort((a, b) => a - b)
  const [first, last] = [starts[0], starts.at(-1)!]
  const width = to[0] - from[0]
  if (meaning.is !== 'bins' || meaning.until !== undefined || starts.length < 3) return undefined
  for (let i = starts.length - 1; i > 0; i--) {
    if (starts[i] - starts[i - 1] - width < (last - first) * EMPTY) continue
    const end = Number((starts[i - 1] + width).toPrecision(12))
    const name = quoted(column?.name ?? meaning.column)
    return {
      code: 'far-value',
      message: `A few values of ${name} lie far beyond the others, so most of the room is left to empty bins`,
      remedy: `Gather them in an open bin, as in ${role}: { bins: ${name}, until: ${end} }.`,
      path: partPath(path, role),
    }
  }
  return undefined
}
