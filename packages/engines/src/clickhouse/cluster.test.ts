import { chart, type Finding } from '@dapplo/core'
import { farTable } from '@dapplo/core/far'
import { View } from '@dapplo/core/internal'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import {
  clickhousePorts,
  findClickhouse,
  type LoopbackServer,
  startClickhouse,
} from '../../../../tests/support/servers.ts'
import { clickhouse } from './clickhouse.ts'

describe.skipIf(!findClickhouse())('a ClickHouse cluster', () => {
  let servers: LoopbackServer[]
  const addressOf = (server: LoopbackServer) => `http://127.0.0.1:${server.port}`
  const command = async (server: LoopbackServer, sql: string) => {
    const response = await fetch(addressOf(server), { method: 'POST', body: sql })
    if (!response.ok) throw new Error(await response.text())
  }
  beforeAll(async () => {
    const ports = [await clickhousePorts(), await clickhousePorts()]
    servers = await Promise.all(ports.map(own => startClickhouse(own, ports)))
    for (const [i, server] of servers.entries()) {
      await command(
        server,
        'CREATE TABLE here (id UInt32, route String, passengers UInt16) ENGINE = MergeTree ORDER BY id',
      )
      await command(server, 'CREATE TABLE sailings AS here ENGINE = Distributed(both, default, here)')
      await command(
        server,
        `INSERT INTO here SELECT number * 2 + ${i}, if(number % 3 = 0, 'Tern Point', 'North Sound'), 10 FROM numbers(300)`,
      )
    }
  })
  afterAll(() => Promise.all(servers?.map(server => server.close()) ?? []))

  test('answers from all its servers; when one goes away, that is told, and the others answer', async () => {
    const engine = clickhouse(addressOf(servers[0]), {
      tables: { sailings: { table: 'sailings', order: 'id' } },
      again: 1,
    })
    const sailings = await farTable<any>(engine, 'sailings')
    expect(sailings.length).toBe(600)
    const view = new View(
      chart(sailings, { draw: 'bar', x: 'route', y: 'sum of passengers' }),
      {},
      { width: 400, height: 300, measure: text => text.length * 7 },
    )
    const codes = () => view.findings.map(({ code }: Finding) => code)
    const sums = () => {
      const { cells } = view.composition.value.panes[0].bound.drawings[0].y
      return cells.type === 'text' ? [] : Array.from(cells.values)
    }
    await view.settled()
    expect(sums()).toEqual([2000, 4000])
    expect(codes()).toEqual([])
    await servers[1].kill()
    await sailings.refresh()
    await view.settled()
    expect(sums()).toEqual([1000, 2000])
    expect(codes()).toEqual(['partial-answer'])
  })

  test('a wrong address, and a user that is not let in, are told of without a password', async () => {
    const address = addressOf(servers[0]).replace('//', '//reader:wrong@')
    const failed = await farTable(clickhouse(address), 'sailings').catch(error => error.sentence as string)
    expect(failed).toMatch(/^ClickHouse /)
    expect(failed).not.toContain('wrong@')
  })
})
