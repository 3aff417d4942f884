/** Engines that hold the rows of far tables. */

export {
  type FarEngine,
  FarTable,
  type FarTableOptions,
  type FetchOptions,
  farTable,
  lookFar,
  ready,
} from '@dapplo/core/far'
export { type Adapter, type DescribedTable, engineOf } from './adapter.ts'
export { type ClickhouseOptions, clickhouse } from './clickhouse/clickhouse.ts'
export { type DuckdbFiles, type DuckdbOptions, duckdb } from './duckdb/duckdb.ts'
export { type EndpointOptions, farEndpoint } from './endpoint/endpoint.ts'
export { type EngineTables, engineAt, holdsSecret } from './engine-at.ts'
export { type PostgresOptions, postgres } from './postgres/postgres.ts'
export type { CalendarPart, Dialect, Writer } from './sql/dialect.ts'
export type { RunResult } from './sql/result.ts'
