/** Which rows of a table are meant: 1 for those that are, by row. */
export type RowMask = Uint8Array

/** Tells rows apart; `rows` lists those that pass, and `mask` has a 1 for each, where they are known already. */
export type RowTest = ((row: number) => boolean) & {
  rows?: () => Int32Array
  mask?: RowMask
  /** The same as conditions, for a table whose rows are elsewhere. */
  far?: unknown
}
