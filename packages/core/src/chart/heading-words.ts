import { DapploError, type Finding } from '../finding/error.ts'
import type { Found } from '../finding/found.ts'
import { valueText } from '../scale/number-format.ts'
import { isMeasure, type Meaning } from '../table/meaning.ts'
import { readPhrase } from '../table/phrase.ts'
import { type RoleValues, shape } from '../table/shape.ts'
import type { Table } from '../table/table.ts'
import { fillWords, readWords } from '../words/holes.ts'
import { lookOf } from './naming.ts'
import { roleTexts } from './values.ts'

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

/** The heading of a chart, its holes filled from the rows that are drawn. */
export function fillHeading(
  heading: readonly ResolvedHeading[],
  table: Table,
  rows: Int32Array | undefined,
  locale: string,
): HeadingWords {
  const out: HeadingWords = {}
  for (const { field, pieces, meanings } of heading) {
    const values = meanings.map(meaning => textOf(meaning, table, rows, locale))
    out[field] = fillWords(pieces, values)
  }
  return out
}

function textOf(meaning: Meaning, table: Table, rows: Int32Array | undefined, locale: string): string {
  const shaped = shape(table, new Map([['hole', meaning]]), { rows })
  const values = shaped.roles.get('hole')
  if (!values || shaped.length === 0) return '–'
  const { cells } = values
  // A number in a sentence is read, not compared with others at a glance: it is written out.
  if (isMeasure(meaning) && cells.type === 'number')
    return valueText(cells.values[0], { ...lookOf(values), locale })
  const text = roleTexts(values, locale)
  return oneValue(values, shaped.length) ? text(0) : `${text(0)} – ${text(shaped.length - 1)}`
}

/** Whether all rows agree. */
function oneValue({ cells }: RoleValues, length: number): boolean {
  const list = cells.type === 'text' ? cells.codes : cells.values
  for (let i = 1; i < length; i++) if (list[i] !== list[0]) return false
  return true
}
