/**
 * Adds up numbers without losing what is small beside what is large: what each addition rounds off is kept and added at the
 * end. A. Neumaier, "Rundungsfehleranalyse einiger Verfahren zur Summation endlicher Summen" (1974).
 */
export class Total {
  private sum = 0
  private rest = 0

  add(value: number): void {
    const next = this.sum + value
    this.rest += roundedOff(this.sum, value, next)
    this.sum = next
  }

  get value(): number {
    return compensated(this.sum, this.rest)
  }
}

/** What is lost when two numbers are added. */
export const roundedOff = (a: number, b: number, sum: number): number =>
  Math.abs(a) >= Math.abs(b) ? a - sum + b : b - sum + a

/** A sum with what was lost on the way; endless sums have no rest. */
export const compensated = (sum: number, rest: number): number => (Number.isFinite(sum) ? sum + rest : sum)

/** The total of some numbers, those that are missing left out. */
export function totalOf(values: Iterable<number>): number {
  const total = new Total()
  for (const value of values) if (value === value) total.add(value)
  return total.value
}
