import type { Font, Measure } from '../theme/text-width.ts'

/** Space from one baseline to the next, as a multiple of the font size. */
export const LINE = 1.3

/** From the baseline up to the middle of the letters, as a share of the font size. */
export const MIDDLE = 0.36

let graphemes: Intl.Segmenter | undefined

/** The characters of a text as people see them. Making the segmenter takes longer than drawing a small chart, so plain letters do without. */
export function charactersOf(text: string): string[] {
  if (/^[\x20-\x7e]*$/.test(text)) return [...text]
  graphemes ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' })
  return Array.from(graphemes.segment(text), segment => segment.segment)
}

/** Cuts a text to the width and ends it with …, between whole characters; at least one character stays. */
export function ellipsis(text: string, width: number, font: Font, measure: Measure): string {
  if (measure(text, font) <= width) return text
  const parts = charactersOf(text.length > 2000 ? text.slice(0, 2000) : text)
  let low = 1
  let high = parts.length
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (measure(`${parts.slice(0, middle).join('').trimEnd()}…`, font) <= width) low = middle
    else high = middle - 1
  }
  return `${parts.slice(0, low).join('').trimEnd()}…`
}

/** Breaks a text into at most `most` lines between words; what does not fit ends in …. */
export function wrap(text: string, width: number, font: Font, measure: Measure, most: number): string[] {
  const lines: string[] = []
  for (const paragraph of clean(text).split('\n')) {
    const words = wordsOf(paragraph)
    let line = ''
    for (let i = 0; i < words.length; i++) {
      const longer = line + (line === '' ? words[i].trimStart() : words[i])
      if (line === '' || measure(longer, font) <= width) {
        line = longer
        continue
      }
      if (lines.length === most - 1) {
        lines.push(ellipsis(line + words.slice(i).join(''), width, font, measure))
        return lines
      }
      lines.push(ellipsis(line, width, font, measure))
      line = words[i].trimStart()
    }
    if (line !== '') lines.push(ellipsis(line, width, font, measure))
    if (lines.length >= most) return lines.slice(0, most)
  }
  return lines
}

/** Scripts that are written without blanks between words. */
const UNSPACED = /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}]/u
let segmenter: Intl.Segmenter | undefined

/** The pieces between which a text may break, each with the blank before it: words, also of scripts without blanks, and what follows a hyphen. */
function wordsOf(paragraph: string): string[] {
  const words = paragraph.split(/[ \t]+/).filter(word => word !== '')
  return words.flatMap((word, i) => {
    let pieces = word.split(/(?<=[\p{L}\p{N}][-–/])(?=[\p{L}\p{N}])/u)
    if (UNSPACED.test(word)) {
      segmenter ??= new Intl.Segmenter(undefined, { granularity: 'word' })
      pieces = Array.from(segmenter.segment(word), ({ segment }) => segment)
    }
    return pieces.map((piece, p) => (i > 0 && p === 0 ? ` ${piece}` : piece))
  })
}

/** Without control characters, which no font shows and no XML allows; line breaks stay. */
export function clean(text: string): string {
  return text
    .replace(/\r\n?|[\u2028\u2029]/g, '\n')
    .replace(/[\u0000-\u0009\u000b-\u001f\u007f-\u009f\ufffe\uffff]/g, ' ')
}
