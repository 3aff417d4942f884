import type { Positions } from '../../describe/model.ts'
import { numberFormat } from '../../scale/number-format.ts'
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

/** A curve in words: its formula over numbers, its pace over time, and how much of the spread it explains. */
export function formulaText(curve: Curve, step: TimeStep | undefined, locale: string): string {
  const { formula, rSquared } = curve
  if (!formula) return ''
  const write = (value: number) => {
    const size = Math.abs(value)
    const notation = size > 0 && (size < 1e-4 || size >= 1e7) ? 'scientific' : 'standard'
    return numberFormat(locale, { maximumSignificantDigits: 3, notation }).format(value)
  }
  const signed = (value: number) => `${value < 0 ? '−' : '+'}${write(Math.abs(value))}`
  const explained = `R² ${numberFormat(locale, { maximumFractionDigits: 2, minimumFractionDigits: 2 }).format(rSquared)}`
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
    if (formula.kind === 'polynomial' && formula.coefficients.length <= 2)
      return `${signed((formula.coefficients[1] ?? 0) * step.length)} per ${step.name}, ${explained}`
    return explained
  }
  if (formula.kind === 'log')
    return `y = ${write(formula.start)} ${spaced(signed(formula.rate))} ln x, ${explained}`
  if (formula.kind === 'exponential')
    return `y = ${write(formula.start)} · ${write(Math.exp(formula.rate))}ˣ, ${explained}`
  if (formula.kind !== 'polynomial') return explained
  const terms = formula.coefficients.map((factor, power) => {
    const variable = power === 0 ? '' : ` x${POWERS[power]}`
    return power === 0 ? write(factor) : `${spaced(signed(factor))}${variable}`
  })
  return `y = ${terms.join(' ')}, ${explained}`
}

const spaced = (text: string) => `${text[0]} ${text.slice(1)}`
