import { DapploError } from '../../finding/error.ts'
import { begin } from '../live/beginning.ts'
import type { TableOptions } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { withoutMark } from '../read/byte-order-mark.ts'
import { type CsvOptions, plainCells, separatorOf } from '../read/csv.ts'
import { quotedCells } from '../read/quoted-csv.ts'

/** How CSV text is read in chunks, so that a page stays responsive. */
export interface PartsOptions {
  /** Told after each part: the share that is done, 0 to 1, and rows so far. */
  progress?: (done: number, rows: number) => void
  /** An `AbortSignal`: aborting it ends the reading with an `aborted` error. */
  signal?: { readonly aborted: boolean }
}

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
  const bare = withoutMark(text)
  const { separator = separatorOf(bare) } = options
  const cut = { source: options.name, ...options, separator }
  const plain = plainCells(bare, cut)
  // A text with quotes is taken apart first, and its cells are read then.
  const raw = plain ?? (await inTurns(quotedCells(bare, cut), (done, rows) => rest(done * APART, rows)))
  const from = plain ? 0 : APART
  const beginning = await inTurns(begin(raw, options), (done, rows) => rest(from + done * (1 - from), rows))
  return new Table<R>(raw, options, beginning)
}

/** Of a text that is read part by part so much is read in one go. */
const SHARE = 0.01
/** Taking apart a text with quotes is about this share of the work. */
const APART = 0.6

/** Work that is done step by step, with a rest between them. */
async function inTurns<T>(
  work: Generator<{ done: number; rows: number }, T>,
  rest: (done: number, rows: number) => Promise<void>,
): Promise<T> {
  let step = work.next()
  for (let since = 0; !step.done; step = work.next()) {
    if (step.value.done - since < SHARE && step.value.done < 1) continue
    since = step.value.done
    await rest(step.value.done, step.value.rows)
  }
  return step.value
}
