import type { TableColumn } from '../cells/column.ts'
import type { RowList } from '../cells/row-list.ts'
import type { RunGroups } from './group.ts'

/** A summary of groups that is brought up to date as single rows come and go. */
export interface Running {
  enter(group: number, row: number): void
  /** To be called while the row still has its value. */
  leave(group: number, row: number): void
  /** The first change is about to come: so many rows each group has. */
  counted?(sizes: ArrayLike<number>): void
  /** The first rows are about to go, each of which has left. */
  dropFirst?(count: number): void
  /** Rows are about to go, in rising order, each of which has left. */
  remove?(rows: readonly number[]): void
  /** What it comes to in a group; NaN where there is nothing to sum up. */
  valueOf(group: number): number
}

/** What a running summary knows of the rows. */
export interface RunningRows {
  column: TableColumn | undefined
  /** The group of each row. */
  ofRow(): RowList<Int32Array>
  /** The same in short, where rows stand in runs and none has changed. */
  runs: RunGroups | undefined
  count: number
}
