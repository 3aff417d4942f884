import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, type Description, type Scene, table } from '../index.ts'
import { appear, between } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

/** What is stacked stays stacked, what is a whole stays a whole, what touches its baseline touches it: at every moment. */

const FRAME = { width: 640, height: 400, measure: measureInter }
const PIERS = ['Gannet Slip', 'Harbour', 'Kelp Quay', 'Old Mole', 'Tern Jetty', 'Weir Stage']
const BOATS = ['Auk', 'Gannet', 'Petrel', 'Tern']
type Row = { pier: string; boat: string; carried: number }

const rowsOf = (least: number) =>
  fc
    .uniqueArray(
      fc.tuple(fc.constantFrom(...PIERS), fc.constantFrom(...BOATS), fc.integer({ min: least, max: 90 })),
      { minLength: 1, maxLength: 14, selector: ([pier, boat]) => `${pier} ${boat}` },
    )
    .map(list => list.map(([pier, boat, carried]): Row => ({ pier, boat, carried })))
const moment = fc.double({ min: 0, max: 1, noNaN: true })
const stagger = (at: number) => (i: number, count: number) =>
  Math.max(0, Math.min(1, at * 1.5 - (0.5 * i) / count))
const sceneOf = (rows: Row[], description: Description) => compose(chart(table(rows), description), {}, FRAME)

/** Every pile of the scene is a row of slabs without gaps from the scale's zero. */
function expectPiled(scene: Scene, across: 'x' | 'y'): void {
  const along = across === 'x' ? 'y' : 'x'
  const zero = scene.scales.get(along)!.map(0)
  const piles = new Map<string, [number, number][]>()
  for (const batch of scene.batches) {
    if (batch.kind !== 'rects' || batch.part !== 'data') continue
    const [low, length] = along === 'y' ? [batch.y, batch.height] : [batch.x, batch.width]
    for (let i = 0; i < low.length; i++) {
      // What has no thickness to be seen covers nothing and parts nothing.
      if (!(length[i] > 0.02)) continue
      const middle = across === 'x' ? batch.x[i] + batch.width[i] / 2 : batch.y[i] + batch.height[i] / 2
      const name = `${Math.round(scene.scales.get(across)!.invert(middle))} ${batch.toward![i]}`
      piles.set(name, [...(piles.get(name) ?? []), [low[i], low[i] + length[i]]])
    }
  }
  for (const [name, slabs] of piles) {
    const up = name.endsWith('-1')
    slabs.sort((a, b) => (a[0] + a[1] - b[0] - b[1]) * (up ? -1 : 1))
    let edge = zero
    for (const [low, high] of slabs) {
      expect(Math.abs((up ? high : low) - edge)).toBeLessThan(0.05)
      edge = up ? low : high
    }
  }
}

const STACKED: Description = {
  draw: 'bar',
  x: 'pier',
  y: 'sum of carried',
  color: 'boat',
  arrange: 'stack',
  order: 'name',
  scales: { x: { domain: PIERS } },
}

describe('stacks', () => {
  test.each([
    ['standing', STACKED, 'x'],
    ['lying', { ...STACKED, x: 'sum of carried', y: 'pier', scales: { y: { domain: PIERS } } }, 'y'],
    ['shares', { ...STACKED, arrange: 'share' }, 'x'],
  ] as [string, Description, 'x' | 'y'][])(
    '%s stay stacked from any data to any other',
    (_, description, across) => {
      fc.assert(
        fc.property(rowsOf(-40), rowsOf(-40), moment, fc.boolean(), (before, after, at, staggered) => {
          const each = staggered ? stagger(at) : undefined
          const motion = between(sceneOf(before, description), sceneOf(after, description))
          expectPiled(motion(at, at * 0.999, each), across)
          expectPiled(appear(sceneOf(after, description))(at, at * 0.999, each), across)
        }),
        { numRuns: runs(150) },
      )
    },
  )

  test('stand when lines become bars', () => {
    fc.assert(
      fc.property(rowsOf(1), moment, (rows, at) => {
        const line = sceneOf(rows, { ...STACKED, draw: 'line', arrange: undefined })
        expectPiled(between(line, sceneOf(rows, STACKED))(at, at * 0.999), 'x')
      }),
    )
  })
})

test('bands that stand on each other do so from the first when lines become areas', () => {
  fc.assert(
    fc.property(rowsOf(1), moment, (rows, at) => {
      const sorted = [...rows].sort((a, b) => PIERS.indexOf(a.pier) - PIERS.indexOf(b.pier))
      const area: Description = { ...STACKED, draw: 'area' }
      const line = sceneOf(sorted, { ...area, draw: 'line', arrange: undefined })
      const goal = sceneOf(sorted, area)
      const areasOf = (scene: Scene) => scene.batches.find(batch => batch.kind === 'areas')
      const [end, now] = [areasOf(goal), areasOf(between(line, goal)(at, at * 0.999))]
      if (end?.kind !== 'areas' || now?.kind !== 'areas') throw new Error('There are no areas.')
      // Bands from the ground alone may rise to their place.
      if (!end.atBase.some(base => base !== end.atBase[0])) return
      expect([now.x, now.top, now.base]).toEqual([end.x, end.top, end.base])
    }),
  )
})

/** At every place of the scene the bands stand on each other without gaps, from the scale's zero. */
function expectBanked(scene: Scene): void {
  const zero = scene.scales.get('y')!.map(0)
  const bands = scene.batches.flatMap(batch =>
    batch.kind === 'areas' && (batch.alpha?.[0] ?? 1) > 0
      ? batch.names.map((_, band) =>
          Array.from({ length: batch.starts[band + 1] - batch.starts[band] }, (_, i) => {
            const at = batch.starts[band] + i
            return { x: batch.x[at], top: batch.top[at], base: batch.base[at] }
          }),
        )
      : [],
  )
  for (const x of new Set(bands.flat().map(vertex => vertex.x)))
    for (const place of [x - 0.3, x + 0.3]) {
      const slabs: [number, number][] = []
      for (const band of bands) {
        const next = band.findIndex(vertex => vertex.x >= place)
        if (next < 1) continue
        const [a, b] = [band[next - 1], band[next]]
        const share = (place - a.x) / (b.x - a.x)
        const mix = (side: 'top' | 'base') => a[side] + (b[side] - a[side]) * share
        if (Math.abs(mix('base') - mix('top')) > 0.02) slabs.push([mix('base'), mix('top')])
      }
      for (const up of [true, false]) {
        const own = slabs.filter(([base, top]) => top < base === up)
        own.sort((a, b) => (up ? b[0] - a[0] : a[0] - b[0]))
        let edge = zero
        for (const [base, top] of own) {
          expect(Math.abs(base - edge)).toBeLessThan(0.1)
          edge = top
        }
      }
    }
}

test.each(['stack', 'share'] as const)('bands in a %s stay banked from any data to any other', arrange => {
  const area: Description = { ...STACKED, draw: 'area', arrange }
  const byPlace = (rows: Row[]) => [...rows].sort((a, b) => PIERS.indexOf(a.pier) - PIERS.indexOf(b.pier))
  fc.assert(
    fc.property(rowsOf(0), rowsOf(0), moment, (before, after, at) => {
      const [from, to] = [before, after].map(rows => sceneOf(byPlace(rows), area))
      const motion = between(from, to)
      expectBanked(motion(at, at * 0.999))
      // Taken up in the middle, it goes on as whole.
      expectBanked(between(motion(at, at * 0.999), from)(1 - at, at * 0.999))
    }),
    { numRuns: runs(200) },
  )
})

test('slices are the whole at every moment, as some come, some go and some change places', () => {
  fc.assert(
    fc.property(rowsOf(1), rowsOf(1), moment, fc.boolean(), (before, after, at, ranked) => {
      const pie: Description = {
        draw: 'pie',
        color: 'boat',
        y: 'sum of carried',
        order: ranked ? 'ranked' : 'name',
      }
      const scene = between(sceneOf(before, pie), sceneOf(after, pie))(at, at * 0.999)
      const slices = scene.batches.flatMap(batch =>
        batch.kind === 'wedges' ? Array.from(batch.from, (from, i) => [from, batch.to[i]]) : [],
      )
      slices.sort((a, b) => a[0] - b[0] || a[1] - b[1])
      let edge = 0
      for (const [from, to] of slices) {
        expect(from).toBeCloseTo(edge, 4)
        edge = to
      }
      expect(edge).toBeCloseTo(Math.PI * 2, 4)
    }),
  )
})
