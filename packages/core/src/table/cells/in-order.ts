/** Beyond this share of rows out of order all are sorted: what is kept apart would be no less work. */
const STRAY = 0.2

/**
 * The given rows in the order of their values, equal ones as they stand; none may be missing. Rows that come as time goes
 * by are almost in order: the few that are not are sorted and merged with the rest in one pass.
 */
export function inOrder(values: Float64Array, rows: Int32Array): Int32Array {
  const straight = new Int32Array(rows.length)
  const strays: number[] = []
  let kept = 0
  let last = Number.NEGATIVE_INFINITY
  let before = Number.NEGATIVE_INFINITY
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]
    const value = values[row]
    if (value >= last) {
      straight[kept++] = row
      before = last
      last = value
      continue
    }
    // One value far ahead is the stray, not all that come after it.
    if (value >= before) {
      strays.push(straight[kept - 1])
      straight[kept - 1] = row
      last = value
    } else strays.push(row)
    if (strays.length > 1000 && strays.length > rows.length * STRAY)
      return rows.slice().sort((a, b) => values[a] - values[b] || a - b)
  }
  if (strays.length === 0) return straight
  strays.sort((a, b) => values[a] - values[b] || a - b)
  const out = new Int32Array(rows.length)
  let from = 0
  strays.forEach((stray, i) => {
    const place = placeFor(values, straight, stray, from, kept)
    out.set(straight.subarray(from, place), from + i)
    out[place + i] = stray
    from = place
  })
  out.set(straight.subarray(from, kept), from + strays.length)
  return out
}

/** Where a row belongs among rows in order. */
function placeFor(values: Float64Array, rows: Int32Array, row: number, from: number, to: number): number {
  const value = values[row]
  let low = from
  let high = to
  while (low < high) {
    const middle = (low + high) >> 1
    const other = values[rows[middle]]
    if (other < value || (other === value && rows[middle] < row)) low = middle + 1
    else high = middle
  }
  return low
}
