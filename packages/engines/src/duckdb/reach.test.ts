import { chart, compose, type Description, table } from '@dapplo/core'
import { farTable, ready } from '@dapplo/core/far'
import { DuckDBInstance } from '@duckdb/node-api'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { duckdb } from './duckdb.ts'

/** Rows that are gathered, since they are more than may be fetched. */
const MANY = 400
const frame = { width: 700, height: 500, measure: (text: string) => text.length * 6 }

let instance: DuckDBInstance
beforeAll(async () => {
  instance = await DuckDBInstance.create(':memory:')
})
afterAll(() => instance?.closeSync())

/** What a column holds: of its values some are missing, and some lie far out in rows that may lack their other position. */
interface Held {
  from: number
  wide: number
  outside: [row: number, by: number][]
  gaps: number[]
  endless: string | undefined
}

const column: fc.Arbitrary<Held> = fc.record({
  from: fc.constantFrom(0.01, -40.5, 3, 1e6),
  wide: fc.constantFrom(0, 0.37, 20, 9000),
  outside: fc.array(fc.tuple(fc.nat(MANY - 1), fc.constantFrom(-3, -0.01, 1.01, 1.2, 40)), { maxLength: 6 }),
  gaps: fc.oneof(
    { weight: 9, arbitrary: fc.array(fc.nat(MANY - 1), { maxLength: 30 }) },
    { weight: 1, arbitrary: fc.constant(Array.from({ length: MANY }, (_, i) => i)) },
  ),
  endless: fc.option(fc.constantFrom('NaN', 'Infinity', '-Infinity'), { nil: undefined, freq: 6 }),
})

function cells({ from, wide, outside, gaps, endless }: Held, step: number): string[] {
  const all = Array.from({ length: MANY }, (_, i) => String(from + (wide * ((i * step) % MANY)) / MANY))
  for (const [i, by] of outside) all[i] = String(from + wide * by)
  if (endless) all[5] = endless
  const missing = new Set(gaps)
  return all.map((value, i) => (missing.has(i) ? 'NULL' : `'${value}'::DOUBLE`))
}

test('drawings over many far rows reach as far as over the same rows here, also where the outermost rows lack a position', async () => {
  const connection = await instance.connect()
  const engine = await duckdb(instance)
  const draws: Description['draw'][] = ['scatter', 'line', ['scatter', { as: 'trend' }]]
  await fc.assert(
    fc.asyncProperty(
      column,
      column,
      fc.constantFrom(...draws),
      fc.boolean(),
      fc.boolean(),
      fc.constantFrom(undefined, 'log' as const),
      async (a, b, draw, alone, chosen, kind) => {
        const [x, y] = [cells(a, 7919), cells(b, 211)]
        // What lies far out often lacks its other position.
        if (alone) for (const [i] of a.outside) y[i] = 'NULL'
        const rows = x.map((value, i) => `(${value}, ${y[i]}, ${i % 3})`)
        await connection.run('CREATE OR REPLACE TABLE tried (a DOUBLE, b DOUBLE, k INTEGER)')
        await connection.run(`INSERT INTO tried VALUES ${rows.join(', ')}`)
        const description: Description = {
          draw,
          x: 'a',
          y: 'b',
          ...(chosen ? { where: { k: [0, 1] } } : {}),
          ...(kind ? { scales: { x: { kind } } } : {}),
        }
        const far = await farTable<any>(engine, 'tried', { most: 100 })
        const near = table((await far.fetch({ most: MANY })) as any[], {
          name: 'tried',
          columns: { a: { type: 'number' }, b: { type: 'number' } },
        })
        const told = async (rows: typeof near | typeof far) => {
          try {
            const own = chart(rows as typeof far, description)
            await ready(own)
            const { scales } = compose(own, {}, frame)
            return ['x', 'y'].map(name => scales.get(name)?.domain)
          } catch (error) {
            return (error as Error).message
          }
        }
        expect(await told(far)).toEqual(await told(near))
      },
    ),
    { numRuns: runs(120) },
  )
  await engine.close?.()
})
