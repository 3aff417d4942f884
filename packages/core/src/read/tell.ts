import type { Bound } from '../bind/model.ts'
import { labelOf } from '../bind/naming.ts'
import { roleTexts } from '../bind/values.ts'
import type { Description } from '../describe/description.ts'
import { wordsIn } from '../resolve/check-told.ts'
import { answeredElsewhere, ask } from '../table/group/question.ts'
import { shape } from '../table/group/shape.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning, meaningKey } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { fillWords, type HoledWords, readWords } from '../words/holes.ts'
import type { Tongue } from '../words/tongue.ts'
import { type ReadingRow, textOf } from './reading-texts.ts'

/** A further line of a tooltip. */
export interface Told {
  name: string
  text: string
}

/** Values of a column that a tooltip lists before it counts the others. */
const MOST_VALUES = 3

/**
 * What a description wants to be told of the rows that are pointed at: lines with names, or one text. `shown`: the keys of
 * meanings that are read already, and are not said a second time unless they are called or written otherwise. `arrived`: called
 * when values that are elsewhere have come, and may be told.
 */
export function tellMore(
  wish: Description['tooltip'],
  { rows, table }: Pick<ReadingRow, 'rows' | 'table'>,
  tongue: Tongue,
  shown?: ReadonlySet<string>,
  arrived: () => void = () => {},
): Told[] {
  const said = ({ pieces, holes }: HoledWords): Told => {
    const texts = holes.map(
      hole => toldOf(readPhrase(hole, table, 'tooltip'), table, rows, tongue, arrived).text,
    )
    return { name: '', text: fillWords(pieces, texts) }
  }
  if (Array.isArray(wish))
    return wish.flatMap((phrase, i) => {
      const words = wordsIn(phrase, table)
      if (words) return [said(words)]
      const meaning = readPhrase(phrase, table, `tooltip[${i}]`)
      const again =
        shown?.has(meaningKey(meaning)) && meaning.label === undefined && meaning.format === undefined
      return again ? [] : [toldOf(meaning, table, rows, tongue, arrived)]
    })
  return typeof wish === 'string' ? [said(readWords(wish))] : []
}

function toldOf(
  meaning: Meaning,
  table: Table,
  rows: ArrayLike<number>,
  tongue: Tongue,
  arrived: () => void,
): Told {
  const name = labelOf(meaning, table, tongue)
  const roles = new Map([['told', meaning]])
  const answer = answeredElsewhere(table)
    ? ask(table, { roles, test: table.selectionTest(Array.from(rows)) })
    : shape(table, roles, { rows: Int32Array.from(rows) })
  if ('then' in answer) {
    answer.then(arrived, () => {})
    return { name, text: '…' }
  }
  const shaped = answer
  const values = shaped.roles.get('told')
  if (!values || shaped.length === 0) return { name, text: '–' }
  const words = roleTexts(values, tongue.locale)
  const { cells } = values
  // In the form of all that is read, with its unit.
  const text = (mark: number) =>
    cells.type === 'text' || values.ends
      ? words(mark)
      : Number.isNaN(cells.values[mark])
        ? ''
        : textOf(values, cells.values[mark], tongue.locale)
  if (isMeasure(meaning)) return { name, text: text(0) || '–' }
  const all = [...new Set(Array.from({ length: shaped.length }, (_, i) => text(i)))].filter(Boolean)
  const rest = all.length - MOST_VALUES
  const list = all.slice(0, MOST_VALUES).join(', ')
  return { name, text: rest > 0 ? tongue.say('{list} and {count} more', { list, count: rest }) : list || '–' }
}

/** What is read of a drawing in any case: the keys of all that it is bound to. */
export const shownMeanings = ({ drawings }: Bound, table: Table): ReadonlySet<string> =>
  new Set(
    drawings
      .filter(({ drawing }) => drawing.table === table && !drawing.kind.aside)
      .flatMap(({ drawing }) =>
        [...drawing.roles].filter(([role]) => READ.includes(role)).map(([, meaning]) => meaningKey(meaning)),
      ),
  )

const READ = ['x', 'y', 'color', 'size']
