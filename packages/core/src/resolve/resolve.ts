import {
  type Description,
  type Drawing,
  type Elsewhere,
  type Order,
  type Settled,
  settled,
} from '../describe/description.ts'
import type { Arrange, Between, Fit, Kind, Labels, MarkStyle } from '../describe/kind.ts'
import { DapploError, type Finding } from '../finding/error.ts'
import { suggest } from '../finding/nearest.ts'
import type { Conditions } from '../table/group/where.ts'
import { Table } from '../table/live/table.ts'
import { isMeasure, type Meaning } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { readWords } from '../words/holes.ts'
import { needGrouping, needPositions } from './check-roles.ts'
import { checkTold } from './check-told.ts'
import { type ResolvedHeading, resolveHeading } from './heading-words.ts'

/** One drawing, with what it inherits and what its phrases mean. */
export interface ResolvedDrawing {
  index: number
  /** Where it stands in the description, for messages. */
  path: string
  kind: Kind
  table: Table
  roles: Map<string, Meaning>
  /** For positions bound to several columns of a wide table: the meanings, one series each. */
  wide: { role: 'x' | 'y'; meanings: Meaning[] } | undefined
  where: Conditions | undefined
  arrange: Arrange | undefined
  between: Between
  points: boolean
  hole: number
  fit: Fit
  /** Confidence of the band around a trend; 0 for none. */
  band: number
  /** Words at each shape: the texts between the values of the roles `label 0`, `label 1` and so on; `own`: the value that the shape shows. */
  label: { pieces: readonly string[] } | 'own' | undefined
  /** Whether labels are unwanted, also those that a kind has of its own. */
  wordless: boolean
  /** The level of the other drawings' values at which a reference stands. */
  level: Level | undefined
  /** How many categories are kept, and what gathers the others. */
  top: { count: number; rest: boolean | string | undefined } | undefined
  /** How categories are ordered, where their scale does not say. */
  order: Order | undefined
  style: MarkStyle
  name: string | undefined
  /** The scale that measures it vertically. */
  against: string
  options: object
}

export type Level = 'mean' | 'median' | 'min' | 'max'

export interface Resolved {
  /** What places words at shapes; undefined where there are none to place. */
  labels: Labels | undefined
  drawings: ResolvedDrawing[]
  description: Settled
  /** What the chart is played through, where it is. */
  throughMeaning: Meaning | undefined
  /** The words around the chart, understood. */
  heading: ResolvedHeading[]
  /** What is amiss with them. */
  findings: Finding[]
  /** Every table that is drawn. */
  tables: Table[]
}

const LOOKS = [
  'where',
  'arrange',
  'top',
  'rest',
  'order',
  'between',
  'points',
  'hole',
  'fit',
  'band',
] as const

/** Settles what each drawing draws: kind, table, inherited roles, and the meaning of every phrase. */
export function resolve(
  table: Table,
  description: Description,
  kinds: Readonly<Record<string, Kind>>,
  tables: Readonly<Record<string, Table>>,
  labels?: Labels,
): Resolved {
  const list = Array.isArray(description.draw) ? description.draw : [description.draw]
  if (list.length === 0)
    throw new DapploError(
      'bad-description',
      'There is nothing to draw',
      'draw',
      'Name a kind, such as "line".',
    )
  const drawings = list.map((item, index) => {
    const path = Array.isArray(description.draw)
      ? `draw[${index}]`
      : typeof item === 'string' || 'draw' in (item as object)
        ? ''
        : 'draw'
    return resolveOne(item, index, path, table, description, kinds, tables)
  })
  checkTold(description.tooltip, table)
  const labelled = drawings.find(one => one.label !== undefined || (one.kind.labelled && !one.wordless))
  if (labelled && !labels) {
    const needs = labelled.label === undefined ? `the kind "${labelled.kind.name}"` : '"label"'
    throw new DapploError(
      'missing-part',
      `The part "labels" is not here, and ${needs} needs it`,
      labelled.path ? `${labelled.path}.label` : 'label',
      'Import it from dapplo/small and make charts by chartMaker({}, { labels }), or import chart from dapplo.',
    )
  }
  const through = description.through
  const throughMeaning =
    through === undefined || through === null ? undefined : readPhrase(through, table, 'through')
  if (throughMeaning && (isMeasure(throughMeaning) || throughMeaning.is === 'value'))
    throw new DapploError(
      'bad-description',
      `${throughMeaning.is === 'value' ? 'A single value' : 'A summary'} has no periods to play through`,
      'through',
      'Name a column or a bucket, such as "year of departed".',
    )
  // Unless told otherwise, the period says which one it is.
  const period = description.period ?? (typeof through === 'string' ? `{${through}}` : undefined)
  const { value: heading, findings } = resolveHeading({ ...description, period }, table)
  return {
    drawings,
    labels,
    description: settled(description),
    throughMeaning,
    heading,
    findings,
    tables: [...new Set(drawings.map(drawing => drawing.table))],
  }
}

type Item = string | Kind | Drawing<any> | Elsewhere

function resolveOne(
  item: Item,
  index: number,
  path: string,
  ownTable: Table,
  description: Description,
  kinds: Readonly<Record<string, Kind>>,
  tables: Readonly<Record<string, Table>>,
): ResolvedDrawing {
  const elsewhere = typeof item === 'object' && 'drawing' in item ? item : undefined
  const drawing: Drawing<any> = elsewhere
    ? elsewhere.drawing
    : typeof item === 'object' && 'as' in item
      ? item
      : { as: item as Kind }
  const kind = kindOf(drawing.as, kinds, path ? `${path}.as` : 'draw')
  let table = ownTable
  if (elsewhere?.table instanceof Table) table = elsewhere.table
  else if (drawing.table !== undefined) {
    const named = Object.hasOwn(tables, drawing.table) ? tables[drawing.table] : undefined
    if (!named)
      throw new DapploError(
        'unknown-table',
        `There is no table "${drawing.table}"`,
        `${path}.table`,
        suggest(drawing.table, Object.keys(tables), 'Tables'),
      )
    table = named
  }
  const foreign = table !== ownTable
  const roles = new Map<string, Meaning>()
  let wide: ResolvedDrawing['wide']
  for (const role of [...Object.keys(kind.roles), 'link']) {
    const own = drawing[role as 'x'] as unknown
    const inherited = foreign || kind.alone ? undefined : (description[role as 'x'] as unknown)
    const bound = own === undefined ? inherited : own
    if (bound === undefined || bound === null) continue
    const at = own === undefined ? role : path ? `${path}.${role}` : role
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
  const label = readLabel(drawing, foreign || kind.alone ? undefined : description.label, roles, table, path)
  needPositions(roles, kind, drawing, path, table)
  needGrouping(roles, kind, path, table)
  const looks = {
    ...Object.fromEntries(LOOKS.map(look => [look, foreign ? undefined : description[look]])),
    ...pick(drawing),
  }
  return {
    index,
    path,
    kind,
    table,
    roles,
    wide,
    where: looks.where as Conditions | undefined,
    arrange: looks.arrange as Arrange | undefined,
    between: (looks.between as Between | undefined) ?? 'direct',
    points: looks.points === true,
    hole: (looks.hole as number | undefined) ?? 0,
    fit: (looks.fit as Fit | undefined) ?? 'linear',
    band: looks.band === true ? 0.95 : typeof looks.band === 'number' ? looks.band : 0,
    label,
    wordless: (drawing.label === undefined && !kind.alone ? description.label : drawing.label) === false,
    level: drawing.level,
    top:
      looks.top === undefined
        ? undefined
        : { count: looks.top as number, rest: looks.rest as boolean | string | undefined },
    order: looks.order as Order | undefined,
    style: { ...(foreign ? {} : description.style), ...drawing.style },
    name: drawing.name,
    against: drawing.against ?? 'y',
    options: drawing.options ?? {},
  }
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
  drawing: Drawing<any>,
  inherited: unknown,
  roles: Map<string, Meaning>,
  table: Table,
  path: string,
): ResolvedDrawing['label'] {
  const wish = drawing.label === undefined ? inherited : drawing.label
  if (wish === undefined || wish === null || wish === false) return undefined
  if (wish === true) return 'own'
  const at = drawing.label === undefined ? 'label' : path ? `${path}.label` : 'label'
  const words = (wish as { words?: unknown }).words
  if (typeof words !== 'string') {
    roles.set('label 0', readPhrase(wish, table, at))
    return { pieces: ['', ''] }
  }
  const { pieces, holes } = readWords(words)
  holes.forEach((hole, i) => {
    roles.set(`label ${i}`, readPhrase(hole, table, `${at}.words`))
  })
  return { pieces }
}

function pick(drawing: Drawing<any>): Record<string, unknown> {
  return Object.fromEntries(
    LOOKS.filter(look => drawing[look] !== undefined).map(look => [look, drawing[look]]),
  )
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
      ? suggest(name, Object.keys(kinds), 'Kinds')
      : 'This face of the library knows no kinds by name: pass the kind itself, as in draw: line.',
  )
}

/** How several series stand at one place: as told, else as the kind does. */
export const arrangeOf = ({ arrange, kind }: ResolvedDrawing): Arrange => arrange ?? kind.arrange ?? 'side'
