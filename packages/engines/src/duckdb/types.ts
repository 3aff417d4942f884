import type { FarColumnFacts } from '@dapplo/core/far'

/** What a type of DuckDB is to a chart. */
export function duckdbTypeOf(given: string): Omit<FarColumnFacts, 'name' | 'given'> {
  const base = given.replace(/\(.*/, '')
  switch (base) {
    case 'TINYINT':
    case 'SMALLINT':
    case 'INTEGER':
    case 'BIGINT':
    case 'HUGEINT':
    case 'UTINYINT':
    case 'USMALLINT':
    case 'UINTEGER':
    case 'UBIGINT':
    case 'UHUGEINT':
    case 'FLOAT':
    case 'DOUBLE':
    case 'DECIMAL':
      return given.endsWith(']') ? { type: undefined } : { type: 'number' }
    case 'DATE':
      return { type: 'time', dateOnly: true }
    case 'TIMESTAMP':
    case 'TIMESTAMP_S':
    case 'TIMESTAMP_MS':
    case 'TIMESTAMP_NS':
      return { type: 'time', clockTimes: true }
    case 'TIMESTAMP WITH TIME ZONE':
      return { type: 'time' }
    case 'VARCHAR':
    case 'BOOLEAN':
    case 'UUID':
    case 'ENUM':
    case 'TIME':
      return { type: 'text' }
    default:
      return { type: undefined }
  }
}
