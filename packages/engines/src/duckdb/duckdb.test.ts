import { DuckDBInstance } from '@duckdb/node-api'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { answersAlike, countsOnLog, type Trial, type TriedColumn } from '../acceptance.ts'
import { duckdb } from './duckdb.ts'

let instance: DuckDBInstance
let trial: Trial
beforeAll(async () => {
  instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  const types = { number: 'DOUBLE', moment: 'TIMESTAMPTZ', clock: 'TIMESTAMP', date: 'DATE', text: 'VARCHAR' }
  const quote = (name: string) => `"${name.replaceAll('"', '""')}"`
  const literal = (type: TriedColumn['type'], value: number | string | null) => {
    if (value === null) return 'NULL'
    if (typeof value === 'string') return `'${value.replaceAll("'", "''")}'`
    if (type === 'number') return `'${Object.is(value, -0) ? '-0.0' : value}'::DOUBLE`
    const time = `make_timestamp(${BigInt(value) * 1000n})`
    return type === 'moment' ? `(${time} AT TIME ZONE 'UTC')` : type === 'date' ? `${time}::DATE` : time
  }
  trial = {
    engine: await duckdb(instance),
    async fill(columns) {
      const name = 'tried "rows"'
      await connection.run(
        `CREATE OR REPLACE TABLE ${quote(name)} (${columns.map(({ name, type }) => `${quote(name)} ${types[type]}`).join(', ')})`,
      )
      const rows = columns[0].values.map(
        (_, i) => `(${columns.map(({ type, values }) => literal(type, values[i])).join(', ')})`,
      )
      if (rows.length > 0) await connection.run(`INSERT INTO ${quote(name)} VALUES ${rows.join(', ')}`)
      return name
    },
  }
})
afterAll(() => instance?.closeSync())

test('DuckDB answers every question as the columns here do', async () => {
  await fc.assert(
    answersAlike(trial, { endless: true }, (there, here) => expect(there).toEqual(here)),
    { numRuns: runs(150) },
  )
})

test('counts rows in cells of one width on a logarithmic scale', async () => {
  const { here, there } = await countsOnLog(trial)
  expect(there).toEqual(here)
})
