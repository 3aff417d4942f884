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
    const fresh = () => ({ ...drawn, memory: new Map() })
    const often = fresh()
    for (let i = 0; i < 20; i++) nearestMark(pane, often, i, i)
    expect([...often.memory.keys()].some(name => name.startsWith('places'))).toBe(true)
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
        },
      ),
      { numRuns: runs(60) },
    )
  },
)
