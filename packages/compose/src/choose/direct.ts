import type { Theme } from '@dapplo/core'
import { SCALE_FLAG_WORDS, SCALE_KIND_WORDS, type SettingPath } from '@dapplo/core/sentence'
import { setAt, valueAt } from './edits.ts'
import type { Offer, Option, Place, Writing } from './model.ts'

/** Kinds that place numbers. */
const KINDS = ['linear', 'log', 'root', 'signed log'] as const

/** What a click on the figures of an axis offers: where its scale ends, and how it goes. */
export function scaleOffer({ description }: Place, scale: string): Offer {
  const at = (key: string): SettingPath => ['scales', scale, key]
  const ends = valueAt(description, at('domain'))
  const domain = Array.isArray(ends) ? ends : [null, null]
  const writings = (['From', 'To'] as const).map(
    (label, end): Writing => ({
      label,
      value: typeof domain[end] === 'number' ? String(domain[end]) : '',
      kind: 'number',
      next: text => {
        if (text !== '' && !Number.isFinite(Number(text))) return undefined
        const next = [domain[0] ?? null, domain[1] ?? null]
        next[end] = text === '' ? null : Number(text)
        return setAt(description, at('domain'), next.every(one => one === null) ? undefined : next)
      },
    }),
  )
  const kind = valueAt(description, at('kind'))
  const options: Option[] = KINDS.map(name => ({
    words: SCALE_KIND_WORDS[name],
    holes: { scale },
    path: at('kind'),
    now: (kind ?? 'linear') === name,
    next: setAt(description, at('kind'), name === 'linear' ? undefined : name),
  }))
  options.push({
    words: SCALE_FLAG_WORDS.reverse.true,
    holes: { scale },
    path: at('reverse'),
    next: setAt(description, at('reverse'), valueAt(description, at('reverse')) === true ? undefined : true),
  })
  options.push({
    words: 'no axis {axis}',
    holes: { axis: scale },
    path: ['axes', scale],
    next: setAt(description, ['axes', scale], false),
  })
  return { options, writings }
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
