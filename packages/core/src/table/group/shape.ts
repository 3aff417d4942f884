import type { Finding } from '../../finding/error.ts'
import { type Cells, firstCells, pickCells, picked } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import { utc, type Zone } from '../cells/zone.ts'
import type { Table } from '../live/table.ts'
import { isMeasure, type Meaning, meaningKey, untopped } from '../phrase/meaning.ts'
import { agreedIn } from './agreed.ts'
import { bestRows, type Kept, keepBest, type Part, topOf } from './best.ts'
import { encode, valuesOfCodes } from './encode.ts'
import type { Encoded } from './encoded.ts'
import { fillBuckets } from './fill-buckets.ts'
import { type Groups, groupRows } from './group.ts'
import type { Follows } from './live-groups.ts'
import type { LiveRuns } from './live-runs.ts'
import { type Identity, joined, namesOf, wordIn } from './mark-keys.ts'
import { baseOf, measureOf } from './measure.ts'
import type { Within } from './where.ts'
import { isRunning } from './window.ts'

/** The values bound to one role, one per mark. */
export interface RoleValues {
  cells: Cells
  meaning: Meaning
  /** The table column the values come from; undefined for counts and constants. */
  column: TableColumn | undefined
  zone: Zone
  /** Where each value's interval ends, for time buckets and bins; `cells` then holds where it begins. */
  ends: Float64Array | undefined
  /** Whether `cells` and `ends` are an extent from one bound value to another. */
  spans?: boolean
  /** What an engine is asked for these values, where rows are elsewhere. */
  far?: unknown
  /** How far values reach of which these are the ones in view. */
  reach?: readonly [min: number, max: number]
  /** Of a running total: what each mark adds to it. */
  steps?: Float64Array
  /** Whether a missing value may mean that the rows of a group do not agree in one. */
  agreed?: boolean
  /** Whether only some of the values were kept, as by `top`: what lies between them is left out, not empty. */
  some?: boolean
}

/** How many rows lie at places, and how large those are: in the units of a scale, or in powers of ten on a logarithmic one. */
export interface Crowd {
  rows: Float64Array
  width: number
  height: number
  logs?: { x: boolean; y: boolean }
  /** How far the rows of each place spread along y: the sum of their squared distances from their middle. */
  spreads?: Float64Array
  /** The least and the greatest of all rows along y. */
  ends?: readonly [number, number]
}

/** What a drawing draws: marks, each standing for one row or for a group of rows. */
export interface Shaped {
  table: Table
  length: number
  grouped: boolean
  /** Why there are no marks, where the table has not answered. */
  unanswered?: 'on its way' | 'failed'
  /** Where marks are places at which several rows lie. */
  crowd?: Crowd
  /** What a person should know of the answer: what it left out, or gathered. */
  findings?: readonly Finding[]
  /** Roles that only tell something about groups: of how many groups the rows do not agree, so that they have no value. */
  disagreeing?: ReadonlyMap<string, number>
  /** Empty buckets that there would be too many of to show. */
  unfilled?: number
  roles: Map<string, RoleValues>
  /** The rows a mark stands for. */
  rowsOf(mark: number): ArrayLike<number>
  /** The marks in the order of a column, kept so while rows change, where they are all rows of the table. */
  runs?(along: TableColumn, values: TableColumn, by: TableColumn | undefined): LiveRuns | undefined
  /** What is remembered of the first marks, where they are all rows of the table, for as long as rows only come. */
  memory?: () => Map<string, unknown> | undefined
  /** The one row of a mark, where marks are rows. */
  rowOf?(mark: number): number
  /** What a mark is recognised by: its row's serial number or identity, or its group's values. */
  keyOf(mark: number): string | number
}

/** How rows are gathered. */
export interface ShapeOptions extends Kept {
  /** The role along which buckets without rows are filled and "so far" runs. */
  order?: string
  shareOf?: 'x' | 'whole'
  /** Keeps the groups up to date as rows change. */
  follow?: Follows
  /** Only rows that meet these conditions, in place of a list of them. */
  within?: Within
  /** What rows are known by in place of their serial numbers, where marks are rows. */
  identity?: Identity
}

/**
 * Turns rows into marks: one per row, or, when any role is a measure, one per combination of the other roles' values.
 */
export function shape(table: Table, roles: ReadonlyMap<string, Meaning>, options: ShapeOptions = {}): Shaped {
  const grouped = [...roles].some(([role, meaning]) => isMeasure(meaning) && !isTold(role))
  return grouped ? shapeGroups(table, roles, options) : shapeRows(table, roles, listed(options))
}

/** The options with the rows that meet their conditions. */
const listed = (options: ShapeOptions): ShapeOptions =>
  options.within ? { ...options, rows: options.within.rows() } : options

function columnOf(table: Table, meaning: Meaning): TableColumn | undefined {
  return 'column' in meaning && meaning.column !== undefined
    ? table.needColumn(meaning.column, '')
    : undefined
}

function shapeRows(table: Table, roles: ReadonlyMap<string, Meaning>, options: ShapeOptions): Shaped {
  const out = new Map<string, RoleValues>()
  const { kept, rows } = bestRows(table, roles, options)
  const length = rows?.length ?? table.length
  for (const [role, meaning] of roles) {
    if (meaning.is === 'value' || isMeasure(meaning)) continue
    const column = columnOf(table, meaning)!
    let cells = column.cells
    let ends: Float64Array | undefined
    if (meaning.is !== 'column' || kept.has(role)) {
      const encoded = kept.get(role) ?? encode(meaning, column)
      cells = encoded.cellsOf(encoded.codes)
      if (encoded.endOf) ends = endsOf(encoded, encoded.codes)
    }
    if (rows) {
      cells = pickCells(cells, rows)
      ends &&= picked(ends, rows, new Float64Array(length))
    }
    const some = kept.get(role)?.some
    out.set(role, { cells: firstCells(cells, length), meaning, column, zone: column.zone, ends, some })
  }
  if ([...roles.values()].some(isMeasure)) summarisedRows(table, roles, options, rows, out)
  const { follow } = options
  const rowOf = rows ? (mark: number) => rows[mark] : (mark: number) => mark
  return {
    table,
    length,
    grouped: false,
    roles: out,
    rowsOf: mark => [rowOf(mark)],
    rowOf,
    runs: follow && !rows ? (along, values, by) => follow.runs(table, along, values, by) : undefined,
    memory: follow && !rows ? () => follow.memory(table) : undefined,
    keyOf: options.identity
      ? namesOf(table, options.identity, out, rowOf, length)
      : mark => table.serialOf(rowOf(mark)),
  }
}

/** Words at marks that are rows may sum up as well: each row is then a group of its own. */
function summarisedRows(
  table: Table,
  roles: ReadonlyMap<string, Meaning>,
  options: ShapeOptions,
  rows: Int32Array | undefined,
  out: Map<string, RoleValues>,
): void {
  const parts = partsOf(table, roles)
  const encodings = parts.grouped.map(meaning => encode(meaning, columnOf(table, meaning)!))
  const codes = Int32Array.from({ length: table.length }, (_, row) => row)
  const each: Encoded = { codes, size: table.length, cellsOf: () => ({ type: 'text', codes, words: [] }) }
  const groups = groupRows([...encodings, each], table.length, rows)
  const shaped = shapeGathered(table, parts, options, { groups, encodings })
  for (const [role] of parts.measures) {
    const values = shaped.roles.get(role)!
    // Periods without rows come after all that have some.
    out.set(role, { ...values, cells: firstCells(values.cells, rows?.length ?? table.length) })
  }
}

const endsOf = (encoded: Encoded, codes: Int32Array) => valuesOfCodes(codes, code => encoded.endOf!(code))

/** The roles of a drawing by what they do: those that group, and those that sum up. */
export interface Parts {
  by: Part[]
  /** What is told of groups and never parts them: words at shapes, and where they lead to. */
  told: [string, Meaning][]
  /** What is grouped by, each once. */
  grouped: Meaning[]
  measures: [string, Meaning][]
  /** The place of a meaning among those. */
  placeOf(meaning: Meaning): number | undefined
}

/** Rows in groups, and what their codes stand for. */
export interface Gathered {
  groups: Groups
  encodings: Encoded[]
}

/** Tells roles that group from those that sum up. */
export function partsOf(table: Table, roles: ReadonlyMap<string, Meaning>): Parts {
  const by: Part[] = []
  const told: [string, Meaning][] = []
  const measures: [string, Meaning][] = []
  const grouped: Meaning[] = []
  const words = new Map<string, number>()
  /** By what they are without what is kept of them: `within` names them so. */
  const plainWords = new Map<string, number>()
  for (const [role, meaning] of roles) {
    if (meaning.is === 'value') continue
    if (isMeasure(meaning)) {
      measures.push([role, meaning])
      continue
    }
    if (isTold(role)) {
      told.push([role, meaning])
      continue
    }
    const name = meaningKey(meaning)
    const at = words.get(name) ?? grouped.push(meaning) - 1
    words.set(name, at)
    plainWords.set(meaningKey(untopped(meaning)), at)
    by.push({ role, meaning, column: columnOf(table, meaning)!, at })
  }
  const placeOf = (meaning: Meaning) => words.get(meaningKey(meaning)) ?? plainWords.get(meaningKey(meaning))
  return { by, told, grouped, measures, placeOf }
}

/** Whether a role only tells something about a shape. */
export const isTold = (role: string): boolean => role === 'link' || role.startsWith('label ')

function shapeGroups(table: Table, roles: ReadonlyMap<string, Meaning>, options: ShapeOptions): Shaped {
  const parts = partsOf(table, roles)
  return shapeGathered(table, parts, options, gathered(table, parts, options))
}

/** Marks from groups: buckets without rows, measures and what is worked out over groups. */
export function shapeGathered(
  table: Table,
  { by, told, measures, placeOf }: Parts,
  options: Pick<ShapeOptions, 'order' | 'shareOf'>,
  { groups, encodings }: Gathered,
  agreed: typeof agreedIn = agreedIn,
): Shaped {
  const order = by.find(part => part.role === options.order)
  const filled =
    order?.meaning.is === 'bucket' || order?.meaning.is === 'bins'
      ? fillBuckets(groups, encodings, order.at)
      : { codes: groups.codes, count: groups.count, unfilled: 0 }
  const out = new Map<string, RoleValues>()
  for (const { role, meaning, column, at } of by) {
    const codes = filled.codes[at]
    const encoded = encodings[at]
    out.set(role, {
      cells: encoded.cellsOf(codes),
      meaning,
      column,
      zone: column.zone,
      ends: encoded.endOf ? endsOf(encoded, codes) : undefined,
      some: encoded.some,
    })
  }
  const context = {
    table,
    groups,
    filled,
    encodings,
    encodingOf: placeOf,
    order: order?.at,
    shareOf: options.shareOf ?? 'x',
  }
  for (const [role, meaning] of measures) {
    const values = measureOf(meaning, table, groups, filled.count, context)
    const steps =
      meaning.is === 'window' && isRunning(meaning)
        ? measureOf(baseOf(meaning), table, groups, filled.count, context)
        : undefined
    const column = columnOf(table, meaning)
    const isTime =
      meaning.is === 'summary' &&
      column?.type === 'time' &&
      meaning.how !== 'distinct' &&
      meaning.how !== 'count'
    out.set(role, {
      cells: { type: isTime ? 'time' : 'number', values },
      meaning,
      column,
      zone: column?.zone ?? utc,
      ends: undefined,
      steps,
    })
  }
  const disagreeing = new Map<string, number>()
  for (const [role, meaning] of told) {
    const at = placeOf(meaning)
    const shared = at === undefined ? undefined : by.find(part => part.at === at)
    if (shared) {
      out.set(role, out.get(shared.role)!)
      continue
    }
    const column = columnOf(table, meaning)!
    const { cells, ends, several } = agreed(meaning, column, groups, filled.count)
    out.set(role, { cells, meaning, column, zone: column.zone, ends, agreed: true })
    if (several > 0) disagreeing.set(role, several)
  }
  const keys = by.map(part => wordIn(out.get(part.role)!.cells))
  return {
    table,
    length: filled.count,
    unfilled: filled.unfilled,
    grouped: true,
    disagreeing,
    roles: out,
    rowsOf: group => groups.rowsOf(group),
    keyOf: group => joined(keys, group),
  }
}

/** All rows, or those that are kept, in groups; groups of all rows follow them from then on. */
function gathered(table: Table, { by, grouped, measures }: Parts, options: ShapeOptions): Gathered {
  const { follow, within } = options
  const measure = measures[0]?.[1]
  if (follow && options.rows === undefined) {
    if (by.some(({ role, meaning }) => topOf(role, meaning, options) !== undefined)) {
      const best = follow.best(table, { by, grouped, measure, followGroups: follow.groups, within }, options)
      if (best) return best
    } else {
      const live = follow.groups(table, grouped, within)
      if (live) return { groups: live.now(), encodings: live.encodings }
    }
  }
  const encodings = grouped.map(meaning => encode(meaning, columnOf(table, meaning)!))
  const rows = keepBest(table, by, measure, encodings, listed(options))
  return { groups: groupRows(encodings, table.length, rows), encodings }
}
