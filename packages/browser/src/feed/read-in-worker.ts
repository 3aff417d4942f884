import { type Column, type CsvOptions, DapploError, type Table, type TableOptions } from '@dapplo/core'
import {
  type CommonColumns,
  columnsInUse,
  namedFormat,
  type PackedTable,
  packTable,
  unpackTable,
  useColumns,
  withoutFunctions,
} from '@dapplo/core/internal-files'
import { type FetchOptions, fetchTable, tableOf } from './fetch-table.ts'

/** What a page asks of a worker. */
interface Asked {
  source: string | Blob
  options: TableOptions & CsvOptions & Pick<FetchOptions, 'as'>
  /** What the page says of columns of all tables. */
  common: CommonColumns
}

/** What a worker says: how far it is, and at last the table, or why there is none. */
type Said =
  | { done: number; rows: number }
  | { packed: PackedTable }
  | { failed: { code: string; message: string; path: string; hint: string } }

/** A worker that says nothing for so long has not been started, in milliseconds. */
const SILENT = 30_000

/**
 * Reads CSV, JSON or newline-delimited JSON in a worker, so that the page loses no frame: at an address, or a file that a
 * person chose. The columns are moved to the page, not copied. The worker's module calls `readForPages`. Throws what
 * `fetchTable` throws.
 */
export function readInWorker<R = any>(
  worker: Worker,
  source: string | Blob,
  options: FetchOptions<NoInfer<R>> = {},
): Promise<Table<R>> {
  const { progress, signal, ...told } = options
  if (signal?.aborted) return Promise.reject(calledOff(source))
  return new Promise((resolve, reject) => {
    const { port1: here, port2: there } = new MessageChannel()
    const ending = new AbortController()
    const end = (error?: unknown) => {
      clearTimeout(waiting)
      ending.abort()
      here.close()
      if (error) reject(error)
    }
    const { signal: over } = ending
    signal?.addEventListener(
      'abort',
      () => {
        here.postMessage('stop')
        end(calledOff(source))
      },
      { signal: over },
    )
    worker.addEventListener('error', event => end(noWorker(event.message)), { signal: over })
    // One that failed before anybody listened says nothing at all.
    const waiting = setTimeout(() => end(noWorker('it does not answer')), SILENT)
    here.onmessage = ({ data }: MessageEvent<Said>) => {
      clearTimeout(waiting)
      if ('done' in data) return progress?.(data.done, data.rows)
      if ('failed' in data) {
        const { code, message, path, hint } = data.failed
        return end(new DapploError(code, message, path, hint))
      }
      end()
      resolve(unpackTable<R>(data.packed, told.columns))
    }
    // What is relative is meant from the page, not from where the worker's module stands.
    const from = typeof source === 'string' ? new URL(source, document.baseURI).href : source
    const { columns, timeZone } = columnsInUse()
    const asked: Asked = {
      source: from,
      options: { ...told, columns: sendable(told.columns) } as Asked['options'],
      common: { columns: sendable(columns), timeZone },
    }
    try {
      worker.postMessage(asked, [there])
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error)
      const hint = 'Give options of texts, numbers, lists and records.'
      end(new DapploError('not-sent', `This cannot be sent to a worker: ${why}`, '', hint))
    }
  })
}

/** Columns without functions, which stay on the page. */
const sendable = (columns: object | undefined): Record<string, Column> | undefined =>
  columns &&
  Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, withoutFunctions(column ?? {})]))

const calledOff = (source: string | Blob): DapploError =>
  new DapploError('aborted', `Reading ${nameOf(source)} was called off`, '', 'Call again to read it.')

const noWorker = (why: string | undefined): DapploError =>
  new DapploError(
    'no-worker',
    `The worker has failed${why ? `: ${why}` : ''}`,
    '',
    'Make it from a module that calls readForPages, as new Worker(url, { type: "module" }).',
  )

const nameOf = (source: string | Blob): string =>
  typeof source === 'string' ? source : source instanceof File ? source.name : 'the file'

/** Has a worker read what pages ask for by `readInWorker`; for the module that the worker is made from. */
export function readForPages(): void {
  addEventListener('message', async ({ data, ports: [port] }: MessageEvent<Asked>) => {
    if (!port || !data?.source) return
    const say = (said: Said, buffers: ArrayBuffer[] = []) => port.postMessage(said, buffers)
    const progress = (done: number, rows: number) => say({ done, rows })
    const stop = new AbortController()
    port.onmessage = () => stop.abort()
    progress(0, 0)
    try {
      const { source } = data
      useColumns(data.common ?? {})
      const options = { ...data.options, progress, signal: stop.signal }
      const table =
        typeof source === 'string' ? await fetchTable(source, options) : await readBlob(source, options)
      const { packed, buffers } = packTable(table)
      say({ packed }, buffers)
    } catch (error) {
      const { code, message, path, hint } =
        error instanceof DapploError
          ? error
          : new DapploError(
              'not-read',
              `The data could not be read: ${error instanceof Error ? error.message : error}`,
            )
      say({ failed: { code, message, path, hint } })
    }
  })
}

async function readBlob(source: Blob, options: FetchOptions): Promise<Table> {
  const file = source instanceof File ? source.name : 'file'
  const named = { source: file, name: file.replace(/\.[^.]*$/, '') || 'table', ...options }
  return tableOf(await source.text(), options.as ?? namedFormat(file) ?? 'csv', named)
}
