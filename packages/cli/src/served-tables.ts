import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FarEngine, FarTable } from '@dapplo/core/far'
import type { TableOf } from '@dapplo/core/internal-files'
import { farEndpoint } from '@dapplo/engines'
import { farTablesOf } from './engines.ts'

/** What is served of databases: opened once for as long as the description stays, and asked by pages from then on. */
interface Served {
  text: string
  tableOf: TableOf | undefined
  tables: readonly FarTable[]
  /** One for all pages, since it holds back what would be too much at once. */
  answer: ReturnType<typeof farEndpoint>
}

let served: Served = opened('', undefined, [])
let last: Promise<unknown> = Promise.resolve()

/** The tables of a description whose rows stay elsewhere; equal descriptions have the same. */
export function servedTables(text: string, folder: string): Promise<TableOf | undefined> {
  // One after the other, so that two pages that are loaded at once do not open everything twice.
  const ready = last.then(() => tablesNow(text, folder))
  last = ready.catch(() => {})
  return ready
}

/** Answers a question about one of the tables, whatever database it is in. */
export const answerFar = (request: IncomingMessage, response: ServerResponse): Promise<void> =>
  served.answer(request, response)

async function tablesNow(text: string, folder: string): Promise<TableOf | undefined> {
  if (served.text === text) {
    // A page that is loaded again shows what there is by now.
    await Promise.all(served.tables.map(table => table.refresh()))
    return served.tableOf
  }
  const tables: FarTable[] = []
  const tableOf = await farTablesOf(text, folder, true, table => tables.push(table))
  retire(served)
  served = opened(text, tableOf, tables)
  return tableOf
}

function opened(text: string, tableOf: TableOf | undefined, tables: readonly FarTable[]): Served {
  const of = (name: string): FarTable => tables.find(table => table.farName === name)!
  const engine: FarEngine = {
    describe: name => of(name).engine.describe(name),
    ask: question => of(question.table).engine.ask(question),
  }
  // The columns that charts may show are those that its author chose from.
  const columns = Object.fromEntries(tables.map(table => [table.farName, table.names]))
  return { text, tableOf, tables, answer: farEndpoint(engine, { tables: columns }) }
}

/** So long after its description changed, nobody waits for an answer of a database any more. Milliseconds. */
const OVER = 60_000

function retire({ tables }: Served): void {
  const close = () => {
    for (const table of tables) table.engine.close?.().catch(() => {})
  }
  if (tables.length > 0) setTimeout(close, OVER).unref()
}
