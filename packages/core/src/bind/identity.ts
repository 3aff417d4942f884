import type { ResolvedDrawing } from '../resolve/model.ts'
import type { Identity } from '../table/group/mark-keys.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'

/**
 * By what the rows of a chart that is played are known again from period to period, since each period has rows of its
 * own: the rest of the table's key, where the key names the period too; else what the drawing tells its shapes apart by,
 * which is texts, times and the position along which its shapes stand.
 */
export function identityOf(
  { roles, table, kind, wide }: ResolvedDrawing,
  through: Meaning | undefined,
): Identity | undefined {
  const played = through && columnOf(through)
  if (played === undefined || [...roles.values()].some(isMeasure)) return undefined
  const columns = table.key.filter(column => column !== played)
  if (columns.length > 0 && columns.length < table.key.length) return { columns }
  const isNumber = (role: string) => typeOf(roles.get(role), table) === 'number'
  const known = [...roles.keys()].filter(role => {
    const meaning = roles.get(role)!
    if (columnOf(meaning) === undefined || columnOf(meaning) === played || role === wide?.role) return false
    return role === 'x' && isNumber(role)
      ? !kind.scattered && (isNumber('y') || wide?.role === 'y')
      : !isNumber(role)
  })
  return known.length > 0 ? { roles: known } : undefined
}

const columnOf = (meaning: Meaning): string | undefined => ('column' in meaning ? meaning.column : undefined)

const typeOf = (meaning: Meaning | undefined, table: ResolvedDrawing['table']): string | undefined => {
  if (!meaning || meaning.is === 'bins' || meaning.is === 'bucket' || meaning.is === 'cycle')
    return meaning && 'groups'
  const column = columnOf(meaning)
  return column === undefined ? undefined : table.column(column)?.type
}
