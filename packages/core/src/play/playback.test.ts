import { describe, expect, test } from 'vitest'
import { chart, compose, type Description, type Scene, type Table, type Texts, table } from '../index.ts'
import { Playback } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = { width: 700, height: 420, measure: measureInter }
const piers = table(
  [2001, 2002, 2003, 2005].flatMap((year, i) =>
    ['Harbour Steps', 'Kelp Quay', 'Old Mole', 'Tern Jetty'].map((pier, p) => ({
      year,
      pier,
      passengers: 100 + p * 40 + (p === 0 ? i * 90 : i * 5),
    })),
  ),
)
const race = {
  draw: 'bar',
  y: 'pier',
  x: 'sum of passengers',
  order: 'ranked',
  top: 3,
  through: 'year',
  stamp: { note: '{sum of passengers} in all' },
} as const
const play = (description: object, over: Table = piers) =>
  new Playback(chart(over, description as Description), {}, frame)
const texts = (scene: Scene, id: string) =>
  scene.batches
    .filter((batch): batch is Texts => batch.kind === 'texts' && batch.id === id)
    .flatMap(batch => [...batch.texts])
const barOf = (scene: Scene, pier: string) => {
  const bars = scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
  if (bars?.kind !== 'rects') throw new Error('There are no bars')
  const i = Array.from(bars.keys).indexOf(pier)
  return i < 0 ? undefined : { y: bars.y[i], width: bars.width[i] }
}

describe('playback', () => {
  const playback = play(race)

  test('has a picture for each period, with room for those that are missing', () => {
    expect(playback.periods.map(period => [period.words, period.place])).toEqual([
      ['2001', 0],
      ['2002', 1],
      ['2003', 2],
      ['2005', 4],
    ])
    expect(playback.length).toBe(4)
    for (const { place, words } of playback.periods) {
      const scene = playback.sceneAt(place)!
      expect(texts(scene, 'stamp')).toEqual([words])
      expect(texts(scene, 'stamp/note')[0]).toMatch(/ in all$/)
    }
  })

  test('goes through the periods of rows that are drawn, and through no others', () => {
    const words = (description: object) => play(description).periods.map(period => period.words)
    expect(words({ ...race, where: { year: [2001, 2003] } })).toEqual(['2001', '2003'])
    expect(words({ ...race, where: { year: { from: 2002 } } })).toEqual(['2002', '2003', '2005'])
    // What any of its drawings shows, also where each has conditions of its own.
    const lines = { as: 'line', x: 'year', y: 'passengers', color: 'pier' }
    const both = [2005, 2002].map(year => ({ ...lines, where: { year: [year] } }))
    expect(words({ draw: both, through: 'year' })).toEqual(['2002', '2005'])
    const piersOf = [
      ['Tern Jetty', 'Kelp Quay'],
      ['Kelp Quay', 'Old Mole'],
    ].map(pier => ({ ...lines, where: { pier } }))
    const played = play({ draw: piersOf, through: 'pier' })
    expect(played.periods.map(({ words, rows }) => [words, [...rows]])).toEqual([
      ['Kelp Quay', [1, 5, 9, 13]],
      ['Old Mole', [2, 6, 10, 14]],
      ['Tern Jetty', [3, 7, 11, 15]],
    ])
    expect(words({ ...race, where: { pier: ['Nowhere'] } })).toEqual([])
  })

  test('keeps its scale, and moves bars between their places without a jump', () => {
    const ends = playback.periods.map(({ place }) => playback.sceneAt(place)!.scales.get('x')!.domain[1])
    expect(new Set(ends).size).toBe(1)
    // The first pier is last at the start, and leads at the end.
    expect(barOf(playback.sceneAt(0)!, 'Harbour Steps')).toBeUndefined()
    let before: { y: number; width: number } | undefined
    for (let at = 1; at <= 4; at += 0.02) {
      const now = barOf(playback.sceneAt(at)!, 'Harbour Steps')
      if (before && now) {
        expect(Math.abs(now.y - before.y)).toBeLessThan(12)
        expect(Math.abs(now.width - before.width)).toBeLessThan(20)
      }
      before = now ?? before
    }
    expect(before!.y).toBeLessThan(barOf(playback.sceneAt(4)!, 'Tern Jetty')!.y)
  })

  test('bridges a gap, or holds what was before it', () => {
    const held = play({ ...race, scales: { through: { missing: 'hold' } } })
    const width = (of: Playback, at: number) => barOf(of.sceneAt(at)!, 'Tern Jetty')!.width
    expect(width(held, 2.9)).toBe(width(held, 2))
    expect(width(held, 3.5)).toBeGreaterThan(width(held, 2))
    expect(width(playback, 2.9)).toBeGreaterThan(width(playback, 2))
  })

  test('can let its scale follow, and goes through times and texts', () => {
    const following = play({ ...race, scales: { x: { fixed: false } } })
    const ends = following.periods.map(({ place }) => following.sceneAt(place)!.scales.get('x')!.domain[1])
    expect(new Set(ends).size).toBeGreaterThan(1)
    const months = table({
      at: ['2024-01-05', '2024-02-05', '2024-05-05'],
      n: [1, 2, 3],
      mood: ['calm', 'rough', 'calm'],
    })
    const times = play({ draw: 'bar', x: 'mood', y: 'sum of n', through: 'month of at' }, months)
    expect(times.periods.map(period => period.place)).toEqual([0, 1, 4])
    expect(
      play({ draw: 'bar', x: 'mood', y: 'count', through: 'mood' }, months).periods.map(
        period => period.words,
      ),
    ).toEqual(['calm', 'rough'])
    expect(() => play({ ...race, through: 'sum of passengers' })).toThrow('A summary has no periods')
  })

  test('without rows has nothing to play, and says so', () => {
    const none = play(race, table({ year: [], pier: [], passengers: [] } as never))
    expect(none.length).toBe(0)
    expect(none.sceneAt(0)).toBeUndefined()
  })
})

test('columns of a wide table can be played', () => {
  const wide = table([
    { year: 2001, pier: 'Old Mole', spring: 3, autumn: 5 },
    { year: 2002, pier: 'Old Mole', spring: 4, autumn: 2 },
  ])
  const playback = play({ draw: 'line', x: 'pier', y: ['spring', 'autumn'], through: 'year' }, wide)
  expect(playback.sceneAt(0.5)!.batches.some(batch => batch.kind === 'discs' || batch.kind === 'lines')).toBe(
    true,
  )
})

test('labels of a played chart keep their sides, and stand alike however a person comes to a period', () => {
  /** Piers that wander past each other. */
  const wandering = Array.from({ length: 40 }, (_, year) =>
    Array.from({ length: 8 }, (_, p) => ({
      year: 2001 + year,
      pier: `Pier of the bay ${p}`,
      wind: 20 + 11 * Math.sin(year / 16 + p * 1.3),
      delay: 20 + 11 * Math.cos(year / 18 + p * 2.1),
    })),
  ).flat()
  const scales = { x: { domain: [0, 40] }, y: { domain: [0, 40] } }
  const described = { draw: 'scatter', x: 'wind', y: 'delay', label: 'pier', scales } as const
  /** Pixels from each point to its label, by what it says. */
  const ways = (scene: Scene) => {
    const points = scene.batches.find(batch => batch.kind === 'discs' && batch.part === 'data')
    if (points?.kind !== 'discs') throw new Error('There are no points')
    const keys = Array.from(points.keys)
    return new Map(
      scene.batches.flatMap(batch =>
        batch.kind === 'texts' && batch.of === points.id
          ? batch.texts.map((text, i): [string, { x: number; y: number }] => {
              const point = keys.indexOf(batch.keys[i])
              return [text, { x: batch.x[i] - points.x[point], y: batch.y[i] - points.y[point] }]
            })
          : [],
      ),
    )
  }
  const jumps = (pictures: Scene[]) => {
    const all = pictures.map(ways)
    return all.slice(1).flatMap((ways, i) =>
      [...ways].filter(([text, { x, y }]) => {
        const before = all[i].get(text)
        // One with a leader stands wherever there is room.
        if (!before || Math.hypot(x, y) > 20 || Math.hypot(before.x, before.y) > 20) return false
        return Math.hypot(before.x - x, before.y - y) > 1
      }),
    ).length
  }
  const played = { ...described, through: 'year' } as const
  const playback = play(played, table(wandering))
  const pictures = playback.periods.map(({ place }) => playback.sceneAt(place)!)
  const alone = playback.periods.map(({ words }) =>
    compose(chart(table(wandering.filter(({ year }) => String(year) === words)), described), {}, frame),
  )
  expect(jumps(alone)).toBeGreaterThan(20)
  expect(jumps(pictures)).toBeLessThan(jumps(alone) * 0.75)
  const backwards = play(played, table(wandering))
  for (const i of [30, 39, 23, 24, 25, 1, 0])
    expect([...ways(backwards.sceneAt(playback.periods[i].place)!)]).toEqual([...ways(pictures[i])])
})

test('shapes of plain rows are the same ones in every period: they move, and never start anew', () => {
  const rows = [2001, 2002].flatMap((year, i) =>
    ['Kelp Quay', 'Old Mole'].map((pier, p) => ({
      id: `${pier} ${year}`,
      year,
      pier,
      age: 5 + p,
      boats: 100 + i * (50 - 20 * p),
    })),
  )
  const boats = (scene: Scene) => {
    const batch = scene.batches.find(batch => 'part' in batch && batch.part === 'data')!
    if (batch.kind !== 'rects' && batch.kind !== 'discs') throw new Error('There are no shapes')
    return Array.from(batch.keys, (key, i) => [
      key,
      Math.round(batch.kind === 'rects' ? batch.width[i] : batch.y[i]),
    ])
  }
  const keyed = (key: (keyof (typeof rows)[number])[]) => table(rows, { key })
  for (const [over, description] of [
    [table(rows), { draw: 'bar', y: 'pier', x: 'boats' }],
    [table(rows), { draw: 'scatter', x: 'age', y: 'boats', label: 'pier' }],
    [keyed(['pier', 'year']), { draw: 'scatter', x: 'age', y: 'boats' }],
    [keyed(['id']), { draw: 'scatter', x: 'age', y: 'boats', color: 'pier' }],
  ] as const) {
    const playback = play({ ...description, through: 'year' }, over)
    const [first, half, last] = [0, 0.5, 1].map(place => boats(playback.sceneAt(place)!))
    expect(first.map(([key]) => key)).toEqual(['Kelp Quay', 'Old Mole'])
    for (const [i, [key, at]] of half.entries()) {
      expect(key).toBe(first[i][0])
      expect(Math.abs((at as number) - ((first[i][1] as number) + (last[i][1] as number)) / 2)).toBeLessThan(
        1.5,
      )
    }
  }
})
