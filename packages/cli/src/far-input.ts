import { basename, extname } from 'node:path'

/** What tells which rows of a database are meant. */
export interface FarFlags {
  table?: string
  query?: string
  order?: string
}

/** Whether an input is the address of a database, or a variable that holds one. */
export const isDatabase = (input: string): boolean =>
  /^(postgres(ql)?|clickhouses?|duckdb):/i.test(input) || /^\$[A-Z_]\w*$/i.test(input)

/** Whether an input is files that an engine reads: Parquet, Arrow, or several files by a pattern. */
export const isFarFile = (input: string): boolean =>
  ['.parquet', '.arrow', '.feather'].includes(extname(input).toLowerCase()) || /[*?[]/.test(basename(input))
