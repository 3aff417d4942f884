import { chart, compose, type Description, table } from '@dapplo/core'
import { farTable, ready } from '@dapplo/core/far'
import { DuckDBInstance } from '@duckdb/node-api'
import { expect, test } from 'vitest'
import { duckdb } from './duckdb.ts'

test('a trend over very many far rows is that of all of them, with its formula and its band', async () => {
  const instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  await connection.run(
    `CREATE TABLE sailings AS SELECT (i * 7919 % 99991) / 2000.0 AS wind, CASE WHEN i % 50 = 0 THEN NULL ELSE (i * 7919 % 99991) / 3000.0 + (i * 104729 % 9973) / 400.0 - 3 END AS delay,
      ['North Sound', 'Tern Point'][1 + i % 2] AS route FROM range(90000) AS r(i)`,
  )
  const engine = await duckdb(instance)
  const far = await farTable<any>(engine, 'sailings')
  const near = table((await far.fetch({ most: 100_000 })) as any[], { name: 'sailings' })
  expect(near.length).toBe(90_000)
  const frame = { width: 700, height: 500, measure: (text: string) => text.length * 6 }
  const trend: Description = { draw: { as: 'trend', band: true }, x: 'wind', y: 'delay' }
  for (const more of [{}, { color: 'route' }, { fit: { degree: 3 } }]) {
    const [here, there] = await Promise.all(
      [near, far].map(async rows => {
        const own = chart(rows, { ...trend, ...more } as Description)
        await ready(own)
        return compose(own, {}, frame)
      }),
    )
    const told = (scene: typeof here) =>
      scene.batches.flatMap(batch =>
        batch.kind === 'texts' && /formula|trend|label/.test(batch.id) ? batch.texts : [],
      )
    // A factor that is next to nothing may differ in its last figure.
    const plain = (texts: string[]) => texts.map(text => text.replace(/(?<=x .*)\d\.\d+E-\d/g, '~'))
    expect(plain(told(there))).toEqual(plain(told(here)))
    for (const batch of here.batches) {
      if (batch.kind !== 'lines' && batch.kind !== 'areas') continue
      if (batch.part !== 'data') continue
      const other = there.batches.find(({ id }) => id === batch.id)
      expect(other?.kind).toBe(batch.kind)
      const [ours, theirs] = [batch, other as typeof batch].map(own =>
        own.kind === 'lines' ? own.y : own.top,
      )
      // Half a pixel is not seen.
      for (const [i, y] of ours.entries()) expect(Math.abs(theirs[i] - y)).toBeLessThan(0.5)
    }
  }
  await engine.close?.()
  instance.closeSync()
})
