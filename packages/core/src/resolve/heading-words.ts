import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import type { Table } from '../table/live/table.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'
import type { HeadingWords, HoleRows, ResolvedHeading } from './model.ts'

const FIELDS = ['title', 'subtitle', 'caption', 'source', 'stampWords', 'stampNote'] as const
/** Where they stand in a description. */
const PATHS: Partial<Record<(typeof FIELDS)[number], string>> = {
  stampWords: 'stamp.words',
  stampNote: 'stamp.note',
}

/** What a phrase in a heading says of its rows, after it. */
const FROM: readonly [string, HoleRows][] = [
  [' in all', 'all'],
  [' of the leader', 'leader'],
]

/** A phrase, and the rows that it is about. A column that is called just so wins. */
function readHole(hole: string, table: Table, field: string): { meaning: Meaning; from: HoleRows } {
  const said = table.column(hole) ? undefined : FROM.find(([words]) => hole.endsWith(words))
  if (!said) return { meaning: readPhrase(hole, table, field), from: 'drawn' }
  return { meaning: readPhrase(hole.slice(0, -said[0].length), table, field), from: said[1] }
}

/** Understands the phrases in the holes of a heading. A hole that is no phrase stays as it is written, and is told of. */
export function resolveHeading(words: HeadingWords, table: Table): Found<ResolvedHeading[]> {
  const findings: Finding[] = []
  const value = FIELDS.filter(field => words[field] !== undefined).map(field => {
    const { pieces, holes } = readWords(words[field]!)
    const out: ResolvedHeading = { field, pieces: [pieces[0]], meanings: [], from: [] }
    holes.forEach((hole, i) => {
      try {
        const { meaning, from } = readHole(hole, table, PATHS[field] ?? field)
        out.meanings.push(meaning)
        out.from.push(from)
        out.pieces.push(pieces[i + 1])
      } catch (error) {
        if (!(error instanceof DapploError)) throw error
        out.pieces[out.pieces.length - 1] += `{${hole}}${pieces[i + 1]}`
        findings.push({
          code: 'unfilled-hole',
          message: `${error.message}, so "{${hole}}" stands in the ${PATHS[field] ?? field} as it is`,
          remedy: `${error.hint} A brace that is just a brace is written twice: {{.`,
          path: PATHS[field] ?? field,
        })
      }
    })
    return out
  })
  return { value, findings }
}
