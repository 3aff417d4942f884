import type { Encoded } from './encode.ts'

/** Rows gathered into groups that agree in every encoded value. */
export interface Groups {
  count: number
  /** The group of each row considered; -1 for rows left out by a filter. */
  ofRow: Int32Array
  /** For each encoding, the code of each group. */
  codes: Int32Array[]
  /** The rows of a group, in table order. */
  rowsOf(group: number): Int32Array
  /** How many rows a group has. */
  sizeOf(group: number): number
}

/** Combined codes up to this many are looked up in a flat table, more in a map. */
const FLAT = 1 << 22

/** Groups rows by all encodings at once; groups stand in order of first appearance. `rows`: only these rows. */
export function groupRows(encodings: readonly Encoded[], length: number, rows?: Int32Array): Groups {
  let ofRow: Int32Array = new Int32Array(length)
  let count = length > 0 ? 1 : 0
  if (rows) {
    ofRow.fill(-1)
    for (let i = 0; i < rows.length; i++) ofRow[rows[i]] = 0
    count = rows.length > 0 ? 1 : 0
  }
  encodings.forEach((encoding, i) => {
    const next = refine(ofRow, count, encoding, i === 0 && !rows)
    ofRow = next.ofRow
    count = next.count
  })
  const first = new Int32Array(count).fill(-1)
  for (let row = length - 1; row >= 0; row--) if (ofRow[row] >= 0) first[ofRow[row]] = row
  const codes = encodings.map(encoding => Int32Array.from(first, row => encoding.codes[row]))

  let starts: Int32Array | undefined
  let sorted: Int32Array | undefined
  const index = () => {
    if (starts && sorted) return { starts, sorted }
    starts = new Int32Array(count + 1)
    for (let row = 0; row < length; row++) if (ofRow[row] >= 0) starts[ofRow[row] + 1]++
    for (let group = 0; group < count; group++) starts[group + 1] += starts[group]
    const next = starts.slice(0, count)
    sorted = new Int32Array(starts[count])
    for (let row = 0; row < length; row++) if (ofRow[row] >= 0) sorted[next[ofRow[row]]++] = row
    return { starts, sorted }
  }
  return {
    count,
    ofRow,
    codes,
    rowsOf(group) {
      if (group >= count) return new Int32Array(0)
      const { starts, sorted } = index()
      return sorted.subarray(starts[group], starts[group + 1])
    },
    sizeOf(group) {
      if (group >= count) return 0
      const { starts } = index()
      return starts[group + 1] - starts[group]
    },
  }
}

/** Splits every group by one more encoding. Missing values (-1) make a group of their own. */
function refine(
  before: Int32Array,
  groups: number,
  encoding: Encoded,
  all: boolean,
): { ofRow: Int32Array; count: number } {
  const { codes, size } = encoding
  const width = size + 1
  const ofRow = new Int32Array(before.length)
  let count = 0
  if (groups * width <= FLAT) {
    const flat = new Int32Array(groups * width).fill(-1)
    for (let row = 0; row < ofRow.length; row++) {
      const group = all ? 0 : before[row]
      if (group < 0) {
        ofRow[row] = -1
        continue
      }
      const slot = group * width + codes[row] + 1
      let found = flat[slot]
      if (found < 0) {
        found = count++
        flat[slot] = found
      }
      ofRow[row] = found
    }
    return { ofRow, count }
  }
  const map = new Map<number, number>()
  for (let row = 0; row < ofRow.length; row++) {
    const group = before[row]
    if (group < 0) {
      ofRow[row] = -1
      continue
    }
    const slot = group * width + codes[row] + 1
    let found = map.get(slot)
    if (found === undefined) {
      found = count++
      map.set(slot, found)
    }
    ofRow[row] = found
  }
  return { ofRow, count }
}
