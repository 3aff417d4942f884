import { chart, type Description, table } from '@dapplo/core'
import { farTable, ready } from '@dapplo/core/far'
import { Playback } from '@dapplo/core/internal'
import { DuckDBInstance } from '@duckdb/node-api'
import { expect, test } from 'vitest'
import { duckdb } from './duckdb.ts'

const frame = { width: 600, height: 400, measure: (text: string) => text.length * 6 }

test('a far table is played as one here is: the same periods, and the same picture at every place', async () => {
  const instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  await connection.run(
    `CREATE TABLE sailings AS SELECT i AS id, ['North Sound', 'Tern Point', 'Gannet Bay', 'Outer Skerries'][1 + (i * 7) % 4] AS route,
      TIMESTAMP '2021-03-01' + to_days(CAST(i AS INTEGER)) AS departed, (i * 37) % 97 AS passengers, 2021 + i % 5 AS season
      FROM range(1500) AS r(i) WHERE i % 400 > 60`,
  )
  const engine = await duckdb(instance)
  const far = await farTable<any>(engine, 'sailings')
  const near = table((await far.fetch({ most: 5000 })) as any[], { name: 'sailings' })
  const race: Description = {
    draw: 'bar',
    x: 'sum of passengers',
    y: 'route',
    title: '{sum of passengers} in all',
  }
  for (const own of [
    { ...race, order: 'ranked', through: 'year of departed', label: true },
    { ...race, through: 'season', top: 3 },
    { ...race, through: 'season', where: { season: { from: 2022 } } },
    {
      draw: 'line',
      x: 'month of departed',
      y: 'count',
      color: 'route',
      through: 'quarter of departed',
      scales: { through: { keeps: true } },
    },
  ] as Description[]) {
    const [here, there] = [near, far].map(rows => chart(rows, own))
    expect(() => new Playback(there, {}, frame)).toThrow(expect.objectContaining({ code: 'not-here' }))
    await ready(there)
    const [ours, theirs] = [here, there].map(one => new Playback(one, {}, frame))
    expect(theirs.periods.map(({ words, place }) => [words, place])).toEqual(
      ours.periods.map(({ words, place }) => [words, place]),
    )
    expect(ours.length).toBeGreaterThan(2)
    for (const place of [0, 0.4, 1, 1.7, ours.length]) {
      const [a, b] = [ours, theirs].map(one => one.sceneAt(place)!)
      expect(b.title).toBe(a.title)
      const told = (scene: typeof a) =>
        scene.batches.map(batch => [
          batch.id,
          batch.kind === 'texts' ? batch.texts : 'x' in batch ? Array.from(batch.x) : 0,
        ])
      expect(told(b), `${own.through} at ${place}`).toEqual(told(a))
    }
  }
  const days = chart(far, { draw: 'bar', x: 'route', y: 'count', through: 'day of departed' })
  await expect(ready(days)).rejects.toMatchObject({ code: 'too-many-periods' })
  // Fewer are chosen as that says.
  const july = { departed: { from: '2022-07-01', until: '2022-08-01' } }
  const some = chart(far, { ...days.description, where: july } as Description)
  await ready(some)
  expect(new Playback(some, {}, frame).periods).toHaveLength(31)
  await engine.close?.()
  instance.closeSync()
})
