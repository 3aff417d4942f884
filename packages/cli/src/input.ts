import { existsSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { lookAt, type TableLook } from '@dapplo/core'
import type { FarTable } from '@dapplo/core/far'
import { answeredElsewhere, tablesOf } from '@dapplo/core/internal'
import { type Followed, hasManyRecords, readInHouse } from '@dapplo/core/internal-files'
import {
  builtinKinds,
  type Chart,
  type Column,
  chart,
  DapploError,
  type Description,
  fileBeside,
  type House,
  type OpenOptions,
  openTable,
  readChartFile,
  readFileText,
  readHouse,
  readText,
  Spread,
  type State,
  type Table,
} from '@dapplo/node'
import { type FarFlags, isDatabase, isFarFile } from './far-input.ts'

/** What `dapplo` was given to work on. */
export interface Opened {
  chart: Chart | Spread | undefined
  tables: Record<string, Table>
  table: Table
  house: House | undefined
  /** What tables ask to follow. */
  feeds: readonly Followed[]
}

/** Reads a data file, a description, or standard input for `-`; a description is JSON that has tables. */
export async function openInput(path: string, options: OpenOptions & FarFlags): Promise<Opened> {
  const { table: named, query, order, ...reading } = options
  if (path !== '-' && (isDatabase(path) || isFarFile(path))) {
    const { openFar } = await import('./engines.ts')
    const house = houseBeside(path)
    const table = await openFar(path, { table: named, query, order }, { ...reading, ...timeZoneOf(house) })
    return { chart: undefined, tables: { [table.name]: table }, table, house, feeds: [] }
  }
  if (named !== undefined || query !== undefined)
    throw new DapploError(
      'bad-flag',
      'Only a database has tables to choose from',
      named === undefined ? '--query' : '--table',
      'Leave it out, or give the address of a database, as in postgres://reader@localhost/line.',
    )
  const text = path === '-' ? readStandardInput() : undefined
  if (path.endsWith('.chart.json') || (text !== undefined && looksLikeChart(text))) {
    const file = text ?? readFileText(path)
    const opened = readChartFile(
      file,
      builtinKinds,
      url => readFileText(fileBeside(folderOf(path), url)),
      path === '-' ? 'standard input' : basename(path),
      houseBeside(path),
      mayBeFar(file) ? await (await import('./engines.ts')).farTablesOf(file, folderOf(path)) : undefined,
    )
    return {
      house: opened.house,
      feeds: opened.feeds,
      chart: opened.chart,
      tables: opened.tables,
      table: opened.chart instanceof Spread ? opened.chart.charts[0].table : opened.chart.table,
    }
  }
  const house = houseBeside(path)
  const read = (columns: Record<string, Column> | undefined) => {
    const told = { timeZone: house?.timeZone, ...reading, columns }
    return text === undefined
      ? openTable(path, told)
      : readText(text, formatOfText(text), { ...told, name: 'input', source: 'standard input' })
  }
  const table = readInHouse(read, reading.columns as Record<string, Column> | undefined, house)
  return { chart: undefined, tables: { [table.name]: table }, table, house, feeds: [] }
}

const timeZoneOf = (house: House | undefined) =>
  house?.timeZone === undefined ? {} : { timeZone: house.timeZone }

/** Whether a file may name tables whose rows stay elsewhere: what asks for them is loaded only then. */
export const mayBeFar = (text: string): boolean => /"engine"\s*:|\.(parquet|arrow|feather)"|\*/.test(text)

/** Waits until what a chart shows is here, where it comes from elsewhere. */
export async function arrived(chart: Chart | Spread, state: State = {}): Promise<void> {
  const far = tablesOf(chart).some(answeredElsewhere)
  if (far) await (await import('@dapplo/engines')).ready(chart, { state, within: 120_000 })
}

/** The house style that lies beside an input, as `dapplo.house.json`. */
function houseBeside(path: string): House | undefined {
  const file = join(folderOf(path), 'dapplo.house.json')
  return existsSync(file) ? readHouse(readFileText(file), 'dapplo.house.json') : undefined
}

const folderOf = (path: string) => (path === '-' ? '.' : path.replace(/[^/\\]*$/, '') || '.')

function readStandardInput(): string {
  try {
    return readFileSync(0, 'utf8')
  } catch {
    return ''
  }
}

const looksLikeChart = (text: string) =>
  /^\s*\{/.test(text) && /"tables"\s*:/.test(text) && /"draw"\s*:/.test(text)

function formatOfText(text: string): 'csv' | 'json' | 'lines' {
  if (/^\s*\[/.test(text)) return 'json'
  if (!/^\s*\{/.test(text)) return 'csv'
  return hasManyRecords(text) ? 'lines' : 'json'
}

/** The chart to draw: the file's, with the flags on top; or one described by flags alone. */
export function chartOf(opened: Opened, flags: Record<string, unknown>): Chart | Spread {
  const fields = descriptionOf(flags)
  if (opened.chart instanceof Spread) {
    if (Object.keys(fields).length === 0) return opened.chart
    throw new DapploError(
      'bad-flag',
      'A spread cannot be changed by flags',
      `--${Object.keys(fields)[0]}`,
      'Change its description.',
    )
  }
  if (opened.chart) return Object.keys(fields).length > 0 ? opened.chart.with(fields) : opened.chart
  if (fields.draw === undefined) {
    throw new DapploError(
      'missing-flag',
      'What shall be drawn?',
      '--draw',
      'Add, for example, --draw line --x "day of departed" --y "sum of passengers".',
    )
  }
  return chart(opened.table, fields as Description)
}

/** Fields of the description that are flags of the same name; those that are not plain words are given as JSON. */
export const FIELDS = [
  'draw',
  'x',
  'y',
  'color',
  'series',
  'shape',
  'dash',
  'size',
  'label',
  'arrange',
  'between',
  'points',
  'breakAfter',
  'values',
  'hollow',
  'fit',
  'band',
  'top',
  'rest',
  'order',
  'title',
  'subtitle',
  'caption',
  'source',
  'where',
  'style',
  'scales',
  'axes',
  'legend',
  'background',
  'plot',
  'notes',
  'colorNames',
  'through',
  'panes',
  'stamp',
  'id',
  'link',
  'tooltip',
  'zoom',
  'select',
  'respond',
  'motion',
  'controls',
] as const

/** Fields that hold a number, where they are not structured. */
const NUMBERS = new Set<string>(['top', 'hollow', 'band'])

/** Fields that hold words only, which may begin with a bracket or a hole, as in "{count} sailings". */
const WORDS = new Set<string>(['title', 'subtitle', 'caption', 'source', 'id', 'rest'])
/** Fields that hold words with holes, or structure. */
const HOLED = new Set<string>(['label', 'tooltip', 'link', 'stamp'])

/** Flags that had other names before, or that the trade calls otherwise: what they are called here. */
export const RENAMED = {
  hole: '--hollow',
  period: '--stamp',
  summary: '--stamp',
  kind: '--draw',
  chart: '--draw',
  colour: '--color',
  sort: '--order',
  filter: '--where',
  limit: '--top',
  facet: '--panes',
  width: '--frame',
  height: '--frame',
  output: '--out',
  format: '--out',
  dark: '--theme night',
}

/** What to write in place of some of them. */
const WRITE: Readonly<Record<string, string>> = {
  width: 'Write both sides, as in --frame 1280x800.',
  height: 'Write both sides, as in --frame 1280x800.',
  format: 'The ending of its name says the format, as in --out chart.png.',
}

/** The fields of a description that flags of their names set. */
export function descriptionOf(flags: Record<string, unknown>): Record<string, any> {
  for (const [old, now] of Object.entries(RENAMED))
    if (flags[old] !== undefined)
      throw new DapploError(
        'renamed',
        `--${old} is called ${now}`,
        `--${old}`,
        WRITE[old] ?? `Write ${now} instead.`,
      )
  if (typeof flags.size === 'string' && /^\d+x\d+$/.test(flags.size.trim()))
    throw new DapploError(
      'renamed',
      'The size of the picture is called --frame; --size says how large points are',
      '--size',
      `Write --frame ${flags.size.trim()}.`,
    )
  const out: Record<string, unknown> = {}
  for (const field of FIELDS) {
    const value = flags[field]
    if (value === undefined) continue
    if (typeof value !== 'string') out[field] = value
    else if (/^\s*[[{]/.test(value) && !WORDS.has(field)) out[field] = structure(field, value)
    else out[field] = NUMBERS.has(field) ? Number(value) : value
  }
  return out
}

function structure(field: string, text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    if (HOLED.has(field)) return text
    throw new DapploError(
      'bad-json',
      `--${field} is not JSON: ${text}`,
      `--${field}`,
      `Write it as in --${field} '{"sum": "passengers"}'.`,
    )
  }
}

/** What `--type` says of a column, as its options. */
const READ_AS: Readonly<Record<string, Column>> = {
  number: { type: 'number' },
  time: { type: 'time' },
  text: { type: 'text' },
  'day first': { dates: 'day first' },
  'month first': { dates: 'month first' },
  'decimal point': { numbers: 'decimal point' },
  'decimal comma': { numbers: 'decimal comma' },
}

/** What flags say of the rows of a database. */
const farFlags = (flags: DataFlags): FarFlags => ({
  table: flags.table,
  query: flags.query,
  order: flags.inOrder,
})

/** Flags for how data are read, and which rows of a database are meant. */
export interface DataFlags {
  type?: string[]
  ragged?: 'fill'
  table?: string
  query?: string
  inOrder?: string
}

/** What they say. */
export const readingFlags = (flags: DataFlags) => ({
  columns: columnOptions(flags.type),
  ragged: flags.ragged,
  ...farFlags(flags),
})

/** What is in a table, here or in its database. */
export const lookOf = async (table: Table): Promise<TableLook> =>
  answeredElsewhere(table) ? (await import('@dapplo/engines')).lookFar(table as FarTable) : lookAt(table)

/** `--type year=text` as column options. */
export function columnOptions(types: string[] | undefined): Record<string, Column> | undefined {
  if (!types?.length) return undefined
  return Object.fromEntries(
    types.map(text => {
      const at = text.lastIndexOf('=')
      const type = text.slice(at + 1)
      if (at < 1 || !Object.hasOwn(READ_AS, type))
        throw new DapploError(
          'bad-flag',
          `"${text}" names no column and type`,
          '--type',
          'Write it as in --type year=text; types are number, time and text, for dates "day first" and "month first", and for numbers "decimal point" and "decimal comma".',
        )
      return [text.slice(0, at), READ_AS[type]]
    }),
  )
}
