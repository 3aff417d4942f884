import type { TableColumn } from '../cells/column.ts'
import { atOnce } from '../read/at-once.ts'
import { Intake } from '../read/intake.ts'
import type { Report } from '../read/report.ts'
import { firstColumns } from './first-columns.ts'
import type { RawColumns, TableOptions } from './model.ts'

/** What a table begins with. */
export interface Beginning {
  columns: Map<string, TableColumn>
  intake: Intake
  report: Report
  rows: number
}

/** `table "sailings"`, for messages. */
export const titleOf = (name: string): string => (name === 'table' ? 'the table' : `table "${name}"`)

/** Reads what a table begins with; yields between its parts the share that is done. */
export function* begin(
  raw: RawColumns,
  options: TableOptions,
): Generator<{ done: number; rows: number }, Beginning> {
  const report: Report = { rows: 0, columns: [], findings: [] }
  const title = titleOf(options.name ?? 'table')
  const intake = new Intake(report, title, options.columns ?? {}, options.timeZone)
  const columns = yield* firstColumns(raw, options, intake, title)
  const rows = raw.parts?.rows ?? raw.columns[0]?.length ?? 0
  report.rows = rows
  return { columns, intake, report, rows }
}

/** The same at one go. */
export const beginAtOnce = (raw: RawColumns, options: TableOptions): Beginning => atOnce(begin(raw, options))
