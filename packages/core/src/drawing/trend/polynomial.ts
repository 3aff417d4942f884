/** A polynomial fitted to points. */
export interface PolynomialFit {
  /** The value of the curve. */
  at(x: number): number
  /** Factors of 1, x, x² and so on. */
  coefficients: number[]
  /** The share of the spread of y that the curve explains, 0 to 1. */
  rSquared: number
  /** The standard error of the curve's height at a place, in units of y; NaN where there are no points to spare. */
  errorAt(x: number): number
  /** Points beyond those that the curve needs. */
  freedom: number
}

/** Points that each stand for many: for how many, and how far those spread around them, all together. */
export interface Many {
  weights: ArrayLike<number>
  /** The sum of squared distances along y. */
  within: number
}

/**
 * The polynomial with the least sum of squares, by Forsythe's orthogonal polynomials ("Generation and use of orthogonal
 * polynomials for data-fitting with a digital computer", 1957). No system of equations is solved, so that accuracy
 * does not suffer from high degrees or from values far from zero. Needs more distinct x than the degree; fewer lower it.
 */
export function fitPolynomial(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  degree: number,
  many?: Many,
): PolynomialFit {
  const count = x.length
  const heavy = (i: number) => (many ? many.weights[i] : 1)
  const all = many ? sum(count, heavy) : count
  const distinct = new Set(Array.from(x)).size
  const most = Math.max(0, Math.min(degree, distinct - 1))
  const centre = (Math.min(...ends(x)) + Math.max(...ends(x))) / 2
  const half = (Math.max(...ends(x)) - Math.min(...ends(x))) / 2 || 1
  const t = Float64Array.from(x, value => (value - centre) / half)
  // What is left to explain is fitted, rather than y itself: each step then corrects what rounding lost before it.
  const rest = Float64Array.from(y)
  const weights: number[] = []
  const alphas: number[] = []
  const betas: number[] = []
  const norms: number[] = []
  let before = new Float64Array(count)
  let now = new Float64Array(count).fill(1)
  for (let k = 0; k <= most; k++) {
    const norm = sum(count, i => heavy(i) * now[i] * now[i])
    // A basis that has come to nothing explains nothing more.
    if (!(norm > 0)) break
    const weight = sum(count, i => heavy(i) * rest[i] * now[i]) / norm
    for (let i = 0; i < count; i++) rest[i] -= weight * now[i]
    weights.push(weight)
    norms.push(norm)
    alphas.push(sum(count, i => heavy(i) * t[i] * now[i] * now[i]) / norm)
    betas.push(k === 0 ? 0 : norm / norms[k - 1])
    const next = new Float64Array(count)
    for (let i = 0; i < count; i++) next[i] = (t[i] - alphas[k]) * now[i] - betas[k] * before[i]
    before = now
    now = next
  }
  const basisAt = (value: number): number[] => {
    const place = (value - centre) / half
    const out: number[] = []
    let [last, current] = [0, 1]
    weights.forEach((_, k) => {
      out.push(current)
      ;[last, current] = [current, (place - alphas[k]) * current - betas[k] * last]
    })
    return out
  }
  const mean = sum(count, i => heavy(i) * y[i]) / all
  const within = many?.within ?? 0
  const spread = sum(count, i => heavy(i) * (y[i] - mean) ** 2) + within
  const left = sum(count, i => heavy(i) * rest[i] * rest[i]) + within
  const freedom = all - weights.length
  const variance = freedom > 0 ? left / freedom : Number.NaN
  return {
    at: value => basisAt(value).reduce((total, basis, k) => total + basis * weights[k], 0),
    coefficients: plainCoefficients(weights, alphas, betas, centre, half),
    rSquared: spread > 0 ? 1 - left / spread : 1,
    errorAt: value =>
      Math.sqrt(variance * basisAt(value).reduce((total, basis, k) => total + basis ** 2 / norms[k], 0)),
    freedom,
  }
}

/** The first and the last of the values in order of size. */
function ends(values: ArrayLike<number>): [number, number] {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  for (let i = 0; i < values.length; i++) {
    if (values[i] < min) min = values[i]
    if (values[i] > max) max = values[i]
  }
  return [min, max]
}

/** A sum that keeps what rounding would lose (Neumaier 1974). */
function sum(count: number, term: (i: number) => number): number {
  let total = 0
  let lost = 0
  for (let i = 0; i < count; i++) {
    const value = term(i)
    const next = total + value
    lost += Math.abs(total) >= Math.abs(value) ? total - next + value : value - next + total
    total = next
  }
  return total + lost
}

/** Factors of the powers of x, from those of the orthogonal polynomials of t = (x - centre) / half. */
function plainCoefficients(
  weights: readonly number[],
  alphas: readonly number[],
  betas: readonly number[],
  centre: number,
  half: number,
): number[] {
  const size = weights.length
  const inT = new Array<number>(size).fill(0)
  let last: number[] = []
  let current = [1]
  weights.forEach((weight, k) => {
    current.forEach((factor, power) => {
      inT[power] += weight * factor
    })
    const next = new Array<number>(k + 2).fill(0)
    current.forEach((factor, power) => {
      next[power + 1] += factor
      next[power] -= alphas[k] * factor
    })
    last.forEach((factor, power) => {
      next[power] -= betas[k] * factor
    })
    ;[last, current] = [current, next]
  })
  // Horner's scheme, with (x - centre) / half for t.
  let out: number[] = []
  for (let power = size - 1; power >= 0; power--) {
    const shifted = new Array<number>(out.length + 1).fill(0)
    out.forEach((factor, i) => {
      shifted[i + 1] += factor / half
      shifted[i] -= (factor * centre) / half
    })
    shifted[0] += inT[power]
    out = shifted
  }
  return out
}
