import type { Finding } from '@dapplo/core'
import type {
  FarAnswer,
  FarAsking,
  FarColumnFacts,
  FarEngine,
  FarQuestion,
  FarTableFacts,
} from '@dapplo/core/far'
import { engineError, tooLarge, unknownTable } from './errors.ts'
import { Gathering } from './gathering.ts'
import type { Dialect } from './sql/dialect.ts'
import { gatheredStatement } from './sql/gathered.ts'
import type { RunResult } from './sql/result.ts'
import { statementOf } from './sql/statement.ts'
import type { EngineColumn, EngineTable } from './sql/values.ts'

/** What a table is made of, as its engine tells. */
export interface DescribedTable {
  source: string
  columns: FarColumnFacts[]
  rows: number
  /** What puts its rows in order. */
  place: string | undefined
  /** What went wrong when its rows were read in. */
  findings?: Finding[]
}

/** All that an engine has to be able to do: the rest is the same for all of them. */
export interface Adapter {
  /** What it is called in messages. */
  name: string
  dialect: Dialect
  /** What is known of a table; undefined where there is none of that name. */
  describe(table: string): Promise<DescribedTable | undefined>
  /** The names of its tables, for suggestions. */
  tables(): Promise<string[]>
  /** Runs a statement until it is done, or until the signal asks it to stop. */
  run(sql: string, values: readonly (string | number)[], signal: AbortSignal): Promise<RunResult>
  /** Whether a failure may come from a value that is no finite number. */
  spoiled(error: unknown): boolean
  watch?(table: string, changed: () => void): () => void
  close(): Promise<void>
}

/** Makes an engine of an adapter. */
export function engineOf(adapter: Adapter): FarEngine {
  const known = new Map<string, ReturnType<typeof describe>>()
  const describe = async (name: string): Promise<{ facts: FarTableFacts; table: EngineTable }> => {
    const described = await adapter.describe(name).catch(error => {
      throw engineError(adapter.name, error)
    })
    if (!described) throw unknownTable(name, await adapter.tables().catch(() => []))
    const { columns, rows, place, source, findings } = described
    const typed = columns.flatMap(({ name, type, given }): [string, EngineColumn][] =>
      type ? [[name, { name, type, given }]] : [],
    )
    return {
      facts: { columns, rows, ordered: place !== undefined, ...(findings ? { findings } : {}) },
      table: { source, columns: new Map(typed), place },
    }
  }
  const described = (name: string) => {
    const found = describe(name)
    known.set(name, found)
    found.catch(() => known.delete(name))
    return found
  }
  const alone = async (question: FarQuestion, signal: AbortSignal): Promise<FarAnswer> => {
    const { table } = await (known.get(question.table) ?? described(question.table))
    const run = async (careful: boolean) => {
      const { sql, values, types } = statementOf(question, table, adapter.dialect, careful)
      return { types, result: await adapter.run(sql, values, signal) }
    }
    try {
      // Numbers that are none are rare: all is asked with care only where one shows, or something failed by one.
      let ran = await run(false).catch(error => {
        if (signal.aborted || !adapter.spoiled(error)) throw error
      })
      if (!ran || spoils(ran.result)) ran = await run(true)
      return checked(question, ran.result, ran.types)
    } catch (error) {
      throw engineError(adapter.name, error)
    }
  }
  const gathered = new Gathering(alone, async (questions, signal) => {
    const { table } = await (known.get(questions[0].table) ?? described(questions[0].table))
    const statement = gatheredStatement(questions, table, adapter.dialect)
    const result = statement && (await adapter.run(statement.sql, statement.values, signal))
    if (!result || result.partial !== undefined || spoils(result)) return undefined
    return statement.answers(result).map((own, i) => checked(questions[i], own.result, own.types))
  })
  const ask = (question: FarQuestion, signal: AbortSignal) =>
    adapter.dialect.groupingSets ? gathered.ask(question, signal) : alone(question, signal)
  return {
    describe: async name => (await described(name)).facts,
    ask(question): FarAsking {
      const control = new AbortController()
      return { answer: ask(question, control.signal), cancel: () => control.abort() }
    },
    ...(adapter.watch ? { watch: adapter.watch.bind(adapter) } : {}),
    close: () => adapter.close(),
  }
}

/** Whether a number that is none has come into an answer. */
const spoils = ({ columns }: RunResult): boolean =>
  columns.some(values => {
    for (let i = 0; i < values.length; i++) {
      const value = values[i]
      if (typeof value === 'number' && !Number.isFinite(value)) return true
    }
    return false
  })

function checked(
  question: FarQuestion,
  { columns, length, partial }: RunResult,
  types: readonly ('number' | 'text')[],
): FarAnswer {
  const whole = question.ask === 'groups' || question.whole === true
  if (whole && length > question.most) throw tooLarge(question)
  return {
    length,
    columns: types.map((type, i) =>
      type === 'number' ? numbers(columns[i] ?? [], length) : Array.from(columns[i] ?? [], text),
    ),
    ...(partial === undefined ? {} : { partial }),
  }
}

function numbers(values: ArrayLike<unknown>, length: number): Float64Array {
  if (values instanceof Float64Array && values.length === length) return values
  const out = new Float64Array(length)
  for (let i = 0; i < length; i++) {
    const value = values[i]
    out[i] = value === null || value === undefined ? Number.NaN : Number(value)
  }
  return out
}

const text = (value: unknown): string | null => (value === null || value === undefined ? null : String(value))
