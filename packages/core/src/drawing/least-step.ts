/** The least distance between two different places; 0 where there are fewer than two. */
export function leastStep(values: Float64Array): number {
  const distinct = Float64Array.from(new Set(values))
    .filter(value => !Number.isNaN(value))
    .sort()
  let least = Number.POSITIVE_INFINITY
  for (let i = 1; i < distinct.length; i++) least = Math.min(least, distinct[i] - distinct[i - 1])
  return Number.isFinite(least) ? least : 0
}
