import { describe, expect, test } from 'vitest'
import { chart, type Description, type Scene, type Table, type Texts, table } from '../index.ts'
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
