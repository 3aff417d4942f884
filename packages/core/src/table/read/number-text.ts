import type { NumberStyle } from '../cells/reader.ts'

const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/
/** Numbers may be parted in thousands by blanks (also ones that do not break) and apostrophes. */
const BLANKS = /['’ \u00a0\u2009\u202f]/g

/** A text that may be an amount, taken apart. */
interface Amount {
  negative: boolean
  currency: string | undefined
  /** Digits with what separates them. */
  digits: string
  percent: boolean
}

/** As `\s` has it in patterns. */
const SPACES = new Set([9, 10, 11, 12, 13, 32, 0xa0, 0x1680, 0x2028, 0x2029, 0x202f, 0x205f, 0x3000, 0xfeff])
const isSpace = (code: number) => SPACES.has(code) || (code >= 0x2000 && code <= 0x200a)
const isDigit = (code: number) => code >= 48 && code <= 57
const isCapital = (code: number) => code >= 65 && code <= 90
const CURRENCIES = '$€£¥₹₩₽₺₪₫₴'
const SEPARATORS = ".,'’ \u00a0\u2009\u202f"
const MINUS = '-−'

/**
 * Takes an amount apart in one pass: a sign or bracket, a currency, a sign, digits, a currency, a percent sign, a bracket.
 * No pattern does this: over long runs of blanks or digits it would try every way to divide them.
 */
function readAmount(text: string): Amount | undefined {
  const { length } = text
  let at = 0
  const skip = () => {
    while (at < length && isSpace(text.charCodeAt(at))) at++
  }
  const take = (among: string): string => (at < length && among.includes(text[at]) ? text[at++] : '')
  const currency = (): string | undefined => {
    const sign = take(CURRENCIES)
    if (sign !== '') return sign
    if (![0, 1, 2].every(i => isCapital(text.charCodeAt(at + i)))) return undefined
    at += 3
    return text.slice(at - 3, at)
  }
  const opening = take(`+(${MINUS}`)
  skip()
  const before = currency()
  if (before !== undefined) skip()
  const sign = take(`+${MINUS}`)
  if (opening !== '' && sign !== '') return undefined
  const from = at
  let until = from
  for (; at < length; at++) {
    if (isDigit(text.charCodeAt(at))) until = at + 1
    else if (!SEPARATORS.includes(text[at])) break
  }
  if (until === from) return undefined
  at = until
  skip()
  const after = currency()
  if (after !== undefined) skip()
  const percent = take('%') !== ''
  const closing = take(')')
  if (at < length || (opening === '(') !== (closing === ')')) return undefined
  return {
    negative: opening === '(' || (opening + sign !== '' && MINUS.includes(opening + sign)),
    currency: before ?? after,
    digits: text.slice(from, until),
    percent,
  }
}

/** A plain decimal number as programs write it; `NaN` when the text is none. */
export function readPlain(text: string): number {
  const first = text.charCodeAt(0)
  // Cheap test first: digits, or a sign or point before them. Number() alone would take "0x1f", "Infinity" and blanks.
  if (first > 57 || (first < 48 && first !== 45 && first !== 43 && first !== 46)) return Number.NaN
  const value = Number(text)
  if (Number.isNaN(value)) return value
  const second = text.charCodeAt(1)
  if (second > 57 && second !== 69 && second !== 101) return Number.NaN
  const last = text.charCodeAt(text.length - 1)
  return (last >= 48 && last <= 57) || PLAIN.test(text) ? value : Number.NaN
}

/** Whether a text is a code that only looks like a number: `007`, `0123`. */
export function isCode(text: string): boolean {
  return text.charCodeAt(0) === 48 && /^0\d+$/.test(text)
}

/** A number with separators, a percent or currency sign, or accountants' brackets; `NaN` when the text is none. */
export function readStyled(text: string, style: NumberStyle): number {
  const plain = style.percent || style.decimal === ',' ? Number.NaN : readPlain(text)
  if (!Number.isNaN(plain)) return plain
  const found = readAmount(text)
  if (!found) return Number.NaN
  const thousands = style.decimal === '.' ? ',' : '.'
  let digits = found.digits.replace(BLANKS, '')
  const point = digits.lastIndexOf(style.decimal)
  const whole = point < 0 ? digits : digits.slice(0, point)
  if (point >= 0 && (digits.indexOf(style.decimal) !== point || digits.indexOf(thousands, point) >= 0))
    return Number.NaN
  const groups = whole.split(thousands)
  // Groups of three, or of two before the last three, as in 12,34,567.
  const fits = (group: string, i: number) =>
    (i === 0 ? /^\d{1,3}$/ : i === groups.length - 1 ? /^\d{3}$/ : /^\d{2,3}$/).test(group)
  if (groups.length > 1 && !groups.every(fits)) return Number.NaN
  digits = groups.join('') + (point < 0 ? '' : `.${digits.slice(point + 1)}`)
  const value = digits === '' ? Number.NaN : Number(digits)
  return (found.negative ? -value : value) / (found.percent ? 100 : 1)
}

/** How texts write numbers. */
export interface FoundStyle {
  style: NumberStyle
  /** A text whose separator can be that of decimals or of thousands, where no other shows which: it is a likely guess. */
  unsettled: string | undefined
}

/**
 * The style in which most of the texts can be read, judged from a sample; undefined when the texts are no numbers.
 * `told`: what separates decimals, where somebody said so.
 */
export function numberStyle(texts: readonly string[], told?: NumberStyle['decimal']): FoundStyle | undefined {
  const votes = { ',': 0, '.': 0 }
  /** Texts such as 1.204, by their separator. */
  const open: { [mark in NumberStyle['decimal']]?: string } = {}
  let below = 0
  let percent = 0
  let currency: string | undefined
  for (const text of texts) {
    const found = readAmount(text)
    if (!found) continue
    if (found.percent) percent++
    currency ??= found.currency
    const mark = decimalOf(found.digits.replace(BLANKS, ''))
    if (mark === ',' || mark === '.') votes[mark]++
    else if (mark) open[mark.unsettled] ??= text
    else if (found.digits.length <= 3) below++
  }
  const likely = likelyStyle(votes, open, below, currency)
  const style: NumberStyle = {
    decimal: told ?? likely.decimal,
    percent: percent * 2 > texts.length,
    currency,
  }
  const readable = texts.filter(text => !Number.isNaN(readStyled(text, style))).length
  return readable > 0 ? { style, unsettled: told === undefined ? likely.unsettled : undefined } : undefined
}

/** What separates the decimals of some digits, as far as they show it; undefined where nothing separates any. */
function decimalOf(digits: string): ',' | '.' | { unsettled: ',' | '.' } | undefined {
  const comma = digits.lastIndexOf(',')
  const point = digits.lastIndexOf('.')
  if (comma < 0 && point < 0) return undefined
  const [mark, other, at] = comma > point ? ([',', '.', comma] as const) : (['.', ',', point] as const)
  // With both kinds the last one is that of decimals, and one that comes again is that of thousands.
  const again = digits.indexOf(mark) !== at
  if (digits.includes(other)) return again ? other : mark
  if (again) return other
  return /^[1-9]\d{0,2}$/.test(digits.slice(0, at)) && digits.length - at - 1 === 3
    ? { unsettled: mark }
    : mark
}

/** What separates decimals, where some texts leave it open. `below`: how many plain numbers are below a thousand. */
function likelyStyle(
  votes: { ',': number; '.': number },
  open: { ','?: string; '.'?: string },
  below: number,
  currency: string | undefined,
): { decimal: NumberStyle['decimal']; unsettled: string | undefined } {
  if (votes[','] + votes['.'] > 0)
    return { decimal: votes[','] > votes['.'] ? ',' : '.', unsettled: undefined }
  if (open[',']) {
    // 1,204 beside 980: with decimals, 980 would have had some.
    const settled = !open['.'] && (below > 0 || currency === '$' || currency === '£')
    return { decimal: '.', unsettled: settled ? undefined : open[','] }
  }
  // The same of 1.204, but programs write decimals so: three of them at each number are as likely as thousands.
  if (open['.'] && below > 0) return { decimal: ',', unsettled: open['.'] }
  return { decimal: '.', unsettled: undefined }
}

const MISSING = new Set(['', 'na', 'n/a', '#n/a', 'null', 'nan', 'none', '-', '–', '—', '?'])

/** Whether there is nothing in a cell. */
export const isBlank = (raw: unknown): boolean => raw === undefined || raw === null || raw === ''

/** Whether a text says that there is no value. */
export const isMissingText = (text: string): boolean => text.length < 5 && MISSING.has(text.toLowerCase())
