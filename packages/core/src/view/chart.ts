import type { Advises } from '../bind/regret/regrets.ts'
import type { Description, Drawing, Elsewhere } from '../describe/description.ts'
import type { Frame } from '../describe/frame.ts'
import type { Loose, LooseOne, Wanted } from '../describe/meant.ts'
import type { Kind, Labels } from '../describe/model.ts'
import { checkTree, isPlainObject } from '../finding/check-tree.ts'
import { DapploError, type Finding } from '../finding/error.ts'
import { partPath } from '../finding/part-path.ts'
import type { wordsLeftOut } from '../pane/left-out.ts'
import type { Resolved } from '../resolve/model.ts'
import { type AdvisesLooks, resolve } from '../resolve/resolve.ts'
import type { Follows } from '../table/group/live-groups.ts'
import { Table } from '../table/live/table.ts'
import type { House } from '../theme/house.ts'
import type { Theme } from '../theme/theme.ts'

/** What splits charts into panes; the view knows what it can do. */
export interface Panes {
  readonly part: 'panes'
}

/** What charts can do beside drawing their kinds. */
export interface ChartParts {
  /** Checks a description and what its tables are told, before phrases are read; throws when something is amiss. */
  check?: (description: Description, tables: readonly Table[]) => void
  /** Checks what an application gives all charts: its house style, and a theme of its own. */
  checkHouse?: (house: House | undefined, theme: Theme | undefined) => void
  /** Looks for what a person would regret although a chart can be drawn, beyond what each step finds itself. */
  advise?: {
    looks: AdvisesLooks
    picture: Advises
    words: typeof wordsLeftOut
    frame(frame: Frame, tables: readonly Table[]): Finding[]
  }
  /** Splits a chart into panes, where a description has `panes`. */
  panes?: Panes
  /** Keeps groups up to date as single rows change. */
  following?: Follows
  /** Places words at shapes, where a description has `label`. */
  labels?: Labels
}

/** An immutable, checked description with its tables. Show it with mount, compose or toSvg. */
export class Chart<R = any> {
  readonly table: Table<R>
  readonly description: Description<R>
  /** The kinds that names in the description stand for. */
  readonly kinds: Readonly<Record<string, Kind>>
  /** Other tables, by the names that drawings call them by. */
  readonly tables: Readonly<Record<string, Table>>
  readonly parts: ChartParts
  /** Roles, phrases and kinds, understood. */
  readonly resolved: Resolved

  constructor(
    table: Table<R>,
    description: Description<R>,
    kinds: Readonly<Record<string, Kind>>,
    tables: Readonly<Record<string, Table>> = {},
    parts: ChartParts = {},
  ) {
    if (!(table instanceof Table)) {
      throw new DapploError(
        'bad-rows',
        'A chart needs a table',
        'table',
        'Make one with table(rows) or readCsv(text).',
      )
    }
    if (description === null || typeof description !== 'object')
      throw new DapploError(
        'bad-description',
        'A chart needs a description',
        '',
        'Say what to draw, as in { draw: "line", x: "departed", y: "passengers" }.',
      )
    checkTree(description)
    parts.check?.(description, [table, ...Object.values(tables)])
    this.table = table
    this.kinds = kinds
    this.tables = tables
    this.parts = parts
    this.description = Object.freeze({ ...description })
    if (description.panes !== undefined && !parts.panes)
      throw new DapploError(
        'missing-part',
        'The part "panes" is not here, and "panes" needs it',
        'panes',
        'Import it from dapplo/small and make charts by chartMaker({}, { panes }), or import chart from dapplo.',
      )
    this.resolved = resolve(table, this.description, kinds, tables, parts.labels, parts.advise?.looks)
  }

  /** The same chart with some of its description changed: objects are merged, lists replaced, null removes. */
  with(changes: DeepPartial<Description<R>>): Chart<R> {
    return this.describedAs(merge(this.description, changes) as Description<R>)
  }

  /** The same tables, kinds and parts with another description. */
  describedAs(description: Description<R>): Chart<R> {
    return new Chart(this.table, description, this.kinds, this.tables, this.parts)
  }

  /** The description as JSON data. Throws `not-json` naming the path when it holds a function. */
  toJSON(): unknown {
    const { draw } = this.description
    const list = Array.isArray(draw) ? draw.map(item => this.named(item)) : this.named(draw)
    return plain({ ...this.description, draw: list }, '')
  }

  /** A drawing over another table, as files have it: with the name of the table, where no other table has it. */
  private named(item: unknown): unknown {
    if (item === null || typeof item !== 'object' || !('drawing' in item)) return item
    const { table, drawing } = item as Elsewhere
    if (!(table instanceof Table)) return item
    const names = [this.table, ...this.resolved.tables].filter((own, i, all) => all.indexOf(own) === i)
    if (names.filter(({ name }) => name === table.name).length !== 1) return item
    return { ...(drawing as object), table: table.name }
  }
}

type DeepPartial<T> = T extends (...args: any) => any
  ? T
  : T extends readonly unknown[]
    ? T
    : T extends object
      ? { [K in keyof T]?: DeepPartial<T[K]> | null }
      : T

/** Objects whose parts belong together and are replaced as one. */
const isPlain = (value: unknown): value is Record<string, unknown> =>
  isPlainObject(value) && typeof value.draw !== 'function'

/** A binding names a value as a whole: `{ sum: … }` does not merge with `{ mean: … }`. */
const WHOLE = new Set([
  'x',
  'y',
  'color',
  'series',
  'size',
  'shape',
  'dash',
  'label',
  'link',
  'image',
  'through',
  'where',
])

function merge(base: unknown, change: unknown, key = '', parent = ''): unknown {
  const bound = WHOLE.has(key) && (parent === '' || parent === 'draw')
  if (!isPlain(base) || !isPlain(change) || bound) return change
  const out: Record<string, unknown> = { ...base }
  for (const name of Object.keys(change)) {
    if (change[name] === undefined) continue
    // At the top a null role means "drop it"; everywhere null takes the option away.
    if (change[name] === null) delete out[name]
    else if (Object.hasOwn(out, name)) out[name] = merge(out[name], change[name], name, key)
    else define(out, name, change[name])
  }
  return out
}

/** Plain assignment to a name such as `__proto__` would change the object's nature. */
function define(target: Record<string, unknown>, name: string, value: unknown): void {
  Object.defineProperty(target, name, { value, enumerable: true, configurable: true, writable: true })
}

function plain(value: unknown, path: string): unknown {
  if (typeof value === 'function')
    throw new DapploError(
      'not-json',
      'A function cannot be written as JSON',
      path,
      'Use Intl options for formats, words with {phrases} for texts, and built-in kinds.',
    )
  if (value instanceof Date) return value.toISOString()
  if (value instanceof Table)
    throw new DapploError(
      'not-json',
      'A table cannot be written as part of a description',
      path,
      'Write it under "tables" and refer to it by its name.',
    )
  if (Array.isArray(value)) return value.map((item, i) => plain(item, `${path}[${i}]`))
  if (value === null || typeof value !== 'object') return value
  const out: Record<string, unknown> = {}
  for (const [name, item] of Object.entries(value))
    if (item !== undefined) define(out, name, plain(item, partPath(path, name)))
  return out
}

/** A drawing over another table, inside a chart's `draw` list: it inherits scales, but no roles. */
export function on<R, D extends LooseOne<R> = Drawing<R>>(
  table: Table<R>,
  drawing: Wanted<R, D, Drawing<R>>,
): Elsewhere {
  return { table, drawing: drawing as Drawing<R> }
}

/** Makes a `chart` function: the kinds that it knows by name, and its parts, are all that a bundle needs to hold. */
export function chartMaker(kinds: Readonly<Record<string, Kind>>, parts: ChartParts = {}) {
  return function chart<R, D extends Loose<R> = Description<R>>(
    table: Table<R>,
    description: Wanted<R, D, Description<R>>,
    tables?: Readonly<Record<string, Table>>,
  ): Chart<R> {
    return new Chart<R>(table, description as Description<R>, kinds, tables, parts)
  }
}
