/** A curve through points, in data units. */
export interface Curve {
  at(x: number): number
  /** Half the height of the band in which the curve lies with a confidence; NaN where it cannot be told. */
  reach(x: number, confidence: number): [below: number, above: number]
  /** The share of the spread that it explains; NaN for curves without a formula. */
  rSquared: number
  /** What it is, for its formula. */
  formula:
    | { kind: 'polynomial'; coefficients: number[] }
    | { kind: 'log' | 'exponential' | 'power'; start: number; rate: number }
    | undefined
}
