import type { Question } from '../group/question.ts'
import type { Shaped } from '../group/shape.ts'
import { together } from './conditions.ts'
import type { FarContext } from './groups.ts'
import type { FarTest, FarValue } from './model.ts'

/** The ends of both positions. */
export interface Ends {
  x: [number, number]
  y: [number, number]
}

/** The rows that a drawing may show, and where they lie. */
export interface Lie {
  /** How many there are, also of those that lack a position. */
  rows: number
  x: FarValue
  y: FarValue
  /** How far each position reaches, also in rows that lack the other: not less than what is drawn, and seldom more. */
  ends: Ends
}

/**
 * Asks how many rows there are, and how far they may reach. Of whole columns most engines know that without looking at rows;
 * how far those reach that have both positions is told by what gathers them.
 */
export async function lieOf(
  { table, facts, ask }: FarContext,
  xName: string,
  yName: string,
  where: FarTest | undefined,
): Promise<Lie> {
  const [x, y] = await Promise.all([facts.value(xName), facts.value(yName)])
  const { columns } = await ask({
    ask: 'groups',
    table: table.farName,
    where,
    by: [],
    measures: [
      { how: 'min', of: x },
      { how: 'max', of: x },
      { how: 'min', of: y },
      { how: 'max', of: y },
      ...(where ? [{ how: 'count' } as const] : []),
    ],
    most: 1,
  })
  const [fromX, untilX, fromY, untilY, rows = table.length] = columns.map(values => Number(values[0]))
  // Where a column has no value at all, any cells will do.
  const known = (ends: [number, number]): [number, number] => (ends.every(Number.isFinite) ? ends : [0, 0])
  return { rows, x, y, ends: { x: known([fromX, untilX]), y: known([fromY, untilY]) } }
}

/** Ends of rows that have both positions, where a logarithmic scale has a place for them: above zero, if any are. */
export async function endsOnLogs(
  { table, ask }: FarContext,
  { logs }: Question,
  { x, y }: Lie,
  where: FarTest | undefined,
  ends: Ends,
): Promise<Ends> {
  const placed = async (
    value: FarValue,
    [min, max]: [number, number],
    log = false,
  ): Promise<[number, number]> => {
    if (!log || min > 0 || !(max > 0)) return [min, max]
    const { columns } = await ask({
      ask: 'groups',
      table: table.farName,
      where: together([where, { is: 'not', test: { is: 'between', value, last: 0 } }, has(x), has(y)]),
      by: [],
      measures: [{ how: 'min', of: value }],
      most: 1,
    })
    const least = Number(columns[0][0])
    return [Number.isNaN(least) ? min : least, max]
  }
  const [across, up] = await Promise.all([placed(x, ends.x, logs?.x), placed(y, ends.y, logs?.y)])
  return { x: across, y: up }
}

/** The test of rows that have a value. */
export const has = (value: FarValue): FarTest => ({ is: 'not', test: { is: 'missing', value } })

/** The least and greatest of values; of none, from infinity down. */
export function endsOf(values: Iterable<number>): [number, number] {
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const value of values) {
    if (value < min) min = value
    if (value > max) max = value
  }
  return [min, max]
}

/** Means of what lies in cells between two ends: by rounding they may come out beyond them. */
export const meansWithin = (
  means: Float64Array,
  cells: Float64Array,
  [min, max]: readonly [number, number],
): Float64Array =>
  means.map((mean, i) => (Number.isNaN(cells[i]) ? mean : Math.min(Math.max(mean, min), max)))

/** How wide an extent is; `log10`: in powers of ten. */
export const widthOf = ([min, max]: readonly [number, number], log10 = false): number =>
  log10 ? Math.log10(max / min) : max - min

/**
 * Whether cells over some ends are about as fine as cells over those that were found within them would be. They are not where
 * rows that lack a position reach much farther than the others.
 */
export const asFine = (
  asked: readonly [number, number],
  found: readonly [number, number],
  log10 = false,
): boolean => found[0] > found[1] || widthOf(found, log10) >= widthOf(asked, log10) * 0.75

/** What of an extent is in view; undefined where that is all of it, or nothing. */
export function inView(
  [min, max]: [number, number],
  view: readonly [number, number] | undefined,
): [number, number] | undefined {
  if (!view) return undefined
  const [from, until] = [Math.max(min, Math.min(...view)), Math.min(max, Math.max(...view))]
  return from < until && (from > min || until < max) ? [from, until] : undefined
}

/** The rows with values between two others, both included. */
export const betweenEnds = (value: FarValue, [from, last]: readonly [number, number]): FarTest => ({
  is: 'between',
  value,
  from,
  last,
})

/** What gathers an extent into so many cells; `log10`: of one width on a logarithmic scale. */
export function cellsOver(
  value: FarValue,
  ends: readonly [number, number],
  count: number,
  log10 = false,
): FarValue {
  if (value.is !== 'column') return value
  const [min, max] = log10 ? ends.map(Math.log10) : ends
  // The very last value is in the last of them.
  const perUnit = max > min ? (count * (1 - 1e-12)) / (max - min) : 1
  const { column, clock, as } = value
  return { is: 'cell', column, clock, as, from: min, perUnit, ...(log10 ? { log10 } : {}) }
}

/** Where a cell begins. */
export function edgeOf(cells: FarValue, cell: number): number {
  if (cells.is !== 'cell') return Number.NaN
  const at = cells.from + cell / cells.perUnit
  return cells.log10 ? 10 ** at : at
}

/** The middle of a cell. */
export const middleOf = (cells: FarValue, cell: number): number => edgeOf(cells, cell + 0.5)

/** Marks that are those in view, with the ends of all. */
export function reaching(shaped: Shaped, ends: Ends): Shaped {
  const roles = new Map(shaped.roles)
  for (const role of ['x', 'y'] as const) {
    const values = roles.get(role)
    if (values) roles.set(role, { ...values, reach: ends[role] })
  }
  return { ...shaped, roles }
}
