import { existsSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { basename, dirname, extname, join, resolve } from 'node:path'
import {
  builtinKinds,
  type Column,
  DapploError,
  formatOf,
  type OpenedFile,
  readChartFile,
  readText,
  type Table,
} from '@dapplo/core'

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

/** A source's file, which must be a plain path: what is on the network is not fetched behind the caller's back. */
export function fileBeside(folder: string, url: string): string {
  if (/^[a-z][a-z\d+.-]+:/i.test(url)) {
    throw new DapploError(
      'not-a-file',
      `"${url}" is not a file beside the description`,
      'tables',
      'Save the data in a file and name that.',
    )
  }
  return join(folder, url)
}

/** The text of a file. Throws `no-file` in plain words. */
export function readFileText(path: string): string {
  if (!existsSync(path))
    throw new DapploError(
      'no-file',
      `There is no file ${path}`,
      path,
      'Check the name, and the folder that you are in.',
    )
  if (statSync(path).isDirectory())
    throw new DapploError('no-file', `${path} is a folder`, path, 'Name a file in it.')
  try {
    return readFileSync(path, 'utf8')
  } catch (error) {
    throw new DapploError(
      'no-file',
      `${path} cannot be read: ${(error as NodeJS.ErrnoException).code}`,
      path,
      'Check its permissions.',
    )
  }
}

/** Writes a file whole or not at all: under another name first, then in its place. Throws `not-written`. */
export function writeWhole(path: string, content: string | Uint8Array): void {
  const part = `${path}.${process.pid}.part`
  try {
    writeFileSync(part, content)
    renameSync(part, path)
  } catch (error) {
    rmSync(part, { force: true })
    const reason =
      (error as NodeJS.ErrnoException).code === 'ENOENT'
        ? `there is no folder ${dirname(path)}`
        : (error as NodeJS.ErrnoException).code
    throw new DapploError(
      'not-written',
      `${path} cannot be written: ${reason}`,
      path,
      'Name a file in a folder that exists and may be written to.',
    )
  }
}
