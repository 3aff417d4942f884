import { DapploError } from '../../finding/error.ts'
import type { TableOptions } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { withoutMark } from '../read/byte-order-mark.ts'
import type { CsvOptions } from '../read/csv.ts'
import { checkRecords } from '../read/intake.ts'
import { jsonErrorAt } from '../read/json-text.ts'
import { splitCsv } from '../read/split-csv.ts'
import { type ArrowColumns, columnsFrom, type FormOptions, rowsOfBatch } from './forms.ts'

/** The cell type that a column array holds. */
type CellOf<A> = A extends readonly (infer T)[] ? T : A extends ArrayLike<infer T> ? T : never
type RowOf<C> = { [name in keyof C]: CellOf<C[name]> }

/** What stands for a value in a list or a map of values. */
type PlainValue = string | number | bigint | boolean | Date | null | undefined
/** The rows of names that have a value, or a record, each. */
type Named<K, V> = V extends PlainValue ? { name: K; value: V } : { name: K } & V

/**
 * Makes a table from what people have: records (`[{ route: 'Gannet Bay', passengers: 120 }, …]`), column arrays
 * (`{ route: [...], passengers: new Float64Array(...) }`), values by name (`{ 'Gannet Bay': 120 }`, a `Map`, pairs), lists
 * with `names`, whatever yields rows, or an Apache Arrow table. A `Float64Array` is taken without copying and never written
 * to. Texts that are numbers or dates throughout a column become numbers or dates; `report` says so. Rows that come in
 * time are read by `readRows`.
 */
export function table<K extends PlainValue, V>(
  pairs: readonly (readonly [K, V])[],
  options?: TableOptions & { names?: undefined },
): Table<Named<K, V>>
export function table(
  lists: readonly (readonly unknown[])[],
  options: TableOptions & FormOptions & { names: readonly string[] },
): Table
export function table<R extends object>(
  rows: readonly R[],
  options?: TableOptions<NoInfer<R>> & FormOptions,
): Table<R>
export function table<K, V>(
  values: ReadonlyMap<K, V>,
  options?: TableOptions & FormOptions,
): Table<Named<K, V>>
export function table<V extends PlainValue>(
  values: Record<string, V>,
  options?: TableOptions & FormOptions,
): Table<{ name: string; value: V }>
export function table<C extends Record<string, ArrayLike<unknown>>>(
  columns: C,
  options?: TableOptions<NoInfer<RowOf<C>>> & FormOptions,
): Table<RowOf<C>>
export function table<R extends object>(
  rows: Iterable<R>,
  options?: TableOptions<NoInfer<R>> & FormOptions,
): Table<R>
export function table(arrow: ArrowColumns, options?: TableOptions & FormOptions): Table
export function table(data: unknown, options: TableOptions & FormOptions = {}): Table {
  const { types = {}, ...raw } = columnsFrom(data, options)
  const columns = { ...options.columns }
  for (const [name, type] of Object.entries(types)) columns[name] = { type, ...columns[name] }
  return new Table(raw, Object.keys(types).length > 0 ? { ...options, columns } : options)
}

/**
 * Makes a table from rows that come in time: an async iterable such as a database cursor, or a stream; of records, of lists
 * with `names`, or of batches of either. Throws what `table` throws.
 */
export async function readRows<R extends object = any>(
  rows: AsyncIterable<R | readonly R[]> | Iterable<R | readonly R[]> | ReadsRows<R | readonly R[]>,
  options: TableOptions<NoInfer<R>> & FormOptions = {},
): Promise<Table<R>> {
  const all: unknown[] = []
  for await (const row of 'getReader' in rows ? chunksOf(rows) : rows) {
    if (isBatch(row)) for (const own of row) all.push(own)
    else all.push(...rowsOfBatch(row))
  }
  return table(all as R[], options)
}

/** Whether something is a list of rows, and no row that is a list of values. */
const isBatch = (row: unknown): row is readonly object[] =>
  Array.isArray(row) && row.every(own => own !== null && typeof own === 'object' && !(own instanceof Date))

/** A stream, as the platform has it. */
interface ReadsRows<T> {
  getReader(): { read(): Promise<{ done: boolean; value?: T }> }
}

async function* chunksOf<T>(stream: ReadsRows<T>): AsyncGenerator<T> {
  const reader = stream.getReader()
  for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value as T
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
  const plain = withoutMark(text)
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
