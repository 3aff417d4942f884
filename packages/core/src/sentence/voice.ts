import { checkLocale } from '../finding/check-locale.ts'
import { fillWords, readWords } from '../words/holes.ts'
import type { SentenceOptions, SentencePiece } from './model.ts'

/** How sentences are said: in which words, and how values and lists are written. */
export interface Voice {
  columns: NonNullable<SentenceOptions['columns']>
  /** Words with their holes filled by texts. */
  text(words: string, holes?: Readonly<Record<string, string>>): string
  /** The same with pieces, which may be choices. */
  pieces(
    words: string,
    holes?: Readonly<Record<string, SentencePiece | readonly SentencePiece[]>>,
  ): SentencePiece[]
  value(value: unknown): string
  list(texts: readonly string[], how?: 'and' | 'or'): string
}

const ISO_DAY = /^\d{4}-\d{2}-\d{2}T00:00:00(\.000)?Z$/

/** The voice in which sentences are said: the words of a language, and how it writes numbers and lists. */
export function voiceOf({ words = {}, locale = 'en', columns = {} }: SentenceOptions): Voice {
  checkLocale(locale, 'locale')
  const form = (said: string) => readWords(Object.hasOwn(words, said) ? words[said] : said)
  const text: Voice['text'] = (said, holes = {}) => {
    const { pieces, holes: names } = form(said)
    return fillWords(
      pieces,
      names.map(name => holes[name] ?? ''),
    )
  }
  const lists: { [how in 'and' | 'or']?: Intl.ListFormat } = {}
  const listFormat = (how: 'and' | 'or') =>
    new Intl.ListFormat(locale, { type: how === 'or' ? 'disjunction' : 'conjunction' })
  return {
    columns,
    text,
    pieces(said, holes = {}) {
      const { pieces, holes: names } = form(said)
      return pieces.flatMap((piece, i) => {
        const filling = i < names.length ? (holes[names[i]] ?? '') : ''
        return [
          piece,
          ...(Array.isArray(filling) ? (filling as SentencePiece[]) : [filling as SentencePiece]),
        ]
      })
    },
    value(value) {
      if (typeof value === 'number')
        return value.toLocaleString(locale, { maximumFractionDigits: 20, useGrouping: false })
      if (value instanceof Date) {
        const iso = Number.isNaN(value.getTime()) ? '?' : value.toISOString()
        return ISO_DAY.test(iso) ? iso.slice(0, 10) : iso
      }
      return value === null ? text('nothing') : String(value)
    },
    list: (texts, how = 'and') =>
      texts.length === 1 ? texts[0] : (lists[how] ??= listFormat(how)).format(texts),
  }
}

/** Pieces without empty ones, with words that follow each other as one. */
export function joined(pieces: readonly SentencePiece[]): SentencePiece[] {
  const out: SentencePiece[] = []
  for (const piece of pieces) {
    if (piece === '') continue
    const before = out.at(-1)
    if (typeof piece === 'string' && typeof before === 'string') out[out.length - 1] = before + piece
    else out.push(piece)
  }
  return out
}

/** The words of pieces, choices with the others. */
export const textOfPieces = (pieces: readonly SentencePiece[]): string =>
  pieces.map(piece => (typeof piece === 'string' ? piece : piece.text)).join('')
