import { DapploError } from '../../finding/error.ts'
import type { TableOptions } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { type CsvOptions, splitCsv } from '../read/csv.ts'
import { checkRecords, recordNames } from '../read/intake.ts'
import { jsonErrorAt } from '../read/json-text.ts'

/** The cell type that a column array holds. */
type CellOf<A> = A extends readonly (infer T)[] ? T : A extends ArrayLike<infer T> ? T : never
type RowOf<C> = { [name in keyof C]: CellOf<C[name]> }

/**
 * Makes a table from records (`[{ route: 'Gannet Bay', passengers: 120 }, …]`) or from column arrays
 * (`{ route: [...], passengers: new Float64Array(...) }`). A `Float64Array` is taken without copying and never written to.
 * Texts that are numbers or dates throughout a column become numbers or dates; `report` says so.
 */
export function table<R extends object>(rows: readonly R[], options?: TableOptions<NoInfer<R>>): Table<R>
export function table<C extends Record<string, ArrayLike<unknown>>>(
  columns: C,
  options?: TableOptions<NoInfer<RowOf<C>>>,
): Table<RowOf<C>>
export function table(data: unknown, options: TableOptions = {}): Table {
  if (Array.isArray(data)) {
    checkRecords(data)
    const names = recordNames(data)
    return new Table(
      {
        names,
        columns: names.map(name => data.map(row => (Object.hasOwn(row, name) ? row[name] : undefined))),
      },
      options,
    )
  }
  if (data === null || typeof data !== 'object') {
    throw new DapploError(
      'bad-rows',
      `A table cannot be made from ${data === null ? 'null' : `a ${typeof data}`}`,
      'rows',
      'Give a list of records or an object of column arrays; for text use readCsv, readJson or readLines.',
    )
  }
  const names = Object.keys(data)
  const columns = names.map(name => (data as Record<string, ArrayLike<unknown>>)[name])
  const bad = columns.findIndex(
    column => column === null || typeof column !== 'object' || !('length' in column),
  )
  if (bad >= 0) {
    throw new DapploError(
      'bad-rows',
      `Column "${names[bad]}" is not a list of values`,
      `columns.${names[bad]}`,
      'Give every column as an array or a typed array.',
    )
  }
  return new Table({ names, columns }, options)
}

/** Makes a table from CSV text. Throws `empty-data`, `ragged-row`, `unclosed-quote`. */
export function readCsv<R = any>(
  text: string,
  options: TableOptions<NoInfer<R>> & CsvOptions = {},
): Table<R> {
  const cells = splitCsv(text, { source: options.name, ...options, inParts: true })
  return new Table<R>(cells, options)
}

/** Makes a table from JSON text: a list of records, or an object of column lists. Throws `bad-json`, `bad-rows`. */
export function readJson<R extends object = any>(
  text: string,
  options: TableOptions<NoInfer<R>> = {},
): Table<R> {
  const source = options.name ?? 'the JSON text'
  return table(parseJson(text, source) as R[], options)
}

/** Makes a table from newline-delimited JSON, one record a line. Throws `bad-json` naming the line. */
export function readLines<R extends object = any>(
  text: string,
  options: TableOptions<NoInfer<R>> = {},
): Table<R> {
  const rows: R[] = []
  const source = options.name ?? 'the text'
  text.split(/\r?\n/).forEach((line, i) => {
    if (line.trim() !== '') rows.push(parseJson(line, source, i + 1) as R)
  })
  return table(rows, options)
}

/** Parses JSON; a failure says where. Throws `bad-json`. */
export function parseJson(text: string, source: string, line?: number): unknown {
  const plain = text.charCodeAt(0) === 0xfeff ? text.slice(1) : text
  try {
    return JSON.parse(plain)
  } catch {
    const at = line ?? plain.slice(0, jsonErrorAt(plain)).split('\n').length
    const where = text.trim() === '' ? '' : ` line ${at}`
    throw new DapploError(
      'bad-json',
      `${source}${where} is not JSON`,
      `${source}${where}`,
      text.trim() === '' ? 'It is empty.' : 'Correct it there; look for a missing quote, comma or bracket.',
    )
  }
}

/**
 * The records in a text, their cells as they were written: for a table that has columns already, which reads them as it
 * read the first. Throws what the readers of its format throw.
 */
export function readRecords(
  text: string,
  format: 'csv' | 'json' | 'lines',
  source: string,
): Record<string, unknown>[] {
  if (format === 'csv') {
    if (text.trim() === '') return []
    const { names, columns } = splitCsv(text, { source })
    return recordsOf(names, columns)
  }
  const data =
    format === 'json'
      ? parseJson(text, source)
      : text.split(/\r?\n/).flatMap((line, i) => (line.trim() === '' ? [] : [parseJson(line, source, i + 1)]))
  if (Array.isArray(data) || data === null || typeof data !== 'object') {
    checkRecords(Array.isArray(data) ? data : [data])
    return data as Record<string, unknown>[]
  }
  const names = Object.keys(data)
  const { length } = table(data as Record<string, unknown[]>)
  return recordsOf(names, Object.values(data), length)
}

function recordsOf(
  names: readonly string[],
  columns: readonly ArrayLike<unknown>[],
  length = columns[0]?.length ?? 0,
): Record<string, unknown>[] {
  return Array.from({ length }, (_, row) => {
    const record: Record<string, unknown> = Object.create(null)
    names.forEach((name, i) => {
      record[name] = columns[i][row]
    })
    return record
  })
}
