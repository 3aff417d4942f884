import type { BoundDrawing } from '../bind/model.ts'
import { isOpenBin, labelOf, lookOf, unitOf } from '../bind/naming.ts'
import type { Positions, Series } from '../describe/model.ts'
import type { Composition, Pane } from '../pane/model.ts'
import { valueText } from '../scale/number-format.ts'
import { cycleText, momentText } from '../scale/time-format.ts'
import type { RoleValues } from '../table/group/shape.ts'
import type { Table } from '../table/live/table.ts'
import type { Tongue } from '../words/tongue.ts'

/** One value in a reading. */
export interface ReadingRow {
  /** Name of the series, or of the value. */
  name: string
  text: string
  /** The stroke that the name is underlined with; undefined for values that are no series. */
  series: (Series & { swatch: 'line' | 'rect' | 'disc' }) | undefined
  /** Whether it is the one nearest to the pointer. */
  pointed: boolean
  /** Where it stands, in pixels. */
  x: number
  y: number
  /** Rows of its table that are behind it. */
  rows: ArrayLike<number>
  table: Table
  /** Where it leads to; undefined for nowhere. */
  link?: string
  /** The key of its shape. */
  key: string | number
}

/** What is read at a point: the content of a tooltip, as plain data. */
export interface Reading {
  heading: string
  /** The stroke that the heading is underlined with, where it is the name of a series. */
  series?: ReadingRow['series']
  /** `x`: all series at one place along x; `y`: along y; `point`: a single mark. */
  along: 'x' | 'y' | 'point'
  /** What is pointed at, in pixels. */
  x: number
  y: number
  /** Pixels that what is pointed at reaches to either side along x (or y): half the width of a bar. */
  reach: number
  rows: ReadingRow[]
  /** Whether it is meant wherever the pointer is in its shape, as a slice is. */
  within?: boolean
  /** How many more values there are at the place than are listed. */
  more: number
}

/** What reading works with: the pane, and how it is shown. */
export type Place = Pane & Pick<Composition, 'scene' | 'tongue'>

/** A value as it is read out: the way its column is written, with its unit. */
export function textOf(values: RoleValues, value: number, locale: string): string {
  if (values.cells.type === 'time') return momentText(value, unitOf(values), locale, values.zone)
  return valueText(value, { ...lookOf(values), locale, unit: values.column?.options.unit })
}

/** What a mark has in a position: its value, or both ends of its extent. */
export function valueAt(values: RoleValues, positions: Positions, mark: number, locale: string): string {
  const { at, from, to, spans } = positions
  if (!spans || !from || !to) return textOf(values, at[mark], locale)
  const start =
    values.cells.type === 'time'
      ? textOf(values, from[mark], locale)
      : valueText(from[mark], { ...lookOf(values), locale })
  return `${start} – ${textOf(values, to[mark], locale)}`
}

/** What else is bound to a mark, and can be read no other way: its size, and the number that colours it. */
export function furtherValues(
  { size, shade, drawing, marks }: BoundDrawing,
  mark: number,
  tongue: Tongue,
): { name: string; text: string }[] {
  return [marks.size && size, marks.shade && shade].flatMap(values =>
    values && values.cells.type !== 'text'
      ? [
          {
            name: labelOf(values.meaning, drawing.table, tongue),
            text: textOf(values, values.cells.values[mark], tongue.locale),
          },
        ]
      : [],
  )
}

export function placeText(
  values: RoleValues,
  mark: number | undefined,
  value: number,
  { tongue }: Pick<Place, 'tongue'>,
): string {
  const { cells, meaning, zone } = values
  const { locale } = tongue
  if (cells.type === 'text') {
    const word = mark === undefined || cells.codes[mark] < 0 ? '' : cells.words[cells.codes[mark]]
    return meaning.is === 'cycle' ? cycleText(meaning.cycle, word, locale, 'long') : word
  }
  const start = mark === undefined ? value : cells.values[mark]
  if (cells.type === 'time') return momentText(start, unitOf(values), locale, zone)
  const look = { ...lookOf(values), locale, unit: values.column?.options.unit }
  // The last bin has no end.
  if (isOpenBin(meaning, start))
    return `${valueText(start, { ...look, unit: undefined })}+ ${look.unit ?? ''}`.trim()
  if (values.ends && mark !== undefined)
    return `${valueText(start, { ...look, unit: undefined })} – ${valueText(values.ends[mark], look)}`
  return valueText(start, look)
}
