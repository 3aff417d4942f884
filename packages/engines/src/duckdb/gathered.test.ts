import type { FarEngine, FarMeasure, FarQuestion, FarTest, FarValue } from '@dapplo/core/far'
import { DuckDBInstance } from '@duckdb/node-api'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { duckdb } from './duckdb.ts'

let instance: DuckDBInstance
let engine: FarEngine
let statements: string[] = []
beforeAll(async () => {
  instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  await connection.run(
    `CREATE TABLE sailings AS SELECT CASE WHEN i % 7 = 0 THEN NULL ELSE ['North Sound', 'Gannet Bay', '(rest)', 'O''Neill'][1 + i % 4] END AS route,
      CASE WHEN i % 5 = 0 THEN NULL ELSE i % 11 END AS delay, TIMESTAMP '2024-01-01' + to_days(CAST(i AS INTEGER)) AS departed
      FROM range(400) AS r(i)`,
  )
  const connect = instance.connect.bind(instance)
  instance.connect = async () => {
    const own = await connect()
    const stream = own.stream.bind(own)
    own.stream = (sql, ...rest) => {
      statements.push(sql)
      return stream(sql, ...rest)
    }
    return own
  }
  engine = await duckdb(instance)
})
afterAll(() => instance?.closeSync())

const column = (name: string): FarValue => ({ is: 'column', column: name })
const offsets = { first: 0, changes: [] }
const key = fc.constantFrom<FarValue>(
  column('route'),
  column('delay'),
  { is: 'bucket', column: 'departed', unit: 'month', offsets },
  { is: 'cycle', column: 'departed', cycle: 'weekday', offsets },
  { is: 'cell', column: 'delay', from: 0, perUnit: 0.4 },
  { is: 'kept', of: column('route'), values: ['North Sound'], rest: "the 'rest'" },
)
const measure = fc.constantFrom<FarMeasure>(
  { how: 'count' },
  { how: 'sum', of: column('delay') },
  { how: 'mean', of: column('delay') },
  { how: 'squares', of: column('delay'), around: 4.5 },
  { how: 'max', of: column('departed') },
  { how: 'min', of: { is: 'place' } },
)
const where = fc.constantFrom<FarTest | undefined>(
  undefined,
  { is: 'between', value: column('delay'), from: 3, last: 9 },
  { is: 'among', value: column('route'), values: ["O'Neill"] },
  { is: 'among', value: column('route'), values: ['nowhere'] },
)
const question = fc.record({
  by: fc.array(key, { maxLength: 3 }),
  measures: fc.array(measure, { minLength: 1, maxLength: 4 }),
})

/** Rows of an answer as texts, in one order. */
const rowsOf = async (asked: FarQuestion) => {
  const { columns, length } = await engine.ask(asked).answer
  return Array.from({ length }, (_, i) => JSON.stringify(columns.map(values => values[i]))).sort()
}

test('questions over the same rows that come together are one statement, and each has the answer that it has alone', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(question, { minLength: 2, maxLength: 5 }), where, async (list, test) => {
      const all = list.map(
        (own): FarQuestion => ({
          ask: 'groups',
          table: 'sailings',
          ...(test ? { where: test } : {}),
          ...own,
          most: 5000,
        }),
      )
      const alone: string[][] = []
      for (const one of all) alone.push(await rowsOf(one))
      statements = []
      expect(await Promise.all(all.map(rowsOf))).toEqual(alone)
      expect(statements.length).toBe(1)
    }),
    { numRuns: runs(80) },
  )
})

test('what is called off is not waited for, and what is too large is told of by itself', async () => {
  const by = (value: FarValue, most: number): FarQuestion => ({
    ask: 'groups',
    table: 'sailings',
    by: [value],
    measures: [{ how: 'count' }],
    most,
  })
  const [gone, large, small] = [
    engine.ask(by(column('route'), 100)),
    engine.ask(by({ is: 'bucket', column: 'departed', unit: 'day', offsets }, 10)),
    engine.ask(by(column('delay'), 100)),
  ]
  gone.cancel()
  await expect(gone.answer).rejects.toMatchObject({ code: 'given-up' })
  await expect(large.answer).rejects.toMatchObject({ code: 'too-many-groups' })
  expect((await small.answer).length).toBe(12)
})
