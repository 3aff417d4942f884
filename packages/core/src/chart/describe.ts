import { valueText } from '../scale/number-format.ts'
import { momentText } from '../scale/time-format.ts'
import { extentOf } from '../table/column.ts'
import type { Bound, BoundDrawing } from './bind.ts'
import type { Settled } from './description.ts'
import { labelOf, lookOf, lower, measureTitle } from './naming.ts'
import { extentOfPositions } from './positions.ts'

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
    sentences.push(
      min === max ? `All values are ${write(min)}.` : `Values from ${write(min)} to ${write(max)}.`,
    )
  } else if (values.at.length === 0) sentences.push('There are no values.')
  return { title, description: sentences.join(' ') }
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
