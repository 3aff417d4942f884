/** A number as SQL reads it, with nothing else in it. */
export function numberText(value: number): string {
  const text = digitsOf(value)
  return value < 0 ? `(${text})` : text
}

/** The digits of a number, as a text in SQL may hold them. */
export function digitsOf(value: number): string {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new Error('a number must be finite')
  if (Object.is(value, -0)) return '0'
  // Whole numbers without an exponent, or they would be taken for fractions.
  return Number.isInteger(value) && Math.abs(value) < 1e18 ? BigInt(value).toString() : String(value)
}
