import { fillWords, readWords } from './holes.ts'
import type { Sentence } from './sentences.ts'

/** A sentence in the forms that a language has for counts, by the plural categories of `Intl.PluralRules`. */
export type Forms = { readonly [form in Intl.LDMLPluralRule]?: string } & { readonly other: string }

/**
 * Words of a house for those of the library: what is said instead, by what would be said. Holes keep their names.
 * Where a language has more forms than one and many, a sentence with a `{count}` has each of them.
 */
export type HouseWords = {
  readonly [sentence in Sentence]?: sentence extends `${string}{count}${string}` ? string | Forms : string
}

/** How a chart speaks: the locale of its numbers and dates, and its words. */
export interface Tongue {
  /** A BCP 47 language tag. */
  locale: string
  /** A sentence of the library in the words of the house, its holes filled. */
  say(sentence: Sentence, holes?: Readonly<Record<string, string | number>>): string
  /** A name inside a sentence: `Passengers` becomes `passengers` where the language does not write nouns large. */
  lower(label: string): string
}

/** Languages that begin every noun with a capital. */
const LARGE_NOUNS = /^(de|lb|gsw|nds)\b/i

const formOf = (forms: Forms, count: unknown, locale: string): string =>
  (typeof count === 'number' && forms[new Intl.PluralRules(locale).select(count)]) || forms.other

/** The tongue of a locale with the words of a house. */
export function tongueOf(locale: string, words: HouseWords = {}): Tongue {
  return {
    locale,
    say(sentence, filling = {}) {
      const own = (Object.hasOwn(words, sentence) && words[sentence]) || sentence
      const form = typeof own === 'string' ? own : formOf(own, filling.count, locale)
      const { pieces, holes } = readWords(form)
      const texts = holes.map(hole => {
        const value = Object.hasOwn(filling, hole) ? filling[hole] : `{${hole}}`
        return typeof value === 'number' ? value.toLocaleString(locale) : value
      })
      return fillWords(pieces, texts)
    },
    lower: label =>
      /^\p{Lu}\p{Ll}/u.test(label) && !LARGE_NOUNS.test(locale)
        ? label[0].toLocaleLowerCase(locale) + label.slice(1)
        : label,
  }
}
