import type { Description, Drawing } from '../describe/description.ts'
import type { Kind } from '../describe/model.ts'
import { DapploError } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import type { Conditions } from '../table/group/where.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'
import type { ResolvedDrawing } from './model.ts'

/** What a drawing binds: its own, and what it inherits. */
export interface RoleSource {
  drawing: Drawing<any>
  kind: Kind
  /** Whose roles are inherited; undefined where none are. */
  above: Description | undefined
  table: Table
  path: string
}

/** Reads every phrase that a drawing is bound to. */
export function readRoles(
  source: RoleSource,
): Pick<ResolvedDrawing, 'roles' | 'wide' | 'label' | 'labelled'> {
  const { drawing, kind, above, table, path } = source
  const roles = new Map<string, Meaning>()
  let wide: ResolvedDrawing['wide']
  for (const role of [...Object.keys(kind.roles), 'link']) {
    const own = drawing[role as 'x'] as unknown
    const bound = own === undefined ? (above?.[role as 'x'] as unknown) : own
    if (bound === undefined || bound === null) continue
    const at = own === undefined ? role : partPath(path, role)
    if (Array.isArray(bound)) {
      if (kind.roles[role] !== 'position')
        throw new DapploError(
          'bad-description',
          `A list of columns cannot be bound to ${role}`,
          at,
          'Bind lists to x or y.',
        )
      if (bound.length === 0)
        throw new DapploError(
          'bad-description',
          'The list of columns is empty',
          at,
          'Name at least one column.',
        )
      wide = {
        role: role as 'x' | 'y',
        meanings: bound.map((phrase, i) => readPhrase(phrase, table, `${at}[${i}]`)),
      }
      roles.set(role, wide.meanings[0])
    } else if (isExtent(bound) && kind.roles[role]?.endsWith('position')) {
      roles.set(role, readPhrase(bound.from, table, `${at}.from`))
      roles.set(`${role} to`, readPhrase(bound.to, table, `${at}.to`))
    } else roles.set(role, readPhrase(bound, table, at))
  }
  if (kind.parts) partsOnly(roles)
  return { roles, wide, ...readLabel(source, roles) }
}

const isExtent = (bound: unknown): bound is { from: unknown; to: unknown } =>
  bound !== null && typeof bound === 'object' && Object.hasOwn(bound, 'from') && Object.hasOwn(bound, 'to')

/** Parts of a whole are told apart by colour and sized by the measure: a category position becomes their colour. */
function partsOnly(roles: Map<string, Meaning>): void {
  const [x, y] = [roles.get('x'), roles.get('y')]
  const measure = x && (!y || (isMeasure(x) && !isMeasure(y))) ? x : y
  const other = measure === x ? y : x
  roles.delete('x')
  roles.delete('y')
  if (!roles.has('color') && other) roles.set('color', other)
  roles.set('y', measure ?? { is: 'summary', how: 'count' })
}

/** Binds the values that a label shows to the roles `label 0`, `label 1` and so on. */
function readLabel(
  { drawing, above, table, path }: RoleSource,
  roles: Map<string, Meaning>,
): Pick<ResolvedDrawing, 'label' | 'labelled'> {
  const wish: unknown = drawing.label === undefined ? above?.label : drawing.label
  if (wish === undefined || wish === null || wish === false) return { label: undefined, labelled: undefined }
  if (wish === true) return { label: 'own', labelled: undefined }
  const at = drawing.label === undefined ? 'label' : partPath(path, 'label')
  const { words, top, where } = wish as { words?: unknown; top?: number; where?: Conditions }
  const some = typeof wish === 'object' && (top !== undefined || where !== undefined)
  const labelled = some ? checkSome({ top, where }, at) : undefined
  if (typeof words !== 'string') {
    if (some) return { label: 'own', labelled }
    roles.set('label 0', readPhrase(wish, table, at))
    return { label: { pieces: ['', ''] }, labelled }
  }
  const { pieces, holes } = readWords(words)
  holes.forEach((hole, i) => {
    roles.set(`label ${i}`, readPhrase(hole, table, `${at}.words`))
  })
  return { label: { pieces }, labelled }
}

function checkSome({ top, where }: NonNullable<ResolvedDrawing['labelled']>, at: string) {
  if (top === undefined || (Number.isInteger(top) && top > 0)) return { top, where }
  throw new DapploError(
    'bad-description',
    `${JSON.stringify(top)} is no number of shapes`,
    `${at}.top`,
    'Write a whole number above 0.',
  )
}
