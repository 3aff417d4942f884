import { numberFormat } from './intl-numbers.ts'

/** The ends of numbers that stand beside each other, so that all of them are written in one form. */
export interface Reach {
  low: number
  high: number
}

/** A unit of numbers that are written short: `K` for thousands, or a power of ten. */
interface ShortUnit {
  divisor: number
  /** Writes a number that was divided: its sign, digits and unit where the language has them. */
  write(digits: string, negative: boolean): string
}

/** From here on numbers are written short. */
const SHORT_FROM = 1e5
/** Beyond these, not even short words help, and powers of ten are written. */
const POWERS_FROM = 1e15
const POWERS_UNDER = 1e-5
/** A power that numbers can still be divided by. */
const LEAST_POWER = -300
/** Near the next unit, that one is taken: scales end at neat numbers, and `1M` is a neater end than `1,000K`. */
const NEARLY = 0.75
/** One number alone is no end of a scale: `915K`. From here on, three figures round it up to the next unit. */
const NEARLY_ALONE = 0.9995
/** Far from zero and near each other, numbers are written out: as short ones they would be alike. */
const LEAST_SPAN = 0.01

/** The reach of numbers. */
export function reachOf(values: readonly number[]): Reach {
  let low = Number.POSITIVE_INFINITY
  let high = Number.NEGATIVE_INFINITY
  for (const value of values) {
    if (value < low) low = value
    if (value > high) high = value
  }
  return low <= high ? { low, high } : { low: 0, high: 0 }
}

export const largestOf = ({ low, high }: Reach): number => Math.max(Math.abs(low), Math.abs(high))

/** The unit in which all numbers of a reach are written; undefined where they are written out. */
export function shortUnit(
  reach: Reach,
  locale: string,
  base: Intl.NumberFormatOptions,
): ShortUnit | undefined {
  const largest = largestOf(reach)
  const span = Math.max(0, reach.high - reach.low)
  if (!(largest > 0) || !Number.isFinite(largest) || (span > 0 && span < largest * LEAST_SPAN))
    return undefined
  if (largest >= POWERS_FROM || largest < POWERS_UNDER)
    return unitAt(Math.max(LEAST_POWER, Math.floor(Math.log10(largest) + 1e-9)), locale, {
      ...base,
      notation: 'scientific',
    })
  if (largest < SHORT_FROM) return undefined
  const nearly = span > 0 ? NEARLY : NEARLY_ALONE
  return unitAt(Math.floor(Math.log10(largest / nearly)), locale, { ...base, notation: 'compact' })
}

const units = new Map<string, ShortUnit>()

/** The unit that a language gives a power of ten, read off what it writes: `100K` has the digits of 100 and the unit `K`. */
function unitAt(power: number, locale: string, options: Intl.NumberFormatOptions): ShortUnit {
  const name = `${power} ${locale} ${JSON.stringify(options)}`
  const known = units.get(name)
  if (known) return known
  const format = numberFormat(locale, { ...options, minimumFractionDigits: 0, maximumFractionDigits: 0 })
  const around = (value: number) => splitAtDigits(powersRaised(format.format(value)))
  const [above, below] = [around(10 ** power), around(-(10 ** power))]
  const unit: ShortUnit = {
    divisor: 10 ** (power - above.digits + 1),
    write: (digits, negative) => {
      const { before, after } = negative ? below : above
      return `${before}${digits}${after}`
    },
  }
  units.set(name, unit)
  return unit
}

/** What stands around the digits of a number, and how many they are. */
function splitAtDigits(text: string): { before: string; digits: number; after: string } {
  const found = /\p{Nd}(?:[^\p{L}×]*\p{Nd})?/u.exec(text)
  if (!found) return { before: '', digits: 1, after: '' }
  return {
    before: text.slice(0, found.index),
    digits: found[0].match(/\p{Nd}/gu)!.length,
    after: text.slice(found.index + found[0].length),
  }
}

const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** `5E-7` as people write it: 5×10⁻⁷. */
export const powersRaised = (text: string): string =>
  text.replace(
    /E([-−]?)(\d+)/,
    (_, sign, digits) => `×10${sign ? '⁻' : ''}${[...digits].map(digit => RAISED[Number(digit)]).join('')}`,
  )
