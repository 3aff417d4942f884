import type { Drawing } from '../../describe/description.ts'
import type { Curve } from './curve.ts'
import { localCurve } from './local.ts'
import { fitPolynomial, type Many } from './polynomial.ts'
import { studentQuantile } from './student.ts'

/** A curve through points: straight, along the logarithm of x, growing by a rate, a power of x, locally weighted, or a polynomial. */
export type Fit = NonNullable<Drawing<any>['fit']>

/** Fits a curve. Points that it has no place for (not above zero, for logarithms) are left out. Undefined with fewer than two. `many`: of polynomials, where each point stands for many. */
export function fitCurve(
  x: readonly number[],
  y: readonly number[],
  fit: Fit,
  many?: Many,
): Curve | undefined {
  if (fit === 'local') return localCurve(x, y)
  const logX = fit === 'log' || fit === 'power'
  const logY = fit === 'exponential' || fit === 'power'
  const keep = x.map((value, i) => (!logX || value > 0) && (!logY || y[i] > 0))
  const xs = x.filter((_, i) => keep[i]).map(value => (logX ? Math.log(value) : value))
  const ys = y.filter((_, i) => keep[i]).map(value => (logY ? Math.log(value) : value))
  if (xs.length < 2) return undefined
  const degree = typeof fit === 'object' ? fit.degree : 1
  const line = fitPolynomial(xs, ys, degree, many)
  const place = (value: number) => (logX ? (value > 0 ? Math.log(value) : Number.NaN) : value)
  const back = (value: number) => (logY ? Math.exp(value) : value)
  const [start, rate = 0] = line.coefficients
  return {
    at: value => back(line.at(place(value))),
    reach(value, confidence) {
      const middle = line.at(place(value))
      const half = studentQuantile((1 + confidence) / 2, line.freedom) * line.errorAt(place(value))
      return [back(middle - half), back(middle + half)]
    },
    rSquared: line.rSquared,
    formula:
      logX || logY
        ? {
            kind: !logY ? 'log' : logX ? 'power' : 'exponential',
            start: logY ? Math.exp(start) : start,
            rate,
          }
        : { kind: 'polynomial', coefficients: line.coefficients },
  }
}
