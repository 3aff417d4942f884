import type { Resolved, ResolvedDrawing, ResolvedHeading } from '../resolve/model.ts'
import { type Answer, ask, type Question } from '../table/group/question.ts'
import type { Conditions } from '../table/group/where.ts'
import type { RowTest } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning, wholeKey } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'

/** Which rows of a table are drawn at all; undefined for all of them. */
export type RowFilter = (table: Table) => RowTest | undefined

/** A drawing, and the answer to what it asked. */
export interface Asked<A extends Answer = Answer> {
  drawing: ResolvedDrawing
  /** Equal for drawings that ask, and look at, the same. */
  key: string
  question: Question
  answer: A
}

/** Asks for every drawing of a chart. Drawings with the same table, phrases and conditions share the answer. */
export function askAll(resolved: Resolved, tongue: Tongue, only?: RowFilter): Asked[] {
  const known = new Map<string, Asked>()
  return resolved.drawings.map(drawing => {
    const { roles, wide, where, kind, level, top, table } = drawing
    const key = wholeKey([[...roles], wide, where, kind.name, level, top, resolved.tables.indexOf(table)])
    const same = known.get(key)
    if (same) return { ...same, drawing }
    const question = questionOf(drawing, tongue, only?.(table))
    const asked = { drawing, key, question, answer: ask(table, question) }
    known.set(key, asked)
    return asked
  })
}

/** Asks for what the holes of a heading are filled with: for each of its texts, hole by hole. */
export const askHeading = (
  heading: readonly ResolvedHeading[],
  table: Table,
  where: Conditions | undefined,
  test: RowTest | undefined,
): Answer[][] =>
  heading.map(({ meanings }) =>
    meanings.map(meaning => ask(table, { roles: new Map([['hole', meaning]]), where, test })),
  )

function questionOf(drawing: ResolvedDrawing, tongue: Tongue, test: RowTest | undefined): Question {
  const { wide, where, kind } = drawing
  const question: Question = {
    roles: drawing.roles,
    where,
    path: drawing.path ? `${drawing.path}.where` : 'where',
    test,
    order: orderRole(drawing.roles),
    other: tongue.say('Other'),
  }
  if (!wide) return { ...question, top: topOf(drawing), shareOf: kind.parts ? 'whole' : 'x' }
  const roles = new Map(drawing.roles)
  roles.delete(wide.role)
  wide.meanings.forEach((meaning, i) => {
    roles.set(`${wide.role} ${i}`, meaning)
  })
  return { ...question, roles }
}

/** `top` acts on the category position, else on colour. */
function topOf({ top, roles, table }: ResolvedDrawing): Question['top'] {
  if (!top) return undefined
  const category = (role: string) => {
    const meaning = roles.get(role)
    return (
      meaning &&
      !isMeasure(meaning) &&
      (meaning.is === 'cycle' || (meaning.is === 'column' && table.column(meaning.column)?.type === 'text'))
    )
  }
  const role = ['x', 'y', 'color', 'series'].find(category)
  return role === undefined ? undefined : { role, ...top }
}

/** The role along which time runs: the position that is no measure. */
export function orderRole(roles: ReadonlyMap<string, Meaning>): string {
  const x = roles.get('x')
  return x && isMeasure(x) ? 'y' : 'x'
}
