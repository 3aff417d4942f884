import type { Theme } from '@dapplo/core'
import { LOOK_WORDS, SCALE_FLAG_WORDS, SCALE_KIND_WORDS, type SettingPath } from '@dapplo/core/sentence'
import { drawingsOf, setAt, valueAt } from './edits.ts'
import type { Offer, Option, Place, Writing } from './model.ts'
import { sumsUp } from './phrases.ts'

/** Kinds that place numbers. */
const KINDS = ['linear', 'log', 'root', 'signed log'] as const

/** What stands along an axis, as far as what is bound there tells. */
function along({ description, facts }: Place, scale: string): 'numbers' | 'times' | 'names' {
  const bound = [description, ...drawingsOf(description)].map(one => valueAt(one, [scale])).find(Boolean)
  if (typeof bound !== 'string' || sumsUp(bound, { facts })) return 'numbers'
  const column = facts.find(({ name }) => name === bound)
  if (column) return column.is === 'time' ? 'times' : column.is === 'measure' ? 'numbers' : 'names'
  if (/^bins of /.test(bound)) return 'numbers'
  return /^(minute|hour|day|week|month|quarter|year) of /.test(bound) ? 'times' : 'names'
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
  const ends = valueAt(description, at('domain'))
  const domain: unknown[] = Array.isArray(ends) ? ends : [null, null]
  const read = (text: string): string | number | undefined =>
    is === 'times' ? text.trim() : Number.isFinite(Number(text)) ? Number(text) : undefined
  const writings = (['From', 'To'] as const).map(
    (label, end): Writing => ({
      label,
      value: domain[end] === null || domain[end] === undefined ? '' : String(domain[end]),
      kind: is === 'times' ? 'words' : 'number',
      next: text => {
        const value = text.trim() === '' ? null : read(text)
        if (value === undefined) return undefined
        const next = [domain[0] ?? null, domain[1] ?? null]
        next[end] = value
        return setAt(description, at('domain'), next.every(one => one === null) ? undefined : next)
      },
    }),
  )
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
