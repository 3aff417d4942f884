/**
 * Takes some places, in rising order, out of the `length` entries of a list from `first` on. What stands between two of
 * them moves as one block: those before them down, or those after them up, whichever are fewer, so that it costs little
 * more than a copy of these. Returns how far on the first entry stands then.
 */
export function takeOut(
  list: Float64Array | Int32Array,
  first: number,
  length: number,
  places: ArrayLike<number>,
): number {
  const count = places.length
  if (count === 0) return 0
  if (places[count - 1] + 1 < length - places[0]) {
    for (let i = count - 1; i >= 0; i--) {
      const from = i > 0 ? places[i - 1] + 1 : 0
      list.copyWithin(first + from + count - i, first + from, first + places[i])
    }
    return count
  }
  for (let i = 0; i < count; i++) {
    const from = places[i] + 1
    const to = i + 1 < count ? places[i + 1] : length
    list.copyWithin(first + from - 1 - i, first + from, first + to)
  }
  return 0
}
