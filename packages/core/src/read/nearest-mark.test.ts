import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { nearestMark } from './nearest-mark.ts'

const COUNT = 30_000
const points = table({
  // With a hole in their middle.
  wind: Float64Array.from({ length: COUNT }, (_, i) => {
    const value = ((i * 7919) % 9973) / 100
    return value > 21 && value < 40 ? value + 40 : value
  }),
  delay: Float64Array.from({ length: COUNT }, (_, i) =>
    i % 500 === 0 ? Number.NaN : ((i * 104_729) % 997) / 10 + 0.5,
  ),
})

test.each(['linear', 'log'] as const)(
  'the nearest of very many points on a %s scale is the same by index',
  kind => {
    const described = chart(points, { draw: 'scatter', x: 'wind', y: 'delay', scales: { y: { kind } } })
    const paneAt = (from: number, to: number) =>
      new View(described, { zoom: { x: [from, to] } }, { width: 640, height: 400, measure: measureInter })
        .composition.value.panes[0]
    // The second is stretched along x alone, after places were indexed for the first.
    const panes = [paneAt(10, 60), paneAt(20, 24)]
    const [pane] = panes
    const [drawn] = pane.bound.drawings
    const fresh = () => ({ ...drawn, memory: new Map(), marks: { ...drawn.marks, begun: undefined } })
    const often = { ...drawn, memory: new Map<string, unknown>() }
    for (let i = 0; i < 20; i++) nearestMark(pane, often, i, i)
    const kept = drawn.marks.begun?.memory() ?? often.memory
    expect([...kept.keys()].some(name => name.startsWith('places'))).toBe(true)
    fc.assert(
      fc.property(
        fc.double({ min: -300, max: 900, noNaN: true }),
        fc.double({ min: -300, max: 700, noNaN: true }),
        fc.constantFrom(...panes),
        (x, y, shown) => {
          const all = nearestMark(shown, fresh(), x, y)!
          const found = nearestMark(shown, often, x, y)!
          expect(found.far).toBeCloseTo(all.far, 6)
          expect(found.x).toBeCloseTo(all.x, 6)
          expect(found.mark).toBe(all.mark)
        },
      ),
      { numRuns: runs(60) },
    )
  },
)

test('the nearest of very many points is found among those that come, without an index of their own', () => {
  const live = table({
    wind: Float64Array.from({ length: COUNT }, (_, i) => ((i * 7919) % 9973) / 100),
    delay: Float64Array.from({ length: COUNT }, (_, i) => ((i * 104_729) % 997) / 10),
  })
  const described = chart(live, { draw: 'scatter', x: 'wind', y: 'delay' })
  const view = new View(described, {}, { width: 640, height: 400, measure: measureInter })
  let indexed = 0
  const place = fc.tuple(fc.integer({ min: 0, max: 640 }), fc.integer({ min: 0, max: 400 }))
  const row = fc.record({ wind: fc.integer({ min: -20, max: 130 }), delay: fc.integer({ min: 0, max: 100 }) })
  const look = (x: number, y: number) => {
    const pane = view.composition.value.panes[0]
    const [drawn] = pane.bound.drawings
    const found = nearestMark(pane, drawn, x, y)
    const others = { ...drawn, memory: new Map(), marks: { ...drawn.marks, begun: undefined } }
    expect(found).toEqual(nearestMark(pane, others, x, y))
    const kept = drawn.marks.begun!.memory()!
    const name = [...kept.keys()].find(key => key.startsWith('places'))
    indexed = name ? (kept.get(name) as { count: number }).count : 0
  }
  for (let i = 0; i < 9; i++) look(i, i)
  expect(indexed).toBe(COUNT)
  fc.assert(
    fc.property(fc.array(row, { minLength: 1, maxLength: 9 }), place, (rows, [x, y]) => {
      live.append(rows)
      look(x, y)
      expect(indexed).toBe(COUNT)
    }),
    { numRuns: runs(60) },
  )
})
