import type { BoundDrawing } from '../bind/model.ts'
import { labelOf, measureTitle, unitOf } from '../bind/naming.ts'
import type { Positions } from '../describe/model.ts'
import { isLying } from '../drawing/is-lying.ts'
import type { Composition } from '../pane/model.ts'
import { withinDates } from '../table/cells/calendar.ts'
import { numbersOf } from '../table/cells/cells.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { type Meaning, meaningKey } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import { placeText, textOf } from './reading-texts.ts'

/** What a chart shows, as a table of texts. */
export interface DataTable {
  caption: string
  head: string[]
  rows: string[][]
  /** Which columns hold numbers, so that they stand under each other by their ends. */
  numbers: boolean[]
  /** How many more rows there are than are listed. */
  more: number
}

/** Rows that a table lists at most unless told otherwise. */
const MOST = 1000

/** How values are written: as people read them, or as programs do (plain numbers, times by ISO 8601). */
export type DataStyle = 'read' | 'plain'

/** The values behind a picture, one table for each drawing that has its own places: places in rows, series in columns. */
export function dataTables(composition: Composition, most = MOST, style: DataStyle = 'read'): DataTable[] {
  return composition.panes.flatMap(pane =>
    pane.bound.drawings
      .filter(drawn => !drawn.drawing.kind.aside && drawn.marks.length > 0)
      .map(bound => tableOf(bound, composition, most, style)),
  )
}

/** A number or time as programs write it. */
function plainText(values: RoleValues, value: number): string {
  if (Number.isNaN(value)) return ''
  if (values.cells.type !== 'time') return String(value)
  const { meaning, column, zone } = values
  const unit = unitOf(values)
  if (unit === undefined || unit === 'hour' || unit === 'minute') return new Date(value).toISOString()
  // A day is a day, wherever it is read.
  const day = new Date(withinDates(value + zone.offsetAt(value))).toISOString().slice(0, 10)
  return meaning.is !== 'bucket' && column?.dateUnit === 'month' ? day.slice(0, -3) : day
}

function tableOf(bound: BoundDrawing, composition: Composition, most: number, style: DataStyle): DataTable {
  const { drawing, marks, x, y, shade, size } = bound
  const { tongue } = composition
  const write = (values: RoleValues, value: number) =>
    style === 'plain' ? plainText(values, value) : textOf(values, value, tongue.locale)
  const own = (values: RoleValues) => labelOf(values.meaning, drawing.table, tongue)
  const count = Math.min(marks.length, most)
  if (drawing.kind.parts) {
    return {
      caption: own(y),
      head: [own(x), own(y)],
      numbers: [false, true],
      rows: Array.from({ length: count }, (_, i) => [
        marks.series[marks.seriesOf?.[i] ?? 0].name,
        write(y, marks.y.at[i]),
      ]),
      more: marks.length - count,
    }
  }
  const at = (values: RoleValues, role: 'x' | 'y', i: number) =>
    marks[role].spans
      ? spanText(marks[role], i, style === 'plain' ? '/' : ' – ', value => write(values, value))
      : marks[role].measured || (values.cells.type !== 'text' && !values.ends)
        ? write(values, marks[role].at[i])
        : style === 'plain' && values.cells.type !== 'text'
          ? plainText(values, values.cells.values[i])
          : placeText(values, i, marks[role].at[i], composition)
  const cloud = drawing.kind.reads === 'point' && !marks.x.from && !marks.y.from
  const further = [marks.size && size, marks.shade && shade].filter(
    values => values && values.cells.type !== 'text',
  ) as RoleValues[]
  // What marks say beside their places has a column of its own, so that each mark has a row.
  if (drawing.kind.reads === 'cell' || cloud || further.length > 0) {
    const named = namingOf(bound) !== undefined
    return {
      caption: tongue.say('{what} by {group}', { what: own(y), group: own(x) }),
      head: [...(named ? [tongue.say('Series')] : []), own(x), own(y), ...further.map(own)],
      numbers: [...(named ? [false] : []), ...[x, y, ...further].map(isNumeric)],
      rows: Array.from({ length: count }, (_, i) => [
        ...(named ? [marks.series[marks.seriesOf?.[i] ?? 0].name] : []),
        at(x, 'x', i),
        at(y, 'y', i),
        ...further.map(values => write(values, numbersOf(values.cells)[i])),
      ]),
      more: marks.length - count,
    }
  }
  return pivoted(bound, most, tongue, at)
}

/** Whether values are written as single numbers. */
const isNumeric = ({ cells, ends }: RoleValues): boolean => cells.type === 'number' && !ends

/** What tells the marks apart by name, beside their places; undefined for nothing. */
function namingOf({ drawing: { roles }, marks, shade, x, y }: BoundDrawing): Meaning | undefined {
  const placed = [x, y].map(({ meaning }) => meaningKey(meaning))
  return ['color', 'series', 'shape', 'dash']
    .filter(role => role !== 'color' || !(shade && marks.shade))
    .map(role => roles.get(role))
    .find(meaning => meaning && meaning.is !== 'value' && !placed.includes(meaningKey(meaning)))
}

/** Both ends of an extent; in plain values as ISO 8601 writes an interval. */
const spanText = (
  { from, to }: Positions,
  i: number,
  between: string,
  write: (value: number) => string,
): string => `${write(from![i])}${between}${write(to![i])}`

/** Places in rows, series in columns. */
function pivoted(
  bound: BoundDrawing,
  most: number,
  tongue: Tongue,
  at: (values: RoleValues, role: 'x' | 'y', i: number) => string,
): DataTable {
  const { drawing, marks, x, y } = bound
  const lying = isLying(marks)
  const [across, measure] = lying ? ([y, x] as const) : ([x, y] as const)
  const [places, values] = lying ? [marks.y, marks.x] : [marks.x, marks.y]
  const found = new Map<number, number[]>()
  let present = 0
  for (let i = 0; i < marks.length; i++) {
    const place = places.at[i]
    if (Number.isNaN(place)) continue
    present++
    const known = found.get(place)
    if (known) known.push(i)
    else found.set(place, [i])
  }
  // Where no two series share a place one column of values is enough, beside their names where the axis has others.
  const alone = found.size === present
  const columns = alone ? 1 : marks.series.length
  const naming = alone ? namingOf(bound) : undefined
  const nameOf = (mark: number) => marks.series[marks.seriesOf?.[mark] ?? 0].name
  const sorted = [...found].sort(([a], [b]) => a - b).slice(0, most)
  const rows = sorted.flatMap(([, behind]) => {
    // Several values of one series at a place take a line each.
    const lines = [new Array<string>(columns).fill('')]
    const filled = new Uint32Array(columns)
    for (const i of behind) {
      if (Number.isNaN(values.at[i])) continue
      const column = alone ? 0 : (marks.seriesOf?.[i] ?? 0)
      const line = filled[column]++
      lines[line] ??= new Array<string>(columns).fill('')
      lines[line][column] = at(measure, lying ? 'x' : 'y', i)
    }
    return lines.map(texts => [
      at(across, lying ? 'y' : 'x', behind[0]),
      ...(naming ? [nameOf(behind[0])] : []),
      ...texts,
    ])
  })
  const title = measureTitle(measure, across, drawing.table, tongue)
  const first = [
    labelOf(across.meaning, drawing.table, tongue),
    ...(naming ? [labelOf(naming, drawing.table, tongue)] : []),
  ]
  const others = marks.series.length > 1 && !alone ? marks.series.map(series => series.name) : [title]
  return {
    caption: title,
    head: [...first, ...others],
    numbers: [...first.map(() => false), ...others.map(() => isNumeric(measure))],
    rows,
    more: found.size - sorted.length,
  }
}

/** Tables as CSV (RFC 4180), one after the other. */
export function csvText(tables: readonly DataTable[]): string {
  const cell = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)
  return tables
    .map(({ head, rows }) => [head, ...rows].map(row => row.map(cell).join(',')).join('\r\n'))
    .join('\r\n\r\n')
}
