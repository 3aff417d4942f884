import fc from 'fast-check'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { findPostgres, type LoopbackServer, startPostgres } from '../../../../tests/support/servers.ts'
import { answersAlike, countsOnLog, type Trial, type TriedColumn } from '../acceptance.ts'
import { postgres } from './postgres.ts'

describe.skipIf(!findPostgres())('PostgreSQL', () => {
  let server: LoopbackServer
  let client: pg.Client
  let trial: Trial
  const tables: Record<string, { order: string; table: string }> = {}
  beforeAll(async () => {
    server = await startPostgres()
    const address = `postgres://dapplo@127.0.0.1:${server.port}/postgres`
    client = new pg.Client(address)
    await client.connect()
    trial = {
      engine: await postgres(address, { tables }),
      async fill(columns) {
        tables.tried = { table: 'tried "rows"', order: 'place' }
        await fillPostgres(client, tables.tried.table, columns)
        return 'tried'
      },
      without: /\0/,
      times: [Date.UTC(1, 0, 1) - 1900 * 365.25 * 86_400_000, Date.UTC(9000, 0, 1)],
    }
  })
  afterAll(async () => {
    await trial?.engine.close?.()
    await client?.end()
    await server?.close()
  })

  test('answers every question as the columns here do', async () => {
    await fc.assert(
      answersAlike(trial, { without: /\0/, endless: true }, (there, here) => expect(there).toEqual(here)),
      { numRuns: runs(60) },
    )
  })

  test('counts rows in cells of one width on a logarithmic scale', async () => {
    const { here, there } = await countsOnLog(trial)
    expect(there).toEqual(here)
  })
})

const types = {
  number: 'double precision',
  moment: 'timestamptz',
  clock: 'timestamp',
  date: 'date',
  text: 'text',
}
const quote = (name: string) => `"${name.replaceAll('"', '""')}"`

async function fillPostgres(client: pg.Client, name: string, columns: readonly TriedColumn[]): Promise<void> {
  await client.query(`DROP TABLE IF EXISTS ${quote(name)}`)
  await client.query(
    `CREATE TABLE ${quote(name)} (${columns.map(({ name, type }) => `${quote(name)} ${types[type]}`).join(', ')})`,
  )
  if (columns[0].values.length === 0) return
  const values: (string | number | null)[] = []
  const rows = columns[0].values.map((_, i) => {
    const cells = columns.map(({ type, values: own }) => {
      const value = own[i]
      if (value === null || typeof value === 'string' || type === 'number')
        return `$${values.push(value)}::${types[type]}`
      // Through a number, since years before the first are written in a way of their own.
      const moment = `timestamp '1970-01-01' + $${values.push(value)}::float8 * interval '1 millisecond'`
      return type === 'moment' ? `(${moment}) AT TIME ZONE 'UTC'` : `(${moment})::${types[type]}`
    })
    return `(${cells.join(', ')})`
  })
  await client.query(`INSERT INTO ${quote(name)} VALUES ${rows.join(', ')}`, values)
}
