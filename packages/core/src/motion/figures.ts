import { decimalsOf } from '../scale/number-format.ts'
import type { Figures } from '../scene/scene.ts'
import type { GlideContext } from './blend.ts'

/** Decimals beyond these say nothing about a number that is on its way. */
const MOST_DECIMALS = 6

/** How many decimals a number on its way from one to another has: no more than those at both ends. */
export const decimalsBetween = (start: number, end: number): number =>
  Math.min(MOST_DECIMALS, Math.max(decimalsOf([start]), decimalsOf([end])))

/** A number with so many decimals; as it is where it is too large to be rounded. */
export function roundedTo(value: number, decimals: number): number {
  const power = 10 ** decimals
  const rounded = Math.round(value * power) / power
  return Number.isFinite(rounded) ? rounded : value
}

/** Writes the numbers of a text on their way from others: with no more decimals than the numbers at both ends have. */
export function figuresBetween(
  before: Figures | undefined,
  after: Figures,
  says: GlideContext['says'],
): (share: number, first?: number) => string {
  const { write } = says === 'before' && before?.values.length === after.values.length ? before : after
  const starts = before?.values.length === after.values.length ? before.values : after.values
  const digits = after.values.map((value, i) => decimalsBetween(starts[i], value))
  return (share, first) =>
    write(
      after.values.map((value, i) => {
        const now = i === 0 && first !== undefined ? first : starts[i] + (value - starts[i]) * share
        return roundedTo(now, digits[i])
      }),
    )
}
