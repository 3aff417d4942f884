import { usable } from '../finding/check-format.ts'
import type { Format } from '../table/cells/options.ts'

/** Writes numbers. */
export interface WritesNumbers {
  format(value: number): string
}

/** A writer of its own for a locale and options, where there is one; it may leave single numbers to `Intl`. */
export type OwnWriter = (
  locale: string,
  options: Intl.NumberFormatOptions,
) => ((value: number) => string | undefined) | undefined

let ownWriter: OwnWriter = () => undefined

/** Has numbers written without `Intl` where that is quicker: for commands, whose first use of `Intl` would take long. */
export function writeNumbersBy(writer: OwnWriter): void {
  ownWriter = writer
}

const formats = new Map<string, WritesNumbers>()

/** What `Intl.NumberFormat` writes, kept: making one costs more than a thousand uses. */
export function numberFormat(locale: string, options: Intl.NumberFormatOptions): WritesNumbers {
  const name = `${locale}|${JSON.stringify(options)}`
  let format = formats.get(name)
  if (!format) {
    const own = ownWriter(locale, options)
    let intl: Intl.NumberFormat | undefined
    const byIntl = (value: number) => {
      intl ??= usable(() => new Intl.NumberFormat(locale, options))
      return intl.format(value)
    }
    format = { format: own ? value => own(value) ?? byIntl(value) : byIntl }
    formats.set(name, format)
  }
  return format
}

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

/** Labels of ticks: alike in decimals, with just as many as tell them apart, compact from 100,000. */
export const tickTexts = (values: readonly number[], look: NumberLook): string[] => {
  const write = tickWriter(values, look)
  return values.map(value => write(value))
}

/** Writes any number as the ticks of these values are written. */
export function tickWriter(values: readonly number[], look: NumberLook): (value: number) => string {
  if (typeof look.format === 'function') return look.format
  const given = givenOptions(look)
  if (OWN_DECIMALS.some(option => given[option] !== undefined))
    return value => numberFormat(look.locale, given).format(value)
  const percent = look.percent && given.style === undefined
  const base: Intl.NumberFormatOptions = percent ? { style: 'percent', ...given } : { ...given }
  if (look.plain) base.useGrouping ??= false
  if (base.style === 'currency') base.currencyDisplay ??= 'narrowSymbol'
  const scaled = percent || given.style === 'percent' ? values.map(value => value * 100) : values
  const largest = scaled.reduce((most, value) => Math.max(most, Math.abs(value)), 0)
  const least = leastStep(scaled)
  let shrink = 0
  if (base.notation === undefined) {
    // Near each other and far from zero, numbers must be written out to be told apart.
    if (largest >= 1e15 && least >= largest * 1e-6) base.notation = 'scientific'
    else if (largest >= 1e5 && least >= 100) base.notation = 'compact'
    else if (largest > 0 && largest < 1e-5) base.notation = 'scientific'
  }
  if (base.notation === 'compact') shrink = 10 ** Math.min(12, Math.floor(Math.log10(largest) / 3) * 3)
  else if (base.notation === 'scientific') shrink = 10 ** Math.floor(Math.log10(largest))
  const digits = decimalsOf(shrink > 0 ? scaled.map(value => value / shrink) : scaled)
  const places = look.whole ? 0 : digits
  if (base.notation === 'compact' || base.notation === 'scientific') {
    // Compact and scientific notation choose a power for each value, so decimals may be cut where not needed.
    const format = numberFormat(look.locale, {
      ...base,
      minimumFractionDigits: 0,
      maximumFractionDigits: Math.min(20, base.notation === 'scientific' ? digits + 1 : digits),
    })
    const zero = numberFormat(look.locale, { ...given, maximumFractionDigits: 0 })
    return value => (value === 0 && base.notation === 'scientific' ? zero : format).format(value + 0)
  }
  const format = numberFormat(look.locale, {
    ...base,
    minimumFractionDigits: places,
    maximumFractionDigits: places,
  })
  return value => format.format(value + 0)
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
  const text = numberFormat(look.locale, base).format(value + 0)
  return look.unit ? `${text} ${look.unit}` : text
}
