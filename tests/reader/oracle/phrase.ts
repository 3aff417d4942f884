// What a phrase asks for, read from its words.
import { CYCLES, type Cycle, UNITS, type Unit } from './calendar.ts'

export type Type = 'number' | 'time' | 'text'
export type Types = Record<string, Type>

export type Meaning =
  | { is: 'column'; column: string }
  | { is: 'period'; unit: Unit; column: string }
  | { is: 'cycle'; cycle: Cycle; column: string }
  | { is: 'bins'; column: string; width: number }
  | { is: 'summary'; how: string; column?: string }
  | { is: 'ratio'; column: string; to: string }
  | { is: 'window'; how: 'share' | 'rank' | 'so far'; over: Meaning; within?: string }

const one = <W extends string>(words: readonly W[], text: string): [W, string] | undefined => {
  const word = words.find(word => text.startsWith(`${word} of `))
  return word && [word, text.slice(word.length + 4)]
}

/** A phrase in its short form, or in its long one; undefined for what this reader does not know. */
export function meaningOf(phrase: unknown, types: Types): Meaning | undefined {
  if (typeof phrase === 'string') return shortForm(phrase, types)
  if (phrase === null || typeof phrase !== 'object') return undefined
  const {
    label: _,
    format: __,
    within,
    width,
    to,
    top: ___,
    rest: ____,
    by: _____,
    ...words
  } = phrase as Record<string, string & number>
  const [word, column] = Object.entries(words)[0] ?? []
  if (word === undefined) return undefined
  if (word === 'column') return { is: 'column', column }
  if (word === 'bins') return width === undefined ? undefined : { is: 'bins', column, width }
  if (word === 'ratio') return { is: 'ratio', column, to }
  const meant = shortForm(
    word === 'count' ? 'count' : word === 'distinct' ? `distinct ${column}` : `${word} of ${column}`,
    types,
  )
  return meant?.is === 'window' ? { ...meant, within } : meant
}

function shortForm(text: string, types: Types): Meaning | undefined {
  if (text in types) return { is: 'column', column: text }
  if (text === 'count') return { is: 'summary', how: 'count' }
  if (text === 'count so far') return { is: 'window', how: 'so far', over: { is: 'summary', how: 'count' } }
  if (text.startsWith('distinct ')) return { is: 'summary', how: 'distinct', column: text.slice(9) }
  const cycle = one(CYCLES, text)
  if (cycle) return { is: 'cycle', cycle: cycle[0], column: cycle[1] }
  const period = one(UNITS, text)
  if (period) return { is: 'period', unit: period[0], column: period[1] }
  const window = one(['share', 'rank', 'sum so far'] as const, text)
  if (window) {
    const over: Meaning =
      window[1] === 'count'
        ? { is: 'summary', how: 'count' }
        : { is: 'summary', how: 'sum', column: window[1] }
    return { is: 'window', how: window[0] === 'sum so far' ? 'so far' : window[0], over }
  }
  const how = /^(sum|mean|median|min|max|first|last|p\d+(?:\.\d+)?) of (.+)$/.exec(text)
  return how ? { is: 'summary', how: how[1], column: how[2] } : undefined
}

/** Whether a meaning sums rows up, so that all else groups. */
export const sumsUp = (meaning: Meaning): boolean =>
  meaning.is === 'summary' || meaning.is === 'ratio' || meaning.is === 'window'
