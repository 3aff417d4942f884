import type { TableColumn } from '../cells/column.ts'
import type { How } from '../phrase/meaning.ts'
import type { Encoded } from './encoded.ts'

/** Rows gathered into groups that agree in every encoded value. */
export interface Groups {
  count: number
  /** The group of each row considered; it says nothing of rows that are left out. */
  readonly ofRow: Int32Array
  /** The same in short, where rows stand in runs. */
  runs?: RunGroups
  /** The only rows considered, in rising order; undefined where that is all of them. */
  rows: Int32Array | undefined
  /** For each encoding, the code of each group. */
  codes: Int32Array[]
  /** The rows of a group, in table order. */
  rowsOf(group: number): Int32Array
  /** What a summary comes to in each group, where that is known without a pass over the rows. */
  summary?(how: How, column: TableColumn | undefined): Float64Array
}

/** The groups of rows that stand in runs: within one, the second code of a row tells its group. */
export interface RunGroups {
  /** The row after each run. */
  ends: Int32Array
  /** By run: what is to be added to the second code of a row to find its place. */
  shifts: Int32Array
  /** The second code of each row. */
  codes: Int32Array
  /** By place: the number of its group, counted from 1. */
  numbers: Int32Array
}

/** Combined codes up to this many are looked up in a flat table, more in a map. */
const FLAT = 1 << 22

/** Groups rows by all encodings at once; groups stand in order of first appearance. `rows`: only these rows. */
export function groupRows(encodings: readonly Encoded[], length: number, rows?: Int32Array): Groups {
  // Of rows after the last that is considered nothing is said: where none is, no room is taken for millions.
  const reach = rows ? rows.reduce((most, row) => Math.max(most, row + 1), 0) : length
  const { count, codes, runs, ...gathered } = gather(encodings, reach, rows)
  // Most summaries of runs do without.
  let { ofRow } = gathered
  const groupOfRow = () => {
    ofRow ??= ofRuns(runs!, length)
    return ofRow
  }
  let index: RowsByGroup | undefined
  return {
    count,
    get ofRow() {
      return groupOfRow()
    },
    runs,
    rows,
    codes,
    rowsOf(group) {
      if (group >= count) return new Int32Array(0)
      index ??= rowsByGroup(groupOfRow(), count, rows)
      const { starts, sorted } = index
      return sorted.subarray(starts[group], starts[group + 1])
    },
  }
}

/** Rows in the order of their groups, and where each group begins among them. */
export interface RowsByGroup {
  starts: Int32Array
  sorted: Int32Array
}

/** Sorts rows by their groups, in table order within one; `rows`: only these. Rows of no group (-1) are left out. */
export function rowsByGroup(ofRow: Int32Array, count: number, rows?: Int32Array): RowsByGroup {
  const considered = rows?.length ?? ofRow.length
  const starts = new Int32Array(count + 1)
  for (let i = 0; i < considered; i++) {
    const group = ofRow[rows ? rows[i] : i]
    if (group >= 0) starts[group + 1]++
  }
  for (let group = 0; group < count; group++) starts[group + 1] += starts[group]
  const next = starts.slice(0, count)
  const sorted = new Int32Array(starts[count])
  for (let i = 0; i < considered; i++) {
    const row = rows ? rows[i] : i
    if (ofRow[row] >= 0) sorted[next[ofRow[row]]++] = row
  }
  return { starts, sorted }
}

interface Gathered {
  ofRow?: Int32Array
  runs?: RunGroups
  count: number
  codes: Int32Array[]
}

/** Numbers the combinations of codes in order of first appearance. Missing values (-1) combine like any other. */
function gather(encodings: readonly Encoded[], length: number, rows: Int32Array | undefined): Gathered {
  if (encodings.length === 0)
    return { ofRow: new Int32Array(length), count: (rows?.length ?? length) > 0 ? 1 : 0, codes: [] }
  const slots = encodings.reduce((product, { size }) => product * (size + 1), 1)
  const inRuns = encodings.length === 2 && !rows && slots <= FLAT && encodings[0].runs
  const found: number[] = []
  const runs = inRuns ? numberRuns(inRuns, encodings[1], slots, found) : undefined
  const ofRow = runs ? undefined : new Int32Array(length)
  if (ofRow && slots <= FLAT) gatherFlat(encodings, ofRow, slots, rows, found)
  else if (ofRow) gatherMapped(encodings, ofRow, rows, found)
  const codes = encodings.map(() => new Int32Array(found.length))
  found.forEach((slot, group) => {
    let rest = slot
    for (let e = encodings.length - 1; e >= 0; e--) {
      const width = encodings[e].size + 1
      codes[e][group] = (rest % width) - 1
      rest = Math.floor(rest / width)
    }
  })
  return { ofRow, runs, count: found.length, codes }
}

/** One pass, with a table that has a place for every combination; adds the combinations that occur to `found`. */
function gatherFlat(
  encodings: readonly Encoded[],
  ofRow: Int32Array,
  slots: number,
  rows: Int32Array | undefined,
  found: number[],
): void {
  const flat = new Int32Array(slots)
  const [first, second] = encodings
  // The usual one or two roles have loops of their own, with nothing in them but look-ups.
  if (encodings.length === 2 && !rows)
    numberPairs(first.codes, second.codes, second.size + 1, flat, ofRow, found)
  else if (encodings.length <= 2 && rows)
    numberSome(first.codes, second?.codes, (second?.size ?? 0) + 1, rows, flat, ofRow, found)
  else {
    const considered = rows?.length ?? ofRow.length
    for (let i = 0; i < considered; i++) {
      const row = rows ? rows[i] : i
      let slot = 0
      for (const { codes, size } of encodings) slot = slot * (size + 1) + codes[row] + 1
      // 0 stands for "not met yet", so groups are kept one higher.
      if (flat[slot] === 0) flat[slot] = found.push(slot)
      ofRow[row] = flat[slot] - 1
    }
  }
}

/** Within a run the first code stays, so only the second is looked at, and no more once all that it can be have been met. */
function numberRuns(
  { ends, codes: own }: { ends: Int32Array; codes: Int32Array },
  { codes, size, whole }: Encoded,
  slots: number,
  found: number[],
): RunGroups {
  const numbers = new Int32Array(slots)
  const shifts = new Int32Array(ends.length)
  const most = whole ? size : size + 1
  let row = 0
  for (let run = 0; run < ends.length; run++) {
    const shift = (Math.imul(own[run] + 1, size + 1) + 1) | 0
    const end = ends[run]
    shifts[run] = shift
    for (let met = 0; row < end && met < most; row++) {
      const slot = (codes[row] + shift) | 0
      if (numbers[slot] !== 0) continue
      numbers[slot] = found.push(slot)
      met++
    }
    row = end
  }
  return { ends, shifts, codes, numbers }
}

/** The group of each row, written out. */
function ofRuns({ ends, shifts, codes, numbers }: RunGroups, length: number): Int32Array {
  const ofRow = new Int32Array(length)
  let row = 0
  for (let run = 0; run < ends.length; run++) {
    const shift = shifts[run]
    const end = ends[run]
    for (; row < end; row++) ofRow[row] = (numbers[(codes[row] + shift) | 0] - 1) | 0
  }
  return ofRow
}

function numberPairs(
  a: Int32Array,
  b: Int32Array,
  width: number,
  flat: Int32Array,
  ofRow: Int32Array,
  found: number[],
): void {
  const { length } = ofRow
  // Whole-number arithmetic throughout, which the bounds on slots allow: twice as fast as with fractions in reserve.
  const shift = (width + 1) | 0
  for (let row = 0; row < length; row++) {
    const slot = (Math.imul(a[row], width) + b[row] + shift) | 0
    let group = flat[slot] | 0
    if (group === 0) {
      group = found.push(slot)
      flat[slot] = group
    }
    ofRow[row] = (group - 1) | 0
  }
}

/** One or two roles of some rows, as while a selection is dragged. */
function numberSome(
  a: Int32Array,
  b: Int32Array | undefined,
  width: number,
  rows: Int32Array,
  flat: Int32Array,
  ofRow: Int32Array,
  found: number[],
): void {
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]
    const own = (a[row] + 1) | 0
    const slot = b ? (Math.imul(own, width) + b[row] + 1) | 0 : own
    let group = flat[slot] | 0
    if (group === 0) {
      group = found.push(slot)
      flat[slot] = group
    }
    ofRow[row] = (group - 1) | 0
  }
}

/** The same with a map, where combinations are too many for a table; numbers stay whole up to 2 ** 53 of them. */
function gatherMapped(
  encodings: readonly Encoded[],
  ofRow: Int32Array,
  rows: Int32Array | undefined,
  found: number[],
): void {
  const groups = new Map<number, number>()
  const considered = rows?.length ?? ofRow.length
  for (let i = 0; i < considered; i++) {
    const row = rows ? rows[i] : i
    let slot = 0
    for (const { codes, size } of encodings) slot = slot * (size + 1) + codes[row] + 1
    let group = groups.get(slot)
    if (group === undefined) {
      group = found.push(slot) - 1
      groups.set(slot, group)
    }
    ofRow[row] = group
  }
}
