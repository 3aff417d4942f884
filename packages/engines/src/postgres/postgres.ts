import { DapploError } from '@dapplo/core'
import type { FarColumnFacts, FarEngine } from '@dapplo/core/far'
import type { Client, ClientConfig, Pool, PoolClient } from 'pg'
import { type Adapter, type DescribedTable, engineOf } from '../adapter.ts'
import { orderIn, withoutSecrets } from '../errors.ts'
import { needPart } from '../need-part.ts'
import type { RunResult } from '../sql/result.ts'
import { postgresDialect } from './dialect.ts'

/** Which tables a PostgreSQL server has for charts, and how long it is waited for. */
export interface PostgresOptions {
  /** Tables and queries by the names that charts call them by. Default: the tables of the database, by their own names. */
  tables?: Record<string, { table?: string; query?: string; order?: string }>
  /** Milliseconds after which a question is given up. Default 30,000. */
  patience?: number
  /** How many questions are asked at once. Default 4. */
  atOnce?: number
}

/**
 * An engine over a PostgreSQL server. `connection`: its address, as in `postgres://reader@localhost/line`, or what the
 * package `pg` takes; the password is best left to the variable `PGPASSWORD`. All is asked in read-only transactions.
 */
export async function postgres(
  connection: string | ClientConfig,
  options: PostgresOptions = {},
): Promise<FarEngine> {
  const pg = await needPart('PostgreSQL', 'pg', () => import('pg'))
  const config: ClientConfig =
    typeof connection === 'string' ? { connectionString: addressOf(connection) } : connection
  // Connecting is given up soon; a turn is waited for until those before it are answered.
  class Connecting extends pg.default.Client {
    constructor(own: ClientConfig = {}) {
      super({ ...own, connectionTimeoutMillis: 5000 })
    }
  }
  const poolOf = (max: number) =>
    new pg.default.Pool({ ...config, max, application_name: 'dapplo', Client: Connecting })
      // A connection that breaks while nobody uses it is made anew when it is needed.
      .on('error', () => {})
  return engineOf(
    new PostgresAdapter(poolOf(options.atOnce ?? 4), poolOf(1), () => new pg.default.Client(config), options),
  )
}

/** An address that is none is told of without repeating it: it may hold a password. */
function addressOf(text: string): string {
  try {
    new URL(text)
    return text
  } catch {
    throw new DapploError(
      'bad-address',
      `${JSON.stringify(withoutSecrets(text))} is no address of a PostgreSQL server`,
      '',
      'Write it as in postgres://reader@localhost/line.',
    )
  }
}

class PostgresAdapter implements Adapter {
  readonly name = 'PostgreSQL'
  readonly dialect = postgresDialect
  private readonly pool: Pool
  /** Another connection, over which questions are called off: those that ask may all be busy. */
  private readonly stoppers: Pool
  private readonly connect: () => Client
  private readonly options: PostgresOptions
  private listening: { client: Client; channels: Map<string, Set<() => void>> } | undefined

  constructor(pool: Pool, stoppers: Pool, connect: () => Client, options: PostgresOptions) {
    this.pool = pool
    this.stoppers = stoppers
    this.connect = connect
    this.options = options
  }

  /** What stands after FROM. */
  private sourceOf(name: string): { source: string; order?: string } {
    const given = this.options.tables
    const own = given && Object.hasOwn(given, name) ? given[name] : undefined
    if (own?.query !== undefined)
      return { source: `(${own.query.replace(/;\s*$/, '')}) AS asked`, order: own.order }
    const parts = (own?.table ?? name).split('.')
    return { source: parts.map(part => this.dialect.quote(part)).join('.'), order: own?.order }
  }

  async describe(table: string): Promise<DescribedTable | undefined> {
    const { tables } = this.options
    if (tables && !Object.hasOwn(tables, table)) return undefined
    const { source, order } = this.sourceOf(table)
    const client = await this.pool.connect()
    try {
      const { fields } = await client.query(`SELECT * FROM ${source} LIMIT 0`)
      const named = await client.query(
        'SELECT oid, format_type(oid, NULL) AS name, typtype FROM pg_type WHERE oid = ANY($1)',
        [fields.map(field => field.dataTypeID)],
      )
      const types = new Map(named.rows.map(row => [Number(row.oid), row]))
      const columns = fields.map(({ name, dataTypeID }): FarColumnFacts => {
        const type = types.get(dataTypeID)
        const given = String(type?.name ?? dataTypeID)
        return { name, given, ...typeOf(given, String(type?.typtype ?? 'b')) }
      })
      const ordering = orderIn(columns, order, table)
      const counted = await client.query(`SELECT count(*) AS rows FROM ${source}`)
      return {
        source,
        columns,
        rows: Number(counted.rows[0].rows),
        place: ordering && this.placeOf(ordering),
      }
    } catch (error) {
      // A table that is not there.
      if ((error as { code?: string }).code === '42P01') return undefined
      throw error
    } finally {
      client.release()
    }
  }

  private placeOf({ name, type, given }: FarColumnFacts): string {
    const column = this.dialect.quote(name)
    return type === 'time' ? this.dialect.time(column, given) : column
  }

  async tables(): Promise<string[]> {
    if (this.options.tables) return Object.keys(this.options.tables)
    const { rows } = await this.pool.query(
      'SELECT table_name FROM information_schema.tables WHERE table_schema = ANY(current_schemas(false)) ORDER BY 1',
    )
    return rows.map(row => String(row.table_name))
  }

  async run(sql: string, values: readonly (string | number)[], signal: AbortSignal): Promise<RunResult> {
    const client = (await this.pool.connect()) as PoolClient & { processID?: number }
    let stopping: Promise<unknown> | undefined
    const stop = () => {
      stopping = this.stoppers.query('SELECT pg_cancel_backend($1)', [client.processID]).catch(() => {})
    }
    try {
      // It may have been called off while it waited for its turn.
      signal.throwIfAborted()
      signal.addEventListener('abort', stop, { once: true })
      await client.query('BEGIN READ ONLY')
      await client.query(`SET LOCAL statement_timeout = ${Math.floor(this.options.patience ?? 30_000)}`)
      const { rows, fields } = await client.query({ text: sql, values: [...values], rowMode: 'array' })
      const all = rows as unknown[][]
      return { length: all.length, columns: fields.map((_, c) => all.map(row => row[c])) }
    } finally {
      signal.removeEventListener('abort', stop)
      // Or it would stop what is asked next over this connection.
      await stopping
      await client.query('ROLLBACK').then(
        () => client.release(),
        () => client.release(true),
      )
    }
  }

  /** Listens for NOTIFY on a channel that is called as the table is. */
  watch(table: string, changed: () => void): () => void {
    this.listening ??= this.listen()
    const { channels, client } = this.listening
    const listeners = channels.get(table) ?? new Set()
    if (listeners.size === 0) {
      channels.set(table, listeners)
      client.query(`LISTEN ${this.dialect.quote(table)}`).catch(() => {})
    }
    listeners.add(changed)
    return () => {
      listeners.delete(changed)
      if (listeners.size === 0) client.query(`UNLISTEN ${this.dialect.quote(table)}`).catch(() => {})
    }
  }

  private listen() {
    const client = this.connect()
    const channels = new Map<string, Set<() => void>>()
    client.on('notification', ({ channel }) => {
      for (const changed of channels.get(channel) ?? []) changed()
    })
    client.on('error', () => {
      this.listening = undefined
    })
    client.connect().catch(() => {
      this.listening = undefined
    })
    return { client, channels }
  }

  spoiled(error: unknown): boolean {
    // Numbers and times out of range.
    return /^(22003|22008|22P02)$/.test((error as { code?: string }).code ?? '')
  }

  async close(): Promise<void> {
    await this.listening?.client.end().catch(() => {})
    await Promise.all([this.pool.end(), this.stoppers.end()])
  }
}

function typeOf(given: string, kind: string): Omit<FarColumnFacts, 'name' | 'given'> {
  if (kind === 'e') return { type: 'text' }
  switch (given) {
    case 'smallint':
    case 'integer':
    case 'bigint':
    case 'real':
    case 'double precision':
    case 'numeric':
      return { type: 'number' }
    case 'date':
      return { type: 'time', dateOnly: true }
    case 'timestamp without time zone':
      return { type: 'time', clockTimes: true }
    case 'timestamp with time zone':
      return { type: 'time' }
    case 'text':
    case 'character varying':
    case 'character':
    case 'boolean':
    case 'uuid':
    case 'name':
    case 'inet':
    case 'time without time zone':
      return { type: 'text' }
    default:
      return { type: undefined }
  }
}
