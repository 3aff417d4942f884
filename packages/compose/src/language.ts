import { type House, SENTENCES, type Table } from '@dapplo/core'
import { type Drawn, phraseText, sentenceOf, typesOf, type Voice, voiceOf } from '@dapplo/core/sentence'
import type { Option } from './choose/model.ts'
import type { ComposeOptions } from './options.ts'

/** How the composer speaks about a table: in the words of the house, or in those it is given. */
export interface Language {
  voice: Voice
  say(words: string, holes?: Readonly<Record<string, string>>): string
  sentence(drawn: Drawn): ReturnType<typeof sentenceOf>
  textOf(option: Option): string
}

export function languageOf(
  { house, words }: Pick<ComposeOptions, 'house' | 'words'>,
  locale: string,
  table: Table,
): Language {
  const own = { ...(house?.words as Readonly<Record<string, string>> | undefined), ...words }
  const options = { words: own, locale, columns: typesOf(table) }
  const voice = voiceOf(options)
  return {
    voice,
    say: (said, holes) => voice.text(said, holes),
    sentence: drawn => sentenceOf(drawn, options),
    textOf({ words, holes = {}, phrase }) {
      if (phrase) return phraseText(words, voice)
      const filled = Object.entries(holes).map(([name, text]) => [
        name,
        name === 'phrase' || name === 'value' ? phraseText(text, voice) : text,
      ])
      return voice.text(words, Object.fromEntries(filled))
    },
  }
}

const charts = new Set<string>(SENTENCES)

/** A house style as charts take it: without the words that only the composer says. */
export function houseOfCharts(house: House | undefined): House | undefined {
  if (!house?.words) return house
  const words = Object.fromEntries(Object.entries(house.words).filter(([said]) => charts.has(said)))
  return { ...house, words }
}
