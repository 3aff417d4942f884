import { DapploError } from '../../finding/error.ts'
import type { Column } from '../cells/options.ts'
import type { RawColumns } from '../live/model.ts'
import { checkRecords, recordNames } from '../read/intake.ts'

/** How rows that are no records are read. */
export interface FormOptions {
  /** The columns of rows that are lists, such as `[['Gannet Bay', 120]]`. Default for pairs, maps and plain objects: `name` and `value`. */
  names?: readonly string[]
  /** What becomes of columns and lists that are shorter or longer than the others: they are refused (default), or filled and cut. */
  ragged?: 'refuse' | 'fill'
}

/** Raw columns, with what is known of their types. */
export interface Formed extends RawColumns {
  types?: Record<string, Column['type']>
}

const PAIR = ['name', 'value'] as const

/** Columns from what people have: records, columns, pairs, maps, plain objects, Arrow tables, or anything that yields rows. */
export function columnsFrom(data: unknown, { names, ragged }: FormOptions): Formed {
  if (Array.isArray(data)) return fromList(data, names, ragged)
  if (data === null || typeof data !== 'object') throw noTable(data === null ? 'null' : `a ${typeof data}`)
  if (data instanceof Map) return fromEntries([...data], names)
  if (isArrow(data)) return fromArrow(data)
  if (Symbol.asyncIterator in data || 'getReader' in data || 'then' in data)
    throw new DapploError(
      'bad-rows',
      'The rows of a stream are not here yet',
      'rows',
      'Wait for them: await readRows(stream).',
    )
  if (Symbol.iterator in data && !ArrayBuffer.isView(data))
    return fromList([...(data as Iterable<unknown>)], names, ragged)
  const values = Object.values(data)
  if (values.length > 0 && values.every(isPlain)) return fromEntries(Object.entries(data), names)
  return fromColumns(data as Record<string, ArrayLike<unknown>>, ragged)
}

const isPlain = (value: unknown): boolean =>
  value === null || value instanceof Date || (typeof value !== 'object' && typeof value !== 'function')

function fromList(
  data: readonly unknown[],
  names: FormOptions['names'],
  ragged: FormOptions['ragged'],
): Formed {
  if (data.length > 0 && data.every(Array.isArray)) return fromLists(data, names, ragged)
  checkRecords(data)
  const own = recordNames(data)
  return {
    names: own,
    columns: own.map(name =>
      data.map(row =>
        Object.hasOwn(row as object, name) ? (row as Record<string, unknown>)[name] : undefined,
      ),
    ),
  }
}

function fromLists(
  rows: readonly (readonly unknown[])[],
  told: FormOptions['names'],
  ragged: FormOptions['ragged'],
): Formed {
  const names = told ?? (rows.every(row => row.length === 2) ? PAIR : undefined)
  if (!names)
    throw new DapploError(
      'bad-rows',
      'Rows that are lists do not say what their values are',
      'names',
      'Name them, as in table(rows, { names: ["route", "passengers", "delay"] }).',
    )
  const bad = ragged === 'fill' ? -1 : rows.findIndex(row => row.length !== names.length)
  if (bad >= 0)
    throw new DapploError(
      'ragged-row',
      `Row ${bad + 1} has ${rows[bad].length} values, but there are ${names.length} names`,
      `rows[${bad}]`,
      'Correct the row, or say ragged: "fill" to fill short rows with missing values and cut long ones.',
    )
  return { names: [...names], columns: names.map((_, i) => rows.map(row => row[i])) }
}

/** Names with a value each, or with a record of several. */
function fromEntries(entries: readonly (readonly [unknown, unknown])[], told: FormOptions['names']): Formed {
  if (entries.length === 0 || entries.every(([, value]) => isPlain(value)))
    return entries.length > 0
      ? fromLists(entries, told ?? PAIR, undefined)
      : { names: [...(told ?? PAIR)], columns: [[], []] }
  const [name = PAIR[0]] = told ?? []
  return fromList(
    entries.map(([key, value]) =>
      isPlain(value) || Array.isArray(value) ? value : { [name]: key, ...(value as object) },
    ),
    undefined,
    undefined,
  )
}

function fromColumns(data: Record<string, ArrayLike<unknown>>, ragged: FormOptions['ragged']): Formed {
  const names = Object.keys(data)
  const columns = names.map(name => data[name])
  const bad = columns.findIndex(
    column => column === null || typeof column !== 'object' || !('length' in column),
  )
  if (bad >= 0)
    throw new DapploError(
      'bad-rows',
      `Column "${names[bad]}" is not a list of values`,
      `columns.${names[bad]}`,
      'Give every column as an array or a typed array.',
    )
  if (ragged !== 'fill') return { names, columns }
  const length = Math.max(0, ...columns.map(column => column.length))
  return {
    names,
    columns: columns.map(column =>
      column.length === length ? column : Array.from({ length }, (_, row) => column[row]),
    ),
  }
}

/** The part of an Apache Arrow table, or of a batch of one, that is read: its columns by the names of its schema. */
export interface ArrowColumns {
  readonly schema: { readonly fields: readonly { name: string; type: { typeId: number } }[] }
  readonly numRows: number
  getChild(name: string): { nullCount: number; get(row: number): unknown; toArray(): unknown } | null
}

const isArrow = (data: object): data is ArrowColumns =>
  'schema' in data &&
  'getChild' in data &&
  typeof data.getChild === 'function' &&
  Array.isArray((data.schema as { fields?: unknown } | undefined)?.fields)

/** Type ids of the Arrow format: Date and Timestamp, which count from 1970. */
const TIMES = [8, 10]

function fromArrow(table: ArrowColumns): Formed {
  const types: Formed['types'] = {}
  const names = table.schema.fields.map(({ name }) => name)
  const columns = table.schema.fields.map(({ name, type }) => {
    const column = table.getChild(name)
    if (TIMES.includes(type.typeId)) types[name] = 'time'
    const whole = column?.nullCount === 0 ? column.toArray() : undefined
    return whole instanceof Float64Array
      ? whole
      : Array.from({ length: table.numRows }, (_, row) => column?.get(row))
  })
  return { names, columns, types }
}

/** The rows of a batch of Arrow's; anything else is a row itself. */
export function rowsOfBatch(row: unknown): unknown[] {
  if (row === null || typeof row !== 'object' || !isArrow(row)) return [row]
  const { names, columns, types = {} } = fromArrow(row)
  const timed = (name: string, value: unknown) =>
    types[name] === 'time' && typeof value === 'number' ? new Date(value) : value
  return Array.from({ length: row.numRows }, (_, i) =>
    Object.fromEntries(names.map((name, c) => [name, timed(name, columns[c][i])])),
  )
}

const noTable = (what: string): DapploError =>
  new DapploError(
    'bad-rows',
    `A table cannot be made from ${what}`,
    'rows',
    'Give a list of records or an object of column arrays; for text use readCsv, readJson or readLines.',
  )
