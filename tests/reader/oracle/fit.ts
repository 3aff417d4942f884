// Curves fitted by least squares, worked out in whole fractions.
import { Exact, exactSum, solved } from './exact.ts'

export interface Fitted {
  /** Of 1, x, x² and so on. */
  coefficients: number[]
  /** The share of the variance that the curve explains. */
  r2: number
  at(x: number): number
}

export type Fit = 'linear' | 'log' | 'exponential' | 'power' | { degree: number }

/** The curve through points that is nearest to them; undefined where they determine none. */
export function fitted(points: readonly (readonly [number, number])[], fit: Fit): Fitted | undefined {
  const logX = fit === 'log' || fit === 'power'
  const logY = fit === 'exponential' || fit === 'power'
  const usable = points.filter(
    ([x, y]) => Number.isFinite(x) && Number.isFinite(y) && (!logX || x > 0) && (!logY || y > 0),
  )
  const xs = usable.map(([x]) => (logX ? Math.log(x) : x))
  const ys = usable.map(([, y]) => (logY ? Math.log(y) : y))
  const degree = typeof fit === 'object' ? fit.degree : 1
  if (new Set(xs).size <= degree) return undefined
  const polynomial = fittedPolynomial(xs, ys, degree)
  if (!polynomial) return undefined
  return {
    ...polynomial,
    at: x => (logY ? Math.exp(polynomial.at(logX ? Math.log(x) : x)) : polynomial.at(logX ? Math.log(x) : x)),
  }
}

export function fittedPolynomial(xs: number[], ys: number[], degree: number): Fitted | undefined {
  const [x, y] = [xs.map(Exact.of), ys.map(Exact.of)]
  const powers: Exact[][] = x.map(one => {
    const row = [new Exact(1n)]
    for (let i = 1; i <= 2 * degree; i++) row.push(row[i - 1].times(one))
    return row
  })
  const zero = new Exact(0n)
  const total = (of: (i: number) => Exact) => x.reduce((sum, _, i) => sum.plus(of(i)), zero)
  const equations = Array.from({ length: degree + 1 }, (_, r) => [
    ...Array.from({ length: degree + 1 }, (_, c) => total(i => powers[i][r + c])),
    total(i => powers[i][r].times(y[i])),
  ])
  const exact = solved(equations)
  if (!exact) return undefined
  const mean = exactSum(ys).dividedBy(new Exact(BigInt(ys.length)))
  const curve = (i: number) => exact.reduce((sum, b, p) => sum.plus(b.times(powers[i][p])), zero)
  const square = (of: (i: number) => Exact) => total(i => of(i).times(of(i)))
  const left = square(i => y[i].minus(curve(i)))
  const all = square(i => y[i].minus(mean))
  const coefficients = exact.map(b => b.value)
  return {
    coefficients,
    r2: all.isZero ? 1 : new Exact(1n).minus(left.dividedBy(all)).value,
    at: value => {
      const at = Exact.of(value)
      return exact.reduceRight((sum, b) => sum.times(at).plus(b), zero).value
    },
  }
}
