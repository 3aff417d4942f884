/** The least and the greatest of the ends of extents, whichever way round they are. */
export function extentOfEnds(from: Float64Array, to: Float64Array): [number, number] {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  for (const ends of [from, to]) {
    for (const value of ends) {
      if (value < min) min = value
      if (value > max) max = value
    }
  }
  return [min, max]
}
