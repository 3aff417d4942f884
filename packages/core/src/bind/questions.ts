import type { State } from '../describe/frame.ts'
import { partPath } from '../finding/part-path.ts'
import type { HoleRows, Resolved, ResolvedDrawing } from '../resolve/model.ts'
import type { Follows } from '../table/group/live-groups.ts'
import { type Answer, answeredElsewhere, ask, keepsSome, type Question } from '../table/group/question.ts'
import type { Conditions } from '../table/group/where.ts'
import type { RowTest } from '../table/live/selection.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning, wholeKey } from '../table/phrase/meaning.ts'
import type { Tongue } from '../words/tongue.ts'
import { identityOf } from './identity.ts'

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
export function askAll(
  resolved: Resolved,
  tongue: Tongue,
  only: RowFilter | undefined,
  follow: Follows | undefined,
  zoom: State['zoom'],
): Asked[] {
  const known = new Map<string, Asked>()
  return resolved.drawings.map(drawing => {
    const { roles, wide, where, kind, level, top, table } = drawing
    const gathers = typeof kind.gathers === 'function' ? kind.gathers(drawing.options) : kind.gathers
    const key = wholeKey([
      [...roles],
      wide,
      where,
      kind.name,
      gathers,
      level,
      top,
      resolved.tables.indexOf(table),
    ])
    const same = known.get(key)
    if (same) return { ...same, drawing }
    const question = questionOf(drawing, tongue, only?.(table))
    const identity = identityOf(drawing, resolved.throughMeaning)
    const elsewhere = answeredElsewhere(table)
      ? {
          gathers,
          view: zoom && { x: zoom.x, y: zoom[drawing.against] },
          logs: { x: isLog(resolved, 'x'), y: isLog(resolved, drawing.against) },
        }
      : undefined
    const answer = ask(table, { ...question, ...elsewhere, follow, identity })
    const asked = { drawing, key, question, answer }
    known.set(key, asked)
    return asked
  })
}

const isLog = ({ description }: Resolved, name: string): boolean => description.scales?.[name]?.kind === 'log'

/** Asks for what the holes of a heading are filled with: for each of its texts, hole by hole. */
export function askHeading(
  { heading, drawings, description }: Resolved,
  table: Table,
  tongue: Tongue,
  test: RowTest | undefined,
  follow: Follows | undefined,
): Answer[][] {
  const own = drawings.filter(drawing => drawing.table === table && !drawing.kind.aside)
  const drawn = own.map(drawing => questionOf(drawing, tongue, test))
  const [first] = drawn
  const alike = drawn.every(question => question.where === first.where && !keepsSome(question))
  // What a heading sums up is what the picture shows.
  const rows = (from: HoleRows): Omit<Question, 'roles'> => {
    if (from === 'all') return {}
    if (!first) return { where: description.where as Conditions | undefined, test }
    if (from === 'leader') return { among: { drawn, leader: measuredRole(own[0]) } }
    return alike ? { where: first.where, path: first.path, test } : { among: { drawn } }
  }
  return heading.map(({ meanings, from }) =>
    meanings.map((meaning, i) => ask(table, { roles: holeRoles(table, meaning), follow, ...rows(from[i]) })),
  )
}

/** What a hole asks for: the values of rows, each once where rows are elsewhere. */
function holeRoles(table: Table, meaning: Meaning): Map<string, Meaning> {
  const roles = new Map([['hole', meaning]])
  if (answeredElsewhere(table) && !isMeasure(meaning)) roles.set('rows', { is: 'summary', how: 'count' })
  return roles
}

/** The position that is judged by its size. */
function measuredRole({ roles, table, wide }: ResolvedDrawing): string {
  // Of several columns the first one leads.
  if (wide) return `${wide.role} 0`
  const positions = ['y', 'x'].map(role => ({ role, meaning: roles.get(role) }))
  const measure =
    positions.find(({ meaning }) => meaning && isMeasure(meaning)) ??
    positions.find(
      ({ meaning }) => meaning?.is === 'column' && table.column(meaning.column)?.type === 'number',
    )
  return measure?.role ?? 'y'
}

function questionOf(drawing: ResolvedDrawing, tongue: Tongue, test: RowTest | undefined): Question {
  const { wide, where, kind } = drawing
  const question: Question = {
    roles: drawing.roles,
    where,
    path: partPath(drawing.path, 'where'),
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
