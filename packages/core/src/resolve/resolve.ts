import { type Description, type Drawing, type Elsewhere, settled } from '../describe/description.ts'
import type { Kind, Labels } from '../describe/model.ts'
import { DapploError } from '../finding/error.ts'
import { suggest } from '../finding/nearest.ts'
import { partPath } from '../finding/part-path.ts'
import type { Conditions } from '../table/group/where.ts'
import { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'
import { kindInstead, readPhrase } from '../table/phrase/phrase.ts'
import { needGrouping, needPositions } from './check-roles.ts'
import { checkTold } from './check-told.ts'
import { resolveHeading } from './heading-words.ts'
import { looksOf } from './looks.ts'
import type { Resolved, ResolvedDrawing } from './model.ts'
import { readRoles } from './roles.ts'
import type { unreadLooks } from './unread-looks.ts'

/** Finds looks that change nothing. */
export type AdvisesLooks = typeof unreadLooks

/** What a description's words refer to. */
interface Context {
  table: Table
  description: Description
  kinds: Readonly<Record<string, Kind>>
  tables: Readonly<Record<string, Table>>
}

/** A drawing as it is listed, with its kind and its table. */
interface Listed {
  drawing: Drawing<any>
  kind: Kind
  table: Table
  path: string
  /** Whether it inherits the chart's looks. */
  inherits: boolean
}

/** Settles what each drawing draws: kind, table, inherited roles, and the meaning of every phrase. */
export function resolve(
  table: Table,
  description: Description,
  kinds: Readonly<Record<string, Kind>>,
  tables: Readonly<Record<string, Table>>,
  labels?: Labels,
  advise?: AdvisesLooks,
): Resolved {
  const listed = listOf({ table, description, kinds, tables })
  const drawings = listed.map((listed, index) => resolveOne(listed, index, description))
  checkTold(description.tooltip, table)
  needLabels(drawings, description, labels)
  const { value: heading, findings } = resolveHeading({ ...description, ...stampOf(description) }, table)
  return {
    drawings,
    labels,
    description: settled(description),
    throughMeaning: readThrough(description, table),
    panes: readPanes(description, table),
    heading,
    findings: [...(advise?.(description, listed, kinds) ?? []), ...findings],
    tables: [...new Set(drawings.map(drawing => drawing.table))],
  }
}

/** What a stamp says; unless told otherwise, which period is shown. */
function stampOf({ stamp, through }: Description): { stampWords?: string; stampNote?: string } {
  if (stamp === false) return {}
  const told = typeof stamp === 'object' ? stamp : { words: stamp }
  return {
    stampWords: told.words ?? (typeof through === 'string' ? `{${through}}` : undefined),
    stampNote: 'note' in told ? told.note : undefined,
  }
}

function listOf(context: Context): Listed[] {
  const { draw } = context.description
  const list = Array.isArray(draw) ? draw : [draw]
  if (list.length === 0)
    throw new DapploError(
      'bad-description',
      'There is nothing to draw',
      'draw',
      'Name a kind, such as "line".',
    )
  return list.map((item, index) => {
    const path = Array.isArray(draw)
      ? `draw[${index}]`
      : typeof item === 'string' || 'draw' in item
        ? ''
        : 'draw'
    return listedOf(item, path, context)
  })
}

function listedOf(item: string | Kind | Drawing<any> | Elsewhere, path: string, context: Context): Listed {
  const elsewhere = typeof item === 'object' && 'drawing' in item ? item : undefined
  const drawing: Drawing<any> = elsewhere
    ? elsewhere.drawing
    : typeof item === 'object' && 'as' in item
      ? item
      : { as: item as Kind }
  const kind = kindOf(drawing.as, context.kinds, path ? `${path}.as` : 'draw')
  const table = elsewhere?.table instanceof Table ? elsewhere.table : tableOf(drawing, path, context)
  return { drawing, kind, table, path, inherits: table === context.table }
}

function tableOf({ table: name }: Drawing<any>, path: string, { table, tables }: Context): Table {
  if (name === undefined) return table
  const named = Object.hasOwn(tables, name) ? tables[name] : undefined
  if (named) return named
  throw new DapploError(
    'unknown-table',
    `There is no table "${name}"`,
    `${path}.table`,
    suggest(name, Object.keys(tables), 'Tables'),
  )
}

function resolveOne(listed: Listed, index: number, description: Description): ResolvedDrawing {
  const { drawing, kind, table, path, inherits } = listed
  const above = inherits && !kind.alone ? description : undefined
  const { roles, wide, label, labelled } = readRoles({ drawing, kind, above, table, path })
  needPositions(roles, kind, drawing, path, table)
  needGrouping(roles, kind, path, table)
  const { looks, options } = looksOf(drawing, inherits ? description : {}, kind)
  const wish: unknown = drawing.label === undefined && !kind.alone ? description.label : drawing.label
  return {
    index,
    path,
    kind,
    table,
    roles,
    wide,
    where: looks.where as Conditions | undefined,
    arrange: looks.arrange,
    between: looks.between ?? 'direct',
    points: looks.points === true,
    label,
    labelled,
    unlisted: drawing.listed === false,
    wordless: wish === false,
    level: drawing.level,
    top: looks.top === undefined ? undefined : { count: looks.top, rest: looks.rest },
    order: looks.order,
    style: { ...(inherits ? description.style : {}), ...drawing.style },
    name: drawing.name,
    against: drawing.against ?? 'y',
    options,
  }
}

/** Words at shapes need the part that places them. */
function needLabels(
  drawings: readonly ResolvedDrawing[],
  { notes }: Description,
  labels: Labels | undefined,
): void {
  const labelled = drawings.find(
    drawing => drawing.label !== undefined || (drawing.kind.labelled && !drawing.wordless),
  )
  if (labels || (!labelled && !notes?.length)) return
  const needs = !labelled
    ? '"notes"'
    : labelled.label === undefined
      ? `the kind "${labelled.kind.name}"`
      : '"label"'
  throw new DapploError(
    'missing-part',
    `The part "labels" is not here, and ${needs} needs it`,
    labelled ? partPath(labelled.path, 'label') : 'notes',
    'Import it from dapplo/small and make charts by chartMaker({}, { labels }), or import chart from dapplo.',
  )
}

function readThrough({ through }: Description, table: Table): Meaning | undefined {
  if (through === undefined || through === null) return undefined
  const meaning = readPhrase(through, table, 'through')
  if (!isMeasure(meaning) && meaning.is !== 'value') return meaning
  throw new DapploError(
    'bad-description',
    `${meaning.is === 'value' ? 'A single value' : 'A summary'} has no periods to play through`,
    'through',
    'Name a column or a bucket, such as "year of departed".',
  )
}

function readPanes({ panes }: Description, table: Table): Resolved['panes'] {
  if (panes === undefined) return undefined
  const told = typeof panes === 'object' ? panes : { by: panes }
  const path = typeof panes === 'object' ? 'panes.by' : 'panes'
  const by = readPhrase(told.by, table, path)
  if (isMeasure(by) || by.is === 'value')
    throw new DapploError(
      'bad-description',
      `${by.is === 'value' ? 'A single value' : 'A summary'} has no categories to split by`,
      path,
      'Name a column or a bucket, such as "route".',
    )
  return { by, columns: told.columns, share: [...(told.share ?? ['x', 'y'])] }
}

function kindOf(as: unknown, kinds: Readonly<Record<string, Kind>>, path: string): Kind {
  if (typeof as === 'object' && as !== null && typeof (as as Kind).draw === 'function') return as as Kind
  const name = String(as)
  if (Object.hasOwn(kinds, name)) return kinds[name]
  throw new DapploError(
    'unknown-kind',
    `There is no drawing kind "${name}"`,
    path,
    Object.keys(kinds).length > 0
      ? kindInstead(name, Object.keys(kinds))
      : 'This face of the library knows no kinds by name: pass the kind itself, as in draw: line.',
  )
}
