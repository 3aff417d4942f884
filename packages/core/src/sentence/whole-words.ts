import { isPlainObject } from '../finding/check-tree.ts'
import type { SentenceChoice, SentencePiece, SettingPath } from './model.ts'
import { bound, phraseText } from './phrase-words.ts'
import {
  FREE_SCALE_WORDS,
  FREE_WHOLE_WORDS,
  NOTE_WORDS,
  SCALE_FLAG_WORDS,
  SCALE_KIND_WORDS,
  WHOLE_WORDS,
} from './said-looks.ts'
import { isSimple, type Settings } from './settings.ts'
import type { Voice } from './voice.ts'

/** What a chart says of itself as a whole: a sentence for each. */
export function wholePieces(settings: Settings, voice: Voice): SentencePiece[][] {
  return [
    ...bindings(settings, voice),
    ...scales(settings, voice),
    ...axes(settings, voice),
    ...wholes(settings, voice),
    ...notes(settings, voice),
    ...controls(settings, voice),
  ]
}

/** What several charts in one picture say together: a sentence for each. */
export function spreadPieces(settings: Settings, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  const columns = settings.take(['columns'])
  if (columns !== undefined) {
    const value = { text: voice.value(columns), path: ['columns'], value: columns }
    out.push(voice.pieces('Of charts {value} stand side by side.', { value }))
  }
  const share = settings.at(['share'])
  if (Array.isArray(share) && share.length > 0) {
    settings.take(['share'])
    const scales = { text: voice.list(share), path: ['share'], value: share }
    out.push(voice.pieces('All have the scale {scales} in common.', { scales }))
  }
  return [...out, ...wholes(settings, voice)]
}

function bindings(settings: Settings, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  const through = bound(settings, ['through'], voice)
  if (through) out.push(voice.pieces('It plays through {phrase}.', { phrase: through }))
  const by = typeof settings.at(['panes']) === 'string' ? ['panes'] : ['panes', 'by']
  const panes = bound(settings, by, voice)
  if (panes) out.push(voice.pieces('There is a pane for each {phrase}.', { phrase: panes }))
  const shared = settings.at(['panes', 'share'])
  if (Array.isArray(shared) && shared.length === 0) {
    settings.take(['panes', 'share'])
    out.push([
      { text: voice.text('Panes have scales of their own.'), path: ['panes', 'share'], value: shared },
    ])
  }
  const path = ['panes', 'columns']
  const columns = settings.at(path)
  if (typeof columns === 'number') {
    settings.take(path)
    out.push(
      voice.pieces('Of panes {value} stand side by side.', {
        value: { text: voice.value(columns), path, value: columns },
      }),
    )
  }
  return out
}

function scales(settings: Settings, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  const named = settings.at(['scales'])
  for (const scale of named !== null && typeof named === 'object' ? Object.keys(named) : []) {
    const base: SettingPath = ['scales', scale]
    const say = (words: string, path: SettingPath, value: unknown, text = voice.value(value)) => {
      settings.take(path)
      out.push(voice.pieces(words, { scale, value: { text, path, value } }))
    }
    /** The whole sentence is the choice. */
    const sayWhole = (words: string, path: SettingPath, value: unknown) => {
      settings.take(path)
      out.push([{ text: voice.text(words, { scale }), path, value }])
    }
    const shared = settings.at(base)
    if (typeof shared === 'string') say('The scale {scale} is shared as “{value}”.', base, shared)
    const kind = settings.at([...base, 'kind'])
    if (typeof kind === 'string' && Object.hasOwn(SCALE_KIND_WORDS, kind))
      sayWhole(SCALE_KIND_WORDS[kind as 'log'], [...base, 'kind'], kind)
    const domain = settings.at([...base, 'domain'])
    const ends = Array.isArray(domain) ? endsText(domain, voice) : undefined
    if (ends !== undefined) say('The scale {scale} goes {value}.', [...base, 'domain'], domain, ends)
    else if (Array.isArray(domain) && domain.length > 0 && domain.every(name => typeof name === 'string'))
      say('The scale {scale} has the names {value}.', [...base, 'domain'], domain, voice.list(domain))
    for (const [name, words] of Object.entries(SCALE_FLAG_WORDS)) {
      const flag = settings.at([...base, name])
      if (typeof flag === 'boolean') sayWhole(words[`${flag}`], [...base, name], flag)
    }
    for (const [name, words] of Object.entries(FREE_SCALE_WORDS)) {
      const value = settings.at([...base, name])
      if (isSimple(value)) say(words, [...base, name], value)
    }
    const colors = settings.at([...base, 'colors'])
    if (colors !== null && typeof colors === 'object' && !Array.isArray(colors))
      for (const [category, color] of Object.entries(colors)) {
        if (typeof color !== 'string') continue
        const path = [...base, 'colors', category]
        settings.take(path)
        out.push(
          voice.pieces('On the scale {scale}, “{category}” is {value}.', {
            scale,
            category,
            value: { text: color, path, value: color },
          }),
        )
      }
  }
  return out
}

/** Where a scale ends, in words; undefined for what is no pair of ends. */
function endsText(domain: readonly unknown[], voice: Voice): string | undefined {
  const isEnd = (end: unknown) =>
    end === null || typeof end === 'number' || (typeof end === 'string' && /^\d{4}(-|$)/.test(end))
  if (domain.length !== 2 || !domain.every(isEnd)) return undefined
  const [start, end] = domain.map(end => (end === null ? undefined : voice.value(end)))
  if (start !== undefined && end !== undefined) return voice.text('from {start} to {end}', { start, end })
  if (start !== undefined) return voice.text('from {start} on', { start })
  return end === undefined ? undefined : voice.text('up to {end}', { end })
}

function axes(settings: Settings, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  const named = settings.at(['axes'])
  for (const axis of named !== null && typeof named === 'object' ? Object.keys(named) : []) {
    const base: SettingPath = ['axes', axis]
    const titlePath = [...base, 'title']
    const title = settings.at(titlePath)
    if (settings.at(base) === false) {
      settings.take(base)
      out.push([{ text: voice.text('There is no axis {axis}.', { axis }), path: base, value: false }])
    } else if (title === false) {
      settings.take(titlePath)
      out.push([
        { text: voice.text('The axis {axis} has no title.', { axis }), path: titlePath, value: false },
      ])
    } else if (typeof title === 'string') {
      settings.take(titlePath)
      out.push(
        voice.pieces('The axis {axis} is called “{value}”.', {
          axis,
          value: { text: title, path: titlePath, value: title },
        }),
      )
    }
  }
  return out
}

function wholes(settings: Settings, voice: Voice): SentencePiece[][] {
  const out: SentencePiece[][] = []
  for (const name of new Set([...Object.keys(FREE_WHOLE_WORDS), ...Object.keys(WHOLE_WORDS)])) {
    const path = [name]
    const value = settings.at(path)
    const known = Object.hasOwn(WHOLE_WORDS, name)
      ? (WHOLE_WORDS[name as 'legend'] as Record<string, string>)
      : {}
    const own = typeof value === 'boolean' || !Object.hasOwn(FREE_WHOLE_WORDS, name)
    if (own && isSimple(value) && Object.hasOwn(known, String(value))) {
      settings.take(path)
      out.push([{ text: voice.text(known[String(value)]), path, value }])
    } else if (typeof value === 'string' && Object.hasOwn(FREE_WHOLE_WORDS, name)) {
      settings.take(path)
      out.push(voice.pieces(FREE_WHOLE_WORDS[name as 'title'], { value: { text: value, path, value } }))
    } else if (name === 'tooltip' && Array.isArray(value)) {
      const phrases = bound(settings, path, voice)
      if (phrases) out.push(voice.pieces('The tooltip lists {phrases}.', { phrases }))
    }
  }
  return out
}

/** Notes at a place or over a stretch along x. */
function notes(settings: Settings, voice: Voice): SentencePiece[][] {
  const list = settings.at(['notes'])
  if (!Array.isArray(list)) return []
  return list.flatMap((note: Record<string, unknown>, i): SentencePiece[][] => {
    const base: SettingPath = ['notes', i]
    const { words, x, y, series, ...others } = note
    const { from, until, ...beyond } = isPlainObject(x) ? x : ({} as Record<string, unknown>)
    const over = isSimple(from) && isSimple(until) && Object.keys(beyond).length === 0
    const plain = (value: unknown) => value === undefined || isSimple(value)
    if (!isSimple(words) || Object.keys(others).length > 0 || !plain(y) || !plain(series)) return []
    if (!(over ? y === undefined : plain(x)) || (x ?? y) === undefined) return []
    const choice = (...path: string[]): SentenceChoice => {
      const value = settings.take([...base, ...path])
      return { text: voice.value(value), path: [...base, ...path], value }
    }
    const holes: Record<string, SentenceChoice> = over
      ? { from: choice('x', 'from'), until: choice('x', 'until') }
      : { ...(x === undefined ? {} : { x: choice('x') }), ...(y === undefined ? {} : { y: choice('y') }) }
    if (series !== undefined) holes.series = choice('series')
    return [voice.pieces(NOTE_WORDS[Object.keys(holes).join(' ')], { ...holes, value: choice('words') })]
  })
}

/** What people choose by above the chart, where it is a choice among phrases or other plain values. */
function controls(settings: Settings, voice: Voice): SentencePiece[][] {
  const list = settings.at(['controls'])
  if (!Array.isArray(list)) return []
  return list.flatMap((control: Record<string, unknown>, i): SentencePiece[][] => {
    const path = ['controls', i]
    const plain = Object.keys(control).every(key => key === 'set' || key === 'to')
    const { set, to } = control
    if (!plain || typeof set !== 'string' || !Array.isArray(to) || to.length === 0) return []
    if (!to.every(one => typeof one === 'string')) return []
    settings.take(path)
    const text = voice.list(
      to.map(one => phraseText(one, voice)),
      'or',
    )
    return [voice.pieces('People choose {value} for {set}.', { set, value: { text, path, value: control } })]
  })
}
