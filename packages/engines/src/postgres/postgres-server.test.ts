import { chart } from '@dapplo/core'
import { type FarEngine, farTable, ready } from '@dapplo/core/far'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest'
import { findPostgres, type LoopbackServer, startPostgres } from '../../../../tests/support/servers.ts'
import { postgres } from './postgres.ts'

describe.skipIf(!findPostgres())('a PostgreSQL server', () => {
  let server: LoopbackServer
  let client: pg.Client
  let address: string
  let engine: FarEngine
  beforeAll(async () => {
    server = await startPostgres()
    address = `postgres://dapplo@127.0.0.1:${server.port}/postgres`
    client = new pg.Client(address)
    await client.connect()
    await client.query(`
      CREATE TABLE sailings AS SELECT i AS id, timestamp '2024-01-01' + i * interval '1 hour' AS departed,
        (ARRAY['North Sound', 'Tern Point'])[1 + i % 2] AS route, i % 90 AS passengers, ARRAY[i] AS berths
        FROM generate_series(0, 999) AS i;
      CREATE ROLE reader LOGIN; GRANT SELECT ON sailings TO reader; CREATE TABLE wages (id int)`)
    engine = await postgres(address)
  })
  afterAll(async () => {
    await engine?.close?.()
    await client?.end()
    await server?.close()
  })
  const code = (promise: Promise<unknown>) =>
    promise.then(
      () => 'fine',
      error => `${error.code}: ${error.sentence ?? error.message}`,
    )

  test('says which tables there are, which column cannot be drawn, and what a user may not read', async () => {
    expect(await code(farTable(engine, 'sailing'))).toBe(
      'unknown-table: There is no table "sailing" (at table). Did you mean "sailings"?',
    )
    const sailings = await farTable(engine, 'sailings')
    const berths = () => chart(sailings, { draw: 'bar', x: 'berths', y: 'count' } as never)
    expect(berths).toThrow(/"berths"/)
    const reader = await postgres(address.replace('dapplo@', 'reader@'))
    expect(await code(farTable(reader, 'wages'))).toMatch(
      /^no-rights: PostgreSQL does not let this user read there/,
    )
    await reader.close?.()
  })

  test('takes a query as a table, and changes nothing there', async () => {
    const own = await postgres(address, {
      tables: {
        busy: { query: 'SELECT route, passengers FROM sailings WHERE passengers > 80' },
        bad: { query: 'DELETE FROM sailings RETURNING route' },
      },
    })
    const busy = await farTable<any>(own, 'busy')
    expect(busy.length).toBe(99)
    expect(await code(farTable(own, 'bad'))).toMatch(/^engine-failed: PostgreSQL could not answer/)
    expect((await client.query('SELECT count(*) FROM sailings')).rows[0].count).toBe('1000')
    await own.close?.()
  })

  test('is told of changes by NOTIFY, and shows them', async () => {
    const sailings = await farTable<any>(engine, 'sailings')
    const bars = chart(sailings, { draw: 'bar', x: 'route', y: 'count' })
    await ready(bars)
    const changed = new Promise<void>(done => {
      const end = sailings.version.peek()
      const stop = sailings.follow()
      const look = () => {
        if (sailings.version.peek() === end) return void setTimeout(look, 10)
        stop()
        done()
      }
      look()
    })
    // Until the server has heard that somebody listens, nobody is told.
    const listens = async () =>
      (await client.query('SELECT 1 FROM pg_stat_activity WHERE query = \'LISTEN "sailings"\'')).rows.length >
      0
    while (!(await listens())) await new Promise(done => setTimeout(done, 10))
    await client.query("INSERT INTO sailings VALUES (1000, now(), 'Gannet Bay', 5, NULL); NOTIFY sailings")
    await changed
    expect(sailings.length).toBe(1001)
    await ready(bars)
    const answers = [...(sailings.asks?.answers() ?? [])].map(([, { columns }]) => columns[0])
    expect(answers.flatMap(column => Array.from(column as string[]))).toContain('Gannet Bay')
  })

  test('stops working on what nobody waits for any more, and gives up what takes too long', async () => {
    const patient = await farTable(await postgres(address), 'sailings')
    const hasty = await farTable(await postgres(address, { patience: 200 }), 'sailings')
    const count = ({ engine }: typeof hasty) =>
      engine.ask({ ask: 'groups', table: 'sailings', by: [], measures: [{ how: 'count' }], most: 1 })
    const waiting = async () => {
      const { rows } = await client.query("SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock'")
      return rows.length
    }
    await client.query('BEGIN; LOCK TABLE sailings IN ACCESS EXCLUSIVE MODE')
    expect(await code(count(hasty).answer)).toMatch(/^given-up/)
    const asking = count(patient)
    while ((await waiting()) === 0) await new Promise(done => setTimeout(done, 10))
    asking.cancel()
    expect(await code(asking.answer)).toMatch(/^given-up/)
    expect(await waiting()).toBe(0)
    await client.query('ROLLBACK')
    for (const { engine } of [patient, hasty]) await engine.close?.()
  })

  test('what is called off makes way for what waits behind it, which is waited for however long it takes', async () => {
    const own = await postgres(address, { atOnce: 1 })
    const ask = (table: string) =>
      own.ask({ ask: 'groups', table, by: [], measures: [{ how: 'count' }], most: 1 })
    const { columns } = await ask('sailings').answer
    await client.query('BEGIN; LOCK TABLE sailings IN ACCESS EXCLUSIVE MODE')
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const [busy, waiting, last] = [ask('sailings'), ask('sailings'), ask('sailings')]
    const codes = [busy, waiting].map(({ answer }) => code(answer))
    const locked = "SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock'"
    while ((await client.query(locked)).rows.length === 0);
    vi.advanceTimersByTime(25_000)
    vi.useRealTimers()
    waiting.cancel()
    busy.cancel()
    for (const told of await Promise.all(codes)) expect(told).toMatch(/^given-up/)
    await client.query('ROLLBACK')
    expect((await last.answer).columns).toEqual(columns)
    await own.close?.()
  })
})
