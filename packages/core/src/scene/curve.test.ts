import fc from 'fast-check'
import { expect, test } from 'vitest'
import { traceCurve } from './curve.ts'

test('a smooth curve passes through every point and overshoots none', () => {
  const point = fc.record({
    gap: fc.double({ min: 0.5, max: 50, noNaN: true }),
    y: fc.oneof(fc.double({ min: -500, max: 500, noNaN: true }), fc.constant(Number.NaN)),
  })
  fc.assert(
    fc.property(fc.array(point, { minLength: 1, maxLength: 30 }), points => {
      let at = 0
      const x = points.map(one => (at += one.gap))
      const y = points.map(one => one.y)
      const passed: [number, number][] = []
      let here: [number, number] = [0, 0]
      traceCurve(x, y, 0, x.length, {
        moveTo: (px, py) => passed.push((here = [px, py])),
        lineTo: (px, py) => passed.push((here = [px, py])),
        bezierCurveTo: (_x1, y1, _x2, y2, px, py) => {
          const slack = 1e-6 + Math.abs(py - here[1]) * 1e-6
          // A cubic stays between its control points; sampled, it stays between its ends.
          for (let t = 0; t <= 1; t += 0.1) {
            const value =
              here[1] * (1 - t) ** 3 + 3 * y1 * t * (1 - t) ** 2 + 3 * y2 * t * t * (1 - t) + py * t ** 3
            expect(value).toBeGreaterThanOrEqual(Math.min(here[1], py) - slack)
            expect(value).toBeLessThanOrEqual(Math.max(here[1], py) + slack)
          }
          passed.push((here = [px, py]))
        },
      })
      expect(passed).toEqual(x.map((px, i) => [px, y[i]]).filter(([, py]) => !Number.isNaN(py)))
    }),
  )
})
