/**
 * Numbers as `Intl.NumberFormat` writes them in English, for the few options that most labels have. The first use of
 * `Intl` loads the data of all languages, which takes longer than drawing a small chart.
 */

const KNOWN = new Set([
  'minimumFractionDigits',
  'maximumFractionDigits',
  'maximumSignificantDigits',
  'useGrouping',
])

/** A writer of English numbers; undefined for a locale or options that are left to `Intl`. */
export function englishNumbers(
  locale: string,
  options: Intl.NumberFormatOptions,
): ((value: number) => string | undefined) | undefined {
  if (locale !== 'en' && locale !== 'en-US') return undefined
  const given = Object.entries(options).filter(([, value]) => value !== undefined)
  if (!given.every(([option]) => KNOWN.has(option))) return undefined
  const { useGrouping = true, maximumSignificantDigits: significant } = options
  const least = options.minimumFractionDigits ?? 0
  const most = options.maximumFractionDigits ?? Math.max(3, least)
  const fractions = options.minimumFractionDigits !== undefined || options.maximumFractionDigits !== undefined
  if (typeof useGrouping !== 'boolean' || least > most || most > 20 || (significant && fractions))
    return undefined
  return value => {
    if (!Number.isFinite(value)) return undefined
    const { digits, point } = decimalOf(Math.abs(value))
    const places = significant === undefined ? most : significant - point
    const text = written(rounded(digits, point, places), least)
    const sign = value < 0 || Object.is(value, -0) ? '-' : ''
    return sign + (useGrouping ? grouped(text) : text)
  }
}

/** A decimal: the digits, and how many of them stand before the point; fewer than none for small numbers. */
interface Decimal {
  digits: string
  point: number
}

/** The shortest decimal that means a number, as `Intl` takes it. */
function decimalOf(size: number): Decimal {
  const [mantissa, exponent = '0'] = String(size).split('e')
  const [whole, fraction = ''] = mantissa.split('.')
  const digits = (whole + fraction).replace(/^0+/, '')
  const leading = (whole + fraction).length - digits.length
  return digits === ''
    ? { digits: '0', point: 1 }
    : { digits, point: whole.length - leading + Number(exponent) }
}

/** Rounded to so many places after the point, halves away from zero; `places` below zero rounds before the point. */
function rounded(digits: string, point: number, places: number): Decimal {
  const keep = point + places
  if (keep >= digits.length) return { digits, point }
  if (keep < 0) return { digits: '0', point: 1 }
  const kept = [...digits.slice(0, keep)].map(Number)
  if (digits[keep] >= '5') {
    let i = keep - 1
    while (i >= 0 && kept[i] === 9) kept[i--] = 0
    if (i < 0) return { digits: `1${kept.join('')}`, point: point + 1 }
    kept[i]++
  }
  return kept.length === 0 ? { digits: '0', point: 1 } : { digits: kept.join(''), point }
}

/** All digits of a decimal, with at least so many after the point. */
function written({ digits, point }: Decimal, least: number): string {
  const whole = point <= 0 ? '0' : digits.slice(0, point).padEnd(point, '0')
  const fraction = (point < 0 ? '0'.repeat(-point) : '') + digits.slice(Math.max(0, point))
  const shown = fraction.replace(/0+$/, '').padEnd(least, '0')
  return shown === '' ? whole : `${whole}.${shown}`
}

function grouped(digits: string): string {
  const [whole, fraction] = digits.split('.')
  const thousands = whole.replace(/\B(?=(?:\d{3})+$)/g, ',')
  return fraction === undefined ? thousands : `${thousands}.${fraction}`
}
