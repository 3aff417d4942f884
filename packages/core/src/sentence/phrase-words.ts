import type { Bind } from '../describe/description.ts'
import { isMeasure } from '../table/phrase/meaning.ts'
import { beginningOf, PHRASE_OPTIONS, phraseOpenings } from '../table/phrase/phrase.ts'
import type { SentenceChoice, SettingPath } from './model.ts'
import type { Settings } from './settings.ts'
import type { Voice } from './voice.ts'

/** The words of phrases, with the place of their column. */
export const PHRASE_WORDS: readonly string[] = [
  'count',
  'count so far',
  'distinct {column}',
  ...phraseOpenings.map(opening => `${opening} of {column}`),
  'ratio of {column} to {other}',
]

/** What a long phrase is over, without what it says beside: its word, and the column or columns. */
function mainOf(bind: object): [word: string, over: unknown, to: unknown] | undefined {
  const [word, ...others] = Object.keys(bind).filter(key => !PHRASE_OPTIONS.has(key))
  if (word === undefined || others.length > 0) return undefined
  const fields = bind as Record<string, unknown>
  return [word, fields[word], fields.to]
}

/** Whether what is bound sums rows up, as far as its words tell. */
export function sumsRows(bind: unknown, columns: Voice['columns'] = {}): boolean {
  if (Array.isArray(bind)) return bind.some(one => sumsRows(one, columns))
  if (typeof bind === 'string') {
    if (Object.hasOwn(columns, bind)) return false
    const begun = beginningOf(bind)
    return begun ? isMeasure(begun.meaning) : /^(count$|count so far$|distinct )/.test(bind)
  }
  const [word] = (bind !== null && typeof bind === 'object' && mainOf(bind)) || ['']
  return ['ratio', 'count', 'count so far', 'distinct'].includes(word) || sumsRows(`${word} of column`)
}

/** A short phrase in the words of a language. */
export function phraseText(phrase: string, voice: Voice): string {
  const text = phrase.trim()
  if (Object.hasOwn(voice.columns, text)) return text
  if (text === 'count' || text === 'count so far') return voice.text(text)
  if (text.startsWith('distinct ')) return voice.text('distinct {column}', { column: text.slice(9) })
  const begun = beginningOf(text)
  return begun ? voice.text(`${begun.opening} of {column}`, { column: begun.column }) : text
}

/** What is bound at a place, as one choice; undefined where there is nothing, or nothing that has words. */
export function bound(settings: Settings, path: SettingPath, voice: Voice): SentenceChoice | undefined {
  const bind = settings.at(path) as Bind<any> | readonly string[] | { from: unknown; to: unknown } | undefined
  const text = textOf(bind, voice)
  if (text === undefined) return undefined
  // Of a long phrase what it is over is said, and its label is what it is called.
  if (bind !== null && typeof bind === 'object' && !Array.isArray(bind) && !('from' in bind)) {
    for (const key of Object.keys(bind))
      if (!PHRASE_OPTIONS.has(key) || (key === 'to' && 'ratio' in bind)) settings.take([...path, key])
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
  const main = mainOf(bind)
  if (!main) return undefined
  const [word, over, other] = main
  if ((word === 'count' || word === 'count so far') && over === true) return voice.text(word)
  if (typeof over !== 'string') return undefined
  if (word === 'column') return over
  if (word === 'ratio')
    return typeof other === 'string'
      ? voice.text('ratio of {column} to {other}', { column: over, other })
      : undefined
  // The long form says what is a phrase, whatever columns are called.
  return phraseText(word === 'distinct' ? `distinct ${over}` : `${word} of ${over}`, {
    ...voice,
    columns: {},
  })
}
