import { chart } from '@dapplo/core'
import { type FarEngine, farTable } from '@dapplo/core/far'
import { rowsInBox, selectionsOf, View } from '@dapplo/core/internal'
import { DuckDBInstance } from '@duckdb/node-api'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { duckdb } from './duckdb.ts'

let instance: DuckDBInstance
let engine: FarEngine
let asked = 0
beforeAll(async () => {
  instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  await connection.run(
    `CREATE TABLE sailings AS SELECT i AS id, ['North Sound', 'Gannet Bay', 'Tern Point'][1 + i % 3] AS route,
      (i * 7919 % 99991) / 2000.0 AS wind, (i * 104729 % 99989) / 2500.0 AS delay, i % 90 AS passengers
      FROM range(120000) AS r(i)`,
  )
  const own = await duckdb(instance)
  engine = {
    ...own,
    ask(question) {
      asked++
      return own.ask(question)
    },
  }
})
afterAll(() => instance?.closeSync())

test('a dragged box is followed in every step from one answer, and comes to rest at the exact values', async () => {
  const sailings = await farTable<any>(engine, 'sailings', { key: 'id' })
  const frame = { width: 700, height: 500, measure: (text: string) => text.length * 6 }
  const points = new View(
    chart(sailings, { draw: 'scatter', x: 'wind', y: 'delay', select: 'box' }),
    {},
    frame,
  )
  const bars = new View(
    chart(sailings, { draw: 'bar', x: 'route', y: 'sum of passengers', respond: 'narrow' }),
    {},
    frame,
  )
  await Promise.all([points.settled(), bars.settled()])
  const selections = selectionsOf(points.root)
  const [plot] = points.scene.plots
  const boxOf = (step: number) => ({
    x: plot.x + 40,
    y: plot.y + 30,
    width: plot.width * (0.2 + step * 0.01),
    height: plot.height * (0.2 + step * 0.008),
  })
  const valuesOf = () => {
    const { marks } = bars.composition.value.panes[0].bound.drawings[0]
    // By route, whatever the order in which they come.
    return Array.from({ length: marks.length }, (_, mark) => [marks.keyOf(mark), marks.y.at[mark]] as const)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([, value]) => value)
  }
  /** Drags to a step; waits until all that is asked for it has come. */
  const drag = async (step: number) => {
    selections.set(points, rowsInBox(points.composition.value, points.root, boxOf(step), true))
    await bars.settled()
  }
  for (let step = 0; step < 4; step++) await drag(step)
  // The cube is on its way by now, beside the steps that were asked one by one.
  let tried = 0
  await expect
    .poll(async () => {
      const before = asked
      await drag(4 + tried++ / 64)
      return asked - before
    })
    .toBe(0)
  const before = asked
  const shown: number[][] = []
  for (let step = 10; step < 50; step++) {
    await drag(step)
    shown.push(valuesOf())
  }
  expect(asked).toBe(before)
  for (let step = 1; step < shown.length; step++)
    for (const [i, value] of shown[step].entries()) expect(value).toBeGreaterThan(shown[step - 1][i])
  // At rest the engine is asked, and the values that were shown were near.
  await expect
    .poll(() => {
      valuesOf()
      return asked
    })
    .toBeGreaterThan(before)
  await bars.settled()
  const exact = valuesOf()
  for (const [i, value] of exact.entries()) expect(Math.abs(shown.at(-1)![i] / value - 1)).toBeLessThan(0.002)
  const fresh = new View(bars.chart.value, {}, frame)
  await fresh.settled()
  const { marks } = fresh.composition.value.panes[0].bound.drawings[0]
  expect(Array.from(marks.y.at).sort()).toEqual([...exact].sort())
})
