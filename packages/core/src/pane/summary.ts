import type { Bound, BoundDrawing } from '../bind/model.ts'
import { labelOf, lookOf, measureTitle, unitOf } from '../bind/naming.ts'
import { extentOfPositions } from '../bind/positions.ts'
import { roleTexts } from '../bind/values.ts'
import type { Settled } from '../describe/description.ts'
import { isLying } from '../drawing/is-lying.ts'
import { valueText } from '../scale/number-format.ts'
import { momentText } from '../scale/time-format.ts'
import { extentOf } from '../table/cells/extent.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import type { Sentence } from '../words/sentences.ts'
import type { Tongue } from '../words/tongue.ts'

/** The chart in words, for those who cannot see it: what it is called, what it shows, and between which values. */
export function describe(description: Settled, bound: Bound): { title: string; description: string } {
  const first = bound.drawings[0]
  if (!first) return { title: description.title ?? '', description: '' }
  const { tongue } = bound
  const { locale } = tongue
  const { table, kind } = first.drawing
  const across = acrossOf(first)
  const cells = kind.cells ? first.shade : undefined
  const [measured, along] = across === 'x' ? [first.y, first.x] : [first.x, first.y]
  const measure = measureTitle(cells ?? measured, cells ? undefined : along, table, tongue)
  const by = (first.shade ? undefined : first.drawing.roles.get('color')) ?? first.drawing.roles.get('series')
  const named = (roles: readonly (Meaning | undefined)[]) =>
    [...new Set(roles.flatMap(role => (role ? [tongue.lower(labelOf(role, table, tongue))] : [])))].reduce(
      (all: string | undefined, other) =>
        all === undefined ? other : tongue.say('{kind} and {other}', { kind: all, other }),
      undefined,
    )
  const ofSeries = named([by])
  const title =
    description.title ??
    (ofSeries === undefined ? measure : tongue.say('{what} by {group}', { what: measure, group: ofSeries }))
  const group = named([...placed(first, across), by, first.drawing.roles.get('size')])
  const what = tongue.lower(measure)
  const kinds = kindsOf(bound)
  const sentences = [
    group === undefined
      ? tongue.say('{kind} chart of {what}.', { kind: kinds, what })
      : tongue.say('{kind} chart of {what} by {group}.', { kind: kinds, what, group }),
  ]
  const span = spanText(first, across, tongue)
  if (span) sentences.push(span)
  const series = bound.legend.filter(entry => !entry.hidden)
  if (series.length > 1) {
    const names = series.slice(0, 8).map(entry => entry.name)
    if (series.length > 8) names.push('…')
    sentences.push(tongue.say('{count} series: {names}.', { count: series.length, names: names.join(', ') }))
  }
  const values = across === 'x' ? first.marks.y : first.marks.x
  const role = cells ?? measured
  const { min, max } = cells ? extentOf(cells.cells) : extentOfPositions(role, values)
  if (min <= max) {
    const write = (value: number) =>
      role.cells.type === 'time'
        ? momentText(value, unitOf(role), locale, role.zone)
        : valueText(value, { ...lookOf(role), locale, unit: role.column?.options.unit })
    const place = (value: number) => write(value) + placeOf(first, values, value, across, locale)
    sentences.push(
      min === max
        ? tongue.say('All values are {value}.', { value: write(min) })
        : tongue.say('Values from {least} to {greatest}.', { least: place(min), greatest: place(max) }),
    )
    const trend = cells ? '' : trendOf(first, across)
    if (trend) sentences.push(tongue.say(trend))
  } else if (values.at.length === 0) sentences.push(tongue.say(lackOf(bound) ?? 'There are no values.'))
  return { title, description: sentences.join(' ') }
}

/** What the places of shapes mean, where the measure does not say so: names, numbers of points, and both sides of cells. */
function placed({ drawing, x, y, marks }: BoundDrawing, across: 'x' | 'y'): (Meaning | undefined)[] {
  if (drawing.kind.cells) return [drawing.roles.get('x'), drawing.roles.get('y')]
  const role = across === 'x' ? x : y
  const isNamed = role.cells.type === 'text' || drawing.kind.reads === 'point'
  return isNamed && role.cells.type !== 'time' && !marks[across].unbound ? [drawing.roles.get(across)] : []
}

/** Why nothing is shown, where a table has not answered yet, or has failed to. */
export function lackOf({ drawings }: Bound): Sentence | undefined {
  const why = new Set(drawings.map(({ unanswered }) => unanswered))
  if (why.has('failed')) return 'Values could not be loaded.'
  return why.has('on its way') ? 'Values are loading.' : undefined
}

/** The names of what is drawn: `Bar and line`. A kind of one's own is called what it is called. */
function kindsOf({ drawings, tongue }: Bound): string {
  const names = [...new Set(drawings.map(drawn => drawn.drawing.kind.name))].map(name =>
    tongue.say(name as 'bar'),
  )
  const all = names.reduce((kind, other) => tongue.say('{kind} and {other}', { kind, other }))
  return all[0].toLocaleUpperCase(tongue.locale) + all.slice(1)
}

/** Where a value stands, in words: `, in July 2024 (Tern Point)`. */
function placeOf(
  bound: BoundDrawing,
  values: { at: Float64Array },
  value: number,
  across: 'x' | 'y',
  locale: string,
): string {
  const { marks, drawing, shade } = bound
  if (drawing.kind.reads === 'point') return ''
  if (drawing.kind.cells) {
    const cell = shade && shade.cells.type !== 'text' ? shade.cells.values.indexOf(value) : -1
    return cell < 0 ? '' : ` (${roleTexts(bound.x, locale)(cell)}, ${roleTexts(bound.y, locale)(cell)})`
  }
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
function trendOf({ marks, x, y }: BoundDrawing, across: 'x' | 'y'): Sentence | '' {
  const places = across === 'x' ? x : y
  if (places.cells.type !== 'time' || marks.series.length > 1 || marks.length < 4) return ''
  const [at, values] = across === 'x' ? [marks.x.at, marks.y.at] : [marks.y.at, marks.x.at]
  const r = correlation(at, values)
  if (r === undefined) return ''
  if (!(r * r >= CLEAR)) return 'There is no clear trend.'
  return r > 0 ? 'Values rise over time.' : 'Values fall over time.'
}

/** So many pairs, evenly spaced among all, show whether there is a trend as well as a million do. */
const MOST_PAIRS = 20_000

/**
 * Pearson's correlation of the pairs in which neither is missing; undefined for fewer than four. Written out, since the
 * package for statistics cannot be bundled in parts, and every chart needs this one number.
 */
function correlation(a: Float64Array, b: Float64Array): number | undefined {
  let count = 0
  let meanA = 0
  let meanB = 0
  let varyA = 0
  let varyB = 0
  let both = 0
  const step = Math.max(1, a.length / MOST_PAIRS)
  for (let pair = 0; pair < a.length; pair += step) {
    const i = Math.floor(pair)
    if (!Number.isFinite(a[i] + b[i])) continue
    count++
    const awayA = a[i] - meanA
    const awayB = b[i] - meanB
    meanA += awayA / count
    meanB += awayB / count
    varyA += awayA * (a[i] - meanA)
    varyB += awayB * (b[i] - meanB)
    both += awayA * (b[i] - meanB)
  }
  return count < 4 ? undefined : both / Math.sqrt(varyA * varyB)
}

/** The role along which the chart is read: the one that is not measured. */
function acrossOf(bound: BoundDrawing): 'x' | 'y' {
  return isLying(bound.marks) ? 'y' : 'x'
}

function spanText(bound: BoundDrawing, across: 'x' | 'y', { locale, say }: Tongue): string {
  const values = bound[across]
  if (values.cells.type !== 'time') return ''
  const { min, max } = values.ends ? extentOf(values.cells) : extentOfPositions(values, bound.marks[across])
  if (!(min <= max)) return ''
  const write = (time: number) => momentText(time, unitOf(values), locale, values.zone)
  const [start, end] = [write(min), write(max)]
  return start === end ? `${start}.` : say('From {start} to {end}.', { start, end })
}
