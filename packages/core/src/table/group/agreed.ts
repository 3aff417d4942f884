import type { Cells } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Meaning } from '../phrase/meaning.ts'
import { encode, valuesOfCodes } from './encode.ts'
import type { Groups } from './group.ts'

/** What is told of groups, where they have one value of it. */
export interface Agreed {
  cells: Cells
  /** Where the interval of each ends, for buckets and bins. */
  ends: Float64Array | undefined
  /** How many groups have rows of different values, and so none. */
  several: number
}

/** The value in which all rows of a group that have one agree. `length`: with the groups that have no rows, which come last. */
export function agreedIn(meaning: Meaning, column: TableColumn, groups: Groups, length: number): Agreed {
  const encoded = encode(meaning, column)
  const { ofRow, rows } = groups
  const codes = new Int32Array(length).fill(-1)
  const apart = new Uint8Array(groups.count)
  const considered = rows?.length ?? ofRow.length
  for (let i = 0; i < considered; i++) {
    const row = rows ? rows[i] : i
    const code = encoded.codes[row]
    const group = ofRow[row]
    if (code < 0 || group < 0) continue
    if (codes[group] < 0) codes[group] = code
    else if (codes[group] !== code) apart[group] = 1
  }
  let several = 0
  for (let group = 0; group < groups.count; group++) {
    if (apart[group] === 0) continue
    codes[group] = -1
    several++
  }
  return {
    cells: encoded.cellsOf(codes),
    ends: encoded.endOf && valuesOfCodes(codes, code => encoded.endOf!(code)),
    several,
  }
}
