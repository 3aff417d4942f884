import type { Finding } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import type { BoundDrawing } from './model.ts'

/** More slices than these cannot be compared. */
const MOST_SLICES = 10

/** What a person would regret about a pie: values that have no slice, or too many of them. */
export function partFindings({ drawing, marks }: BoundDrawing): Finding[] {
  const findings: Finding[] = []
  if (!drawing.kind.parts || marks.length === 0) return findings
  const path = partPath(drawing.path, 'y')
  let below = 0
  let slices = 0
  for (const value of marks.y.at) {
    if (value < 0) below++
    if (value > 0) slices++
  }
  if (below > 0)
    findings.push({
      code: 'negative-slice',
      message: `${below === 1 ? 'One value is' : `${below} values are`} negative and ${below === 1 ? 'has' : 'have'} no slice`,
      remedy: 'Draw bars, which show values on both sides of zero.',
      path,
    })
  if (slices === 0)
    findings.push({
      code: 'nothing-to-share',
      message: 'There is nothing to share out: no value is above zero',
      remedy: 'Draw bars, or choose rows with values above zero.',
      path,
    })
  if (slices > MOST_SLICES)
    findings.push({
      code: 'too-many-slices',
      message: `${slices} slices are too many to be compared`,
      remedy: 'Keep the largest with top and rest, or draw bars.',
      path: drawing.path || 'draw',
    })
  return findings
}
