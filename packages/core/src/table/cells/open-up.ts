/**
 * Makes room in the `length` entries of a list from `first` on for others before some places, in rising order. What stands between
 * two of them moves up as one block, once. The room for that of `places[i]` is at `first + places[i] + i`.
 */
export function openUp(list: Float64Array, first: number, length: number, places: ArrayLike<number>): void {
  let end = first + length
  for (let i = places.length - 1; i >= 0; i--) {
    const from = first + places[i]
    if (from < end) list.copyWithin(from + i + 1, from, end)
    end = from
  }
}
