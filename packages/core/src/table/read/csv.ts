import Papa from 'papaparse'
import { DapploError } from '../../finding/error.ts'
import { type CellParts, plainCsv } from './plain-csv.ts'

/** How CSV text is read. */
export interface CsvOptions {
  /** What separates cells; default: found out from the text. */
  separator?: string
  /** What to do with lines that have fewer or more cells than the header: refuse them (default), or fill and cut them. */
  ragged?: 'refuse' | 'fill'
  /** Named in messages; default `the CSV text`. */
  source?: string
}

export interface CsvCells {
  names: string[]
  /** Raw texts by column. */
  columns: string[][]
  /** The same part by part, in place of the columns, where the text allows it. */
  parts?: CellParts
  /** The line of the text, from 1, on which a row begins. */
  lineOf: (row: number) => number
}

/** The lines of a text with their cells, and which of them has a quote that is not closed properly. */
export function linesOf(
  text: string,
  separator: string,
): { lines: string[][]; broken: number | undefined; open: boolean } {
  const { data, errors } = Papa.parse<string[]>(text, {
    delimiter: separator,
    header: false,
    skipEmptyLines: false,
  })
  const quote = errors.find(error => error.type === 'Quotes')
  return { lines: data, broken: quote && (quote.row ?? 0), open: quote?.code === 'MissingQuotes' }
}

export const unclosedQuote = (line: number, source: string): DapploError =>
  new DapploError(
    'unclosed-quote',
    `A quoted cell is not closed properly in line ${line} of ${source}`,
    source,
    'Close the quote, and write quotes inside it twice.',
  )

/** The cells of a text that needs none of CSV's rules but its separators, part by part; undefined for others. */
export function plainCells(text: string, options: CsvOptions): CsvCells | undefined {
  const plain = text.length > LONG ? plainCsv(text, options.separator ?? separatorOf(text)) : undefined
  return (
    plain && {
      names: headerNames(plain.header, options.source ?? 'the CSV text'),
      columns: [],
      parts: plain,
      lineOf: row => row + 2,
    }
  )
}

/** Texts of so many characters are worth a look whether they are plain. */
const LONG = 10_000

/** What may separate cells, the likelier first; the last are the separators that Unicode has for it. */
const SEPARATORS = [',', ';', '\t', '|', '\u001f', '\u001e']
/** Lines that are looked at to find out what separates cells. */
const FIRST_LINES = 50

/**
 * What separates cells: that of which as many lines as can be have as many cells as the header, and of those that are
 * alike the one that makes most cells. A text of one column has a comma.
 */
export function separatorOf(text: string): string {
  const end = text.indexOf('\n', LONG)
  const head = end < 0 ? text : text.slice(0, end)
  let best = { separator: SEPARATORS[0], share: 0, cells: 1 }
  for (const separator of SEPARATORS) {
    if (!head.includes(separator)) continue
    const { data } = Papa.parse<string[]>(head, {
      delimiter: separator,
      header: false,
      skipEmptyLines: true,
      preview: FIRST_LINES,
    })
    const cells = data[0]?.length ?? 1
    const share = data.filter(line => line.length === cells).length / data.length
    if (cells > 1 && (share > best.share || (share === best.share && cells > best.cells)))
      best = { separator, share, cells }
  }
  return best.separator
}

const isEmpty = (line: string[]) => line.length === 0 || (line.length === 1 && line[0].trim() === '')

/** The first line that is not empty; -1 where all are. */
export const headerIn = (lines: string[][]): number => lines.findIndex(line => !isEmpty(line))

/** The names that a header gives, and how many cells a line has. Throws `empty-data` where there is none. */
export function headed(header: string[] | undefined, source: string): { names: string[]; width: number } {
  if (!header)
    throw new DapploError(
      'empty-data',
      `There is nothing in ${source}`,
      source,
      'It needs a first line with the names of the columns, then a line for each row.',
    )
  const names = headerNames(header, source)
  return { names, width: names.length }
}

/** Lines of cells from one on as columns, with the line of each row. Throws `ragged-row`. */
export function gathered(
  lines: string[][],
  from: number,
  width: number,
  { ragged, source = 'the CSV text' }: CsvOptions,
  lineAt: (at: number) => number,
): { columns: string[][]; numbers: Int32Array } {
  let kept = 0
  const numbers = new Int32Array(lines.length)
  for (let at = from; at < lines.length; at++) {
    const line = lines[at]
    if (line.length !== width) {
      if (isEmpty(line)) continue
      if (ragged !== 'fill') {
        throw new DapploError(
          'ragged-row',
          `Line ${lineAt(at)} of ${source} has ${count(line.length)}, but the header names ${count(width, 'column')}`,
          `${source} line ${lineAt(at)}`,
          'Correct the line, or read with ragged: "fill" to fill short lines with missing values and cut long ones.',
        )
      }
    } else if (width === 1 && line[0] === '') continue
    numbers[kept++] = at
  }
  // Room for all cells at once: a list that grows is copied time and again.
  const columns = Array.from({ length: width }, () => new Array<string>(kept))
  for (let row = 0; row < kept; row++) {
    const line = lines[numbers[row]]
    for (let c = 0; c < width; c++) columns[c][row] = line[c] ?? ''
  }
  return { columns, numbers: numbers.subarray(0, kept) }
}

const count = (n: number, word = 'cell') => `${n} ${word}${n === 1 ? '' : 's'}`

/** Names as written; unnamed ones get `column 3`, repeated ones ` (2)`. */
function headerNames(header: string[], source: string): string[] {
  const taken = new Set<string>()
  const times = new Map<string, number>()
  const names = header.map((raw, i) => {
    const name = raw.trim() || `column ${i + 1}`
    let own = name
    for (let n = (times.get(name) ?? 0) + 1; taken.has(own) || n === 1; n++) {
      own = n === 1 ? name : `${name} (${n})`
      times.set(name, n)
    }
    taken.add(own)
    return own
  })
  if (names.length === 1 && header[0].length > 1000) {
    throw new DapploError(
      'not-csv',
      `The first line of ${source} does not look like the names of columns`,
      source,
      'Give CSV with a header line.',
    )
  }
  return names
}

/** Rows before may hold line breaks inside quotes, so lines are counted, not computed; only ever done for a message. */
export function startLine(lines: string[][], at: number): number {
  let line = 1
  for (let i = 0; i < at; i++) {
    line++
    for (const cell of lines[i]) {
      for (let from = cell.indexOf('\n'); from >= 0; from = cell.indexOf('\n', from + 1)) line++
    }
  }
  return line
}
