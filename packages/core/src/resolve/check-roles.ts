import type { Drawing } from '../describe/description.ts'
import type { Kind } from '../describe/model.ts'
import { DapploError } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import { isTold } from '../table/group/shape.ts'
import type { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'

/** Checks that a drawing has the positions that its kind needs. Throws `missing-role` and `bad-option`. */
export function needPositions(
  roles: Map<string, Meaning>,
  kind: Kind,
  drawing: Drawing<any>,
  path: string,
  table: Table,
): void {
  const free = Object.values(kind.roles).every(use => use !== 'position')
  if (drawing.level !== undefined && (!free || kind.parts))
    throw new DapploError(
      'bad-option',
      `A ${kind.name} does not stand at a level`,
      partPath(path, 'level'),
      'Draw a reference, as in { as: "reference", level: "mean" }.',
    )
  if (free && !kind.parts && drawing.level === undefined && !roles.has('x') && !roles.has('y'))
    throw new DapploError(
      'missing-role',
      `A ${kind.name} needs x, y or a level`,
      partPath(path, 'y'),
      'Bind one, as in y: { value: 100 }, or say level: "mean".',
    )
  for (const role of ['x', 'y'] as const) {
    if (kind.roles[role] !== 'position' || roles.has(role)) continue
    const example = role === 'y' ? 'count' : (table.names[0] ?? 'departed')
    throw new DapploError(
      'missing-role',
      `A ${kind.name} needs ${role}`,
      partPath(path, role),
      `Bind it to a phrase, such as ${role}: "${example}".`,
    )
  }
}

/** Where roles are summed up, a plain number elsewhere would split the sums to dust. Throws `not-grouped`. */
export function needGrouping(roles: Map<string, Meaning>, kind: Kind, path: string, table: Table): void {
  if (![...roles].some(([role, meaning]) => isMeasure(meaning) && !isTold(role))) return
  for (const [role, meaning] of roles) {
    if (
      meaning.is !== 'column' ||
      kind.roles[role] === 'position' ||
      table.column(meaning.column)?.type === 'text'
    )
      continue
    throw new DapploError(
      'not-grouped',
      `"${meaning.column}" is a plain ${table.column(meaning.column)?.type} beside a summary`,
      partPath(path, role),
      `Sum it up: "sum of ${meaning.column}".`,
    )
  }
}
