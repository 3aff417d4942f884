import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import type { Table } from '../table/live/table.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'
import type { HeadingWords, ResolvedHeading } from './model.ts'

const FIELDS = ['title', 'subtitle', 'caption', 'source', 'period', 'summary'] as const

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
