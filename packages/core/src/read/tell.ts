import { labelOf } from '../bind/naming.ts'
import { roleTexts } from '../bind/values.ts'
import type { Description } from '../describe/description.ts'
import { shape } from '../table/group/shape.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { fillWords, readWords } from '../words/holes.ts'
import type { Tongue } from '../words/tongue.ts'
import type { ReadingRow } from './reading-texts.ts'

/** A further line of a tooltip. */
export interface Told {
  name: string
  text: string
}

/** Values of a column that a tooltip lists before it counts the others. */
const MOST_VALUES = 3

/** What a description wants to be told of the rows that are pointed at: lines with names, or one text. */
export function tellMore(
  wish: Description['tooltip'],
  { rows, table }: Pick<ReadingRow, 'rows' | 'table'>,
  tongue: Tongue,
): Told[] {
  if (Array.isArray(wish))
    return wish.map((phrase, i) => {
      const { text, name } = phraseOf(phrase, table, rows, tongue, `tooltip[${i}]`)
      return { name, text }
    })
  if (typeof wish !== 'string') return []
  const { pieces, holes } = readWords(wish)
  const texts = holes.map(hole => phraseOf(hole, table, rows, tongue, 'tooltip').text)
  return [{ name: '', text: fillWords(pieces, texts) }]
}

function phraseOf(phrase: string, table: Table, rows: ArrayLike<number>, tongue: Tongue, path: string): Told {
  const meaning = readPhrase(phrase, table, path)
  const name = labelOf(meaning, table, tongue)
  const shaped = shape(table, new Map([['told', meaning]]), { rows: Int32Array.from(rows) })
  const values = shaped.roles.get('told')
  if (!values || shaped.length === 0) return { name, text: '–' }
  const text = roleTexts(values, tongue.locale)
  if (isMeasure(meaning)) return { name, text: text(0) || '–' }
  const all = [...new Set(Array.from({ length: shaped.length }, (_, i) => text(i)))].filter(Boolean)
  const rest = all.length - MOST_VALUES
  const list = all.slice(0, MOST_VALUES).join(', ')
  return { name, text: rest > 0 ? tongue.say('{list} and {count} more', { list, count: rest }) : list || '–' }
}
