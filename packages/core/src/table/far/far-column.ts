import { DapploError } from '../../finding/error.ts'
import { suggest } from '../../finding/nearest.ts'
import { type Cells, Dictionary } from '../cells/cells.ts'
import { TableColumn } from '../cells/column.ts'
import type { Extent } from '../cells/extent.ts'
import type { Column } from '../cells/options.ts'
import type { Reader } from '../cells/reader.ts'
import { zoneOf } from '../cells/zone.ts'
import type { TableOptions } from '../live/model.ts'
import { columnOption, commonZone } from '../read/common-columns.ts'
import type { FarColumnFacts, FarTableFacts } from './model.ts'

/** What is not known before it is asked. */
const UNKNOWN: Extent = {
  min: Number.POSITIVE_INFINITY,
  max: Number.NEGATIVE_INFINITY,
  sorted: false,
  missing: Number.NaN,
}

/** A column whose cells stay in an engine: it has a type, a zone and the words that were met, and no cells. */
export class FarColumn extends TableColumn {
  /** Its type in the engine's own words. */
  readonly given: string
  /** Whether its times are what clocks showed in its zone. */
  readonly clockTimes: boolean
  /** What it is read as, where that is something else than what it is stored as. */
  readonly as: 'number' | 'text' | undefined
  /** Set once it was asked for. */
  known: Extent | undefined

  constructor(
    facts: FarColumnFacts & { type: Cells['type'] },
    reader: Reader,
    options: Column | undefined,
    stored: Cells['type'] = facts.type,
  ) {
    const dictionary = facts.type === 'text' ? new Dictionary((options?.order ?? []).map(String)) : undefined
    const cells: Cells = dictionary
      ? { type: 'text', codes: new Int32Array(0), words: dictionary.words }
      : { type: facts.type as 'number' | 'time', values: new Float64Array(0) }
    super(facts.name, cells, reader, options, true, dictionary)
    this.given = facts.given
    this.clockTimes = facts.clockTimes === true
    this.as = stored === facts.type || facts.type === 'time' ? undefined : facts.type
  }

  override get extent(): Extent {
    return this.known ?? UNKNOWN
  }

  override get dateUnit(): 'day' | undefined {
    return this.reader.dateOnly ? 'day' : undefined
  }
}

/** The columns of a table, as they are told of and as its engine has them. */
export function columnsOf(
  { columns }: FarTableFacts,
  { columns: told = {}, timeZone }: TableOptions,
  title: string,
): Map<string, TableColumn> {
  const given: Record<string, Column | undefined> = Object.assign(Object.create(null), told)
  const known = new Set(columns.map(({ name }) => name))
  for (const name of Object.keys(told))
    if (!known.has(name))
      throw new DapploError(
        'unknown-column',
        `Column "${name}" is not in ${title}`,
        `columns.${name}`,
        suggest(name, [...known], 'Columns'),
      )
  const out = new Map<string, TableColumn>()
  for (const facts of columns) {
    if (!facts.type) continue
    const options = columnOption(facts.name, given[facts.name])
    const type = options?.type ?? facts.type
    if (type !== facts.type && (type === 'time' || facts.type === 'time'))
      throw new DapploError(
        'wrong-type',
        `Column "${facts.name}" of ${title} is ${facts.given} where its rows are, and cannot be read as ${type} here`,
        `columns.${facts.name}.type`,
        'Make a view that gives it in the type that you need.',
      )
    const zone = zoneOf(options?.timeZone ?? timeZone ?? commonZone(), `columns.${facts.name}.timeZone`)
    const reader: Reader = {
      type,
      numbers: undefined,
      dates: 'iso',
      dateOnly: facts.dateOnly === true,
      zone,
    }
    out.set(facts.name, new FarColumn({ ...facts, type }, reader, options, facts.type))
  }
  return out
}
