import { tickTexts } from '../scale/number-format.ts'
import { NARROWEST } from '../scale/ticks.ts'
import { inFigures } from '../theme/text-width.ts'
import { type AxisContext, type AxisLayout, LABEL_GAP } from './axis-parts.ts'

/** Steps for aligned scales: a little more choice than for free ones, since the number of ticks is given. */
const LEADS = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10]

/**
 * An axis whose ticks fall exactly on the gridlines of another: it has as many steps, all of one neat size, and zero
 * stands on zero where both show it and have room around it. Undefined where the other has no even ticks, or ends are fixed by hand.
 */
export function alignedAxis(context: AxisContext, base: AxisLayout): AxisLayout | undefined {
  const { input, level, make, font, measure } = context
  const { ticks: lines } = base
  const intervals = lines.length - 1
  if (base.scale.kind.name !== 'linear' || input.kind.name !== 'linear' || intervals < 1) return undefined
  const { min, max } = input
  const zeroAt = lines.findIndex(value => Math.abs(value) < Math.abs(lines[1] - lines[0]) * 1e-9)
  // Zero stands on zero only where the other axis has room on the sides of it that are needed here.
  const roomy = (min >= 0 || zeroAt > 0) && (max <= 0 || zeroAt < intervals)
  const anchored = zeroAt >= 0 && min <= 0 && max >= 0 && roomy
  const found = smallestStep(min, max, intervals, anchored ? zeroAt : undefined)
  const values = lines.map((_, i) => Number(((found.start + i) * found.step).toPrecision(14)))
  // The base's ends may lie beyond its outermost ticks; this scale then reaches as far.
  const valueAt = (other: number) =>
    values[0] + ((other - lines[0]) / (lines[intervals] - lines[0])) * (values[intervals] - values[0])
  const scale = make(valueAt(base.scale.domain[0]), valueAt(base.scale.domain[1]))
  const labels = tickTexts(values, input.look)
  return {
    scale,
    ticks: values,
    labelAt: values,
    minor: [],
    labels: labels.map(text => [text]),
    pictures: [],
    larger: [],
    turn: 0,
    thickness:
      LABEL_GAP + (level ? font.size : Math.max(0, ...labels.map(text => measure(inFigures(text), font)))),
  }
}

/** The smallest neat step at which so many intervals cover the data; `zeroAt`: the tick that must be zero. */
function smallestStep(
  min: number,
  max: number,
  intervals: number,
  zeroAt: number | undefined,
): { step: number; start: number } {
  const rough = Math.max(NARROWEST, (max - min || Math.abs(max) || 1) / intervals)
  for (let power = Math.floor(Math.log10(rough)) - 1; power <= 308; power++) {
    for (const lead of LEADS) {
      const step = lead * 10 ** power
      if (step < rough * (1 - 1e-9)) continue
      const start = zeroAt === undefined ? Math.floor(min / step + 1e-9) : -zeroAt
      if (start * step <= min + step * 1e-9 && (start + intervals) * step >= max - step * 1e-9)
        return { step, start }
    }
  }
  return { step: rough, start: Math.floor(min / rough) }
}
