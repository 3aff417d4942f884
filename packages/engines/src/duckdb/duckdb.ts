import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { DapploError, type Finding } from '@dapplo/core'
import type { FarColumnFacts, FarEngine } from '@dapplo/core/far'
import type { DuckDBConnection, DuckDBInstance } from '@duckdb/node-api'
import { type Adapter, type DescribedTable, engineOf } from '../adapter.ts'
import { orderIn } from '../errors.ts'
import { needPart } from '../need-part.ts'
import type { RunResult } from '../sql/result.ts'
import { fillFromArrow } from './arrow-files.ts'
import { joined, valuesOf } from './chunk-values.ts'
import { duckdbDialect } from './dialect.ts'
import { duckdbTypeOf } from './types.ts'

/** Where tables are read from: a file, a pattern of files, or several of them. */
export type DuckdbFiles = Record<string, string | readonly string[]>

/** What DuckDB may use, and which tables of a database it has. */
export interface DuckdbOptions {
  /** A database file, opened for reading only. */
  database?: string
  /** As much memory as it may take, such as `4GB`; beyond it, it uses a folder for temporary files. */
  memory?: string
  threads?: number
  /** Tables and queries of a database by the names that charts call them by. Default: its tables, by their own names. */
  tables?: Record<string, { table?: string; query?: string; order?: string }>
}

/** Arrow files, which have two endings, are read by a package of their own. */
const ARROW = { read: 'arrow', stays: false }
/** How files are read, by their ending: Parquet where it lies, texts once into a table of their own. */
const READERS: Record<string, { read: string; stays: boolean }> = {
  '.parquet': { read: 'read_parquet', stays: true },
  '.csv': { read: 'read_csv', stays: false },
  '.tsv': { read: 'read_csv', stays: false },
  '.json': { read: 'read_json', stays: false },
  '.jsonl': { read: 'read_json', stays: false },
  '.ndjson': { read: 'read_json', stays: false },
  '.arrow': ARROW,
  '.feather': ARROW,
}

const quote = duckdbDialect.quote
const literal = (text: string) => `'${text.replaceAll("'", "''")}'`

/**
 * An engine over files that may be larger than memory: DuckDB within this process. `files`: by the names of tables, where
 * their rows are; or an instance of DuckDB that you have, whose tables are asked as they are and which stays yours to
 * close. Needs the package `@duckdb/node-api`.
 */
export async function duckdb(
  files: DuckdbFiles | DuckDBInstance = {},
  options: DuckdbOptions = {},
): Promise<FarEngine> {
  if (isInstance(files)) return engineOf(new DuckdbAdapter(files, undefined))
  const { DuckDBInstance: Instance } = await needPart(
    'DuckDB',
    '@duckdb/node-api',
    () => import('@duckdb/node-api'),
  )
  const folder = await mkdtemp(join(tmpdir(), 'dapplo-duckdb-'))
  const instance = await Instance.create(options.database ?? ':memory:', {
    temp_directory: folder,
    ...(options.memory ? { max_memory: options.memory } : {}),
    ...(options.threads ? { threads: String(options.threads) } : {}),
    ...(options.database ? { access_mode: 'READ_ONLY' } : {}),
    // Nothing is fetched at run time.
    autoinstall_known_extensions: 'false',
    autoload_known_extensions: 'false',
  })
  const adapter = new DuckdbAdapter(instance, folder)
  for (const [table, from] of Object.entries(files))
    await adapter.open(table, [from].flat()).catch(async error => {
      await adapter.close()
      throw openError(table, [from].flat(), error)
    })
  for (const [name, own] of Object.entries(options.tables ?? {})) adapter.call(name, own)
  return engineOf(adapter)
}

/** What is wrong with files that cannot be opened. */
function openError(table: string, files: readonly string[], error: unknown): DapploError {
  const { message } = error as Error
  if (error instanceof DapploError) return error
  if (/No files found/.test(message))
    return new DapploError(
      'no-file',
      `There is no file ${files.join(', ')}`,
      `files.${table}`,
      'Check the name, and the folder that you are in.',
    )
  return new DapploError(
    'unreadable-file',
    `${files.join(', ')} cannot be read: ${message.split('\n')[0].slice(0, 240)}`,
    `files.${table}`,
    'See whether it is whole, and what its ending says.',
  )
}

const isInstance = (files: DuckdbFiles | DuckDBInstance): files is DuckDBInstance =>
  typeof (files as DuckDBInstance).connect === 'function'

class DuckdbAdapter implements Adapter {
  readonly name = 'DuckDB'
  readonly dialect = duckdbDialect
  private readonly instance: DuckDBInstance
  private readonly folder: string | undefined
  private readonly idle: DuckDBConnection[] = []
  private readonly places = new Map<string, string>()
  private readonly findings = new Map<string, Finding[]>()
  private readonly called = new Map<string, { table?: string; query?: string; order?: string }>()

  constructor(instance: DuckDBInstance, folder: string | undefined) {
    this.instance = instance
    this.folder = folder
  }

  /** Makes a table of files. */
  async open(table: string, files: readonly string[]): Promise<void> {
    const readers = new Set(files.map(file => READERS[extname(file).toLowerCase()]))
    const [reader] = readers
    if (readers.size !== 1 || !reader)
      throw new DapploError(
        'unknown-format',
        `${JSON.stringify(files[0] ?? table)} is no file that DuckDB reads here`,
        `files.${table}`,
        `Give files that end in ${Object.keys(READERS).join(', ')}, all in one format.`,
      )
    const list = `[${files.map(literal).join(', ')}]`
    if (reader === ARROW) return this.openArrow(table, files)
    // By the names of their columns, since files of one table may have been written at different times.
    const source = `${reader.read}(${list}, union_by_name = true)`
    if (reader.stays) {
      await this.command(
        `CREATE VIEW ${quote(table)} AS SELECT *, CAST(file_index AS BIGINT) * 4294967296 + file_row_number AS ${quote(PLACE)} FROM ${source}`,
      )
      this.places.set(table, quote(PLACE))
    } else {
      await this.command(`CREATE TABLE ${quote(table)} AS SELECT * FROM ${source}`)
      await this.mendNumbers(table)
    }
  }

  /** DuckDB itself reads Arrow files only by what it would fetch. */
  private async openArrow(table: string, files: readonly string[]): Promise<void> {
    const found = await this.command(
      `SELECT file FROM (${files.map(file => `SELECT file FROM glob(${literal(file)})`).join(' UNION ALL ')}) ORDER BY file`,
    )
    const paths = Array.from(found.columns[0] ?? [], String)
    if (paths.length === 0) throw new Error('No files found')
    const connection = this.idle.pop() ?? (await this.instance.connect())
    try {
      await fillFromArrow(connection, table, paths)
    } finally {
      this.idle.push(connection)
    }
  }

  /** One mistyped cell makes a whole column text: where nearly all are numbers, it is one of numbers, and the others are told. */
  private async mendNumbers(table: string): Promise<void> {
    const all = await this.command(`SELECT * FROM (DESCRIBE ${quote(table)})`)
    for (let i = 0; i < all.length; i++) {
      if (all.columns[1][i] !== 'VARCHAR') continue
      const column = quote(String(all.columns[0][i]))
      const number = duckdbDialect.numberIn(column)
      const counts = await this.command(
        `SELECT count(nullif(trim(${column}), '')), count(${number}), first(${column}) FILTER (WHERE ${number} IS NULL AND trim(${column}) <> ''), count(*) FILTER (WHERE regexp_matches(${column}, '^\\s*0\\d')) FROM ${quote(table)}`,
      )
      const [present, numbers, , codes] = counts.columns.map(values => Number(values[0]))
      // What begins with a zero is a code, such as a telephone number.
      if (numbers === 0 || numbers < present * 0.9 || codes > 0) continue
      await this.command(
        `CREATE OR REPLACE TABLE ${quote(table)} AS SELECT * REPLACE (${number} AS ${column}) FROM ${quote(table)}`,
      )
      const lost = present - numbers
      const name = String(all.columns[0][i])
      this.findings.set(table, [
        ...(this.findings.get(table) ?? []),
        {
          code: 'unreadable-cells',
          message: `${lost === 1 ? 'One cell' : `${lost} cells`} of "${name}" ${lost === 1 ? 'is no number' : 'are no numbers'}${lost === 1 ? ':' : ', the first being'} ${JSON.stringify(String(counts.columns[2][0]).slice(0, 60))}`,
          remedy: `Correct ${lost === 1 ? 'it' : 'them'}, or give the column a type; until then ${lost === 1 ? 'it counts' : 'they count'} as missing.`,
          path: `columns.${name}`,
        },
      ])
    }
  }

  /** Gives a table or a query of the database a name. */
  call(name: string, own: { table?: string; query?: string; order?: string }): void {
    this.called.set(name, own)
  }

  async describe(name: string): Promise<DescribedTable | undefined> {
    const own = this.called.get(name)
    const table = own?.table ?? name
    if (own?.query === undefined && !(await this.tables()).includes(table)) return undefined
    const source = own?.query === undefined ? quote(table) : `(${own.query.replace(/;\s*$/, '')}) AS asked`
    const all = await this.command(`SELECT * FROM (DESCRIBE SELECT * FROM ${source})`)
    const columns: FarColumnFacts[] = []
    for (let i = 0; i < all.length; i++) {
      const [name, given] = [String(all.columns[0][i]), String(all.columns[1][i])]
      if (name !== PLACE) columns.push({ name, given, ...duckdbTypeOf(given) })
    }
    const counted = await this.command(`SELECT count(*) FROM ${source}`)
    const isTable = await this.command(
      `SELECT count(*) FROM information_schema.tables WHERE table_name = ${literal(table)} AND table_type = 'BASE TABLE'`,
    )
    const kept = this.places.get(table) ?? (Number(isTable.columns[0][0]) > 0 ? 'rowid' : undefined)
    const order = orderIn(columns, own?.order, name)
    const place = order ? quote(order.name) : own?.query === undefined ? kept : undefined
    return { source, columns, findings: this.findings.get(table), rows: Number(counted.columns[0][0]), place }
  }

  async tables(): Promise<string[]> {
    const all = await this.command(
      'SELECT table_name FROM information_schema.tables WHERE table_schema = current_schema() ORDER BY 1',
    )
    return Array.from(all.columns[0] ?? [], String)
  }

  async run(sql: string, values: readonly (string | number)[], signal: AbortSignal): Promise<RunResult> {
    signal.throwIfAborted()
    const connection = this.idle.pop() ?? (await this.instance.connect())
    const stop = () => connection.interrupt()
    signal.addEventListener('abort', stop, { once: true })
    try {
      const result = await connection.stream(sql, [...values])
      const parts: ArrayLike<unknown>[][] = Array.from({ length: result.columnCount }, () => [])
      let length = 0
      for (;;) {
        const chunk = await result.fetchChunk()
        if (!chunk || chunk.rowCount === 0) break
        for (let c = 0; c < parts.length; c++) parts[c].push(valuesOf(chunk, c))
        length += chunk.rowCount
      }
      signal.throwIfAborted()
      return { columns: parts.map(own => joined(own, length)), length }
    } catch (error) {
      if (signal.aborted) throw new DOMException('stopped', 'AbortError')
      throw error
    } finally {
      signal.removeEventListener('abort', stop)
      this.idle.push(connection)
    }
  }

  spoiled(error: unknown): boolean {
    return /^(Conversion|Out of Range|Invalid Input) Error/.test((error as Error).message)
  }

  async close(): Promise<void> {
    for (const connection of this.idle.splice(0)) connection.closeSync()
    if (this.folder === undefined) return
    this.instance.closeSync()
    await rm(this.folder, { recursive: true, force: true })
  }

  private command(sql: string): Promise<RunResult> {
    return this.run(sql, [], new AbortController().signal)
  }
}

/** The column that puts rows of files in order: it begins with a letter that nobody sees, so that none of theirs is called so. */
const PLACE = '\u2060place'
