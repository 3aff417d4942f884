/**
 * Takes some places, in rising order, out of the first `length` of a list: what stands between two of them moves up as one
 * block, so that it costs little more than a copy of what comes after the first.
 */
export function takeOut(
  list: Float64Array | Int32Array,
  first: number,
  length: number,
  places: ArrayLike<number>,
): void {
  for (let i = 0; i < places.length; i++) {
    const from = places[i] + 1
    const to = i + 1 < places.length ? places[i + 1] : length
    list.copyWithin(first + from - 1 - i, first + from, first + to)
  }
}
