/** Rows of an answer by columns: numbers, texts, or null. */
export interface RunResult {
  columns: ArrayLike<unknown>[]
  length: number
  /** Why some of the rows could not be asked. */
  partial?: string
}
