import type { TableColumn } from '../cells/column.ts'
import { maybeYears, namedBy } from '../cells/names-as-numbers.ts'
import type { Table } from '../live/table.ts'
import { tellsUnreadable } from '../read/report.ts'

/** What a person wants to know of a column before drawing it. */
export interface ColumnLook {
  name: string
  type: 'number' | 'time' | 'text'
  /** How the type was found: `given`, or what the texts looked like. */
  guess: string
  missing: number
  unreadable: number
  distinct: number
  /** Ends of numbers and times; times in ISO 8601. */
  min?: number | string
  max?: number | string
  mean?: number
  /** The most frequent values of text, with their counts. */
  commonest?: [value: string, count: number][]
  /** What looks odd, in plain words. */
  odd: string[]
}

/** What is in a table: rows, columns, and what looks odd. */
export interface TableLook {
  name: string
  rows: number
  columns: ColumnLook[]
}

/** Describes each column of a table. */
export function lookAt(table: Table): TableLook {
  return {
    name: table.name,
    rows: table.length,
    columns: table.names.map(name => lookAtColumn(table, table.column(name)!)),
  }
}

function lookAtColumn(table: Table, column: TableColumn): ColumnLook {
  const { cells, name } = column
  const report = table.report.columns.find(column => column.name === name)
  const unreadable = report?.unreadable ?? 0
  const base = { name, type: cells.type, guess: report?.guess ?? '', unreadable }
  const odd: string[] = []
  const undecided = report?.unsettled
  if (undecided !== undefined)
    odd.push(
      cells.type === 'number'
        ? `has numbers such as ${JSON.stringify(undecided)}, read as thousands: say "decimal point" or "decimal comma", as nothing in them shows which`
        : `has dates such as ${JSON.stringify(undecided)}: say "day first" or "month first", as nothing in them shows which`,
    )
  if (report && tellsUnreadable(report)) {
    const { text, line, row } = report.examples[0]
    odd.push(
      `${unreadable === 1 ? 'one cell is' : `${unreadable} cells are`} no ${cells.type}${unreadable === 1 ? '' : 's'}, first ${JSON.stringify(text)} in ${line === undefined ? `row ${row + 1}` : `line ${line}`}`,
    )
  }
  if (cells.type === 'text') {
    const counts = new Map<number, number>()
    let missing = 0
    for (const code of cells.codes) {
      if (code < 0) missing++
      else counts.set(code, (counts.get(code) ?? 0) + 1)
    }
    const commonest = [...counts]
      .sort((a, b) => b[1] - a[1])
      .slice(0, 5)
      .map(([code, count]) => [cells.words[code], count] as [string, number])
    const folded = new Map<string, string>()
    for (const code of counts.keys()) {
      const word = cells.words[code]
      const fold = word.trim().toLowerCase().replace(/\s+/g, ' ')
      const other = folded.get(fold)
      if (other !== undefined) odd.push(`"${other}" and "${word}" differ only in case or spaces`)
      folded.set(fold, word)
    }
    if (counts.size === 1 && table.length > 1) odd.push('every value is the same')
    addMissing(odd, missing, table.length)
    return { ...base, missing, distinct: counts.size, commonest, odd: odd.slice(0, 4) }
  }
  const { min, max, missing } = column.extent
  const distinct = new Set<number>()
  let sum = 0
  let present = 0
  for (const value of cells.values) {
    if (Number.isNaN(value)) continue
    distinct.add(value)
    sum += value
    present++
  }
  if (present === 0)
    return { ...base, missing: missing - unreadable, distinct: 0, odd: [...odd, 'there is no value at all'] }
  if (distinct.size === 1 && present > 1) odd.push('every value is the same')
  addMissing(odd, missing - unreadable, table.length)
  if (cells.type === 'time') {
    const ends = { day: 10, month: 7 }
    const write = (time: number) =>
      new Date(time).toISOString().slice(0, column.dateUnit && ends[column.dateUnit])
    return {
      ...base,
      missing: missing - unreadable,
      distinct: distinct.size,
      min: write(min),
      max: write(max),
      odd,
    }
  }
  odd.push(...oddNumbers(cells.values, column))
  return {
    ...base,
    missing: missing - unreadable,
    distinct: distinct.size,
    min,
    max,
    mean: sum / present,
    odd,
  }
}

export function addMissing(odd: string[], missing: number, rows: number): void {
  if (rows > 0 && missing / rows > 0.2)
    odd.push(`${Math.round((missing / rows) * 100)} % of the cells are missing`)
}

function oddNumbers(values: Float64Array, column: TableColumn): string[] {
  const odd: string[] = []
  const { min, max } = column.extent
  const named = namedBy(column)
  if (named === 'years') odd.push('looks like years: give it the type "text" to draw it as names')
  else if (named === 'identifiers')
    odd.push('looks like identifiers: give it the type "text" to draw it as names')
  else if (maybeYears(column))
    odd.push('may be years: give it the type "time", or "text" to draw it as names')
  const sorted = Float64Array.from(values.filter(value => !Number.isNaN(value))).sort()
  const quarter = sorted[Math.floor(sorted.length / 4)]
  const threeQuarters = sorted[Math.floor((sorted.length * 3) / 4)]
  const reach = (threeQuarters - quarter) * 10
  // Ten times the middle half away: such a value squeezes everything else flat.
  if (reach > 0 && sorted.length > 20 && max > threeQuarters + reach)
    odd.push(`${max} is far above all others`)
  if (reach > 0 && sorted.length > 20 && min < quarter - reach) odd.push(`${min} is far below all others`)
  return odd
}

/** The look as lines for a terminal, its columns aligned. */
export function lookText(look: TableLook, locale = 'en'): string {
  const number = new Intl.NumberFormat(locale, { maximumSignificantDigits: 6 })
  const range = (column: ColumnLook) => {
    if (column.commonest) {
      const shown = column.commonest
        .slice(0, 3)
        .map(([word, count]) => `${clip(word, 24)} (${number.format(count)})`)
      return `${shown.join(', ')}${column.distinct > shown.length ? ', …' : ''}`
    }
    if (column.min === undefined) return ''
    const write = (value: number | string) =>
      typeof value === 'number'
        ? number.format(value)
        : value.length > 10
          ? value.replace('T', ' ').replace(/:\d\d\.000Z$/, '')
          : value
    const mean = column.mean === undefined ? '' : `, mean ${number.format(column.mean)}`
    return `${write(column.min)} to ${write(column.max!)}${mean}`
  }
  const header = ['column', 'type', 'missing', 'distinct', 'values']
  const rows = look.columns.map(column => [
    column.name,
    column.type,
    column.missing ? number.format(column.missing) : '',
    number.format(column.distinct),
    range(column),
  ])
  const widths = header.map((title, i) => Math.max(title.length, ...rows.map(row => [...row[i]].length)))
  const line = (cells: string[]) =>
    cells
      .map((cell, i) => aligned(cell, widths[i], i === 2 || i === 3))
      .join('  ')
      .trimEnd()
  const odd = look.columns.flatMap(column => column.odd.map(remark => `  ${column.name}: ${remark}`))
  const counted = (count: number, word: string) => `${number.format(count)} ${word}${count === 1 ? '' : 's'}`
  return [
    `${look.name}: ${counted(look.rows, 'row')}, ${counted(look.columns.length, 'column')}`,
    '',
    line(header),
    ...rows.map(line),
    ...(odd.length > 0 ? ['', 'Worth a look:', ...odd] : []),
    '',
  ].join('\n')
}

function aligned(cell: string, width: number, right: boolean): string {
  const space = ' '.repeat(width - [...cell].length)
  return right ? space + cell : cell + space
}

const clip = (text: string, most: number) =>
  ([...text].length > most ? `${[...text].slice(0, most - 1).join('')}…` : text).replace(/\s+/g, ' ')
