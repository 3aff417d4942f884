import type { Description } from '../describe/description.ts'
import type { Table } from '../table/live/table.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { type HoledWords, readWords } from '../words/holes.ts'

/** Checks the phrases that a tooltip names. Throws what phrases throw. */
export function checkTold(wish: Description['tooltip'], table: Table): void {
  if (Array.isArray(wish))
    for (const [i, phrase] of wish.entries())
      for (const one of wordsIn(phrase, table)?.holes ?? [phrase]) readPhrase(one, table, `tooltip[${i}]`)
  else if (typeof wish === 'string')
    for (const hole of readWords(wish).holes) readPhrase(hole, table, 'tooltip')
}

/** Words with holes among phrases; undefined for a phrase. */
export function wordsIn(phrase: unknown, table: Table): HoledWords | undefined {
  // A column is called as it is called.
  if (typeof phrase !== 'string' || table.column(phrase)) return undefined
  const words = readWords(phrase)
  return words.holes.length > 0 ? words : undefined
}
