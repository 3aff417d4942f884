/** Two decimals are a hundredth of a pixel: finer than any screen or printer shows. */
export function short(value: number): string {
  const cents = Math.round(value * 100)
  // Whole numbers and a table are several times as fast as writing fractions, and pictures have very many.
  if (cents >= 0 && cents < 2 ** 31) {
    const whole = (cents / 100) | 0
    return whole + DECIMALS[cents - whole * 100]
  }
  return cents < 0 ? `-${short(-value)}` : String(cents / 100)
}

/** What stands behind the point for each hundredth, the point with it. */
const DECIMALS = Array.from({ length: 100 }, (_, cents) =>
  cents === 0 ? '' : `.${String(cents).padStart(2, '0').replace(/0$/, '')}`,
)
