import type { SettingPath } from '@dapplo/core/sentence'
import { namesOf } from './conditions.ts'
import { drawingsOf, kindOf, kindsOf, setAt, valueAt, withDrawing } from './edits.ts'
import { group } from './group.ts'
import { headingsFor } from './headings.ts'
import { mayChange, mayDraw } from './limits.ts'
import type { Option, Place } from './model.ts'
import { meaningOf, namesIn, phrasesFor, sumsUp } from './phrases.ts'

type Holes = Record<string, string>

/** What stands back; another colour is chosen then. */
const GREY = '#808080'

/** What "and …" at the end of a chart's sentence offers, by what it adds to; `more`: what there is beyond the chart. */
export function additionsFor(place: Place, more: readonly Option[] = []): Option[] {
  const found = [
    ...group('How it looks', looks(place)),
    ...group('Which rows', rows(place)),
    ...group('More to see', [...drawings(place), ...more]),
    ...group('Around it', around(place)),
    ...group('What happens', deeds(place)),
  ]
  return found.filter(({ path }) => mayChange(place, path))
}

/** An option that sets something. */
const adding =
  ({ description }: Place) =>
  (words: string, path: SettingPath, value: unknown, holes?: Holes): Option => ({
    words,
    holes,
    path,
    next: setAt(description, path, value),
  })

/** Whether a chart, or one of its drawings, says something already. */
const says = ({ description }: Place, key: string): boolean =>
  [description, ...drawingsOf(description)].some(one => valueAt(one, [key]) !== undefined)

function looks(place: Place): Option[] {
  const { description } = place
  const { x, y } = description
  const [first] = kindsOf(description)
  const add = adding(place)
  const free = (key: string) => !says(place, key)
  const out: Option[] = []
  const names = namesIn(place)
  const colour = first === 'pie' ? names[0] : names.find(name => name !== x && name !== y)
  if (free('color') && colour && first !== 'heatmap')
    out.push(add('one colour per {phrase}', ['color'], colour, { phrase: colour }))
  if (['bar', 'area'].includes(first) && !free('color') && free('arrange'))
    out.push(
      add('stacked', ['arrange'], 'stack'),
      add('stacked to the whole', ['arrange'], 'share'),
      add('side by side', ['arrange'], 'side'),
    )
  if (free('label')) out.push(add('with values', ['label'], true))
  if (first === 'bar' && free('order')) out.push(add('the greatest first', ['order'], 'ranked'))
  if (first === 'bar' && free('top')) out.push(add('only the {value} greatest', ['top'], 10, { value: '10' }))
  if (!free('top') && free('rest')) out.push(add('with the rest as one', ['rest'], true))
  if (['line', 'area'].includes(first) && free('between')) out.push(add('smooth', ['between'], 'smooth'))
  if (first === 'line' && free('points')) out.push(add('with points', ['points'], true))
  if (first === 'pie' && free('hollow')) out.push(add('hollow by {value}', ['hollow'], 0.6, { value: '0.6' }))
  const colors = valueAt(description, ['scales', 'color', 'colors'])
  const named = Array.isArray(colors) ? [] : namesOf(place, String(description.color)).slice(0, 8)
  for (const name of named)
    if (valueAt(colors, [name]) === undefined)
      out.push(add('{value} in grey', ['scales', 'color', 'colors', name], GREY, { value: name }))
  const size = phrasesFor('number', place).find(phrase => phrase !== x && phrase !== y)
  if (first === 'scatter' && free('size') && size)
    out.push(add('sized by {phrase}', ['size'], size, { phrase: size }))
  return out
}

/** A condition on each column that has none: its commonest name, or from its least value on. */
function rows(place: Place): Option[] {
  const add = adding(place)
  return [...place.facts]
    .sort((a, b) => Number(b.is === 'category') - Number(a.is === 'category'))
    .flatMap(({ name, is, min }) => {
      if (valueAt(place.description, ['where', name]) !== undefined) return []
      const value =
        is === 'category'
          ? namesOf(place, name)[0]
          : is === 'time'
            ? { from: new Date(min).toISOString().slice(0, 10) }
            : is === 'measure'
              ? { from: min }
              : undefined
      return value === undefined
        ? []
        : [add('only where {conditions}', ['where', name], value, { conditions: name })]
    })
}

const KIND_NAMES = { line: 'a line', bar: 'bars', scatter: 'points', area: 'an area' }

function drawings(place: Place): Option[] {
  const { description } = place
  const { x, y } = description
  const kinds = kindsOf(description)
  const [first] = kinds
  if (first === 'pie' || first === 'heatmap') return []
  const index = kinds.length
  const more = (words: string, drawing: object | string, holes?: Holes): Option[] =>
    mayDraw(place, kindOf(drawing))
      ? [
          {
            words,
            holes,
            path: typeof drawing === 'string' ? ['draw', index] : ['draw', index, 'as'],
            next: withDrawing(description, drawing),
          },
        ]
      : []
  const lying = sumsUp(x, place) && !sumsUp(y, place)
  const along = lying ? 'x' : 'y'
  const second = phrasesFor('measure', place).find(phrase => phrase !== y && phrase !== x) ?? 'count'
  const plain = says(place, 'color') ? { color: null } : {}
  const out: Option[] = []
  if (!lying)
    out.push(
      ...more(
        'a line of {value} on the right',
        { as: 'line', y: second, against: 'right', ...plain },
        { value: second },
      ),
    )
  for (const [kind, words] of Object.entries(KIND_NAMES))
    if (kind !== first) out.push(...more(words, { as: kind, [along]: description[along] ?? second }))
  if (!kinds.includes('reference'))
    out.push(
      ...more('a dashed line at the mean', { as: 'reference', level: 'mean', style: { dash: [4, 3] } }),
      ...more('a line at a value', { as: 'reference', [along]: { value: 0 } }),
    )
  if (['scatter', 'line'].includes(first) && !kinds.includes('trend')) out.push(...more('a trend', 'trend'))
  return out
}

function around(place: Place): Option[] {
  const { description } = place
  const add = adding(place)
  const out = headingsFor(description)
  if (says(place, 'color') && !says(place, 'legend'))
    out.push(add('the legend on the right', ['legend'], 'right'), add('no legend', ['legend'], false))
  const at = notable(place)
  if (at !== undefined) {
    const notes = description.notes ?? []
    const path = ['notes', notes.length, 'words']
    const next = { ...description, notes: [...notes, { words: 'A note', x: at }] }
    out.push({ words: 'a note at {value}', holes: { value: at }, path, next })
  }
  const { panes } = description
  const [pane] = namesIn(place)
  if (panes === undefined && pane)
    out.push(add('a pane for each {phrase}', ['panes'], pane, { phrase: pane }))
  if (panes !== undefined && valueAt(panes, ['share']) === undefined) {
    const own = { ...(typeof panes === 'string' ? { by: panes } : panes), share: [] }
    out.push(add('scales of their own for panes', ['panes'], own))
  }
  for (const scale of ['x', 'y'] as const) {
    const free = (...path: string[]) => valueAt(description, path) === undefined
    if (free('scales', scale, 'kind'))
      out.push(add('a logarithmic scale {scale}', ['scales', scale, 'kind'], 'log', { scale }))
    if (free('scales', scale, 'include'))
      out.push(add('zero on the scale {scale}', ['scales', scale, 'include'], 0, { scale }))
    const start = startOf(place, scale)
    if (start !== undefined && free('scales', scale, 'domain'))
      out.push(
        add('the scale {scale} from {value} on', ['scales', scale, 'domain'], [start, null], {
          scale,
          value: String(start),
        }),
      )
    if (start !== undefined && free('scales', scale, 'reverse'))
      out.push(add('the scale {scale} turned round', ['scales', scale, 'reverse'], true, { scale }))
    const names = namesAlong(place, scale)
    if (names.length > 1 && free('scales', scale, 'domain'))
      out.push(add('names in an order of their own', ['scales', scale, 'domain'], names))
    if (free('axes', scale)) out.push(add('no axis {axis}', ['axes', scale], false, { axis: scale }))
  }
  return out
}

/** A place along x that a note may be about: the commonest name, or the last day; another is chosen then. */
function notable(place: Place): string | undefined {
  const meaning = typeof place.description.x === 'string' ? meaningOf(place.description.x, place) : undefined
  if (meaning?.is !== 'column' && meaning?.is !== 'bucket') return undefined
  const facts = place.facts.find(({ name }) => name === meaning.column)
  if (facts?.is === 'time') return new Date(facts.max).toISOString().slice(0, 10)
  return facts?.is === 'category' ? namesOf(place, facts.name)[0] : undefined
}

/** Where a scale of numbers or times may begin: another place is written then. Undefined for names. */
function startOf(place: Place, scale: 'x' | 'y'): number | string | undefined {
  const meaning = meaningOf(place.description[scale], place)
  if (meaning?.is === 'summary' || meaning?.is === 'window' || meaning?.is === 'ratio') return 0
  if (meaning?.is !== 'column' && meaning?.is !== 'bucket') return undefined
  const facts = place.facts.find(({ name }) => name === meaning.column)
  if (facts?.is === 'time') return new Date(facts.min).toISOString().slice(0, 10)
  return facts?.is === 'measure' ? 0 : undefined
}

/** The names along an axis, the commonest first, where all of them are known. */
function namesAlong(place: Place, scale: 'x' | 'y'): string[] {
  const bound = place.description[scale]
  const facts = place.facts.find(({ name, is }) => name === bound && is === 'category')
  const names = facts ? namesOf(place, facts.name) : []
  return names.length === facts?.distinct ? names : []
}

/** The next finer step of time. */
const FINER: Record<string, string> = {
  year: 'quarter',
  quarter: 'month',
  month: 'week',
  week: 'day',
  day: 'hour',
}

function deeds(place: Place): Option[] {
  const { x, y } = place.description
  const add = adding(place)
  const out: Option[] = []
  const played = phrasesFor('played', place).find(phrase => phrase !== x && phrase !== y)
  if (!says(place, 'through') && played)
    out.push(add('playing through {phrase}', ['through'], played, { phrase: played }))
  const meaning = typeof x === 'string' ? meaningOf(x, place) : undefined
  if (!says(place, 'controls') && meaning?.is === 'bucket' && FINER[meaning.unit]) {
    const other = `${FINER[meaning.unit]} of ${meaning.column}`
    const holes = { value: String(x), phrase: other }
    out.push(add('people choose {value} or {phrase}', ['controls'], [{ set: 'x', to: [x, other] }], holes))
  }
  if (!says(place, 'zoom')) out.push(add('people zoom along', ['zoom'], 'x'))
  if (!says(place, 'select'))
    out.push(add('a click selects', ['select'], 'click'), add('a box selects', ['select'], 'box'))
  if (!says(place, 'respond')) out.push(add('only what is selected elsewhere', ['respond'], 'narrow'))
  const leads = place.look.columns.find(({ commonest }) => commonest?.some(([name]) => /^https?:/.test(name)))
  if (leads && !says(place, 'link'))
    out.push(add('linked to {phrase}', ['link'], leads.name, { phrase: leads.name }))
  return out
}
