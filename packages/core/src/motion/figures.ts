import { decimalsOf } from '../scale/number-format.ts'
import type { Figures } from '../scene/scene.ts'
import type { GlideContext } from './blend.ts'

/** Decimals beyond these say nothing about a number that is on its way. */
const MOST_DECIMALS = 6

/** How many decimals a number needs. */
const decimals = (value: number): number => Math.min(MOST_DECIMALS, decimalsOf([value]))

/** Writes the numbers of a text on their way from others: with no more decimals than the numbers at both ends have. */
export function figuresBetween(
  before: Figures | undefined,
  after: Figures,
  says: GlideContext['says'],
): (share: number, first?: number) => string {
  const { write } = says === 'before' && before?.values.length === after.values.length ? before : after
  const starts = before?.values.length === after.values.length ? before.values : after.values
  const digits = after.values.map((value, i) => Math.max(decimals(value), decimals(starts[i])))
  return (share, first) =>
    write(
      after.values.map((value, i) => {
        const now = i === 0 && first !== undefined ? first : starts[i] + (value - starts[i]) * share
        const power = 10 ** digits[i]
        const rounded = Math.round(now * power) / power
        return Number.isFinite(rounded) ? rounded : now
      }),
    )
}
