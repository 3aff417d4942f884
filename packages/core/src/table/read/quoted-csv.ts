import {
  type CsvCells,
  type CsvOptions,
  gathered,
  headed,
  headerIn,
  linesOf,
  startLine,
  unclosedQuote,
} from './csv.ts'
import { fillEmpty } from './plain-csv.ts'
import { SAMPLE } from './reader.ts'

/** Characters that are taken apart in one go: a few milliseconds of work. */
const PART = 1 << 18

/** A stretch of whole lines of the text. */
interface Part {
  from: number
  end: number
  /** The line of the text on which it begins, from 1. */
  line: number
  /** Its first row, and by row which of its lines that is. */
  first: number
  numbers: Int32Array
  columns: string[][]
}

/** Takes text apart that needs CSV's rules, part by part; yields the share that is done. Throws what `splitCsv` throws. */
export function* quotedCells(
  text: string,
  options: CsvOptions & { separator: string },
): Generator<{ done: number; rows: number }, CsvCells> {
  const { source = 'the CSV text', separator } = options
  const parts: Part[] = []
  let head: { names: string[]; width: number } | undefined
  let rows = 0
  let line = 1
  for (let from = 0; from < text.length; ) {
    const { lines, end } = wholeLines(text, from, separator, broken =>
      unclosedQuote(line + broken - 1, source),
    )
    const headerAt = head ? -1 : headerIn(lines)
    if (headerAt >= 0) head = headed(lines[headerAt], source)
    if (head) {
      const lineAt = (at: number) => line + startLine(lines, at) - 1
      const found = gathered(lines, headerAt + 1, head.width, options, lineAt)
      parts.push({ from, end, line, first: rows, ...found })
      rows += found.numbers.length
    }
    for (let at = text.indexOf('\n', from); at >= 0 && at < end; at = text.indexOf('\n', at + 1)) line++
    from = end
    yield { done: end / text.length, rows }
  }
  const { names } = head ?? headed(undefined, source)
  const inParts = function* () {
    for (const { columns, first, end } of parts) yield { columns, first, done: end / text.length }
  }
  const sample = sampleOf(parts, names.length, rows)
  fillEmpty(sample, inParts)
  return {
    names,
    columns: [],
    parts: { rows, sample, parts: inParts },
    // Only ever asked for a message.
    lineOf: row => {
      const part = parts.findLast(({ first }) => first <= row)!
      const { lines } = linesOf(text.slice(part.from, part.end), separator)
      return part.line + startLine(lines, part.numbers[row - part.first]) - 1
    },
  }
}

/** Lines from a place on, to the end of one: as many more as it takes until all their quotes are closed. */
function wholeLines(
  text: string,
  from: number,
  separator: string,
  failed: (line: number) => Error,
): { lines: string[][]; end: number } {
  for (let size = PART; ; size *= 2) {
    const found = from + size < text.length ? text.indexOf('\n', from + size) : -1
    const end = found < 0 ? text.length : found + 1
    const { lines, broken, open } = linesOf(text.slice(from, end), separator)
    if (open && end < text.length) continue
    if (broken !== undefined) throw failed(startLine(lines, broken))
    // A part that ends with its line end would add an empty line that is not there.
    if (end < text.length) lines.pop()
    return { lines, end }
  }
}

/** Cells of rows spread over all parts, by column. */
function sampleOf(parts: readonly Part[], width: number, rows: number): string[][] {
  const sample = Array.from({ length: width }, (): string[] => [])
  // Those that would be looked at in columns that are there as a whole.
  const step = Math.max(1, Math.floor(rows / SAMPLE))
  let at = 0
  for (let row = 0; row < rows; row += step) {
    while (row >= parts[at].first + parts[at].numbers.length) at++
    for (let c = 0; c < width; c++) sample[c].push(parts[at].columns[c][row - parts[at].first])
  }
  return sample
}
