import {
  type CsvOptions,
  DapploError,
  type PartsOptions,
  readCsvInParts,
  readText,
  type Table,
  type TableOptions,
} from '@dapplo/core'
import { mediaFormat, namedFormat } from '@dapplo/core/internal-files'

/** How a table is made from what an address answers. */
export interface FetchOptions<R = any> extends TableOptions<R>, CsvOptions, Omit<PartsOptions, 'signal'> {
  /** Default: told by the address's ending, else by the answer's media type, else CSV. */
  as?: 'csv' | 'json' | 'lines'
  signal?: AbortSignal
}

/** Makes a table from CSV, JSON or newline-delimited JSON at an address. Throws `not-fetched`, `aborted`, and what readers throw. */
export async function fetchTable<R = any>(
  url: string,
  options: FetchOptions<NoInfer<R>> = {},
): Promise<Table<R>> {
  const name =
    options.name ??
    decodeURIComponent(
      new URL(url, globalThis.document?.baseURI ?? location.href).pathname
        .split('/')
        .pop()
        ?.replace(/\.[^.]*$/, '') || 'table',
    )
  let text: string
  let type: string | null
  try {
    const response = await fetch(url, { signal: options.signal })
    if (!response.ok)
      throw new DapploError('not-fetched', `${url} answers ${response.status}`, url, 'Check the address.')
    type = response.headers.get('Content-Type')
    text = await response.text()
  } catch (error) {
    if (error instanceof DapploError) throw error
    if (options.signal?.aborted)
      throw new DapploError('aborted', `Fetching ${url} was called off`, url, 'Call again to fetch it.')
    throw new DapploError(
      'not-fetched',
      `${url} cannot be fetched`,
      url,
      'Check the address, the connection, and whether the server allows this page to read it.',
    )
  }
  const format = options.as ?? namedFormat(url) ?? mediaFormat(type) ?? 'csv'
  return tableOf(text, format, { source: url, ...options, name })
}

/** The table of a text that is here: CSV part by part, so that others have their turn. */
export const tableOf = async <R = any>(
  text: string,
  format: NonNullable<FetchOptions['as']>,
  options: FetchOptions<NoInfer<R>>,
): Promise<Table<R>> =>
  format === 'csv' ? readCsvInParts<R>(text, options as never) : (readText(text, format, options) as Table<R>)
