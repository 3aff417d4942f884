import { existsSync } from 'node:fs'
import { basename, dirname, extname, relative, resolve } from 'node:path'
import type { FarEngine, FarTable, FarTableOptions } from '@dapplo/core/far'
import type { TableOf } from '@dapplo/core/internal-files'
import { confinedFile, DapploError, fileBeside } from '@dapplo/node'
import { atEnd } from './at-end.ts'
import { type FarFlags, isDatabase, isFarFile } from './far-input.ts'

/** The table that an address, or a pattern of files, and flags name. */
export async function openFar(
  input: string,
  flags: FarFlags,
  options: FarTableOptions = {},
): Promise<FarTable> {
  const { duckdb, engineAt, farTable } = await import('@dapplo/engines')
  if (!isDatabase(input)) {
    if (!/[*?[]/.test(input) && !existsSync(input))
      throw new DapploError(
        'no-file',
        `There is no file ${input}`,
        input,
        'Check the name, and the folder that you are in.',
      )
    const name = nameOfFiles(input)
    return farTable(keep(await duckdb({ [name]: input })), name, options)
  }
  const { table, query, order } = flags
  if (table === undefined && query === undefined)
    throw new DapploError(
      'missing-flag',
      'Which table of the database is meant?',
      '--table',
      'Name it, as in --table sailings, or write --query "SELECT …".',
    )
  const name = table ?? 'query'
  const told = query !== undefined || order !== undefined ? { [name]: { table, query, order } } : undefined
  return farTable(keep(await engineAt(input, told)), name, options)
}

/** A command ends when its databases are closed. */
const keep = (engine: FarEngine): FarEngine => {
  atEnd(async () => engine.close?.())
  return engine
}

/** `sailings` of `data/sailings-*.parquet`. */
const nameOfFiles = (input: string): string => {
  const stem = basename(input, extname(input))
    .replace(/[*?[\]{}]/g, '')
    .replace(/[-_. ]+$/, '')
  return stem === '' ? basename(dirname(resolve(input))) || 'files' : stem
}

/** Files of a pattern must lie in the folder of the description, as single ones must. */
function holdInside(folder: string, path: string): void {
  if (!/[*?[]/.test(path)) confinedFile(folder, path, 'tables')
  else if (relative(resolve(folder), resolve(path)).startsWith('..'))
    throw new DapploError(
      'outside-folder',
      `${basename(path)} lies outside the folder of the description`,
      'tables',
      'Put the files beside the description: nothing else is reached.',
    )
}

/**
 * The tables of a chart file whose rows stay elsewhere, made ready. `folder`: where files beside it lie; `confined`: whether
 * they must lie within it.
 */
export async function farTablesOf(
  text: string,
  folder: string,
  confined = false,
  made: (table: FarTable) => void = () => {},
): Promise<TableOf | undefined> {
  let sources: Record<string, Record<string, any>>
  try {
    sources = JSON.parse(text)?.tables ?? {}
  } catch {
    return undefined
  }
  const ready = new Map<string, FarTable>()
  for (const [name, source] of Object.entries<Record<string, any>>(Object(sources))) {
    if (source === null || typeof source !== 'object') continue
    const { engine, url, table, query, order, key, rowsAre, columns } = source
    const options: FarTableOptions = { name, key, rowsAre, columns }
    if (typeof engine === 'string') {
      const { engineAt, farTable, holdsSecret } = await import('@dapplo/engines')
      if (holdsSecret(engine))
        throw new DapploError(
          'secret-in-file',
          `The address of the table "${name}" has a password in it`,
          `tables.${name}.engine`,
          'Put the address into a variable of the environment, and name that, as in "$LINE_DATABASE".',
        )
      const told = { [name]: { table, query, order } }
      const own = table ?? name
      // Tables of one name in two databases are asked about by the names that the description gives them.
      const taken =
        own !== name &&
        (Object.hasOwn(sources, own) || [...ready.values()].some(({ farName }) => farName === own))
      const plain = query === undefined && order === undefined && !taken
      const opened = keep(await engineAt(engine, plain ? undefined : told))
      ready.set(name, await farTable(opened, plain ? own : name, options))
    } else if (typeof url === 'string' && isFarFile(url)) {
      const { duckdb, farTable } = await import('@dapplo/engines')
      const path = fileBeside(folder, url)
      if (confined) holdInside(folder, path)
      ready.set(name, await farTable(keep(await duckdb({ [name]: path })), name, options))
    }
  }
  for (const table of ready.values()) made(table)
  return ready.size > 0 ? name => ready.get(name) : undefined
}
