import { inferSchema, initParser } from 'udsv'
import { isBlank, isMissingText } from './number-text.ts'
import { SAMPLE } from './reader.ts'

/** Cells of a text that are read part by part, so that their texts need not all be held at once. */
export interface CellParts {
  rows: number
  /** Cells of lines spread over the text, by column. */
  sample: string[][]
  /** The cells of each part by column, with the number of its first row and the share of the text that is behind it. */
  parts(): Iterable<{ columns: string[][]; first: number; done: number }>
}

/** Rows of text that need none of CSV's rules but its separators: how tables are written by most programs. */
export interface PlainCsv extends CellParts {
  header: string[]
}

/** Characters of a part: so few that the texts of its cells are gone before the collector of garbage moves them about. */
const PART = 1 << 15

/**
 * CSV without quotes and with as many cells in each line, for a parser that is several times as quick but takes both for
 * granted; undefined where that is not so, and another has to look what is wrong.
 */
export function plainCsv(text: string, separator: string): PlainCsv | undefined {
  const lineEnd = text.includes('\r') ? '\r\n' : '\n'
  if (separator.length !== 1) return undefined
  const lines = plainLines(text, separator, lineEnd === '\r\n')
  if (lines === undefined) return undefined
  const start = text.indexOf('\n') + 1
  const head = text.slice(0, start)
  const header = head.slice(0, -lineEnd.length).split(separator)
  const schema = inferSchema(head, { col: separator, row: lineEnd, encl: '' })
  const parts = function* () {
    const parser = initParser(schema)
    let first = 0
    for (let from = start; from < text.length; ) {
      const end = text.indexOf('\n', Math.min(from + PART, text.length - 1)) + 1
      const to = end === 0 ? text.length : end
      // The parser passes over a first line.
      const columns: string[][] = parser.stringCols(head + text.slice(from, to))
      yield { columns, first, done: to / text.length }
      first += columns[0].length
      from = to
    }
  }
  const sample = sampleOf(text, start, header.length, separator)
  fillEmpty(sample, parts)
  return { header, rows: lines - 1, sample, parts }
}

/** Columns of which the sample shows nothing are looked through for the values that they have. */
export function fillEmpty(sample: string[][], parts: CellParts['parts']): void {
  const says = (cell: string) => !isBlank(cell) && !isMissingText(cell.trim())
  const empty = [...sample.keys()].filter(c => !sample[c].some(says))
  if (empty.length === 0) return
  for (const { columns } of parts())
    for (const c of empty)
      for (const cell of columns[c]) if (sample[c].length < SAMPLE * 2 && says(cell)) sample[c].push(cell)
}

function sampleOf(text: string, start: number, width: number, separator: string): string[][] {
  const columns = Array.from({ length: width }, (): string[] => [])
  let from = start
  for (let i = 0; i < SAMPLE && from < text.length; i++) {
    const found = text.indexOf('\n', from)
    const end = found < 0 ? text.length : found
    const cells = text.slice(from, text[end - 1] === '\r' ? end - 1 : end).split(separator)
    for (let c = 0; c < width; c++) columns[c].push(cells[c])
    const next = Math.max(end, start + Math.floor(((text.length - start) * (i + 1)) / SAMPLE))
    // From the middle of a line to the beginning of the next.
    const line = next === end ? end : text.indexOf('\n', next)
    from = line < 0 ? text.length : line + 1
  }
  return columns
}

/** How many lines there are, if all have as many cells as the first, at least two, and end alike, and there is no quote. */
function plainLines(text: string, separator: string, returns: boolean): number | undefined {
  const { length } = text
  const first = text.indexOf('\n')
  // A header alone has no rows to be quick about.
  if (first < 0 || first === length - 1 || text.includes('"')) return undefined
  if (returns && !allReturn(text)) return undefined
  let lines = 0
  let width = 0
  let next = text.indexOf(separator)
  for (let start = 0; start < length; ) {
    const found = text.indexOf('\n', start)
    const end = found < 0 ? length : found
    let cells = 1
    for (; next >= 0 && next < end; next = text.indexOf(separator, next + 1)) cells++
    if (width === 0) width = cells
    if (cells !== width || cells < 2) return undefined
    lines++
    start = end + 1
  }
  return lines
}

/** Whether every line but the last, which may end with the text, ends with a return, and none has another. */
function allReturn(text: string): boolean {
  let at = -1
  for (;;) {
    const found = text.indexOf('\r', at + 1)
    const end = text.indexOf('\n', at + 1)
    if (found < 0) return end < 0
    if (end !== found + 1) return false
    at = end
  }
}
