import type { BoundDrawing } from '../chart/bind.ts'
import type { Composition } from '../chart/compose.ts'
import { labelOf, measureTitle } from '../chart/naming.ts'
import { placeText, textOf } from '../chart/reading-texts.ts'
import { lies } from '../drawing/lies.ts'
import type { RoleValues } from '../table/shape.ts'

/** What a chart shows, as a table of texts. */
export interface DataTable {
  caption: string
  head: string[]
  rows: string[][]
  /** How many more rows there are than are listed. */
  more: number
}

/** Rows that a table lists at most unless told otherwise. */
const MOST = 1000

/** The values behind a picture, one table for each drawing that has its own places: places in rows, series in columns. */
export function dataTables(composition: Composition, most = MOST): DataTable[] {
  return composition.panes.flatMap(pane =>
    pane.bound.drawings
      .filter(one => !one.drawing.kind.aside && one.marks.length > 0)
      .map(bound => tableOf(bound, composition, most)),
  )
}

function tableOf(bound: BoundDrawing, composition: Composition, most: number): DataTable {
  const { drawing, marks, x, y, shade } = bound
  const { locale } = composition
  const place = { locale } as never
  const own = (values: RoleValues) => labelOf(values.meaning, drawing.table)
  const count = Math.min(marks.length, most)
  if (drawing.kind.parts) {
    return {
      caption: own(y),
      head: [own(x), own(y)],
      rows: Array.from({ length: count }, (_, i) => [
        marks.series[marks.seriesOf?.[i] ?? 0].name,
        textOf(y, marks.y.at[i], locale),
      ]),
      more: marks.length - count,
    }
  }
  const at = (values: RoleValues, role: 'x' | 'y', i: number) =>
    marks[role].measured || (values.cells.type !== 'text' && !values.ends)
      ? textOf(values, marks[role].at[i], locale)
      : placeText(values, i, marks[role].at[i], place)
  const cloud = drawing.kind.swatch === 'disc' && !marks.x.from && !marks.y.from
  if (drawing.kind.cells || cloud) {
    const named = marks.series.length > 1
    const shades = shade && shade.cells.type !== 'text' ? shade : undefined
    return {
      caption: `${own(y)} by ${own(x)}`,
      head: [...(named ? ['Series'] : []), own(x), own(y), ...(shades ? [own(shades)] : [])],
      rows: Array.from({ length: count }, (_, i) => [
        ...(named ? [marks.series[marks.seriesOf?.[i] ?? 0].name] : []),
        at(x, 'x', i),
        at(y, 'y', i),
        ...(shades ? [textOf(shades, (shades.cells as { values: Float64Array }).values[i], locale)] : []),
      ]),
      more: marks.length - count,
    }
  }
  return pivoted(bound, most, at, locale)
}

/** Places in rows, series in columns. */
function pivoted(
  { drawing, marks, x, y }: BoundDrawing,
  most: number,
  at: (values: RoleValues, role: 'x' | 'y', i: number) => string,
  locale: string,
): DataTable {
  const lying = lies(marks)
  const [across, measure] = lying ? ([y, x] as const) : ([x, y] as const)
  const [places, values] = lying ? [marks.y, marks.x] : [marks.x, marks.y]
  const rows = new Map<number, { mark: number; texts: string[] }>()
  for (let i = 0; i < marks.length; i++) {
    const place = places.at[i]
    if (Number.isNaN(place)) continue
    let row = rows.get(place)
    if (!row) {
      row = { mark: i, texts: marks.series.map(() => '') }
      rows.set(place, row)
    }
    row.texts[marks.seriesOf?.[i] ?? 0] = Number.isNaN(values.at[i])
      ? ''
      : textOf(measure, values.at[i], locale)
  }
  const sorted = [...rows].sort(([a], [b]) => a - b).slice(0, most)
  const title = measureTitle(measure, across, drawing.table)
  return {
    caption: title,
    head: [
      labelOf(across.meaning, drawing.table),
      ...(marks.series.length > 1 ? marks.series.map(one => one.name) : [title]),
    ],
    rows: sorted.map(([, { mark, texts }]) => [at(across, lying ? 'y' : 'x', mark), ...texts]),
    more: rows.size - sorted.length,
  }
}
