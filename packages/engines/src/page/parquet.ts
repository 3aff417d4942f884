import { needPart } from '../need-part.ts'
import { type CsvRows, csvOf } from './csv-rows.ts'

/**
 * Reads a Parquet file by a program of plain JavaScript: the engine of a page would fetch its own reader from elsewhere.
 * Needs the packages `hyparquet` and `hyparquet-compressors`.
 */
export async function readParquet(bytes: Uint8Array): Promise<CsvRows> {
  const part = <T>(name: string, load: () => Promise<T>) => needPart('Parquet in a page', name, load)
  const { parquetReadObjects, parquetMetadata } = await part('hyparquet', () => import('hyparquet'))
  const { compressors } = await part('hyparquet-compressors', () => import('hyparquet-compressors'))
  const file = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer
  const names = parquetMetadata(file).schema.flatMap(({ name, num_children }) => (num_children ? [] : [name]))
  const rows = await parquetReadObjects({ file, compressors })
  const types: CsvRows['types'] = {}
  for (const name of names) types[name] = typeOf(rows.find(row => row[name] != null)?.[name])
  return { csv: csvOf(rows.map(row => names.map(name => cell(row[name])))), types }
}

function typeOf(value: unknown): CsvRows['types'][string] {
  if (value instanceof Date) return 'TIMESTAMP'
  if (typeof value === 'number' || typeof value === 'bigint') return 'DOUBLE'
  return typeof value === 'boolean' ? 'BOOLEAN' : 'VARCHAR'
}

const cell = (value: unknown): unknown => (typeof value === 'bigint' ? Number(value) : value)
