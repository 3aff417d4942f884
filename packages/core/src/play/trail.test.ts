import { describe, expect, test } from 'vitest'
import { type Batch, chart, type Description, type Scene, table } from '../index.ts'
import { Playback } from '../internal.ts'
import type { Discs, Lines, Texts } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'

const YEARS = [2001, 2002, 2003, 2004]
const piers = table(
  YEARS.flatMap((year, i) =>
    ['Harbour Steps', 'Kelp Quay'].map((pier, p) => ({
      year,
      pier,
      boats: 4 + i * (p + 1),
      passengers: 100 + i * 40 * (p + 1),
    })),
  ),
)
const play = (description: object, keeps: boolean) =>
  new Playback(
    chart(piers, {
      through: 'year',
      scales: { through: { keeps } },
      ...description,
    } as unknown as Description),
    {},
    { width: 700, height: 420, measure: measureInter },
  )
const find = <B extends Batch>(scene: Scene, kind: B['kind'], id: RegExp) =>
  scene.batches.find((batch): batch is B => batch.kind === kind && id.test(batch.id))

describe('what was shown stays', () => {
  test('as a trail behind points, from period to period, up to where they are now', () => {
    const dots = { draw: 'scatter', x: 'mean of boats', y: 'mean of passengers', color: 'pier' }
    const playback = play(dots, true)
    for (const [place, past] of [
      [0, 0],
      [1, 1],
      [2.5, 3],
      [3, 3],
    ]) {
      const scene = playback.sceneAt(place)!
      const [points, trail] = [
        find<Discs>(scene, 'discs', /scatter$/)!,
        find<Lines>(scene, 'lines', /trail$/),
      ]
      const [now] = playback.periods.slice(Math.floor(place))
      expect(now).toBeDefined()
      if (past === 0) {
        expect(trail?.names.length ?? 0).toBeLessThanOrEqual(2)
        continue
      }
      expect(trail!.names.length).toBe(2)
      for (let line = 0; line < 2; line++) {
        const end = trail!.starts[line + 1] - 1
        expect(trail!.x[end]).toBeCloseTo(points.x[line], 3)
        expect(trail!.y[end]).toBeCloseTo(points.y[line], 3)
        expect(trail!.x[trail!.starts[line]]).toBeCloseTo(
          find<Discs>(playback.sceneAt(0)!, 'discs', /scatter$/)!.x[line],
          3,
        )
      }
      expect(scene.batches.indexOf(trail as Batch)).toBeLessThan(scene.batches.indexOf(points))
    }
    expect(find(play(dots, false).sceneAt(2)!, 'lines', /trail$/)).toBeUndefined()
  })

  test('in lines that run along it: they grow to the moment, their names at the moving ends', () => {
    const line = { draw: 'line', x: 'year', y: 'sum of passengers', color: 'pier', legend: 'ends' }
    const playback = play(line, true)
    const drawn = (place: number) => find<Lines>(playback.sceneAt(place)!, 'lines', /line$/)!
    expect([0, 1, 2, 3].map(place => drawn(place).starts[1])).toEqual([1, 2, 3, 4])
    const end = (place: number) => {
      const { x, starts } = drawn(place)
      return x[starts[1] - 1]
    }
    expect(end(1.5)).toBeGreaterThan(end(1) + 2)
    expect(end(1.5)).toBeLessThan(end(2) - 2)
    const names = find<Texts>(playback.sceneAt(1.5)!, 'texts', /^ends\/names/)!
    expect(names.texts.length).toBe(2)
    for (const x of names.x) expect(x - end(1.5)).toBeLessThan(60)
  })
})
