import type { HeadingWords, ResolvedHeading } from '../resolve/model.ts'
import { valueText } from '../scale/number-format.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'
import { fillWords } from '../words/holes.ts'
import { lookOf } from './naming.ts'
import { roleTexts } from './values.ts'

/** The heading of a chart, its holes filled from the answers to what they ask; a hole without one stays open. */
export function fillHeading(
  heading: readonly ResolvedHeading[],
  answers: readonly (readonly (Shaped | undefined)[])[],
  locale: string,
): HeadingWords {
  const out: HeadingWords = {}
  heading.forEach(({ field, pieces, meanings }, i) => {
    const values = meanings.map((meaning, k) => textOf(meaning, answers[i][k], locale))
    out[field] = fillWords(pieces, values)
  })
  return out
}

function textOf(meaning: Meaning, shaped: Shaped | undefined, locale: string): string {
  if (!shaped) return '…'
  const values = shaped.roles.get('hole')
  if (!values || shaped.length === 0) return '–'
  const { cells } = values
  // A number in a sentence is read, not compared with others at a glance: it is written out.
  if (isMeasure(meaning) && cells.type === 'number')
    return valueText(cells.values[0], { ...lookOf(values), locale })
  const text = roleTexts(values, locale)
  return oneValue(values, shaped.length) ? text(0) : `${text(0)} – ${text(shaped.length - 1)}`
}

/** Whether all rows agree. */
function oneValue({ cells }: RoleValues, length: number): boolean {
  const list = cells.type === 'text' ? cells.codes : cells.values
  for (let i = 1; i < length; i++) if (list[i] !== list[0]) return false
  return true
}
