import { DapploError } from '@dapplo/core'
import type { FarEngine } from '@dapplo/core/far'
import { clickhouse } from './clickhouse/clickhouse.ts'
import { duckdb } from './duckdb/duckdb.ts'
import { withoutSecrets } from './errors.ts'
import { postgres } from './postgres/postgres.ts'

/** Tables by the names that charts call them by. */
export type EngineTables = Record<string, { table?: string; query?: string; order?: string }>

/**
 * The engine at an address: `postgres://reader@localhost/line`, `clickhouse://localhost:8123`, or `duckdb:line.duckdb` for a
 * database file. `$NAME` takes the address from a variable of the environment.
 */
export async function engineAt(address: string, tables?: EngineTables): Promise<FarEngine> {
  const told = address.startsWith('$') ? fromEnvironment(address.slice(1)) : address
  const [, scheme = ''] = /^([a-z]+):/i.exec(told) ?? []
  switch (scheme.toLowerCase()) {
    case 'postgres':
    case 'postgresql':
      return postgres(told, { tables })
    case 'clickhouse':
    case 'clickhouses':
      return clickhouse(told.replace(/^clickhouse(s?):/i, 'http$1:'), {
        tables: tables && plainTables(tables),
      })
    case 'duckdb':
      return duckdb({}, { database: told.slice('duckdb:'.length), tables })
    default:
      throw new DapploError(
        'bad-address',
        `${JSON.stringify(withoutSecrets(told))} is no address of a database that is known here`,
        '',
        'Write one that begins with postgres:, clickhouse: or duckdb:.',
      )
  }
}

function fromEnvironment(name: string): string {
  const value = process.env[name]
  if (value === undefined)
    throw new DapploError(
      'no-variable',
      `The environment has no variable ${name}`,
      '',
      `Set it to the address of the database, as in ${name}=postgres://reader@localhost/line.`,
    )
  return value
}

function plainTables(tables: EngineTables): Record<string, { table?: string; order?: string }> {
  for (const [name, { query }] of Object.entries(tables))
    if (query !== undefined)
      throw new DapploError(
        'bad-option',
        'ClickHouse is asked for tables and views here, not for queries',
        `tables.${name}.query`,
        'Make a view of the query, and name that.',
      )
  return tables
}

/** Whether an address has a password in it, which no file and no list of commands should have. */
export function holdsSecret(address: string): boolean {
  try {
    return new URL(address).password !== ''
  } catch {
    return false
  }
}
