import Papa from 'papaparse'
import { DapploError } from '../../finding/error.ts'
import { begin } from '../live/beginning.ts'
import type { TableOptions } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { type CsvCells, type CsvOptions, gatherCsv, plainCells, separatorOf } from '../read/csv.ts'

/** How CSV text is read in chunks, so that a page stays responsive. */
export interface PartsOptions {
  /** Told after each part: the share that is done, 0 to 1, and rows so far. */
  progress?: (done: number, rows: number) => void
  /** An `AbortSignal`: aborting it ends the reading with an `aborted` error. */
  signal?: { readonly aborted: boolean }
}

/** Characters that are read in one go: a few milliseconds of work. */
const PART = 1 << 20

/** Lets the page, or other work, have its turn. */
const turn = () =>
  new Promise<void>(resolve =>
    (globalThis as unknown as { setTimeout: (run: () => void, ms: number) => void }).setTimeout(resolve, 0),
  )

/** Like readCsv, in chunks, so that a page stays responsive: for texts of many megabytes. Throws `aborted` too. */
export async function readCsvInParts<R = any>(
  text: string,
  options: TableOptions<NoInfer<R>> & CsvOptions & PartsOptions = {},
): Promise<Table<R>> {
  const { progress, signal } = options
  const rest = async (done: number, rows: number) => {
    if (signal?.aborted)
      throw new DapploError(
        'aborted',
        `Reading ${options.name ?? 'the CSV text'} was called off`,
        '',
        'Call again to read it.',
      )
    if (rows > 0) progress?.(done, rows)
    await turn()
  }
  await rest(0, 0)
  const { separator = separatorOf(text) } = options
  const cut = { source: options.name, ...options, separator }
  const raw = plainCells(text, cut) ?? (await cellsInParts(text, cut, rest))
  const reading = begin(raw, options)
  let step = reading.next()
  for (let since = 0; !step.done; step = reading.next()) {
    if (step.value.done - since < SHARE && step.value.done < 1) continue
    since = step.value.done
    await rest(step.value.done, step.value.rows)
  }
  return new Table<R>(raw, options, step.value)
}

/** Of a text that is read part by part so much is read in one go. */
const SHARE = 0.01

/** The lines of a text that needs the careful parser. */
async function cellsInParts(
  text: string,
  options: CsvOptions & { separator: string },
  rest: (done: number, rows: number) => Promise<void>,
): Promise<CsvCells> {
  const lines: string[][] = []
  let at = 0
  while (at < text.length) {
    const end = lineEnd(text, Math.min(text.length, at + PART), at)
    const parsed = Papa.parse<string[]>(text.slice(at, end), {
      delimiter: options.separator,
      header: false,
      skipEmptyLines: false,
    })
    // A part that ends with its line end would add an empty line that is not there.
    if (
      end < text.length &&
      parsed.data.length > 0 &&
      parsed.data[parsed.data.length - 1].length === 1 &&
      parsed.data[parsed.data.length - 1][0] === ''
    )
      parsed.data.pop()
    for (const line of parsed.data) lines.push(line)
    at = end
    await rest(at / text.length, lines.length)
  }
  return gatherCsv(lines, options)
}

/** The end of the line around `from`, outside quotes; a part that begins outside quotes has an even number of them. */
function lineEnd(text: string, from: number, start: number): number {
  let quotes = 0
  for (let i = text.indexOf('"', start); i >= 0 && i < from; i = text.indexOf('"', i + 1)) quotes++
  for (let i = from; i < text.length; i++) {
    const code = text.charCodeAt(i)
    if (code === 34) quotes++
    else if (code === 10 && quotes % 2 === 0) return i + 1
  }
  return text.length
}
