import { DapploError } from '../../finding/error.ts'
import type { Extent } from '../cells/extent.ts'
import { utc } from '../cells/zone.ts'
import { SAMPLE } from '../group/bins.ts'
import { FarColumn } from './far-column.ts'
import type { FarTable } from './far-table.ts'
import type { FarAnswer, FarOffsets, FarQuestion, FarTimes, FarValue } from './model.ts'
import { clockOffsets } from './offsets.ts'

/** Texts with more different values are named as they are met. */
const MOST_WORDS = 20_000

/** Asks the engine, once for equal questions. */
export type FarAsk = (question: FarQuestion) => Promise<FarAnswer>

/** What has to be known of whole columns before questions about them can be put: asked when it is needed, and once. */
export class FarFacts {
  private readonly table: FarTable
  private readonly ask: FarAsk
  private readonly extents = new Map<string, Promise<Extent>>()
  private readonly samples = new Map<string, Promise<Float64Array>>()
  private readonly clocks = new Map<string, Promise<FarOffsets>>()
  private readonly words = new Map<string, Promise<void>>()

  constructor(table: FarTable, ask: FarAsk) {
    this.table = table
    this.ask = ask
  }

  get rows(): number {
    return this.table.length
  }

  column(name: string): FarColumn {
    const column = this.table.needColumn(name, '')
    if (column instanceof FarColumn) return column
    throw new DapploError('bad-rows', `${this.table.title} has its rows here`)
  }

  /** A column as an engine reads it. */
  async times(name: string): Promise<FarTimes> {
    const column = this.column(name)
    const own: FarTimes = column.as === undefined ? { column: name } : { column: name, as: column.as }
    if (!column.clockTimes || column.zone === utc) return own
    const clock = await once(this.clocks, name, async () => {
      const { min, max } = await this.ends({ is: 'column', column: name })
      return min <= max ? clockOffsets(column.zone, min, max) : { first: 0, changes: [] }
    })
    return { column: name, clock }
  }

  async value(name: string): Promise<FarValue> {
    return { is: 'column', ...(await this.times(name)) }
  }

  /** Least and greatest value of a column, and how many are missing. */
  extent(name: string): Promise<Extent> {
    return once(this.extents, name, async () => {
      const extent = await this.ends(await this.value(name))
      this.column(name).known = extent
      return extent
    })
  }

  private async ends(of: FarValue): Promise<Extent> {
    const { columns } = await this.ask({
      ask: 'groups',
      table: this.table.farName,
      by: [],
      measures: [{ how: 'min', of }, { how: 'max', of }, { how: 'present', of }, { how: 'count' }],
      most: 1,
    })
    const [min, max, present, count] = columns.map(values => Number(values[0]))
    return present > 0
      ? { min, max, sorted: false, missing: count - present }
      : { min: Number.POSITIVE_INFINITY, max: Number.NEGATIVE_INFINITY, sorted: false, missing: count }
  }

  /** Values of a column in rising order: all of few rows, else every so manieth. */
  sample(name: string): Promise<Float64Array> {
    return once(this.samples, name, async () => {
      const rows = this.table.length
      const { columns } = await this.ask({
        ask: 'rows',
        table: this.table.farName,
        values: [await this.value(name)],
        most: SAMPLE + 1,
        ...(rows > SAMPLE ? { every: Math.ceil(rows / SAMPLE) } : {}),
      })
      return Float64Array.from(columns[0] as Float64Array)
        .filter(value => value === value)
        .sort()
    })
  }

  /** Puts the words of a text column into its dictionary, in order of first appearance, or by name where rows have no order. */
  async name(name: string): Promise<void> {
    await once(this.words, name, async () => {
      const { dictionary } = this.column(name)
      const { ordered, farName } = this.table
      try {
        const { columns } = await this.ask({
          ask: 'groups',
          table: farName,
          by: [await this.value(name)],
          measures: ordered ? [{ how: 'min', of: { is: 'place' } }] : [],
          most: MOST_WORDS,
        })
        const words = columns[0] as (string | null)[]
        const places = columns[1] as Float64Array | undefined
        const order = [...words.keys()].filter(i => words[i] !== null)
        order.sort(
          places
            ? (a, b) => places[a] - places[b]
            : (a, b) => (words[a]! < words[b]! ? -1 : words[a]! > words[b]! ? 1 : 0),
        )
        for (const i of order) dictionary?.code(words[i]!)
      } catch (error) {
        if (!(error instanceof DapploError && error.code === 'too-many-groups')) throw error
      }
    })
  }

  forget(): void {
    this.extents.clear()
    this.samples.clear()
    this.words.clear()
    this.clocks.clear()
  }
}

/** What failed may be tried again. */
function once<T>(known: Map<string, Promise<T>>, name: string, find: () => Promise<T>): Promise<T> {
  let found = known.get(name)
  if (!found) {
    found = find()
    known.set(name, found)
    found.catch(() => known.delete(name))
  }
  return found
}
