import type { Bind } from '../describe/description.ts'
import type { SentenceChoice, SettingPath } from './model.ts'
import type { Settings } from './settings.ts'
import type { Voice } from './voice.ts'

/** Words that begin phrases, with the place of their column. */
export const PHRASE_WORDS = [
  'count',
  'count so far',
  'distinct {column}',
  'sum of {column}',
  'mean of {column}',
  'median of {column}',
  'min of {column}',
  'max of {column}',
  'first of {column}',
  'last of {column}',
  'share of {column}',
  'rank of {column}',
  'sum so far of {column}',
  'bins of {column}',
  'minute of {column}',
  'hour of {column}',
  'day of {column}',
  'week of {column}',
  'month of {column}',
  'quarter of {column}',
  'year of {column}',
  'hour of day of {column}',
  'weekday of {column}',
  'day of month of {column}',
  'day of year of {column}',
  'month of year of {column}',
  'ratio of {column} to {other}',
] as const

const OPENINGS = PHRASE_WORDS.filter(words => words.endsWith('{column}')).map(words => words.slice(0, -8))
/** What a long phrase may say beside what it is over. */
const BESIDE = new Set(['label', 'format', 'top', 'rest', 'by', 'within', 'width', 'number', 'until', 'to'])
/** Words whose values sum rows up. */
const SUMS_UP =
  /^(count|distinct |(sum|mean|median|min|max|first|last|share|rank|sum so far|p\d{1,2}(\.\d+)?) of )/

/** Whether a phrase sums rows up, as far as its words tell. */
export function sumsRows(bind: unknown, columns: Voice['columns'] = {}): boolean {
  if (typeof bind === 'string') return !Object.hasOwn(columns, bind) && SUMS_UP.test(bind)
  if (Array.isArray(bind)) return bind.some(one => sumsRows(one, columns))
  if (bind === null || typeof bind !== 'object') return false
  const [main] = Object.keys(bind).filter(key => !BESIDE.has(key))
  return (
    main === 'ratio' ||
    main === 'count' ||
    main === 'count so far' ||
    SUMS_UP.test(`${main} of `) ||
    main === 'distinct'
  )
}

/** A short phrase in the words of a language. */
export function phraseText(phrase: string, voice: Voice): string {
  const text = phrase.trim()
  if (Object.hasOwn(voice.columns, text)) return text
  if (text === 'count' || text === 'count so far') return voice.text(text)
  const opening = OPENINGS.filter(words => text.startsWith(words)).sort((a, b) => b.length - a.length)[0]
  if (opening === undefined) return text
  return voice.text(`${opening}{column}`, { column: text.slice(opening.length) })
}

/** What is bound at a place, as one choice; undefined where there is nothing, or nothing that has words. */
export function bound(settings: Settings, path: SettingPath, voice: Voice): SentenceChoice | undefined {
  const bind = settings.at(path) as Bind<any> | readonly string[] | { from: unknown; to: unknown } | undefined
  const text = textOf(bind, voice)
  if (text === undefined) return undefined
  // Of a long phrase what it is over is said, and its label is what it is called.
  if (bind !== null && typeof bind === 'object' && !Array.isArray(bind) && !('from' in bind)) {
    for (const key of Object.keys(bind))
      if (!BESIDE.has(key) || (key === 'to' && 'ratio' in bind)) settings.take([...path, key])
  } else settings.take(path)
  return { text, path, value: bind }
}

function textOf(bind: unknown, voice: Voice): string | undefined {
  if (typeof bind === 'string') return phraseText(bind, voice)
  if (Array.isArray(bind))
    return bind.length > 0 && bind.every(one => typeof one === 'string')
      ? voice.list(bind.map(one => phraseText(one, voice)))
      : undefined
  if (bind === null || typeof bind !== 'object') return undefined
  if ('value' in bind) return Object.keys(bind).length === 1 ? voice.value(bind.value) : undefined
  if ('from' in bind && 'to' in bind && Object.keys(bind).length === 2) {
    const [start, end] = [textOf(bind.from, voice), textOf(bind.to, voice)]
    return start === undefined || end === undefined
      ? undefined
      : voice.text('{start} to {end}', { start, end })
  }
  const mains = Object.keys(bind).filter(key => !BESIDE.has(key))
  if (mains.length !== 1) return undefined
  const [main] = mains
  const over = (bind as Record<string, unknown>)[main]
  if (main === 'ratio') {
    const other = (bind as Record<string, unknown>).to
    return typeof over === 'string' && typeof other === 'string'
      ? voice.text('ratio of {column} to {other}', { column: over, other })
      : undefined
  }
  if ((main === 'count' || main === 'count so far') && over === true) return voice.text(main)
  if (typeof over !== 'string') return undefined
  if (main === 'column') return over
  return phraseText(main === 'distinct' ? `distinct ${over}` : `${main} of ${over}`, {
    ...voice,
    columns: {},
  })
}
