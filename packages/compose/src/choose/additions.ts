import type { SettingPath } from '@dapplo/core/sentence'
import { namesOf } from './conditions.ts'
import { drawingsOf, setAt, valueAt, withDrawing } from './edits.ts'
import type { Option, Place } from './model.ts'
import { mayChange } from './offers.ts'
import { phrasesFor, sumsUp } from './phrases.ts'

const nameOf = (drawing: unknown): string =>
  typeof drawing === 'string' ? drawing : String((drawing as { as?: unknown } | null)?.as ?? '')

/** What "and …" at the end of a sentence offers, by what it adds to. */
export function additionsFor(place: Place): Option[] {
  const { description, facts, allowed } = place
  const columns = allowed.columns ? facts.filter(({ name }) => allowed.columns?.includes(name)) : facts
  const out: Option[] = []
  const has = (key: string) =>
    valueAt(description, [key]) !== undefined ||
    drawingsOf(description).some(one => valueAt(one, [key]) !== undefined)
  const add = (
    group: string,
    words: string,
    path: SettingPath,
    value: unknown,
    holes?: Record<string, string>,
  ) => out.push({ group, words, holes, path, next: setAt(description, path, value) })
  const kinds = drawingsOf(description).map(nameOf)
  const [first] = kinds
  const measure = phrasesFor('measure', columns).find(
    phrase => phrase !== description.y && phrase !== description.x,
  )
  const names = phrasesFor(
    'names',
    columns.filter(({ is }) => is === 'category'),
  )
  const named = (role: string) =>
    names.find(name => ![description.x, description.y, description.color].includes(name) || role === 'panes')

  // Looks.
  const colour = names.find(name => name !== description.x && name !== description.y)
  if (!has('color') && colour && first !== 'heatmap')
    add('How it looks', 'one colour per {phrase}', ['color'], colour, { phrase: colour })
  if (first === 'pie' && !has('color') && names[0])
    add('How it looks', 'one colour per {phrase}', ['color'], names[0], { phrase: names[0] })
  if (['bar', 'area'].includes(first) && has('color') && !has('arrange')) {
    add('How it looks', 'stacked', ['arrange'], 'stack')
    add('How it looks', 'stacked to the whole', ['arrange'], 'share')
    add('How it looks', 'side by side', ['arrange'], 'side')
  }
  if (!has('label')) add('How it looks', 'with values', ['label'], true)
  if (first === 'bar' && !has('order')) add('How it looks', 'the greatest first', ['order'], 'ranked')
  if (first === 'bar' && !has('top'))
    add('How it looks', 'only the {value} greatest', ['top'], 10, { value: '10' })
  if (has('top') && !has('rest')) add('How it looks', 'with the rest as one', ['rest'], true)
  if (['line', 'area'].includes(first) && !has('between'))
    add('How it looks', 'smooth', ['between'], 'smooth')
  if (first === 'line' && !has('points')) add('How it looks', 'with points', ['points'], true)
  if (first === 'pie' && !has('hollow'))
    add('How it looks', 'hollow by {value}', ['hollow'], 0.6, { value: '0.6' })
  if (first === 'scatter' && !has('size')) {
    const size = phrasesFor('number', columns).find(
      phrase => phrase !== description.x && phrase !== description.y,
    )
    if (size) add('How it looks', 'sized by {phrase}', ['size'], size, { phrase: size })
  }

  // Rows.
  for (const { name } of columns.filter(({ is }) => is === 'category')) {
    if (valueAt(description, ['where', name]) !== undefined) continue
    const [value] = namesOf(place, name)
    if (value !== undefined)
      add('Which rows', 'only where {conditions}', ['where', name], value, { conditions: name })
  }
  for (const { name, min, is } of columns.filter(({ is }) => is === 'time' || is === 'measure')) {
    if (valueAt(description, ['where', name]) !== undefined || !Number.isFinite(min)) continue
    const from = is === 'time' ? new Date(min).toISOString().slice(0, 10) : min
    add('Which rows', 'only where {conditions}', ['where', name], { from }, { conditions: name })
  }

  // More drawings.
  const more = (words: string, drawing: object | string, holes?: Record<string, string>) => {
    const index = drawingsOf(description).length
    out.push({
      group: 'More to see',
      words,
      holes,
      path: typeof drawing === 'string' ? ['draw', index] : ['draw', index, 'as'],
      next: withDrawing(description, drawing),
    })
  }
  if (!['pie', 'heatmap'].includes(first)) {
    const lying = sumsUp(description.x, place) && !sumsUp(description.y, place)
    const along = lying ? 'x' : 'y'
    const second = measure ?? 'count'
    if (!lying)
      more(
        'a line of {value} on the right',
        { as: 'line', y: second, against: 'right', ...(has('color') ? { color: null } : {}) },
        { value: second },
      )
    for (const kind of ['line', 'bar', 'scatter', 'area'])
      if (kind !== first && allows(place, kind))
        more(KIND_NAMES[kind], { as: kind, [along]: description[along] ?? second })
    if (!kinds.includes('reference')) {
      more('a dashed line at the mean', { as: 'reference', level: 'mean', style: { dash: [4, 3] } })
      more('a line at a value', { as: 'reference', [along]: { value: 0 } })
    }
    if (['scatter', 'line'].includes(first) && !kinds.includes('trend')) more('a trend', 'trend')
  }

  // Around it.
  for (const [key, words, text] of [
    ['title', 'a title', 'A title'],
    ['subtitle', 'a subtitle', 'A subtitle'],
    ['source', 'a source', 'A source'],
  ] as const)
    if (!has(key)) add('Around it', words, [key], text)
  if (has('color') && !has('legend')) {
    add('Around it', 'the legend on the right', ['legend'], 'right')
    add('Around it', 'no legend', ['legend'], false)
  }
  const pane = named('panes')
  if (!has('panes') && pane) add('Around it', 'a pane for each {phrase}', ['panes'], pane, { phrase: pane })
  const { panes } = description
  if (panes !== undefined && valueAt(panes, ['share']) === undefined)
    add('Around it', 'scales of their own for panes', ['panes'], {
      ...(typeof panes === 'string' ? { by: panes } : panes),
      share: [],
    })
  for (const scale of ['x', 'y'] as const) {
    if (valueAt(description, ['scales', scale, 'kind']) === undefined)
      add('Around it', 'a logarithmic scale {scale}', ['scales', scale, 'kind'], 'log', { scale })
    if (valueAt(description, ['scales', scale, 'include']) === undefined)
      add('Around it', 'zero on the scale {scale}', ['scales', scale, 'include'], 0, { scale })
    if (valueAt(description, ['axes', scale]) === undefined)
      add('Around it', 'no axis {axis}', ['axes', scale], false, { axis: scale })
  }

  // What people do.
  const [played] = phrasesFor('played', columns).filter(
    phrase => ![description.x, description.y].includes(phrase),
  )
  if (!has('through') && played)
    add('What happens', 'playing through {phrase}', ['through'], played, { phrase: played })
  const { x } = description
  const step = typeof x === 'string' ? /^(year|quarter|month|week|day) of (.+)$/.exec(x) : null
  const finer =
    step && { year: 'quarter', quarter: 'month', month: 'week', week: 'day', day: 'hour' }[step[1]]
  if (!has('controls') && step && finer) {
    const other = `${finer} of ${step[2]}`
    const holes = { value: String(x), phrase: other }
    add(
      'What happens',
      'people choose {value} or {phrase}',
      ['controls'],
      [{ set: 'x', to: [x, other] }],
      holes,
    )
  }
  if (!has('zoom')) add('What happens', 'people zoom along', ['zoom'], 'x')
  if (!has('select')) add('What happens', 'a click selects', ['select'], 'click')
  return out.filter(({ path }) => mayChange(place, path))
}

const KIND_NAMES: Record<string, string> = { line: 'a line', bar: 'bars', scatter: 'points', area: 'an area' }
const allows = ({ allowed: { kinds } }: Place, kind: string): boolean => !kinds || kinds.includes(kind)
