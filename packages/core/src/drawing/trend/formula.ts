import type { Positions } from '../../describe/model.ts'
import { numberFormat } from '../../scale/intl-numbers.ts'
import { LENGTH } from '../../table/cells/calendar.ts'
import type { Curve } from './curve.ts'

const POWERS = ['', '', '²', '³', '⁴', '⁵', '⁶', '⁷', '⁸', '⁹', '¹⁰']

/** A unit of time by which a curve over time is told. */
export interface TimeStep {
  name: 'minute' | 'hour' | 'day' | 'week' | 'month' | 'year'
  /** Milliseconds. */
  length: number
}

/** The unit in which change over these times is best told: that of their buckets, else one that the span has many of. */
export function timeStepOf({ from, to, at }: Positions, span: number): TimeStep {
  const room = from && to && at.length > 0 ? to[0] - from[0] : span / 12
  const steps = (['minute', 'hour', 'day', 'week', 'month', 'year'] as const).map(name => ({
    name,
    length: LENGTH[name],
  }))
  return steps.filter(step => step.length <= room * 1.1).at(-1) ?? steps[0]
}

/** A stretch over which a formula must give the curve again. */
export interface FormulaRange {
  min: number
  max: number
}

/** Of the curve's height over its range, a formula may be off by this share: less than can be seen. */
const CLOSE = 1e-3
const MOST_DIGITS = 12

/** A curve in words: its formula over numbers, its pace over time, and how much of the spread it explains. */
export function formulaText(
  curve: Curve,
  step: TimeStep | undefined,
  locale: string,
  range?: FormulaRange,
): string {
  const { formula, rSquared } = curve
  if (!formula) return ''
  const digits = range ? digitsFor(curve, formula, range) : 3
  const write = (value: number) => {
    const size = Math.abs(value)
    const notation = size > 0 && (size < 1e-4 || size >= 1e7) ? 'scientific' : 'standard'
    return numberFormat(locale, { maximumSignificantDigits: digits, notation }).format(value)
  }
  const signed = (value: number) => `${value < 0 ? '−' : '+'}${write(Math.abs(value))}`
  const explained = `R² ${shareExplained(rSquared, locale)}`
  if (step) {
    if (formula.kind === 'exponential') {
      const growth = Math.expm1(formula.rate * step.length)
      const percent = numberFormat(locale, {
        style: 'percent',
        maximumSignificantDigits: 2,
        signDisplay: 'always',
      })
      return `${percent.format(growth)} per ${step.name}, ${explained}`
    }
    if (formula.kind === 'polynomial' && formula.coefficients.length <= 2) {
      const pace = (formula.coefficients[1] ?? 0) * step.length
      const brief = numberFormat(locale, { maximumSignificantDigits: 3 }).format(Math.abs(pace))
      return `${pace < 0 ? '−' : '+'}${brief} per ${step.name}, ${explained}`
    }
    return explained
  }
  if (formula.kind !== 'polynomial') {
    const { kind, start, rate } = formula
    if (kind === 'power') return `y = ${write(start)} · x^${write(rate)}, ${explained}`
    return kind === 'log'
      ? `y = ${write(start)} ${spaced(signed(rate))} ln x, ${explained}`
      : `y = ${write(start)} · ${write(Math.exp(rate))}ˣ, ${explained}`
  }
  const terms = formula.coefficients.map((factor, power) => {
    const variable = power === 0 ? '' : ` x${POWERS[power]}`
    return power === 0 ? write(factor) : `${spaced(signed(factor))}${variable}`
  })
  return `y = ${terms.join(' ')}, ${explained}`
}

/** How many digits of its numbers give the curve again over its range, at least three. */
function digitsFor(curve: Curve, formula: NonNullable<Curve['formula']>, { min, max }: FormulaRange): number {
  const places = Array.from({ length: 25 }, (_, i) => min + ((max - min) * i) / 24)
  const heights = places.map(curve.at)
  const height = Math.max(...heights) - Math.min(...heights)
  const near = CLOSE * (height || Math.abs(heights[0]) || 1)
  for (let digits = 3; digits < MOST_DIGITS; digits++) {
    const rounded = (value: number) => Number(value.toPrecision(digits))
    const at = (x: number) =>
      formula.kind === 'polynomial'
        ? formula.coefficients.reduceRight((sum, factor) => sum * x + rounded(factor), 0)
        : formula.kind === 'log'
          ? rounded(formula.start) + rounded(formula.rate) * Math.log(x)
          : formula.kind === 'power'
            ? rounded(formula.start) * x ** rounded(formula.rate)
            : rounded(formula.start) * rounded(Math.exp(formula.rate)) ** x
    if (places.every((x, i) => !(Math.abs(at(x) - heights[i]) > near))) return digits
  }
  return MOST_DIGITS
}

/** Two decimals, and as many more as it takes not to claim that everything is explained. */
function shareExplained(share: number, locale: string): string {
  let digits = 2
  while (digits < MOST_DIGITS && share < 1 && Number(share.toFixed(digits)) === 1) digits++
  return numberFormat(locale, { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(share)
}

const spaced = (text: string) => `${text[0]} ${text.slice(1)}`
