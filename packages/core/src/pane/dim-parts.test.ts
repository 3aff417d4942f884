import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { type Batch, chart, type Description, table } from '../index.ts'
import type { Rects, Wedges } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from '../view/view.ts'

const rows = Array.from({ length: 12 }, (_, i) => ({
  route: ['North Sound', 'Tern Point', 'Gannet Bay'][i % 3],
  day: i < 6 ? 'Monday' : 'Tuesday',
  passengers: 10 + ((i * 7) % 11),
}))
const sailings = table(rows, { name: 'sailings' })
const selecting = (description: unknown, selected: number[]) =>
  new View(
    chart(sailings, description as Description),
    { selected: selected.map(i => sailings.serials[i]) },
    { width: 640, height: 400, measure: measureInter },
  ).scene
const find = <B extends Batch>(batches: readonly Batch[], id: RegExp) =>
  batches.find((batch): batch is B => id.test(batch.id))
const some = fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 11 })

describe('of a shape that stands for many rows the selected part is shown', () => {
  test.each([
    ['upright', { draw: 'bar', x: 'route', y: 'sum of passengers' }],
    ['lying', { draw: 'bar', y: 'route', x: 'sum of passengers' }],
    ['counting', { draw: 'bar', x: 'route', y: 'count' }],
    ['stacked', { draw: 'bar', x: 'day', y: 'sum of passengers', color: 'route', arrange: 'stack' }],
  ])('within its bar, in proportion: %s', (_, description) => {
    fc.assert(
      fc.property(some, selected => {
        const { batches } = selecting(description, selected)
        const bars = find<Rects>(batches, /bar$/)!
        const parts = find<Rects>(batches, /bar\/selected$/)
        for (let i = 0; i < bars.x.length; i++) {
          const own = Array.from(bars.rows!(i))
          const weight = (list: number[]) =>
            list.reduce((sum, row) => sum + ('count' === description.y ? 1 : rows[row].passengers), 0)
          const share = weight(own.filter(row => selected.includes(row))) / weight(own)
          const full = bars.width[i] * bars.height[i]
          if (share > 0 && share < 1) {
            expect((parts!.width[i] * parts!.height[i]) / full).toBeCloseTo(share, 4)
            expect(parts!.x[i]).toBeGreaterThanOrEqual(bars.x[i] - 0.01)
            expect(parts!.y[i] + parts!.height[i]).toBeLessThanOrEqual(bars.y[i] + bars.height[i] + 0.01)
          }
          expect(bars.alpha![i] > 0.9).toBe(share === 1)
        }
      }),
      { numRuns: runs(25) },
    )
  })

  test('within its slice', () => {
    const { batches } = selecting({ draw: 'pie', x: 'route', y: 'count' }, [0])
    const [slices, parts] = [find<Wedges>(batches, /pie$/)!, find<Wedges>(batches, /pie\/selected$/)!]
    const open = ({ from, to }: Wedges) => to.map((end, i) => end - from[i])
    expect(open(parts)[0] / open(slices)[0]).toBeCloseTo(0.25, 4)
    expect([...open(parts)].slice(1)).toEqual([0, 0])
  })

  test('but not of a mean, whose parts are no parts of it', () => {
    const { batches } = selecting({ draw: 'bar', x: 'route', y: 'mean of passengers' }, [0])
    expect(find(batches, /selected$/)).toBeUndefined()
    expect(find<Rects>(batches, /bar$/)!.alpha![0]).toBe(1)
  })
})
