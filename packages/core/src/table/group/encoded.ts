import type { Cells } from '../cells/cells.ts'

/** The values by which rows are grouped, as small whole numbers: one code per row, -1 where the value is missing. */
export interface Encoded {
  codes: Int32Array
  /** Where codes stand in runs, as buckets of sorted times do: the row after each run, and its code. */
  runs?: { ends: Int32Array; codes: Int32Array }
  /** Codes are below this. */
  size: number
  /** Whether no row is known to lack a value. */
  whole?: boolean
  /** Whether only some of the values were kept. */
  some?: boolean
  /** The code of a value; undefined where a value came that these codes do not reach. Without it rows cannot be followed. */
  codeOf?(value: number): number | undefined
  /** Whether codes still mean what they meant, where that hangs on the rows. */
  still?(): boolean
  /** The value of each of the given codes. */
  cellsOf(codes: Int32Array): Cells
  /** For buckets and bins: where the interval of a code ends. */
  endOf?: (code: number) => number
}
