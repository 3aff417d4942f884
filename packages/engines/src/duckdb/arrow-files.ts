import { createReadStream } from 'node:fs'
import { basename } from 'node:path'
import { DapploError } from '@dapplo/core'
import type { DuckDBConnection, DuckDBType, DuckDBValue } from '@duckdb/node-api'
import type { DataType, RecordBatch, RecordBatchReader } from 'apache-arrow'
import { needPart } from '../need-part.ts'
import { duckdbDialect } from './dialect.ts'

/** Rows that are handed over at once: as many as a chunk of DuckDB holds. */
const CHUNK = 2048

/** A column of an Arrow file in the terms of DuckDB. */
interface Column {
  name: string
  type: DuckDBType
  write: (value: unknown) => DuckDBValue
}

/**
 * Reads files in the format of Apache Arrow (also called Feather) into a table, batch by batch. Needs the package
 * `apache-arrow`. Throws where files of one table have different columns.
 */
export async function fillFromArrow(
  connection: DuckDBConnection,
  table: string,
  files: readonly string[],
): Promise<void> {
  const [arrow, duckdb] = await Promise.all([
    needPart('An Arrow file', 'apache-arrow', () => import('apache-arrow')),
    import('@duckdb/node-api'),
  ])
  const name = duckdbDialect.quote
  let columns: Column[] | undefined
  let appender: Awaited<ReturnType<DuckDBConnection['createAppender']>> | undefined
  for (const file of files) {
    const reader: RecordBatchReader = await arrow.RecordBatchReader.from(createReadStream(file))
    await reader.open()
    if (!reader.schema) throw new Error('it is no Arrow file')
    const own = reader.schema.fields.map(
      ({ name, type }): Column => ({ name, ...columnOf(type, arrow, duckdb) }),
    )
    if (!columns) {
      columns = own
      await connection.run(
        `CREATE TABLE ${name(table)} (${own.map(({ name: column, type }) => `${name(column)} ${type}`).join(', ')})`,
      )
      appender = await connection.createAppender(table)
    } else if (own.map(shown).join() !== columns.map(shown).join())
      throw new DapploError(
        'changed-columns',
        `${basename(file)} has other columns than ${basename(files[0])}`,
        '',
        'Give files of one kind, or each a table of its own.',
      )
    for await (const batch of reader as AsyncIterable<RecordBatch>)
      for (let first = 0; first < batch.numRows; first += CHUNK) {
        const count = Math.min(CHUNK, batch.numRows - first)
        const chunk = duckdb.DuckDBDataChunk.create(
          columns.map(({ type }) => type),
          count,
        )
        columns.forEach(({ write }, c) => {
          const values = batch.getChildAt(c)
          chunk.setColumnValues(
            c,
            Array.from({ length: count }, (_, i) => {
              const value: unknown = values?.get(first + i)
              return value === null || value === undefined ? null : write(value)
            }),
          )
        })
        appender?.appendDataChunk(chunk)
      }
  }
  appender?.closeSync()
}

const shown = ({ name, type }: Column): string => `${name} ${type}`

/** What a type of Arrow is here; what is neither number, time nor truth is text. */
function columnOf(
  type: DataType,
  { Type }: typeof import('apache-arrow'),
  duckdb: typeof import('@duckdb/node-api'),
): Omit<Column, 'name'> {
  const micros = (value: unknown) => BigInt(Math.round(Number(value) * 1000))
  switch (type.typeId) {
    case Type.Int:
      return (type as { bitWidth?: number }).bitWidth === 64
        ? { type: duckdb.BIGINT, write: value => BigInt(value as bigint) }
        : { type: duckdb.DOUBLE, write: Number }
    case Type.Float:
      return { type: duckdb.DOUBLE, write: Number }
    case Type.Decimal: {
      const scale = 10 ** (type as unknown as { scale: number }).scale
      return { type: duckdb.DOUBLE, write: value => Number(String(value)) / scale }
    }
    case Type.Bool:
      return { type: duckdb.BOOLEAN, write: Boolean }
    case Type.Date:
      return {
        type: duckdb.DATE,
        write: value => new duckdb.DuckDBDateValue(Math.floor(Number(value) / 86_400_000)),
      }
    case Type.Timestamp:
      return (type as { timezone?: string | null }).timezone
        ? { type: duckdb.TIMESTAMPTZ, write: value => new duckdb.DuckDBTimestampTZValue(micros(value)) }
        : { type: duckdb.TIMESTAMP, write: value => new duckdb.DuckDBTimestampValue(micros(value)) }
    default:
      return { type: duckdb.VARCHAR, write: String }
  }
}
