/** First index from `start` up to `end` at which `values`, which never fall, are not below `value`; `end` where all are. */
export function firstAtLeast(
  values: ArrayLike<number>,
  value: number,
  start = 0,
  end = values.length,
): number {
  let low = start
  let high = end
  while (low < high) {
    const middle = (low + high) >>> 1
    if (values[middle] < value) low = middle + 1
    else high = middle
  }
  return low
}

/** First index from `start` at which `values`, which never fall, are above `value`; their number where none is. */
export function firstAbove(values: ArrayLike<number>, value: number, start = 0): number {
  let low = start
  let high = values.length
  while (low < high) {
    const middle = (low + high) >>> 1
    if (values[middle] <= value) low = middle + 1
    else high = middle
  }
  return low
}
