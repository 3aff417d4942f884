import { sampleCorrelation } from 'simple-statistics'
import { valueText } from '../scale/number-format.ts'
import { momentText } from '../scale/time-format.ts'
import { extentOf } from '../table/column.ts'
import type { Bound, BoundDrawing } from './bind.ts'
import type { Settled } from './description.ts'
import { labelOf, lookOf, lower, measureTitle } from './naming.ts'
import { extentOfPositions } from './positions.ts'
import { roleTexts } from './values.ts'

/** The chart in words, for those who cannot see it: what it is called, what it shows, and between which values. */
export function describe(
  description: Settled,
  bound: Bound,
  locale: string,
): { title: string; description: string } {
  const first = bound.drawings[0]
  if (!first) return { title: description.title ?? '', description: '' }
  const shown = [...new Set(bound.drawings.map(one => one.drawing.kind.name))].join(' and ')
  const across = acrossOf(first)
  const cells = first.drawing.kind.cells ? first.shade : undefined
  const by = (first.shade ? undefined : first.drawing.roles.get('color')) ?? first.drawing.roles.get('series')
  const measure = cells
    ? measureTitle(cells, undefined, first.drawing.table)
    : measureTitle(
        across === 'x' ? first.y : first.x,
        across === 'x' ? first.x : first.y,
        first.drawing.table,
      )
  const title = description.title ?? `${measure}${by ? ` by ${lower(labelOf(by, first.drawing.table))}` : ''}`
  const sentences = [
    `${shown[0].toUpperCase()}${shown.slice(1)} chart of ${lower(measure)}${by ? ` by ${lower(labelOf(by, first.drawing.table))}` : ''}.`,
  ]
  const span = spanText(first, across, locale)
  if (span) sentences.push(span)
  const series = bound.legend.filter(entry => !entry.hidden)
  if (series.length > 1)
    sentences.push(
      `${series.length} series: ${series
        .slice(0, 8)
        .map(entry => entry.name)
        .join(', ')}${series.length > 8 ? ', …' : ''}.`,
    )
  const values = across === 'x' ? first.marks.y : first.marks.x
  const role = cells ?? (across === 'x' ? first.y : first.x)
  const { min, max } = cells ? extentOf(cells.cells) : extentOfPositions(role, values)
  if (min <= max) {
    const write = (value: number) =>
      role.cells.type === 'time'
        ? momentText(value, undefined, locale, role.zone)
        : valueText(value, { ...lookOf(role), locale, unit: role.column?.options.unit })
    const place = (value: number) => placeOf(first, values, value, across, locale)
    sentences.push(
      min === max
        ? `All values are ${write(min)}.`
        : `Values from ${write(min)}${place(min)} to ${write(max)}${place(max)}.`,
    )
    const trend = trendOf(first, across)
    if (trend) sentences.push(trend)
  } else if (values.at.length === 0) sentences.push('There are no values.')
  return { title, description: sentences.join(' ') }
}

/** Where a value stands, in words: `, in July 2024 (Tern Point)`. */
function placeOf(
  bound: BoundDrawing,
  values: { at: Float64Array },
  value: number,
  across: 'x' | 'y',
  locale: string,
): string {
  const { marks, drawing } = bound
  if (drawing.kind.cells || drawing.kind.swatch === 'disc') return ''
  const mark = values.at.indexOf(value)
  if (mark < 0) return ''
  const plain = bound[across].cells.type === 'number' && bound[across].ends === undefined
  const place = drawing.kind.parts || plain ? '' : roleTexts(bound[across], locale)(mark)
  const series = marks.series.length > 1 ? marks.series[marks.seriesOf?.[mark] ?? 0].name : ''
  const words = [place, series === place ? '' : series].filter(Boolean)
  return words.length > 0 ? ` (${words.join(', ')})` : ''
}

/** The least share of the spread that a straight line explains for there to be a trend. */
const CLEAR = 0.3

/** Whether a single series over time rises or falls, where it clearly does. */
function trendOf({ marks, x, y }: BoundDrawing, across: 'x' | 'y'): string {
  const places = across === 'x' ? x : y
  if (places.cells.type !== 'time' || marks.series.length > 1 || marks.length < 4) return ''
  const [at, values] = across === 'x' ? [marks.x.at, marks.y.at] : [marks.y.at, marks.x.at]
  const points: [number, number][] = []
  for (let i = 0; i < at.length; i++) if (Number.isFinite(at[i] + values[i])) points.push([at[i], values[i]])
  if (points.length < 4) return ''
  const r = sampleCorrelation(
    points.map(([time]) => time),
    points.map(([, value]) => value),
  )
  if (!(r * r >= CLEAR)) return 'There is no clear trend.'
  return r > 0 ? 'Values rise over time.' : 'Values fall over time.'
}

/** The role along which the chart is read: the one that is not measured. */
function acrossOf(bound: BoundDrawing): 'x' | 'y' {
  return bound.marks.x.measured && !bound.marks.y.measured ? 'y' : 'x'
}

function spanText(bound: BoundDrawing, across: 'x' | 'y', locale: string): string {
  const values = bound[across]
  if (values.cells.type !== 'time') return ''
  const { min, max } = extentOf(values.cells)
  if (!(min <= max)) return ''
  const unit =
    values.meaning.is === 'bucket' ? values.meaning.unit : values.column?.reader.dateOnly ? 'day' : undefined
  return `From ${momentText(min, unit, locale, values.zone)} to ${momentText(max, unit, locale, values.zone)}.`
}
