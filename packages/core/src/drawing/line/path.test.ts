import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { KINDS, positionScale } from '../../scale/scale.ts'
import { buildPyramid, extremes } from '../../table/cells/pyramid.ts'
import { utc } from '../../table/cells/zone.ts'
import { VertexList, visiblePath } from './path.ts'

test('a pyramid knows the extremes of any stretch', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.integer(), fc.constant(Number.NaN)), {
        minLength: 1,
        maxLength: 5000,
        size: 'max',
      }),
      fc.nat(),
      fc.nat(),
      (list, a, b) => {
        const values = Float64Array.from(list)
        const from = Math.min(a, b) % values.length
        const to = from + (Math.max(a, b) % (values.length - from)) + 1
        const present = list.slice(from, to).filter(value => !Number.isNaN(value))
        expect(extremes(buildPyramid(values), from, to)).toEqual({
          min: Math.min(...present),
          max: Math.max(...present),
        })
      },
    ),
    { numRuns: runs(60) },
  )
})

test('a thinned line covers in each pixel column just what all rows would', () => {
  const rows = 200_000
  const x = Float64Array.from({ length: rows }, (_, i) => i)
  const y = Float64Array.from({ length: rows }, (_, i) => Math.sin(i / 900) * 50 + ((i * 7919) % 101))
  const plot = { x: 10, y: 0, width: 300, height: 200 }
  const scale = positionScale({
    name: 'x',
    kind: KINDS.linear,
    domain: [0, rows - 1],
    range: [10, 310],
    zone: utc,
  })
  const into = new VertexList(16)
  expect(visiblePath({ x, y, marks: undefined, pyramid: buildPyramid(y) }, scale, plot, 1, into)).toBe(true)
  expect(into.length).toBeLessThanOrEqual(300 * 4 + 8)
  const columns = (count: number, xs: ArrayLike<number>, ys: ArrayLike<number>) => {
    const low = new Float64Array(301).fill(1e9)
    const high = new Float64Array(301).fill(-1e9)
    for (let i = 0; i < count; i++) {
      const column = Math.floor(scale.map(xs[i]) - 10)
      low[column] = Math.min(low[column], ys[i])
      high[column] = Math.max(high[column], ys[i])
    }
    return { low: low.slice(0, 300), high: high.slice(0, 300) }
  }
  expect(columns(into.length, into.x, into.y)).toEqual(columns(rows, x, y))
})
