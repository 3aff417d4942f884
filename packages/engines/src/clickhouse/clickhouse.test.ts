import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import {
  clickhousePorts,
  findClickhouse,
  type LoopbackServer,
  startClickhouse,
} from '../../../../tests/support/servers.ts'
import { answersAlike, countsOnLog, type Trial, type TriedColumn } from '../acceptance.ts'
import { clickhouse } from './clickhouse.ts'

describe.skipIf(!findClickhouse())('ClickHouse', () => {
  let server: LoopbackServer
  let trial: Trial
  const tables: Record<string, { order: string; table: string }> = {}
  const shape: Pick<Trial, 'lacks' | 'times'> = {
    // Servers of 2018 hold moments and days since 1970, and no clock times without a zone.
    lacks: ['clock'],
    times: [86_400_000, Date.UTC(2100, 0, 1)],
  }
  beforeAll(async () => {
    server = await startClickhouse(await clickhousePorts())
    const address = `http://127.0.0.1:${server.port}`
    trial = {
      ...shape,
      engine: clickhouse(address, { tables }),
      async fill(columns) {
        tables.tried = { table: 'tried `rows`', order: 'place' }
        await fill(address, tables.tried.table, columns)
        return 'tried'
      },
    }
  })
  afterAll(async () => {
    await server?.close()
  })

  test('answers every question as the columns here do', async () => {
    await fc.assert(
      answersAlike(trial, shape, (there, here) => expect(there).toEqual(here)),
      { numRuns: runs(60) },
    )
  })

  test('counts rows in cells of one width on a logarithmic scale', async () => {
    const { here, there } = await countsOnLog(trial)
    expect(there).toEqual(here)
  })
})

const types = { number: 'Float64', moment: 'DateTime', date: 'Date', text: 'String', clock: '' }
const quote = (name: string) => `\`${name.replace(/[\\`]/g, '\\$&')}\``
const literal = (text: string) => `'${text.replace(/[\\']/g, '\\$&')}'`

async function fill(address: string, name: string, columns: readonly TriedColumn[]): Promise<void> {
  const command = async (sql: string) => {
    const response = await fetch(address, { method: 'POST', body: sql })
    if (!response.ok) throw new Error(await response.text())
  }
  await command(`DROP TABLE IF EXISTS ${quote(name)}`)
  await command(
    `CREATE TABLE ${quote(name)} (${columns.map(({ name, type }) => `${quote(name)} ${name === 'place' ? types[type] : `Nullable(${types[type]})`}`).join(', ')}) ENGINE = Memory`,
  )
  const cell = (type: TriedColumn['type'], value: number | string | null) => {
    if (value === null) return 'NULL'
    if (typeof value === 'string') return literal(value)
    if (type === 'number') return String(value)
    return type === 'moment' ? String(value / 1000) : literal(new Date(value).toISOString().slice(0, 10))
  }
  const rows = columns[0].values.map(
    (_, i) => `(${columns.map(({ type, values }) => cell(type, values[i])).join(', ')})`,
  )
  if (rows.length > 0) await command(`INSERT INTO ${quote(name)} VALUES ${rows.join(', ')}`)
}
