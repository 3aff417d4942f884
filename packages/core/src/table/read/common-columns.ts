import type { Column } from '../cells/options.ts'

/** What an application says of columns, whichever table they are in. */
export interface CommonColumns {
  columns?: Readonly<Record<string, Column>>
  timeZone?: string
}

let common: CommonColumns = {}

/** Tables that are made from now on read and write these columns so, under what they are told themselves. */
export function useColumns({ columns, timeZone }: CommonColumns): void {
  common = { columns, timeZone }
}

/** What tables are made with at present. */
export const columnsInUse = (): CommonColumns => common

/** What is said of a column: by its table, key by key before what the application says. */
export function columnOption(name: string, own: Column | undefined): Column | undefined {
  const shared = common.columns && Object.hasOwn(common.columns, name) ? common.columns[name] : undefined
  return shared && own ? { ...shared, ...own } : (own ?? shared)
}

/** The zone of times, where neither their column nor their table says. */
export const commonZone = (): string | undefined => common.timeZone
