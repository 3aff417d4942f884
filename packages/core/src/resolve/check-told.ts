import type { Description } from '../describe/description.ts'
import type { Table } from '../table/live/table.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'

/** Checks the phrases that a tooltip names. Throws what phrases throw. */
export function checkTold(wish: Description['tooltip'], table: Table): void {
  if (Array.isArray(wish))
    for (const [i, phrase] of wish.entries()) readPhrase(phrase, table, `tooltip[${i}]`)
  else if (typeof wish === 'string')
    for (const hole of readWords(wish).holes) readPhrase(hole, table, 'tooltip')
}
