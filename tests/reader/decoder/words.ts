// Numbers in words, as a person of a language reads them.

/** A number as it is written, and how far off it may be by its rounding. */
export interface Written {
  value: number
  within: number
}

const SHORT: Record<string, number> = { K: 1e3, M: 1e6, B: 1e9, T: 1e12 }
const RAISED = '⁰¹²³⁴⁵⁶⁷⁸⁹'

/** The first number in a text; undefined where there is none. */
export function numberIn(text: string, locale = 'en'): Written | undefined {
  const parts = new Intl.NumberFormat(locale).formatToParts(-12345.6)
  const part = (type: string) => parts.find(one => one.type === type)?.value ?? ''
  const digits = [...new Intl.NumberFormat(locale, { useGrouping: false }).format(9876543210)].reverse()
  let plain = text.replace(/[\u200e\u200f\u061c]/g, '')
  digits.forEach((digit, i) => {
    plain = plain.replaceAll(digit, String(i))
  })
  const group = part('group')
  if (group)
    plain = plain.replaceAll(
      new RegExp(`(?<=\\d)[${group === '.' ? '.' : `${group}\u00a0\u202f `}](?=\\d{3})`, 'g'),
      '',
    )
  const decimal = part('decimal')
  if (decimal !== '.') plain = plain.replace(new RegExp(`(?<=\\d)[${decimal}](?=\\d)`), '.')
  const found = /([-−–]?)\s*[^\d\s]?\s*(\d+)(?:\.(\d+))?(?:×10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+))?\s*([KMBT%](?![a-z]))?/u.exec(
    plain,
  )
  if (!found) return undefined
  const [, sign, whole, fraction = '', power = '', short = ''] = found
  const raised = Number([...power].map(c => (c === '⁻' ? '-' : RAISED.indexOf(c))).join('') || 0)
  const by = (short === '%' ? 0.01 : (SHORT[short] ?? 1)) * 10 ** raised
  const value = Number(`${whole}.${fraction || 0}`) * by
  return { value: sign ? -value : value, within: (0.5000001 * by) / 10 ** fraction.length }
}
