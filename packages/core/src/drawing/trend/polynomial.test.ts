import fc from 'fast-check'
import { expect, test } from 'vitest'
import { CERTIFIED_FITS, STEPS } from '../../../../../tests/support/certified.ts'
import { fitPolynomial } from './polynomial.ts'

test.each(CERTIFIED_FITS)(
  '$name agrees with the certified results to nine digits',
  ({ x, y, coefficients, rSquared }) => {
    const fit = fitPolynomial(x, y, coefficients.length - 1)
    fit.coefficients.forEach((found, i) => {
      expect(Math.abs(found / coefficients[i] - 1)).toBeLessThan(1e-9)
    })
    expect(Math.abs(fit.rSquared / rSquared - 1)).toBeLessThan(1e-9)
  },
)

test('a polynomial is found again from its own points, and moves with them', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 1, maxLength: 5 }),
      fc.integer({ min: -1000, max: 1000 }),
      (factors, shift) => {
        const x = STEPS.map(step => step + shift)
        const value = (at: number) => factors.reduce((sum, factor, k) => sum + factor * (at - shift) ** k, 0)
        const fit = fitPolynomial(x, x.map(value), factors.length - 1)
        const scale = 1 + Math.max(...x.map(at => Math.abs(value(at))))
        for (const at of [shift - 1, shift + 3.5, shift + 20])
          expect(Math.abs(fit.at(at) - value(at)) / scale).toBeLessThan(1e-9)
      },
    ),
  )
})

test('too few points lower the degree', () => {
  expect(fitPolynomial([1, 2], [3, 5], 4).coefficients).toHaveLength(2)
  expect(fitPolynomial([2, 2], [3, 5], 1).at(7)).toBe(4)
})

test('points that each stand for many give the curve of all of them', () => {
  const point = fc.record({
    x: fc.integer({ min: 0, max: 8 }),
    y: fc.double({ min: -50, max: 50, noNaN: true }),
  })
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 8, maxLength: 80 }),
      fc.integer({ min: 1, max: 3 }),
      (points, degree) => {
        const all = fitPolynomial(
          points.map(({ x }) => x),
          points.map(({ y }) => y),
          degree,
        )
        const places = [...new Set(points.map(({ x }) => x))]
        const at = places.map(place => points.filter(({ x }) => x === place).map(({ y }) => y))
        const means = at.map(list => list.reduce((sum, y) => sum + y, 0) / list.length)
        const within = at.reduce(
          (sum, list, i) => sum + list.reduce((own, y) => own + (y - means[i]) ** 2, 0),
          0,
        )
        const many = fitPolynomial(places, means, degree, { weights: at.map(list => list.length), within })
        expect(many.freedom).toBe(all.freedom)
        expect(many.rSquared).toBeCloseTo(all.rSquared, 8)
        for (const x of [0, 3.5, 8]) {
          expect(many.at(x)).toBeCloseTo(all.at(x), 6)
          if (all.freedom > 0) expect(many.errorAt(x)).toBeCloseTo(all.errorAt(x), 6)
        }
      },
    ),
  )
})
