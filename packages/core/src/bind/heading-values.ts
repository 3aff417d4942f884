import type { HeadingFigures, HeadingWords, ResolvedHeading } from '../resolve/model.ts'
import { briefText, valueText } from '../scale/number-format.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'
import { fillWords } from '../words/holes.ts'
import { lookOf } from './naming.ts'
import { roleTexts } from './values.ts'

/** The words around a chart, and the numbers in them. */
export interface FilledHeading {
  words: HeadingWords
  figures: HeadingFigures
}

/** The heading of a chart, its holes filled from the answers to what they ask; a hole without one stays open. */
export function fillHeading(
  heading: readonly ResolvedHeading[],
  answers: readonly (readonly (Shaped | undefined)[])[],
  locale: string,
): FilledHeading {
  const words: HeadingWords = {}
  const figures: HeadingFigures = {}
  heading.forEach(({ field, pieces, meanings }, i) => {
    const holes = meanings.map((meaning, k) => holeOf(meaning, answers[i][k], locale))
    const values = holes.map(({ value }) => value).filter(value => value !== undefined)
    const write = (numbers: readonly number[]) => {
      let at = 0
      return fillWords(
        pieces,
        holes.map(({ value, write }) => write(value === undefined ? Number.NaN : numbers[at++])),
      )
    }
    words[field] = write(values)
    if (values.length > 0) figures[field] = { values, write }
  })
  return { words, figures }
}

/** From here on numbers are short, as they are at axes. */
const SHORT = 100_000

/** What fills a hole; `value`: where it is a measured number. */
function holeOf(
  meaning: Meaning,
  shaped: Shaped | undefined,
  locale: string,
): { value?: number; write: (value: number) => string } {
  if (!shaped) return { write: () => '…' }
  const values = shaped.roles.get('hole')
  if (!values || shaped.length === 0) return { write: () => '–' }
  const { cells } = values
  // In the form that labels and axes have: a large number is short, unless its column has a format of its own.
  if (isMeasure(meaning) && cells.type === 'number') {
    const look = { ...lookOf(values), locale }
    const write = (value: number) => (Math.abs(value) < SHORT ? valueText : briefText)(value, look)
    return { value: cells.values[0], write }
  }
  const text = roleTexts(values, locale)
  const words = oneValue(values, shaped.length) ? text(0) : `${text(0)} – ${text(shaped.length - 1)}`
  return { write: () => words }
}

/** Whether all rows agree. */
function oneValue({ cells }: RoleValues, length: number): boolean {
  const list = cells.type === 'text' ? cells.codes : cells.values
  for (let i = 1; i < length; i++) if (list[i] !== list[0]) return false
  return true
}
