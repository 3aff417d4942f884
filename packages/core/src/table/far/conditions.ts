import { numbersOf } from '../cells/cells.ts'
import type { Value } from '../cells/options.ts'
import { type Conditions, choosesRows, numberOf, sumsUp, testOf } from '../group/where.ts'
import { readPhrase } from '../phrase/phrase.ts'
import type { FarFacts } from './facts.ts'
import type { FarColumn } from './far-column.ts'
import type { FarTable } from './far-table.ts'
import type { FarTest, FarValue } from './model.ts'
import { type Understood, understand } from './understand.ts'

/** The conditions of a description as an engine tests them; undefined where there are none. */
export async function farTest(
  table: FarTable,
  conditions: Conditions | undefined,
  path: string,
  facts: FarFacts,
): Promise<FarTest | undefined> {
  const entries = Object.entries(conditions ?? {}).filter(([, condition]) => condition !== undefined)
  const tests = await Promise.all(
    entries.map(async ([phrase, condition]) => {
      const place = `${path}.${phrase}`
      const meaning = readPhrase(phrase, table, place)
      if (!choosesRows(meaning)) throw sumsUp(phrase, place)
      const column = facts.column(meaning.column)
      if (meaning.is === 'column' || column.type === 'text')
        return columnTest(column, await facts.value(column.name), condition, place)
      return codesTest(await understand(meaning, facts), condition, place)
    }),
  )
  return together(tests)
}

/** The test of rows that have a value. */
export const has = (value: FarValue): FarTest => ({ is: 'not', test: { is: 'missing', value } })

/** All of these; undefined where there are none. */
export function together(tests: readonly (FarTest | undefined)[]): FarTest | undefined {
  const told = tests.filter(test => test !== undefined)
  return told.length > 1 ? { is: 'all', tests: told } : told[0]
}

function columnTest(
  column: FarColumn,
  value: FarValue,
  condition: Conditions[string],
  path: string,
): FarTest {
  if (condition === null) return { is: 'missing', value }
  if (Array.isArray(condition))
    return { is: 'any', tests: condition.map(one => columnTest(column, value, one, path)) }
  if (typeof condition === 'object' && !(condition instanceof Date)) {
    if ('not' in condition) return { is: 'not', test: columnTest(column, value, condition.not, path) }
    // The words here are those of tables whose rows are here: it is answered as there.
    testOf({ type: 'text', codes: new Int32Array(0), words: [] }, condition, column.zone, path)
    const end = (own: Value | undefined) => (own === undefined ? undefined : plain(column, own, path))
    return { is: 'between', value, from: end(condition.from), until: end(condition.until) }
  }
  return { is: 'among', value, values: [plain(column, condition, path)] }
}

/** A value of a description as an engine is told of it. */
function plain({ type, zone }: FarColumn, value: Value, path: string): string | number {
  return type === 'text' ? String(value) : numberOf(value, type, zone, path)
}

/** A test of buckets, bins and cycles, by the numbers of those that meet the condition. */
async function codesTest(
  understood: Understood,
  condition: Conditions[string],
  path: string,
): Promise<FarTest> {
  const { value, column } = understood
  if (condition === null) return { is: 'missing', value }
  if (Array.isArray(condition))
    return {
      is: 'any',
      tests: await Promise.all(condition.map(one => codesTest(understood, one, path))),
    }
  if (typeof condition === 'object' && 'not' in condition)
    return { is: 'not', test: await codesTest(understood, condition.not, path) }
  const all = await understood.all?.()
  if (!all) return { is: 'any', tests: [] }
  const { least, codes } = all
  const cellOf = (code: number) => codes.cellsOf(Int32Array.of(code))
  const cells = cellOf(0)
  if (cells.type === 'text') {
    // Cycles are few, and known by their words.
    const every = Int32Array.from({ length: codes.size }, (_, code) => code)
    const meets = testOf(codes.cellsOf(every), condition, column.zone, path)
    return { is: 'among', value, values: [...every].filter(meets).map(code => code + least) }
  }
  // They rise, so the first from a value on is found by halving.
  const from = (end: Value) => {
    const wanted = numberOf(end, cells.type as 'number' | 'time', column.zone, path)
    let [low, high] = [0, codes.size]
    while (low < high) {
      const middle = Math.floor((low + high) / 2)
      if (numbersOf(cellOf(middle))[0] >= wanted) high = middle
      else low = middle + 1
    }
    return { code: low, exact: low < codes.size && numbersOf(cellOf(low))[0] === wanted }
  }
  if (typeof condition === 'object' && !(condition instanceof Date)) {
    testOf(cells, condition, column.zone, path)
    const end = (own: Value | undefined) => (own === undefined ? undefined : from(own).code + least)
    return { is: 'between', value, from: end(condition.from), until: end(condition.until) }
  }
  const { code, exact } = from(condition)
  return { is: 'among', value, values: exact ? [code + least] : [] }
}
