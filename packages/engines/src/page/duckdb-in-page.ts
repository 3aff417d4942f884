/** DuckDB within a page: rows are asked in a worker of its own, without a server. */
import { DapploError } from '@dapplo/core'
import type { FarColumnFacts, FarEngine } from '@dapplo/core/far'
import type { AsyncDuckDB, AsyncDuckDBConnection } from '@duckdb/duckdb-wasm'
import { type Adapter, type DescribedTable, engineOf } from '../adapter.ts'
import { duckdbDialect } from '../duckdb/dialect.ts'
import { duckdbTypeOf } from '../duckdb/types.ts'
import { needPart } from '../need-part.ts'
import type { RunResult } from '../sql/result.ts'
import type { CsvRows } from './csv-rows.ts'
import { readJsonRows } from './json-rows.ts'
import { readParquet } from './parquet.ts'

/** Where a table of a page comes from: an address that ends in .csv, .tsv, .json, .ndjson, .arrow or .parquet, or what is here already. */
export type PageSource = string | { csv: string } | { json: string } | { arrow: Uint8Array }

/** Where the files of the engine are, which the page's server serves: its worker, and its program. */
export interface PageEngine {
  /** The address of `duckdb-browser-eh.worker.js` of the package `@duckdb/duckdb-wasm`. */
  worker: string
  /** The address of `duckdb-eh.wasm` of the same package. */
  wasm: string
}

/**
 * An engine in the page, over tables by their names. It needs the package `@duckdb/duckdb-wasm`, whose files the page's own
 * server serves; nothing is fetched from anywhere else. Under a content security policy it needs `worker-src 'self'`,
 * `connect-src 'self'` and `'wasm-unsafe-eval'` among the sources of scripts.
 */
export async function duckdbInPage(
  tables: Record<string, PageSource>,
  { worker, wasm }: PageEngine,
): Promise<FarEngine> {
  const { AsyncDuckDB: Database, VoidLogger } = await needPart(
    'DuckDB in a page',
    '@duckdb/duckdb-wasm',
    () => import('@duckdb/duckdb-wasm'),
  )
  const thread = new Worker(new URL(worker, location.href))
  const failed = new Promise<never>((_, fail) => {
    thread.addEventListener('error', () => fail(noStart(worker)), { once: true })
  })
  const database = new Database(new VoidLogger(), thread)
  const start = database.instantiate(new URL(wasm, location.href).href).catch(() => {
    throw noStart(wasm)
  })
  await Promise.race([start, failed])
  const connection = await database.connect()
  // What it could fetch at run time comes from an address of its own, which no page should ask.
  await connection.query('SET autoinstall_known_extensions = false')
  await connection.query('SET autoload_known_extensions = false')
  const adapter = new PageAdapter(database, connection, thread)
  for (const [name, source] of Object.entries(tables)) await adapter.open(name, source)
  return engineOf(adapter)
}

const noStart = (address: string): DapploError =>
  new DapploError(
    'no-engine',
    `DuckDB did not start from ${address}`,
    '',
    'Serve the worker and the program of @duckdb/duckdb-wasm with the page, and let its policy allow them.',
  )

const { quote } = duckdbDialect

class PageAdapter implements Adapter {
  readonly name = 'DuckDB'
  readonly dialect = duckdbDialect
  private readonly database: AsyncDuckDB
  private readonly connection: AsyncDuckDBConnection
  private readonly thread: Worker
  /** One question at a time: there is one thread. */
  private turn: Promise<unknown> = Promise.resolve()

  constructor(database: AsyncDuckDB, connection: AsyncDuckDBConnection, thread: Worker) {
    this.database = database
    this.connection = connection
    this.thread = thread
  }

  async open(name: string, source: PageSource): Promise<void> {
    if (typeof source !== 'string') {
      if ('csv' in source) return this.openCsv(name, source.csv)
      return 'json' in source
        ? this.openRows(name, readJsonRows(source.json, false))
        : this.openArrow(name, source.arrow)
    }
    const response = await fetch(source).catch(() => undefined)
    if (!response?.ok)
      throw new DapploError(
        'no-file',
        `${source} cannot be fetched${response ? `: the server says ${response.status}` : ''}`,
        `tables.${name}`,
        'See whether the address is right.',
      )
    const ending = /\.(\w+)(?:[?#]|$)/.exec(source)?.[1].toLowerCase()
    if (ending === 'csv' || ending === 'tsv') return this.openCsv(name, await response.text())
    if (ending === 'json' || ending === 'ndjson' || ending === 'jsonl')
      return this.openRows(name, readJsonRows(await response.text(), ending !== 'json'))
    const bytes = new Uint8Array(await response.arrayBuffer())
    if (ending === 'parquet') return this.openRows(name, await readParquet(bytes))
    if (ending === 'arrow') return this.openArrow(name, bytes)
    throw new DapploError(
      'unknown-format',
      `${source} is no file that DuckDB reads in a page`,
      `tables.${name}`,
      'Give an address that ends in .csv, .tsv, .json, .ndjson, .arrow or .parquet.',
    )
  }

  private async openCsv(name: string, text: string): Promise<void> {
    const file = `${name.replace(/[^\w-]/g, '_')}.csv`
    await this.database.registerFileText(file, text)
    await this.connection.query(`CREATE TABLE ${quote(name)} AS SELECT * FROM read_csv('${file}')`)
    await this.database.dropFile(file)
  }

  private async openRows(name: string, { csv, types }: CsvRows): Promise<void> {
    const file = `${name.replace(/[^\w-]/g, '_')}.csv`
    const literal = (text: string) => `'${text.replaceAll("'", "''")}'`
    const columns = Object.entries(types).map(([column, type]) => `${literal(column)}: ${literal(type)}`)
    await this.database.registerFileText(file, csv)
    await this.connection.query(
      `CREATE TABLE ${quote(name)} AS SELECT * FROM read_csv('${file}', header = false, auto_detect = false, delim = ',', quote = '"', escape = '"', allow_quoted_nulls = false, columns = {${columns.join(', ')}})`,
    )
    await this.database.dropFile(file)
  }

  private async openArrow(name: string, bytes: Uint8Array): Promise<void> {
    await this.connection.insertArrowFromIPCStream(bytes, { name, create: true })
  }

  async describe(name: string): Promise<DescribedTable | undefined> {
    if (!(await this.tables()).includes(name)) return undefined
    const all = await this.command(`SELECT column_name, column_type FROM (DESCRIBE ${quote(name)})`)
    const columns = Array.from({ length: all.length }, (_, i): FarColumnFacts => {
      const given = String(all.columns[1][i])
      return { name: String(all.columns[0][i]), given, ...duckdbTypeOf(given) }
    })
    const counted = await this.command(`SELECT count(*) FROM ${quote(name)}`)
    return { source: quote(name), columns, rows: Number(counted.columns[0][0]), place: 'rowid' }
  }

  async tables(): Promise<string[]> {
    const all = await this.command('SELECT table_name FROM information_schema.tables ORDER BY 1')
    return Array.from(all.columns[0] ?? [], String)
  }

  run(sql: string, values: readonly (string | number)[], signal: AbortSignal): Promise<RunResult> {
    const own = this.turn.then(() => this.runNow(sql, values, signal))
    this.turn = own.catch(() => {})
    return own
  }

  private async runNow(
    sql: string,
    values: readonly (string | number)[],
    signal: AbortSignal,
  ): Promise<RunResult> {
    signal.throwIfAborted()
    const statement = await this.connection.prepare(sql)
    const stop = () => void this.connection.cancelSent().catch(() => {})
    signal.addEventListener('abort', stop, { once: true })
    try {
      const columns: unknown[][] = []
      let length = 0
      for await (const batch of await statement.send(...values)) {
        for (let c = 0; c < batch.numCols; c++) {
          columns[c] ??= []
          for (const value of batch.getChildAt(c)!) columns[c].push(value)
        }
        length += batch.numRows
      }
      signal.throwIfAborted()
      return { columns, length }
    } catch (error) {
      if (signal.aborted) throw new DOMException('stopped', 'AbortError')
      throw error
    } finally {
      signal.removeEventListener('abort', stop)
      await statement.close()
    }
  }

  spoiled(error: unknown): boolean {
    return /(Conversion|Out of Range|Invalid Input) Error/.test((error as Error).message)
  }

  async close(): Promise<void> {
    await this.connection.close()
    await this.database.terminate()
    this.thread.terminate()
  }

  private command(sql: string): Promise<RunResult> {
    return this.run(sql, [], new AbortController().signal)
  }
}
