import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chart, compose, table } from '../../index.ts'
import { measureInter } from '../../theme/text-width.ts'

/** Values of one route at places of its own. */
const route = fc
  .uniqueArray(fc.tuple(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 1, max: 50 })), {
    minLength: 2,
    maxLength: 8,
    selector: ([at]) => at,
  })
  .map(list => list.sort(([a], [b]) => a - b))

function areasOf(routes: readonly (readonly [number, number])[][], arrange: 'stack' | 'share') {
  const rows = routes.flatMap((list, i) => list.map(([at, n]) => ({ route: `Route ${i}`, at, n })))
  const scene = compose(
    chart(table(rows), { draw: 'area', x: 'at', y: 'n', color: 'route', arrange }),
    {},
    { width: 600, height: 400, measure: measureInter },
  )
  const areas = scene.batches.find(batch => batch.kind === 'areas')
  if (areas?.kind !== 'areas') throw new Error('There are no areas')
  return areas
}

/** A straight line through values, at a place; undefined beyond its ends. */
function along(xs: ArrayLike<number>, ys: ArrayLike<number>, x: number): number | undefined {
  for (let i = 1; i < xs.length; i++)
    if (xs[i - 1] < x && x < xs[i])
      return ys[i - 1] + ((ys[i] - ys[i - 1]) * (x - xs[i - 1])) / (xs[i] - xs[i - 1])
  return undefined
}

test('areas of series with places of their own stand on each other everywhere, and never cover another', () => {
  fc.assert(
    fc.property(
      fc.array(route, { minLength: 2, maxLength: 4 }),
      fc.integer({ min: 0, max: 39 }),
      fc.constantFrom('stack' as const, 'share' as const),
      (routes, place, arrange) => {
        // Between two whole numbers no band begins or ends.
        const x = place + 0.5
        const { starts, atX, atTop, atBase } = areasOf(routes, arrange)
        const heights = routes.map(list =>
          along(
            list.map(([at]) => at),
            list.map(([, n]) => n),
            x,
          ),
        )
        const total = heights.reduce<number>((sum, height) => sum + (height ?? 0), 0)
        let base = 0
        heights.forEach((height, i) => {
          const [from, to] = [starts[i], starts[i + 1]]
          const band = (values: Float64Array) => along(atX.subarray(from, to), values.subarray(from, to), x)
          if (height === undefined) {
            expect(band(atTop)).toBeUndefined()
            return
          }
          const top = base + height
          const scale = arrange === 'share' ? 1 / total : 1
          // Shares are curves between their places, drawn as straight lines.
          if (arrange === 'stack' || height === total) {
            expect(band(atBase)).toBeCloseTo(base * scale, 6)
            expect(band(atTop)).toBeCloseTo(top * scale, 6)
          } else expect(band(atTop)).toBeLessThanOrEqual(1 + 1e-9)
          base = top
        })
      },
    ),
  )
})

test('a place that a series lacks is in between, a missing value is a gap', () => {
  const rows = [
    ...[0, 1, 2, 3, 4].map(at => ({ route: 'A', at, n: 10 })),
    { route: 'B', at: 0, n: 2 },
    { route: 'B', at: 2, n: 4 },
    { route: 'B', at: 3, n: null },
    { route: 'B', at: 4, n: 8 },
  ]
  const scene = compose(
    chart(table(rows), { draw: 'area', x: 'at', y: 'n', color: 'route' }),
    {},
    { width: 600, height: 400, measure: measureInter },
  )
  const areas = scene.batches.find(batch => batch.kind === 'areas')
  if (areas?.kind !== 'areas') throw new Error('There are no areas')
  const [from, to] = [areas.starts[1], areas.starts[2]]
  const tops = new Map(Array.from(areas.atX.subarray(from, to), (x, i) => [x, areas.atTop[from + i]]))
  expect(tops.get(1)).toBe(13)
  expect(tops.get(2)).toBe(14)
  expect(tops.get(3)).toBeNaN()
  // What lies between has no rows of its own.
  const between = Array.from(areas.atX.subarray(from, to)).indexOf(1)
  expect(areas.rows?.(from + between)).toEqual([])
})
