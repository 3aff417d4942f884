import type { Description, Theme } from '@dapplo/core'
import { LOOK_WORDS, SCALE_FLAG_WORDS, SCALE_KIND_WORDS, type SettingPath } from '@dapplo/core/sentence'
import { drawingsOf, setAt, valueAt } from './edits.ts'
import type { Offer, Option, Place, Writing } from './model.ts'
import { meaningOf } from './phrases.ts'

/** Kinds that place numbers. */
const KINDS = ['linear', 'log', 'root', 'signed log'] as const

/** What stands along an axis, by what is bound there. */
function along(place: Place, scale: string): 'numbers' | 'times' | 'names' {
  const { description, table } = place
  const bound = [description, ...drawingsOf(description)].map(one => valueAt(one, [scale])).find(Boolean)
  const meaning = meaningOf(bound, place)
  if (meaning?.is === 'bucket') return 'times'
  if (meaning?.is === 'cycle') return 'names'
  if (meaning?.is !== 'column') return 'numbers'
  const names = place.facts.some(({ name, is }) => name === meaning.column && is === 'category')
  const type = table.column(meaning.column)?.type
  return type === 'time' ? 'times' : type === 'text' || names ? 'names' : 'numbers'
}

/** The ends of a scale, to be written; an empty one is open. */
export function endsOf(description: Description, scale: string, times: boolean): Writing[] {
  const path: SettingPath = ['scales', scale, 'domain']
  const ends = valueAt(description, path)
  const domain: unknown[] = Array.isArray(ends) ? ends : [null, null]
  return (['From', 'To'] as const).map(
    (label, end): Writing => ({
      label,
      value: String(domain[end] ?? ''),
      kind: times ? 'words' : 'number',
      next: text => {
        const written = text.trim()
        const value = written === '' ? null : times ? written : Number(written)
        if (Number.isNaN(value)) return undefined
        const next = [0, 1].map(i => (i === end ? value : (domain[i] ?? null)))
        return setAt(description, path, next.every(one => one === null) ? undefined : next)
      },
    }),
  )
}

/** What may be written of a scale's domain: its ends, or its names in their order. */
export function domainWritings(place: Place, scale: string, domain: unknown): Writing[] {
  const { description } = place
  if (along(place, scale) !== 'names') return endsOf(description, scale, along(place, scale) === 'times')
  const names = Array.isArray(domain) ? domain.map(String) : []
  const next = (text: string) => {
    const written = text
      .split(',')
      .map(name => name.trim())
      .filter(Boolean)
    return written.length > 0 ? setAt(description, ['scales', scale, 'domain'], written) : undefined
  }
  return [{ label: 'In this order', value: names.join(', '), kind: 'words', next }]
}

/** What a click on what stands along an axis offers: the order of names, or where a scale ends and how it goes. */
export function scaleOffer(place: Place, scale: string): Offer {
  const { description } = place
  const at = (key: string): SettingPath => ['scales', scale, key]
  const is = along(place, scale)
  const leaveOut: Option = {
    words: 'no axis {axis}',
    holes: { axis: scale },
    path: ['axes', scale],
    next: setAt(description, ['axes', scale], false),
  }
  if (is === 'names') {
    const options = Object.entries(LOOK_WORDS.order).map(
      ([order, words]): Option => ({
        words,
        path: ['order'],
        now: description.order === order,
        next: setAt(description, ['order'], order),
      }),
    )
    const few: Option = {
      words: 'only the {value} greatest',
      holes: { value: '10' },
      path: ['top'],
      next: setAt(description, ['top'], 10),
    }
    return { options: [...options, few, leaveOut], writings: [] }
  }
  const writings = endsOf(description, scale, is === 'times')
  if (is === 'times') return { options: [leaveOut], writings }
  const kind = valueAt(description, at('kind'))
  const options: Option[] = KINDS.map(name => ({
    words: SCALE_KIND_WORDS[name],
    holes: { scale },
    path: at('kind'),
    now: (kind ?? 'linear') === name,
    next: setAt(description, at('kind'), name === 'linear' ? undefined : name),
  }))
  const turned = valueAt(description, at('reverse')) === true
  options.push({
    words: turned ? SCALE_FLAG_WORDS.reverse.false : SCALE_FLAG_WORDS.reverse.true,
    holes: { scale },
    path: at('reverse'),
    next: setAt(description, at('reverse'), turned ? undefined : true),
  })
  return { options: [...options, leaveOut], writings }
}

/** What a click on a category's name offers: the colours of the theme, or any other. */
export function colourOffer({ description }: Place, name: string, theme: Theme): Offer {
  const path: SettingPath = ['scales', 'color', 'colors', name]
  const now = valueAt(description, path)
  // A list of colours in order says nothing of single categories.
  const free = Array.isArray(valueAt(description, path.slice(0, 3)))
    ? setAt(description, path.slice(0, 3), undefined)
    : description
  const options: Option[] = theme.colors.slice(0, 8).map(color => ({
    words: '{value}',
    holes: { value: color },
    path,
    colour: color,
    now: now === color,
    next: setAt(free, path, color),
  }))
  if (now !== undefined)
    options.push({ words: 'Leave this out', path: ['color'], next: setAt(description, path, undefined) })
  const writing: Writing = {
    label: 'A colour',
    value: typeof now === 'string' ? now : '',
    kind: 'words',
    next: text => (text.trim() ? setAt(free, path, text.trim()) : undefined),
  }
  return { options, writings: [writing] }
}
