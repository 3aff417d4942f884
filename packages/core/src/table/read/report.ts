import { LARGEST } from '../../finding/check-tree.ts'
import type { Finding } from '../../finding/error.ts'
import { cutText, plainText } from '../../finding/plain-text.ts'

/** A cell that could not be read as its column's type and became a missing value. */
export interface Unreadable {
  /** Row of the table, from 0. */
  row: number
  /** Line of the text it came from, from 1; undefined when it came from no text. */
  line: number | undefined
  text: string
}

/** How one column came to be. */
export interface ColumnReport {
  name: string
  type: 'number' | 'time' | 'text'
  /** `given` by its values or the caller; `guessed` from text. */
  how: 'given' | 'guessed'
  /** What the texts looked like, for people: `ISO dates`, `numbers with "," between thousands`; empty when nothing was guessed. */
  guess: string
  /** A date or number of the column, where they could be read in two ways and nobody said which. */
  unsettled?: string
  missing: number
  unreadable: number
  /** The first of the unreadable cells, at most twenty. */
  examples: Unreadable[]
}

/** What happened while a table was read. */
export interface Report {
  rows: number
  columns: ColumnReport[]
  findings: Finding[]
}

export function unreadableFinding(column: ColumnReport, source: string): Finding {
  const first = column.examples[0]
  const where = first.line === undefined ? `row ${first.row + 1}` : `line ${first.line}`
  const count = column.unreadable
  const quoted = JSON.stringify(cutText(plainText(first.text), 60))
  // What is a number, but one that no scale can hold, is called what it is.
  const large = column.type === 'number' && !Number.isNaN(Number(first.text))
  const what = large ? `number between -${LARGEST} and ${LARGEST}` : column.type
  return {
    code: 'unreadable-cells',
    message:
      count === 1
        ? `One cell of "${column.name}" is no ${what}: ${quoted} in ${where} of ${source}`
        : `${count} cells of "${column.name}" are no ${large ? what.replace('number', 'numbers') : `${what}s`}, the first being ${quoted} in ${where} of ${source}`,
    remedy: `Correct ${count === 1 ? 'it' : 'them'}, or give the column a type; until then ${count === 1 ? 'it counts' : 'they count'} as missing.`,
    path: `columns.${column.name}`,
  }
}

/** Dates that can be read in two ways, so that they are read in none. */
export const unsettledDates = (column: string, example: string): Finding => ({
  code: 'unsettled-dates',
  message: `"${column}" has dates such as ${JSON.stringify(example)}, and none of them shows whether the day or the month comes first, so they are not read as dates`,
  remedy: `Say it: columns: { ${JSON.stringify(column)}: { dates: "day first" } }, or "month first"; on the command line, --type "${column}=day first".`,
  path: `columns.${column}`,
})

/** Whether cells that could not be read are told of: of dates that can be read in two ways, that alone is. */
export const tellsUnreadable = ({ unreadable, unsettled, type }: ColumnReport): boolean =>
  unreadable > 0 && (unsettled === undefined || type === 'number')

/** Numbers that can be read in two ways, so that the likelier one, thousands, is a guess. */
export function unsettledNumbers(column: string, example: string): Finding {
  const [guess, other] = example.includes(',') ? ['point', 'comma'] : ['comma', 'point']
  return {
    code: 'unsettled-numbers',
    message: `"${column}" has numbers such as ${JSON.stringify(plainText(example))}, and none of them shows whether that is more than a thousand; they are read as thousands`,
    remedy: `Say it: columns: { ${JSON.stringify(column)}: { numbers: "decimal ${guess}" } } if that is right, else "decimal ${other}"; on the command line, --type "${column}=decimal ${guess}".`,
    path: `columns.${column}`,
  }
}
