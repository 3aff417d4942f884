import type { Format } from '../table/cells/options.ts'
import { numberFormat } from './intl-numbers.ts'
import { largestOf, powersRaised, type Reach, reachOf, shortUnit } from './short-form.ts'

/** How a column's numbers are to be written. */
export interface NumberLook {
  format?: Format
  locale: string
  /** Shares and ratios: 0.25 is 25 %. */
  percent?: boolean
  /** Counts: no decimals, ever. */
  whole?: boolean
  /** Without grouping of thousands: years. */
  plain?: boolean
  /** Follows the number, except where it stands for all of them. */
  unit?: string
  /** The ends of the scale that the numbers are read on, so that its ticks and their labels have one form. */
  reach?: Reach
  /** Whether each number has a unit of its own: on scales of ratios. */
  each?: boolean
}

const OWN_DECIMALS = [
  'maximumFractionDigits',
  'minimumFractionDigits',
  'maximumSignificantDigits',
  'minimumSignificantDigits',
] as const

/** What a look says of how numbers are written. */
export const givenOptions = ({ format }: Pick<NumberLook, 'format'>): Intl.NumberFormatOptions =>
  (typeof format === 'object' ? format : {}) as Intl.NumberFormatOptions

/** Labels of ticks: alike in decimals, with just as many as tell them apart, and in one unit from 100,000. */
export const tickTexts = (values: readonly number[], look: NumberLook): string[] => {
  const write = tickWriter(values, look)
  return values.map(value => write(value))
}

/** Writes any number as the ticks of these values are written. */
export const tickWriter = (values: readonly number[], look: NumberLook): ((value: number) => string) =>
  writerFor(values, look, Number.POSITIVE_INFINITY)

/** Three digits say enough where a shape shows the value as well; axis and tooltip have the rest. */
export const briefWriter = (values: readonly number[], look: NumberLook): ((value: number) => string) =>
  writerFor(values, look, 3)

/** One value as briefly as labels are. */
export const briefText = (value: number, look: NumberLook): string =>
  Number.isFinite(value) ? briefWriter([value], look)(value) : '–'

/** Writes numbers in one form: as many decimals as tell these values apart, but no more figures for the largest than `most`. */
function writerFor(values: readonly number[], look: NumberLook, most: number): (value: number) => string {
  if (typeof look.format === 'function') return look.format
  const given = givenOptions(look)
  const { locale } = look
  if (OWN_DECIMALS.some(option => given[option] !== undefined))
    return value => powersRaised(numberFormat(locale, given).format(value))
  const percent = look.percent && given.style === undefined
  const base: Intl.NumberFormatOptions = percent ? { style: 'percent', ...given } : { ...given }
  if (look.plain) base.useGrouping ??= false
  if (base.style === 'currency') base.currencyDisplay ??= 'narrowSymbol'
  const times = base.style === 'percent' ? 100 : 1
  const scaled = values.map(value => value * times)
  const own = reachOf(scaled)
  const reach = look.reach ? { low: look.reach.low * times, high: look.reach.high * times } : own
  if (base.notation !== undefined || look.each) return eachWriter(own, look, base, most)
  const unit = times === 1 ? shortUnit(reach, locale, base) : undefined
  const divisor = unit?.divisor ?? 1
  const largest = largestOf(reach) / divisor
  const exact = decimalsOf(unit ? scaled.map(value => value / divisor) : scaled)
  const allowed =
    most - 1 - (largest > 0 && Number.isFinite(largest) ? Math.floor(Math.log10(largest) + 1e-9) : 0)
  const wanted = look.whole && !unit ? 0 : Math.min(exact, Math.max(0, Math.min(20, allowed)))
  // Money has all of its minor units, or none.
  const places =
    wanted > 0 && !unit && base.style === 'currency' ? minorOf(locale, base, wanted, most) : wanted
  const decimals = { minimumFractionDigits: places, maximumFractionDigits: places }
  // Where the unit is written around it, a number is a plain one.
  const format = numberFormat(
    locale,
    unit ? { ...decimals, useGrouping: base.useGrouping } : { ...base, ...decimals },
  )
  const zero = unit && numberFormat(locale, { ...base, maximumFractionDigits: 0 })
  const least = 10 ** -places * divisor
  const write = (value: number) =>
    unit ? unit.write(format.format(Math.abs(value / divisor)), value < 0) : format.format(value + 0)
  return value => {
    if (value === 0 && zero) return zero.format(0)
    // What is not nothing never reads as nothing.
    if (value !== 0 && Math.abs(value * times) < least / 2)
      return value > 0 ? `<${write(least / times)}` : `>${write(-least / times)}`
    return write(value)
  }
}

/** The decimals of a currency's minor unit; more where ticks need them to be told apart. */
function minorOf(locale: string, base: Intl.NumberFormatOptions, wanted: number, most: number): number {
  const minor = new Intl.NumberFormat(locale, base).resolvedOptions().maximumFractionDigits!
  return Number.isFinite(most) ? minor : Math.max(minor, wanted)
}

/** Writes each number in a unit of its own: where they are compared by ratio, or where it is asked for. */
function eachWriter(
  reach: Reach,
  { locale, whole }: NumberLook,
  base: Intl.NumberFormatOptions,
  most: number,
): (value: number) => string {
  const largest = largestOf(reach)
  if (base.notation !== undefined) {
    const format = numberFormat(locale, { ...base, maximumSignificantDigits: Math.min(most, 6) })
    return value => powersRaised(format.format(value + 0))
  }
  return value => {
    const size = Math.abs(value)
    const notation =
      size === 0
        ? undefined
        : largest >= 1e5 && size >= 1e3 && size < 1e15
          ? 'compact'
          : size >= 1e15 || size < 1e-5
            ? 'scientific'
            : undefined
    const digits =
      whole && !notation ? { maximumFractionDigits: 0 } : { maximumSignificantDigits: Math.min(most, 6) }
    return powersRaised(numberFormat(locale, { ...base, notation, ...digits }).format(value + 0))
  }
}

/** The least distance between neighbours; Infinity for a single value. */
function leastStep(values: readonly number[]): number {
  let least = Number.POSITIVE_INFINITY
  for (let i = 1; i < values.length; i++) {
    const step = Math.abs(values[i] - values[i - 1])
    if (step > 0 && step < least) least = step
  }
  return least
}

/** How many decimals write all values exactly, to a thousandth of the least step between them; at most 20. */
export function decimalsOf(values: readonly number[]): number {
  const step = leastStep(values)
  const close = Number.isFinite(step) ? step * 1e-3 : Math.max(1e-12, Math.abs(values[0] ?? 1) * 1e-9)
  for (let digits = 0; digits < 20; digits++) {
    const power = 10 ** digits
    if (values.every(value => Math.abs(Math.round(value * power) / power - value) <= close)) return digits
  }
  return 20
}

/** A single value, exact enough to be read out: in tooltips, labels and tables. */
export function valueText(value: number, look: NumberLook): string {
  if (!Number.isFinite(value)) return '–'
  if (typeof look.format === 'function') return look.format(value)
  const given = givenOptions(look)
  const base: Intl.NumberFormatOptions =
    look.percent && given.style === undefined
      ? { style: 'percent', maximumFractionDigits: 1, ...given }
      : { ...given }
  if (look.plain) base.useGrouping ??= false
  if (!OWN_DECIMALS.some(option => base[option] !== undefined) && base.notation === undefined) {
    const size = Math.abs(value)
    if (base.style === 'currency') {
      base.currencyDisplay ??= 'narrowSymbol'
      if (size >= 1000) base.maximumFractionDigits = 0
    } else if (size > 0 && (size < 1e-4 || size >= 1e15)) {
      base.notation = 'scientific'
      base.maximumFractionDigits = 3
    } else if (look.whole || size >= 1000) base.maximumFractionDigits = 0
    else base.maximumSignificantDigits = 4
  }
  // A zero has no sign.
  const text = powersRaised(numberFormat(look.locale, base).format(value + 0))
  return look.unit ? `${text} ${look.unit}` : text
}
