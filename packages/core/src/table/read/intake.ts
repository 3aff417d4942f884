import { LARGEST } from '../../finding/check-tree.ts'
import { DapploError } from '../../finding/error.ts'
import { suggest } from '../../finding/nearest.ts'
import { quoted } from '../../finding/plain-text.ts'
import { FARTHEST } from '../cells/calendar.ts'
import { type Cells, Dictionary } from '../cells/cells.ts'
import { TableColumn } from '../cells/column.ts'
import type { Column } from '../cells/options.ts'
import { columnOption, commonZone } from './common-columns.ts'
import type { CellParts } from './plain-csv.ts'
import { chooseReader, readCells } from './reader.ts'
import {
  type ColumnReport,
  type Report,
  tellsUnreadable,
  unreadableFinding,
  unsettledDates,
  unsettledNumbers,
} from './report.ts'

/** Reads raw values into a table's columns, and keeps the report of what was guessed, missing and unreadable. */
export class Intake {
  private readonly report: Report
  private readonly title: string
  private readonly given: Record<string, Column | undefined>
  private readonly timeZone: string | undefined

  constructor(
    report: Report,
    title: string,
    given: Record<string, Column | undefined>,
    timeZone: string | undefined,
  ) {
    this.report = report
    this.title = title
    this.given = Object.assign(Object.create(null), given)
    this.timeZone = timeZone ?? commonZone()
  }

  /** A new column from all its raw values. A `Float64Array` of finite values is used as it is. */
  column(
    name: string,
    raw: ArrayLike<unknown>,
    lineOf?: (row: number) => number,
    words?: readonly string[],
  ): TableColumn {
    const option = columnOption(name, this.given[name])
    const report = blank(name)
    this.report.columns.push(report)
    if (raw instanceof Float64Array && option?.type !== 'text') {
      const { reader } = chooseReader([], { ...option, type: option?.type ?? 'number' }, this.timeZone)
      const column = new TableColumn(
        name,
        { type: reader.type as 'number' | 'time', values: raw },
        reader,
        option,
        false,
      )
      report.type = reader.type
      report.missing = column.extent.missing
      // Infinities and times that are no dates have no place on any scale; with one of them, the column is copied without.
      const { min, max } = column.extent
      const farthest = reader.type === 'time' ? FARTHEST : LARGEST
      if ((min >= -farthest && max <= farthest) || report.missing === raw.length) return column
    }
    const values: readonly unknown[] = Array.isArray(raw) ? raw : Array.from(raw)
    const { reader, dictionary } = this.settle(values, option, report, words)
    report.missing = 0
    const cells = readCells(values, reader, report, row => lineOf?.(row), dictionary)
    this.note(report)
    return new TableColumn(name, cells, reader, option, true, dictionary)
  }

  /**
   * New columns from cells that come part by part: what they hold is found out from a sample. Yields after each part the
   * share that is done, so that others can have their turn.
   */
  *columnsInParts(
    names: readonly string[],
    { rows, sample, parts }: CellParts,
    lineOf: ((row: number) => number) | undefined,
  ): Generator<{ done: number; rows: number }, Map<string, TableColumn>> {
    const begun = names.map((name, c) => {
      const option = columnOption(name, this.given[name])
      const report = blank(name)
      this.report.columns.push(report)
      const { reader, dictionary } = this.settle(sample[c], option, report)
      const cells: Cells = dictionary
        ? { type: 'text', codes: new Int32Array(rows), words: dictionary.words }
        : { type: reader.type as 'number' | 'time', values: new Float64Array(rows) }
      return { name, option, report, reader, dictionary, cells }
    })
    for (const { columns, first, done } of parts()) {
      for (const [c, { report, reader, dictionary, cells }] of begun.entries()) {
        const known = report.examples.length
        const read = readCells(columns[c], reader, report, row => lineOf?.(first + row), dictionary)
        for (let i = known; i < report.examples.length; i++) report.examples[i].row += first
        if (read.type === 'text' && cells.type === 'text') cells.codes.set(read.codes, first)
        else if (read.type !== 'text' && cells.type !== 'text') cells.values.set(read.values, first)
      }
      yield { done, rows: first + (columns[0]?.length ?? 0) }
    }
    return new Map(
      begun.map(({ name, option, report, reader, dictionary, cells }) => {
        this.note(report)
        return [name, new TableColumn(name, cells, reader, option, true, dictionary)]
      }),
    )
  }

  /** Settles how a column is read, by values of it, and says so in its report. */
  private settle(
    values: readonly unknown[],
    option: Column | undefined,
    report: ColumnReport,
    words?: readonly string[],
  ) {
    const { reader, how, guess, unsettled } = chooseReader(values, option, this.timeZone)
    Object.assign(report, { type: reader.type, how, guess })
    if (unsettled !== undefined) report.unsettled = unsettled
    const known = option?.order?.map(String) ?? (words ? [...words] : undefined)
    return { reader, dictionary: reader.type === 'text' ? new Dictionary(known) : undefined }
  }

  /** The cells of further rows, read as the columns are. `before`: how many rows there are already. */
  records(
    columns: Map<string, TableColumn>,
    before: number,
    records: readonly unknown[],
  ): Map<string, Cells> {
    checkRecords(records)
    const cells = new Map<string, Cells>()
    if (columns.size > 0) this.noteUnknown(columns, records)
    if (columns.size === 0) {
      // A table that began empty takes its columns from its first rows.
      for (const name of recordNames(records)) {
        const column = this.column(
          name,
          records.map(record => own(record, name)),
        )
        cells.set(name, column.cells)
        column.keep([])
        columns.set(name, column)
      }
      return cells
    }
    for (const [name, column] of columns) {
      const report = this.report.columns.find(column => column.name === name)!
      const { unreadable } = report
      const examples = report.examples.length
      const raw = records.map(record => own(record, name))
      cells.set(
        name,
        readCells(raw, column.reader, report, () => undefined, column.dictionary),
      )
      for (let i = examples; i < report.examples.length; i++) report.examples[i].row += before
      if (report.unreadable > unreadable) this.note(report)
    }
    return cells
  }

  /** Single values as a column reads them; what cannot be read is missing, and nobody is told. */
  values(column: TableColumn, raw: readonly unknown[]): Cells {
    const report = { ...blank(column.name), type: column.type }
    return readCells(raw, column.reader, report, () => undefined, new Dictionary())
  }

  /** Columns that the table does not have are left out, and told of once; a record of nothing else is none of its rows. */
  private noteUnknown(columns: Map<string, TableColumn>, records: readonly unknown[]): void {
    const unknown = recordNames(records).filter(name => !columns.has(name))
    if (unknown.length === 0 && records.every(record => Object.keys(record as object).length > 0)) return
    const bare = records.findIndex(record => !Object.keys(record as object).some(name => columns.has(name)))
    if (bare >= 0)
      throw new DapploError(
        'bad-rows',
        `Row ${bare + 1} has none of the columns of ${this.title}`,
        `rows[${bare}]`,
        suggest(Object.keys(records[bare] as object)[0] ?? '', [...columns.keys()], 'Columns'),
      )
    for (const name of unknown) {
      const path = `columns.${name}`
      if (this.report.findings.some(finding => finding.path === path)) continue
      this.report.findings.push({
        code: 'unknown-column',
        message: `Rows came with a column ${quoted(name)} that ${this.title} does not have; it is left out`,
        remedy: 'Make the table with this column, or send rows without it.',
        path,
      })
    }
  }

  private note(report: ColumnReport): void {
    const path = `columns.${report.name}`
    this.report.findings = this.report.findings.filter(finding => finding.path !== path)
    const { name, unsettled } = report
    if (unsettled !== undefined)
      this.report.findings.push(
        report.type === 'number' ? unsettledNumbers(name, unsettled) : unsettledDates(name, unsettled),
      )
    if (tellsUnreadable(report)) this.report.findings.push(unreadableFinding(report, this.title))
  }
}

const blank = (name: string): ColumnReport => ({
  name,
  type: 'number',
  how: 'given',
  guess: '',
  missing: 0,
  unreadable: 0,
  examples: [],
})

const kindOf = (value: unknown): string =>
  value === null
    ? 'null'
    : Array.isArray(value)
      ? 'a list'
      : value === undefined
        ? 'nothing'
        : `a ${typeof value}`

/** Rows must be records: lists and plain values have no names for what they hold. Throws `bad-rows`. */
export function checkRecords(rows: readonly unknown[]): void {
  const bad = rows.findIndex(row => row === null || typeof row !== 'object' || Array.isArray(row))
  if (bad < 0) return
  throw new DapploError(
    'bad-rows',
    `Row ${bad + 1} is ${kindOf(rows[bad])}, not a record`,
    `rows[${bad}]`,
    'Give rows as records such as { route: "Gannet Bay", passengers: 120 }.',
  )
}

/** A record's own value: what it inherits is none of its data. */
export const own = (record: unknown, name: string): unknown =>
  record !== null && typeof record === 'object' && Object.hasOwn(record, name)
    ? (record as Record<string, unknown>)[name]
    : undefined

/** Every name that occurs in some record, in order of first appearance. */
export function recordNames(records: readonly unknown[]): string[] {
  const names = new Set<string>()
  for (const record of records)
    for (const name in record as object) if (Object.hasOwn(record as object, name)) names.add(name)
  return [...names]
}
