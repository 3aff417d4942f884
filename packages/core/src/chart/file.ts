import type { Kind } from '../drawing/kind.ts'
import { DapploError } from '../finding/error.ts'
import { suggest } from '../finding/nearest.ts'
import type { CsvOptions } from '../table/csv.ts'
import { derive } from '../table/derive.ts'
import { parseJson, readCsv, readJson, readLines, table } from '../table/read.ts'
import type { Table, TableOptions } from '../table/table.ts'
import { Chart } from './chart.ts'
import type { ChartFile, Description, Source, Spread as SpreadDescription } from './description.ts'
import { checkDescription, checkShape } from './schema.ts'
import { Spread } from './spread.ts'

/** A chart file, read and checked. */
export interface OpenedFile {
  chart: Chart | Spread
  tables: Record<string, Table>
}

/**
 * Makes a chart from the text of a `.chart.json` file. `fetchText` brings the text behind a source's `url`;
 * `source` names the file in messages. Throws `bad-json`, `bad-description`, `unknown-option` and what charts throw.
 */
export function readChartFile(
  text: string,
  kinds: Readonly<Record<string, Kind>>,
  fetchText: (url: string) => string,
  source = 'the description',
): OpenedFile {
  return openChartData(parseJson(text, source), kinds, fetchText, source)
}

/** Like readChartFile, from JSON that is parsed already. */
export function openChartData(
  data: unknown,
  kinds: Readonly<Record<string, Kind>>,
  fetchText: (url: string) => string,
  source = 'the description',
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
  checkShape(data, 'chart file')
  const { tables: sources, ...description } = data as ChartFile
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
  for (const name of names) tables[name] = tableOf(name, sources[name], fetchText)
  const chartOf = (one: Description & { table?: string }, path: string) => {
    const { table: name = names[0], ...rest } = one
    if (!Object.hasOwn(sources, name)) {
      throw new DapploError(
        'unknown-table',
        `There is no table "${name}"`,
        path,
        suggest(name, names, 'Tables'),
      )
    }
    return new Chart(tables[name], rest as Description, kinds, tables, checkDescription)
  }
  if ('spread' in description) {
    const { spread: parts, ...options } = description as unknown as SpreadDescription
    return {
      chart: new Spread(
        parts.map((part, i) => chartOf(part, `spread[${i}].table`)),
        options,
      ),
      tables,
    }
  }
  return { chart: chartOf(description as Description, 'table'), tables }
}

function tableOf(name: string, source: Source, fetchText: (url: string) => string): Table {
  const table = readTable(name, source, fetchText)
  return source.shape ? derive(table, source.shape) : table
}

function readTable(name: string, source: Source, fetchText: (url: string) => string): Table {
  const options = { name, key: source.key, columns: source.columns }
  if (source.rows) return table(source.rows as Record<string, unknown>[], options)
  if (source.url === undefined)
    throw new DapploError(
      'bad-description',
      `The table "${name}" has neither rows nor a url`,
      `tables.${name}`,
      'Give it "rows", or the "url" of a CSV or JSON file.',
    )
  const text = fetchText(source.url)
  return readText(text, source.as ?? formatOf(source.url), options)
}

/** The format that a file's name tells of; CSV when it tells nothing. */
export function formatOf(name: string): 'csv' | 'json' | 'lines' {
  if (/\.(ndjson|jsonl)$/i.test(name)) return 'lines'
  return /\.json$/i.test(name) ? 'json' : 'csv'
}

/** Reads a table's text in one of the formats it may come in. */
export function readText(
  text: string,
  format: 'csv' | 'json' | 'lines',
  options: TableOptions & CsvOptions,
): Table {
  if (format === 'json') return readJson(text, options)
  return format === 'lines' ? readLines(text, options) : readCsv(text, options)
}
