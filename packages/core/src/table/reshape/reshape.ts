import type { InferOutput } from 'valibot'
import { DapploError } from '../../finding/error.ts'
import { quoted } from '../../finding/plain-text.ts'
import { type Cells, cellText, isMissing, pickCells } from '../cells/cells.ts'
import { readableName, type TableColumn } from '../cells/column.ts'
import type { Column } from '../cells/options.ts'
import { shape } from '../group/shape.ts'
import { rowsWhere } from '../group/where.ts'
import type { RawColumns } from '../live/model.ts'
import { Table } from '../live/table.ts'
import { isMeasure, type Meaning } from '../phrase/meaning.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { columnNames, retyped } from './retype.ts'
import type { step } from './step-schema.ts'

/** One step of shaping a table; steps follow each other. */
export type Step = InferOutput<typeof step>

/** A derived table's cells, and the rows of the source behind each of its rows. */
interface Reshaped {
  raw: RawColumns
  columns: Record<string, Column>
  rowsOf: (row: number) => ArrayLike<number>
}

/** A table made from another by steps that have been checked, which follows its source. */
export function derivedTable(source: Table<any>, steps: readonly Step[], name = source.name): Table<any> {
  // A table that can be asked anew has its rows elsewhere.
  if (source.refresh)
    throw new DapploError(
      'rows-elsewhere',
      `The rows of ${source.title} are in an engine, so they cannot be shaped here`,
      'shape',
      'Shape them there, by a view or a query, and name that.',
    )
  const once = () => reshapeOnce(source, steps, name)
  const { table, rowsOf } = once()
  follow(table, source, once)
  table.sourceRows = rowsOf
  return table
}

/** Makes a derived table follow the one it was derived from. The source does not keep it alive. */
function follow(derived: Table, source: Table, again: () => ReturnType<typeof reshapeOnce>): void {
  derived.source = source
  const self = new WeakRef(derived)
  const stop = source.watch(() => {
    const table = self.deref()
    if (!table) return stop()
    const next = again()
    table.sourceRows = next.rowsOf
    table.adopt(next.table)
  })
}

function reshapeOnce(
  source: Table,
  steps: readonly Step[],
  name: string,
): { table: Table; rowsOf: Reshaped['rowsOf'] } {
  let last: Reshaped = identity(source)
  let table = toTable(last, name, source)
  steps.forEach((step, i) => {
    const before = last.rowsOf
    const next = applyStep(table, step, `shape[${i}]`)
    last = {
      ...next,
      rowsOf: row =>
        Int32Array.from(new Set(Array.from(next.rowsOf(row)).flatMap(own => Array.from(before(own))))),
    }
    const keeps = 'where' in step || 'sort' in step || 'lastOf' in step || 'types' in step
    table = toTable(last, name, keeps ? table : undefined)
  })
  return { table, rowsOf: last.rowsOf }
}

/** `same`: a table whose rows are the same things. */
function toTable({ raw, columns }: Reshaped, name: string, same: Table | undefined): Table {
  const key = same && same.key.length > 0 ? [...same.key] : undefined
  return new Table(raw, { name, columns, key, rowsAre: same?.rowsAre })
}

function identity(source: Table): Reshaped {
  return picked(source, undefined)
}

/** The given rows of a table, all columns as they are. */
function picked(source: Table, rows: ArrayLike<number> | undefined): Reshaped {
  const columns: Record<string, Column> = Object.create(null)
  const raw: RawColumns = { names: source.names, columns: [], words: wordsOf(source, source.names) }
  for (const name of source.names) {
    const column = source.column(name)!
    columns[name] = optionsOf(column)
    raw.columns.push(rawOf(rows ? pickCells(column.cells, rows) : column.cells))
  }
  return { raw, columns, rowsOf: row => [rows ? rows[row] : row] }
}

/** What a derived column keeps of its source: its type and its looks. */
const optionsOf = (column: TableColumn): Column => ({ ...column.options, type: column.type })

/** The words of a source's text columns, so that a category keeps its colour in what is derived from it. */
function wordsOf(source: Table, names: readonly string[]): Record<string, readonly string[]> {
  const words: Record<string, readonly string[]> = Object.create(null)
  for (const name of names) {
    const cells = source.column(name)?.cells
    if (cells?.type === 'text') words[name] = cells.words
  }
  return words
}

function rawOf(cells: Cells): ArrayLike<unknown> {
  return cells.type === 'text'
    ? Array.from(cells.codes, code => (code < 0 ? null : cells.words[code]))
    : cells.values
}

function applyStep(table: Table, step: Step, path: string): Reshaped {
  if ('where' in step) return picked(table, rowsWhere(table, step.where, `${path}.where`))
  if ('lastOf' in step) {
    const { cells } = table.needColumn(step.lastOf, `${path}.lastOf`)
    const last = new Map<number, number>()
    for (let row = 0; row < table.length; row++)
      last.set(cells.type === 'text' ? cells.codes[row] : cells.values[row], row)
    return picked(
      table,
      [...last.values()].sort((a, b) => a - b),
    )
  }
  if ('sort' in step) return picked(table, sortedRows(table, step.sort, step.order === 'down', path))
  if ('long' in step) return toLong(table, step.long, path)
  if ('wide' in step) return toWide(table, step.wide, path)
  if ('group' in step) return toGroups(table, step.group, step.values, path)
  if ('types' in step) return toTypes(table, step.types, path)
  throw new DapploError(
    'bad-option',
    `${quoted(step)} is no step`,
    path,
    'Write one of long, wide, where, lastOf, sort, group or types.',
  )
}

/** Missing values come last, whichever way. */
function sortedRows(table: Table, name: string, down: boolean, path: string): Int32Array {
  const { cells } = table.needColumn(name, `${path}.sort`)
  const sign = down ? -1 : 1
  const compare =
    cells.type === 'text'
      ? (a: number, b: number) =>
          sign * cells.words[cells.codes[a]].localeCompare(cells.words[cells.codes[b]])
      : (a: number, b: number) => sign * (cells.values[a] - cells.values[b])
  return Int32Array.from({ length: table.length }, (_, row) => row).sort((a, b) => {
    const missing = Number(isMissing(cells, a)) - Number(isMissing(cells, b))
    return missing || (isMissing(cells, a) ? a - b : compare(a, b) || a - b)
  })
}

function toLong(
  table: Table,
  { keep, name, value }: { keep: string[]; name: string; value: string },
  path: string,
): Reshaped {
  for (const column of keep) table.needColumn(column, `${path}.long.keep`)
  const melted = table.names.filter(column => !keep.includes(column))
  if (melted.length === 0)
    throw new DapploError(
      'bad-option',
      'There is no column left to make rows of',
      `${path}.long.keep`,
      'Keep fewer columns.',
    )
  const { length } = table
  const rows = Int32Array.from({ length: length * melted.length }, (_, i) => i % length)
  const columns: Record<string, Column> = Object.create(null)
  const raw: RawColumns = { names: [...keep, name, value], columns: [], words: wordsOf(table, keep) }
  for (const column of keep) {
    columns[column] = optionsOf(table.needColumn(column, path))
    raw.columns.push(rawOf(pickCells(table.needColumn(column, path).cells, rows)))
  }
  // Names stay names, though they be years.
  columns[name] = { type: 'text' }
  raw.columns.push(Array.from(rows, (_, i) => melted[Math.floor(i / length)]))
  const types = new Set(melted.map(column => table.column(column)!.type))
  if (types.size === 1 && !types.has('text')) {
    const values = new Float64Array(rows.length)
    melted.forEach((column, k) => {
      const { cells } = table.column(column)!
      if (cells.type !== 'text') values.set(cells.values, k * length)
    })
    columns[value] = { ...table.column(melted[0])!.options, label: undefined, type: [...types][0] }
    raw.columns.push(values)
  } else
    raw.columns.push(Array.from(rows, (row, i) => table.column(melted[Math.floor(i / length)])!.value(row)))
  return { raw, columns, rowsOf: row => [row % length] }
}

function toWide(table: Table, { name, value }: { name: string; value: string }, path: string): Reshaped {
  const names = table.needColumn(name, `${path}.wide.name`)
  const values = table.needColumn(value, `${path}.wide.value`)
  const kept = table.names.filter(column => column !== name && column !== value)
  const found = new Map<string, number[]>()
  const keptCells = kept.map(column => table.column(column)!.cells)
  const nameOf = columnNames(names)
  for (let row = 0; row < table.length; row++) {
    const key = JSON.stringify(keptCells.map(cells => cellText(cells, row)))
    const rows = found.get(key)
    if (rows) rows.push(row)
    else found.set(key, [row])
  }
  const groups = [...found.values()]
  const made = [...new Set(Array.from({ length: table.length }, (_, row) => nameOf(row)))].filter(
    word => word !== '',
  )
  const columns: Record<string, Column> = Object.create(null)
  const raw: RawColumns = { names: [...kept, ...made], columns: [], words: wordsOf(table, kept) }
  for (const column of kept) {
    columns[column] = optionsOf(table.column(column)!)
    raw.columns.push(
      rawOf(
        pickCells(
          table.column(column)!.cells,
          groups.map(rows => rows[0]),
        ),
      ),
    )
  }
  for (const word of made) {
    columns[word] = {
      ...values.options,
      label: values.type === 'text' ? undefined : readableName(word),
      type: values.type,
    }
    raw.columns.push(
      groups.map(rows => {
        const row = rows.find(value => nameOf(value) === word)
        return row === undefined ? null : values.value(row)
      }),
    )
  }
  return { raw, columns, rowsOf: row => groups[row] }
}

/** The same rows, some columns read as another type. */
function toTypes(table: Table, types: Record<string, Cells['type']>, path: string): Reshaped {
  const same = picked(table, undefined)
  for (const [name, type] of Object.entries(types)) {
    const column = table.needColumn(name, `${path}.types.${name}`)
    if (column.type === type) continue
    const { values, options } = retyped(column, type)
    same.raw.columns[same.raw.names.indexOf(name)] = values
    same.columns[name] = options
    delete same.raw.words?.[name]
  }
  return same
}

function toGroups(table: Table, by: string[], values: string[], path: string): Reshaped {
  const phrases = [
    ...by.map((phrase, i) => ({ phrase, at: `${path}.group[${i}]` })),
    ...values.map((phrase, i) => ({ phrase, at: `${path}.values[${i}]` })),
  ]
  const roles = new Map<string, Meaning>(
    phrases.map(({ phrase, at }) => [phrase, readPhrase(phrase, table, at)]),
  )
  const odd = values.find(phrase => !isMeasure(roles.get(phrase)!))
  if (odd !== undefined)
    throw new DapploError(
      'not-grouped',
      `"${odd}" sums nothing up`,
      `${path}.values`,
      `Write, for example, "sum of ${odd}".`,
    )
  const shaped = shape(table, roles, { order: by[0] })
  const columns: Record<string, Column> = Object.create(null)
  const raw: RawColumns = {
    names: phrases.map(phrase => phrase.phrase),
    columns: [],
    words: wordsOf(table, by),
  }
  for (const { phrase } of phrases) {
    const { cells, column, meaning } = shaped.roles.get(phrase)!
    // Of a bucket, the zone in which it begins is all that is still true.
    const options = meaning.is === 'column' ? column?.options : { timeZone: column?.options.timeZone }
    columns[phrase] = { ...options, type: cells.type }
    raw.columns.push(rawOf(cells))
  }
  return { raw, columns, rowsOf: row => shaped.rowsOf(row) }
}
