import { basename, dirname, extname, resolve } from 'node:path'
import { builtinKinds, type Column, readChartFile, readText, type Table } from '@dapplo/core'
import { formatOf, type OpenedFile } from '@dapplo/core/internal-files'
import { fileBeside, readFileText } from './files.ts'

/** How a file is read into a table. */
export interface OpenOptions {
  key?: string | string[]
  columns?: Record<string, Column>
  ragged?: 'refuse' | 'fill'
}

/** Reads a table from a CSV, JSON or newline-delimited JSON file. Throws `no-file` and what readers throw. */
export function openTable(path: string, options: OpenOptions = {}): Table {
  const name = basename(path, extname(path))
  return readText(readFileText(path), formatOf(path), { ...options, name, source: basename(path) })
}

/** Reads a chart from a `.chart.json` file; the tables it names are looked for beside it. */
export function openChart(path: string): OpenedFile {
  const folder = dirname(resolve(path))
  return readChartFile(
    readFileText(path),
    builtinKinds,
    url => readFileText(fileBeside(folder, url)),
    basename(path),
  )
}
