import { randomUUID } from 'node:crypto'
import { DapploError } from '@dapplo/core'
import type { FarColumnFacts, FarEngine } from '@dapplo/core/far'
import { type Adapter, type DescribedTable, engineOf } from '../adapter.ts'
import { orderIn, withoutSecrets } from '../errors.ts'
import type { RunResult } from '../sql/result.ts'
import { clickhouseDialect, innerType } from './dialect.ts'

/** How a ClickHouse server is reached, and which tables it has. */
export interface ClickhouseOptions {
  /** Tables by the names that charts call them by, with the column that puts their rows in order. Default: all, by their own names. */
  tables?: Record<string, { table?: string; order?: string }>
  database?: string
  user?: string
  /** Default: the variable `CLICKHOUSE_PASSWORD`. */
  password?: string
  /** Milliseconds after which a question is given up. Default 30,000. */
  patience?: number
  /** How many times a question is asked again, where a part of a cluster has gone away. Default 2. */
  again?: number
}

/**
 * An engine over a ClickHouse server, or a cluster of them, by its HTTP address, as in `http://localhost:8123`. Needs no
 * package. Tried with version 18.16; nothing is asked that later versions lack.
 */
export function clickhouse(address: string, options: ClickhouseOptions = {}): FarEngine {
  let url: URL
  try {
    url = new URL(address)
  } catch {
    throw new DapploError(
      'bad-address',
      `${JSON.stringify(withoutSecrets(address))} is no address of a ClickHouse server`,
      '',
      'Write it as in http://localhost:8123.',
    )
  }
  return engineOf(new ClickhouseAdapter(url, options))
}

/** A failure that ClickHouse has a number for. */
class ClickhouseError extends Error {
  readonly number: number
  constructor(text: string) {
    super(
      text
        .replace(/^Code: \d+, e\.displayText\(\) = (DB::Exception: )?/, '')
        .replace(/, e\.what\(\).*$/s, ''),
    )
    this.number = Number(/^Code: (\d+)/.exec(text)?.[1] ?? 0)
  }
}

/** A shard does not answer, or went away while it did. */
const AWAY = new Set([32, 102, 209, 210, 279])

class ClickhouseAdapter implements Adapter {
  readonly name = 'ClickHouse'
  readonly dialect = clickhouseDialect
  private readonly url: URL
  private readonly options: ClickhouseOptions
  private readonly headers: Record<string, string>

  constructor(url: URL, options: ClickhouseOptions) {
    this.options = options
    this.url = new URL(url)
    const { username, password } = this.url
    const user = options.user ?? decodeURIComponent(username)
    const secret = options.password ?? (decodeURIComponent(password) || process.env.CLICKHOUSE_PASSWORD)
    this.url.username = ''
    this.url.password = ''
    this.headers = {
      ...(user ? { 'X-ClickHouse-User': user } : {}),
      ...(secret ? { 'X-ClickHouse-Key': secret } : {}),
    }
    if (options.database) this.url.searchParams.set('database', options.database)
  }

  private tableOf(name: string): { table: string; order?: string } | undefined {
    const { tables } = this.options
    if (!tables) return { table: name }
    return Object.hasOwn(tables, name)
      ? { table: tables[name].table ?? name, order: tables[name].order }
      : undefined
  }

  async describe(name: string): Promise<DescribedTable | undefined> {
    const own = this.tableOf(name)
    if (!own) return undefined
    const source = own.table.split('.').map(this.dialect.quote).join('.')
    const signal = new AbortController().signal
    let all: RunResult
    try {
      all = await this.run(`DESCRIBE TABLE ${source}`, [], signal)
    } catch (error) {
      if (error instanceof ClickhouseError && (error.number === 60 || error.number === 81)) return undefined
      throw error
    }
    const columns = Array.from(all.columns[0], (name, i): FarColumnFacts => {
      const given = String(all.columns[1][i])
      return { name: String(name), given, ...typeOf(given) }
    })
    const order = orderIn(columns, own.order, name)
    const counted = await this.run(`SELECT count() FROM ${source}`, [], signal)
    return {
      source,
      columns,
      rows: Number(counted.columns[0][0]),
      place: order && this.dialect.quote(order.name),
    }
  }

  async tables(): Promise<string[]> {
    if (this.options.tables) return Object.keys(this.options.tables)
    const all = await this.run('SHOW TABLES', [], new AbortController().signal)
    return Array.from(all.columns[0] ?? [], String)
  }

  async run(sql: string, _: readonly (string | number)[], signal: AbortSignal): Promise<RunResult> {
    for (let tried = 0; ; tried++) {
      try {
        return await this.once(sql, signal)
      } catch (error) {
        const away = error instanceof ClickhouseError && AWAY.has(error.number)
        if (!away || signal.aborted) throw error
        if (tried < (this.options.again ?? 2)) {
          await new Promise(done => setTimeout(done, 100 * 2 ** tried))
          continue
        }
        return { ...(await this.once(sql, signal, true)), partial: 'a part of the cluster does not answer' }
      }
    }
  }

  private async once(sql: string, signal: AbortSignal, some = false): Promise<RunResult> {
    signal.throwIfAborted()
    const id = randomUUID()
    const url = new URL(this.url)
    const patience = this.options.patience ?? 30_000
    const settings = {
      query_id: id,
      max_execution_time: String(Math.ceil(patience / 1000)),
      output_format_json_quote_64bit_integers: '0',
      join_use_nulls: '1',
      ...(some ? { skip_unavailable_shards: '1' } : {}),
    }
    for (const [name, value] of Object.entries(settings)) url.searchParams.set(name, value)
    const stop = () => {
      const kill = new URL(this.url)
      void fetch(kill, {
        method: 'POST',
        headers: this.headers,
        body: `KILL QUERY WHERE query_id = '${id}' ASYNC`,
      }).catch(() => {})
    }
    signal.addEventListener('abort', stop, { once: true })
    try {
      const response = await fetch(url, {
        method: 'POST',
        headers: this.headers,
        body: `${sql} FORMAT JSONCompact`,
        signal: AbortSignal.any([signal, AbortSignal.timeout(patience + 1000)]),
      })
      const text = await response.text()
      if (!response.ok || text.startsWith('Code: ')) throw new ClickhouseError(text)
      const { data } = parsed(text)
      const [first] = data
      return {
        length: data.length,
        columns: (first ?? []).map((_, c) => data.map(row => row[c])),
      }
    } catch (error) {
      const cause = (error as { cause?: { code?: string } }).cause
      // What `fetch` fails with before there is an answer.
      if (cause !== undefined)
        throw Object.assign(new Error('no connection'), { code: cause.code ?? 'ECONNREFUSED' })
      throw error
    } finally {
      signal.removeEventListener('abort', stop)
    }
  }

  spoiled(): boolean {
    return false
  }

  async close(): Promise<void> {}
}

/** An answer that breaks off says so in its text, as the head had gone out by then. */
function parsed(text: string): { data: unknown[][] } {
  try {
    return JSON.parse(text) as { data: unknown[][] }
  } catch {
    throw new ClickhouseError(/Code: \d+.*/s.exec(text)?.[0] ?? 'Code: 32, the answer breaks off')
  }
}

function typeOf(given: string): Omit<FarColumnFacts, 'name' | 'given'> {
  const own = innerType(given)
  if (/^U?Int\d+$|^Float\d+$|^Decimal/.test(own)) return { type: 'number' }
  if (own === 'Date' || own === 'Date32') return { type: 'time', dateOnly: true }
  if (own.startsWith('DateTime')) return { type: 'time' }
  if (/^(String|FixedString|Enum|UUID|IPv)/.test(own)) return { type: 'text' }
  return { type: undefined }
}
