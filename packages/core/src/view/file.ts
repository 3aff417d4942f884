import { checkDescription, checkShape } from '../describe/check-shape.ts'
import type { ChartFile, Description, Source, Spread as SpreadDescription } from '../describe/description.ts'
import type { Kind } from '../describe/model.ts'
import { checkTree } from '../finding/check-tree.ts'
import { DapploError } from '../finding/error.ts'
import { suggest } from '../finding/nearest.ts'
import { labels } from '../pane/label/labels.ts'
import { following } from '../table/group/live-groups.ts'
import { keepRecent } from '../table/live/keep.ts'
import type { TableOptions } from '../table/live/model.ts'
import type { Table } from '../table/live/table.ts'
import { parseJson, readCsv, readJson, readLines, table } from '../table/open/read.ts'
import type { CsvOptions } from '../table/read/csv.ts'
import { derivedTable } from '../table/reshape/reshape.ts'
import type { House } from '../theme/house.ts'
import { checkHouse } from '../theme/house-check.ts'
import { advice } from './advice.ts'
import { Chart } from './chart.ts'
import { Spread } from './spread.ts'

/** A chart file, read and checked. */
export interface OpenedFile {
  chart: Chart | Spread
  tables: Record<string, Table>
  /** The style that the file asks for, or that was given for it. */
  house: House | undefined
  /** What tables ask to follow. Where nothing is followed, as in a picture, they show the rows they begin with. */
  feeds: Followed[]
}

/** A table that follows an address. */
export interface Followed extends Pick<Source, 'as' | 'every' | 'keep' | 'at' | 'stale'> {
  table: Table
  url: string
}

/** Whether a source sends messages, rather than holding all there is. */
export const sendsMessages = ({ as }: { as?: unknown }): boolean => as === 'events' || as === 'socket'

/**
 * Makes a chart from the text of a `.chart.json` file. `fetchText` brings the text behind a source's `url`;
 * `source` names the file in messages. Throws `bad-json`, `bad-description`, `unknown-option` and what charts throw.
 */
export function readChartFile(
  text: string,
  kinds: Readonly<Record<string, Kind>>,
  fetchText: (url: string) => string,
  source = 'the description',
  house?: House,
  tableOf?: TableOf,
): OpenedFile {
  return openChartData(parseJson(text, source), kinds, fetchText, source, house, tableOf)
}

/** Tables that are there already, or whose rows stay elsewhere; undefined for those that are to be read from the file. */
export type TableOf = (name: string, source: Source, options: TableOptions) => Table | undefined

/** Like readChartFile, from JSON that is parsed already. */
export function openChartData(
  data: unknown,
  kinds: Readonly<Record<string, Kind>>,
  fetchText: (url: string) => string,
  source = 'the description',
  asked?: House,
  tableOf?: TableOf,
): OpenedFile {
  if (data === null || typeof data !== 'object' || Array.isArray(data)) {
    throw new DapploError(
      'bad-description',
      `${source} is not a description`,
      source,
      'It must be a JSON object with "tables" and "draw".',
    )
  }
  if (!('tables' in data)) {
    throw new DapploError(
      'bad-description',
      `${source} names no tables`,
      'tables',
      'Add "tables": { "sailings": { "url": "sailings.csv" } }.',
    )
  }
  const { tables: given, ...rest } = data as { tables: unknown }
  checkTree(rest)
  if (given !== null && typeof given === 'object')
    for (const [name, source] of Object.entries(given)) {
      // Rows are data: what cannot be read of them is told cell by cell.
      const { rows: _, ...told } = Object(source)
      checkTree(told, `tables.${name}`)
    }
  checkShape(data, 'chart file')
  const { tables: sources, house: wish, ...description } = data as ChartFile
  const house =
    wish === undefined ? asked : typeof wish === 'string' ? readHouse(fetchText(wish), wish) : wish
  const names = Object.keys(sources)
  if (names.length === 0) {
    throw new DapploError(
      'bad-description',
      `${source} names no tables`,
      'tables',
      'Add one, such as "sailings": { "url": "sailings.csv" }.',
    )
  }
  const tables: Record<string, Table> = Object.create(null)
  const feeds: Followed[] = []
  for (const name of names) {
    const { url, as, every, keep, at, stale, shape } = sources[name]
    const read = readTable(name, sources[name], fetchText, house, tableOf)
    if (keep !== undefined) keepRecent(read, keep, at)
    if (sendsMessages(sources[name]) || every !== undefined) {
      if (url === undefined)
        throw new DapploError(
          'bad-description',
          `The table "${name}" has nothing to follow`,
          `tables.${name}`,
          'Give it the "url" that brings its news.',
        )
      feeds.push({ table: read, url, as, every, keep, at, stale })
    }
    tables[name] = shape ? derivedTable(read, shape) : read
  }
  const chartOf = (drawing: Description & { table?: string }, path: string) => {
    const { table: name = names[0], ...rest } = drawing
    if (!Object.hasOwn(sources, name)) {
      throw new DapploError(
        'unknown-table',
        `There is no table "${name}"`,
        path,
        suggest(name, names, 'Tables'),
      )
    }
    return new Chart(tables[name], rest as Description, kinds, tables, {
      check: checkDescription,
      checkHouse,
      advise: advice,
      following,
      labels,
    })
  }
  if ('spread' in description) {
    const { spread: parts, ...options } = description as unknown as SpreadDescription
    return {
      chart: new Spread(
        parts.map((chart, i) => chartOf(chart, `spread[${i}].table`)),
        options,
      ),
      tables,
      house,
      feeds,
    }
  }
  return { chart: chartOf(description as Description, 'table'), tables, house, feeds }
}

/** Reads a house style from JSON. Throws `bad-json`, `bad-description` and `unknown-option`. */
export function readHouse(text: string, source = 'the house style'): House {
  const data = parseJson(text, source)
  checkTree(data, 'house')
  checkShape(data, 'house', 'house')
  checkHouse(data as House)
  return data as House
}

function readTable(
  name: string,
  source: Source,
  fetchText: (url: string) => string,
  house: House | undefined,
  tableOf: TableOf | undefined,
): Table {
  const told = { name, key: source.key, rowsAre: source.rowsAre, timeZone: house?.timeZone }
  const own = tableOf?.(name, source, { ...told, columns: source.columns })
  if (own) return own
  if (source.engine !== undefined || source.endpoint !== undefined || source.frozen !== undefined)
    throw new DapploError(
      'rows-elsewhere',
      `The rows of the table "${name}" stay in a database, and nothing here can ask it`,
      `tables.${name}`,
      'Draw the file with the command dapplo, or make the table with farTable() and hand it over.',
    )
  return readInHouse(
    columns => readOnce(name, source, fetchText, { ...told, columns }),
    source.columns,
    house,
  )
}

/** Reads a table with its own columns and those of the house that it has. */
export function readInHouse(
  read: (columns: Source['columns']) => Table,
  columns: Source['columns'],
  house: House | undefined,
): Table {
  const first = read(columns)
  // What the house says of columns counts for those that the table has, key by key under what the table says itself.
  const own = Object.entries(house?.columns ?? {}).filter(([column]) => first.column(column))
  if (own.length === 0) return first
  const merged = own.map(([column, options]) => [column, { ...options, ...columns?.[column] }] as const)
  return read({ ...columns, ...Object.fromEntries(merged) })
}

function readOnce(
  name: string,
  source: Source,
  fetchText: (url: string) => string,
  options: TableOptions,
): Table {
  // What only sends messages begins with the rows that are written down, or none.
  if (source.rows || (sendsMessages(source) && source.url !== undefined))
    return table((source.rows ?? []) as Record<string, unknown>[], options)
  if (source.url === undefined)
    throw new DapploError(
      'bad-description',
      `The table "${name}" has neither rows nor a url`,
      `tables.${name}`,
      'Give it "rows", or the "url" of a CSV or JSON file.',
    )
  const text = fetchText(source.url)
  return readText(text, (source.as as TextFormat | undefined) ?? formatOf(source.url), options)
}

/** A format that a table's text may come in. */
export type TextFormat = 'csv' | 'json' | 'lines'

/** The format that a file's name or an address tells of; undefined when it tells nothing. */
export function namedFormat(name: string): TextFormat | undefined {
  const ending = /\.([a-z]+)$/i.exec(name.split(/[?#]/, 1)[0])?.[1].toLowerCase()
  if (ending === 'ndjson' || ending === 'jsonl') return 'lines'
  return ending === 'json' || ending === 'csv' ? ending : undefined
}

/** The format that a file's name tells of; CSV when it tells nothing. */
export const formatOf = (name: string): TextFormat => namedFormat(name) ?? 'csv'

/** The format that a media type tells of, such as `application/json; charset=utf-8`; undefined when it tells none. */
export function mediaFormat(type: string | null | undefined): TextFormat | undefined {
  const name = (type ?? '').split(';', 1)[0].trim().toLowerCase()
  if (/[/+.-](x-)?(ndjson|jsonl|jsonlines)$/.test(name)) return 'lines'
  if (/[/+]json$/.test(name)) return 'json'
  return name === 'text/csv' ? 'csv' : undefined
}

/** Reads a table's text in one of the formats it may come in. */
export function readText(text: string, format: TextFormat, options: TableOptions & CsvOptions): Table {
  if (format === 'json') return readJson(text, options)
  return format === 'lines' ? readLines(text, options) : readCsv(text, options)
}
