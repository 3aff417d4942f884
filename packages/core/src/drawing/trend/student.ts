import { probit } from 'simple-statistics'

/**
 * The value that a variable of Student's distribution stays below with a probability: exact for one and two degrees of
 * freedom, else by the series in Abramowitz and Stegun 26.7.5, good to three digits from three degrees on.
 */
export function studentQuantile(probability: number, freedom: number): number {
  if (!(freedom >= 1)) return Number.NaN
  if (freedom === 1) return Math.tan(Math.PI * (probability - 0.5))
  if (freedom === 2) {
    const spread = 4 * probability * (1 - probability)
    return (2 * probability - 1) * Math.sqrt(2 / spread)
  }
  const z = probit(probability)
  const terms = [
    (z ** 3 + z) / 4,
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96,
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384,
    (79 * z ** 9 + 776 * z ** 7 + 1482 * z ** 5 - 1920 * z ** 3 - 945 * z) / 92160,
  ]
  return terms.reduce((sum, term, i) => sum + term / freedom ** (i + 1), z)
}
