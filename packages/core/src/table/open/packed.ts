import { DapploError } from '../../finding/error.ts'
import { type Cells, Dictionary } from '../cells/cells.ts'
import { TableColumn } from '../cells/column.ts'
import type { Column } from '../cells/options.ts'
import type { Reader } from '../cells/reader.ts'
import { zoneOf } from '../cells/zone.ts'
import { titleOf } from '../live/beginning.ts'
import type { TableOptions } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { columnOption } from '../read/common-columns.ts'
import { Intake } from '../read/intake.ts'
import type { Report } from '../read/report.ts'

interface PackedColumn {
  name: string
  cells: Cells
  /** How later rows are read; the zone by its name. */
  reader: Omit<Reader, 'zone'> & { zone: string }
  options: Column
}

/** A table as plain data that `postMessage` takes, with its columns as typed arrays. */
export interface PackedTable {
  kind: 'packed table'
  name: string
  rowsAre: string | undefined
  key: readonly string[]
  rows: number
  columns: PackedColumn[]
  report: Report
}

/**
 * Packs a table to be sent to another thread: `postMessage(packed, buffers)` moves the columns rather than copying them,
 * after which the table can be used here no longer.
 */
export function packTable(table: Table): { packed: PackedTable; buffers: ArrayBuffer[] } {
  const buffers = new Set<ArrayBuffer>()
  const columns = table.names.map(name => {
    const { cells, reader, options: all } = table.needColumn(name, '')
    const options = withoutFunctions(all)
    const packed = alone(cells, buffers)
    buffers.add((packed.type === 'text' ? packed.codes : packed.values).buffer as ArrayBuffer)
    return { name, cells: packed, reader: { ...reader, zone: reader.zone.name }, options }
  })
  const { name, rowsAre, key, length: rows, report } = table
  return {
    packed: { kind: 'packed table', name, rowsAre, key, rows, columns, report },
    buffers: [...buffers],
  }
}

/** What `postMessage` takes of what is said of a column. */
export const withoutFunctions = (options: Column): Column =>
  Object.fromEntries(Object.entries(options).filter(([, value]) => typeof value !== 'function'))

/** The cells in memory that is theirs alone: a part of a larger one, or one that columns share, is copied. */
function alone(cells: Cells, taken: ReadonlySet<unknown>): Cells {
  const whole = (values: Float64Array | Int32Array) =>
    values.buffer instanceof ArrayBuffer &&
    values.byteLength === values.buffer.byteLength &&
    !taken.has(values.buffer)
  return cells.type === 'text'
    ? { ...cells, codes: whole(cells.codes) ? cells.codes : cells.codes.slice() }
    : { ...cells, values: whole(cells.values) ? cells.values : cells.values.slice() }
}

/**
 * The table of what was packed; rows that come later are read as they were where it was made. `told`: what is said of columns
 * that cannot be sent, such as functions that write values. Throws `bad-rows`.
 */
export function unpackTable<R = any>(
  packed: PackedTable,
  told: TableOptions<NoInfer<R>>['columns'] = {},
): Table<R> {
  if (packed?.kind !== 'packed table')
    throw new DapploError(
      'bad-rows',
      'This is no packed table',
      '',
      'Give what packTable made, as the other thread sent it.',
    )
  const { name, rowsAre, key, rows, report } = packed
  const columns = new Map(
    packed.columns.map(column => {
      const { cells } = column
      const own = (told as Record<string, Column | undefined>)[column.name]
      const options = columnOption(column.name, { ...column.options, ...own }) ?? {}
      const reader = { ...column.reader, zone: zoneOf(column.reader.zone) }
      const words = cells.type === 'text' ? new Dictionary(cells.words) : undefined
      return [column.name, new TableColumn(column.name, cells, reader, options, true, words)]
    }),
  )
  const given = Object.fromEntries([...columns].map(([name, { options }]) => [name, options]))
  const intake = new Intake(report, titleOf(name), given, undefined)
  const options = { name, rowsAre, key: [...key] as (keyof R & string)[] }
  return new Table<R>({ names: [], columns: [] }, options, { columns, intake, report, rows })
}
