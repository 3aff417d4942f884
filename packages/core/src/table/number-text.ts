/** How the texts of a column write numbers; a column has one way throughout. */
export interface NumberStyle {
  /** What separates the decimals. */
  decimal: '.' | ','
  /** Whether texts end in a percent sign: they are then divided by 100. */
  percent: boolean
  /** The currency sign or code found with the numbers, if any. */
  currency: string | undefined
}

const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/
/** Numbers may be parted in thousands by blanks (also ones that do not break) and apostrophes. */
const BLANKS = /['’ \u00a0\u2009\u202f]/g
const DECORATION =
  /^([+\-−(]?)\s*(?:([$€£¥₹₩₽₺₪₫₴]|[A-Z]{3})\s*)?([+\-−]?)([\d.,'’ \u00a0\u2009\u202f]*\d)\s*(?:([$€£¥₹₩₽₺₪₫₴]|[A-Z]{3}))?\s*(%?)(\)?)$/

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
  const found = DECORATION.exec(text)
  if (!found || (found[1] === '(') !== (found[7] === ')')) return Number.NaN
  if (found[1] !== '' && found[3] !== '') return Number.NaN
  const thousands = style.decimal === '.' ? ',' : '.'
  let digits = found[4].replace(BLANKS, '')
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
  const negative = /[-−(]/.test(found[1]) || /[-−]/.test(found[3])
  return (negative ? -value : value) / (found[6] ? 100 : 1)
}

/** The style in which most of the texts can be read, judged from a sample; undefined when the texts are no numbers. */
export function numberStyle(texts: readonly string[]): NumberStyle | undefined {
  let commaDecimal = 0
  let pointDecimal = 0
  let percent = 0
  let currency: string | undefined
  for (const text of texts) {
    const found = DECORATION.exec(text)
    if (!found) continue
    if (found[6]) percent++
    currency ??= found[2] ?? found[5]
    const digits = found[4]
    // A separator is the decimal one when it comes last after the other kind, or is not followed by exactly three digits.
    const comma = digits.lastIndexOf(',')
    const point = digits.lastIndexOf('.')
    const single = (mark: string, at: number) => digits.indexOf(mark) === at && digits.length - at - 1 !== 3
    if (comma > point && (point >= 0 || single(',', comma))) commaDecimal++
    if (point > comma && (comma >= 0 || single('.', point))) pointDecimal++
  }
  const style: NumberStyle = {
    decimal: commaDecimal > pointDecimal ? ',' : '.',
    percent: percent * 2 > texts.length,
    currency,
  }
  const readable = texts.filter(text => !Number.isNaN(readStyled(text, style))).length
  return readable > 0 ? style : undefined
}
