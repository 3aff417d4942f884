import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import type { Table } from '../table/live/table.ts'
import type { Meaning } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'

/** The words around a chart. */
export interface HeadingWords {
  title?: string
  subtitle?: string
  caption?: string
  source?: string
  period?: string
  summary?: string
}
const FIELDS = ['title', 'subtitle', 'caption', 'source', 'period', 'summary'] as const

/** Words of a heading, with what their holes mean. */
export interface ResolvedHeading {
  field: (typeof FIELDS)[number]
  pieces: string[]
  meanings: Meaning[]
}

/** Understands the phrases in the holes of a heading. A hole that is no phrase stays as it is written, and is told of. */
export function resolveHeading(words: HeadingWords, table: Table): Found<ResolvedHeading[]> {
  const findings: Finding[] = []
  const value = FIELDS.filter(field => words[field] !== undefined).map(field => {
    const { pieces, holes } = readWords(words[field]!)
    const out: ResolvedHeading = { field, pieces: [pieces[0]], meanings: [] }
    holes.forEach((hole, i) => {
      try {
        out.meanings.push(readPhrase(hole, table, field))
        out.pieces.push(pieces[i + 1])
      } catch (error) {
        if (!(error instanceof DapploError)) throw error
        out.pieces[out.pieces.length - 1] += `{${hole}}${pieces[i + 1]}`
        findings.push({
          code: 'unfilled-hole',
          message: `${error.message}, so "{${hole}}" stands in the ${field} as it is`,
          remedy: `${error.hint} A brace that is just a brace is written twice: {{.`,
          path: field,
        })
      }
    })
    return out
  })
  return { value, findings }
}
