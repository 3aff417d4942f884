import { INTER_WIDTHS } from './inter-widths.ts'

/** A font as painters and measurers need it: size in pixels and CSS weight. */
export interface Font {
  size: number
  weight: 400 | 600
}

/** The width of a text in pixels. */
export type Measure = (text: string, font: Font) => number

/** A text as wide as one whose figures all have the width of a zero. */
export const inFigures = (text: string): string => text.replace(/\d/g, '0')

const tables = new Map<number, Map<number, number>>()

function table(weight: 400 | 600): Map<number, number> {
  let widths = tables.get(weight)
  if (!widths) {
    widths = new Map()
    for (const [first, text] of INTER_WIDTHS[weight]) {
      const table = widths
      text.split(' ').forEach((width, i) => {
        if (width !== '0') table.set(first + i, Number.parseInt(width, 36) / 1000)
      })
    }
    tables.set(weight, widths)
  }
  return widths
}

const COMBINING = /^[\p{Mn}\p{Me}\p{Cf}]$/u
const WIDE =
  /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Extended_Pictographic}]$/u

/** Measures by the widths of Inter's characters, without kerning; other scripts are taken at their usual width. */
export const measureInter: Measure = (text, { size, weight }) => {
  const widths = table(weight)
  let width = 0
  for (const character of text) {
    const known = widths.get(character.codePointAt(0)!)
    if (known !== undefined) width += known
    else if (WIDE.test(character)) width += 1.1
    else if (!COMBINING.test(character)) width += 0.55
  }
  return width * size
}

/** Remembers widths, since the same labels come back frame after frame. */
export function rememberWidths(measure: Measure, most = 5000): Measure {
  const known = new Map<string, number>()
  return (text, font) => {
    const name = `${font.size}/${font.weight}/${text}`
    let width = known.get(name)
    if (width === undefined) {
      if (known.size >= most) known.clear()
      width = measure(text, font)
      known.set(name, width)
    }
    return width
  }
}
