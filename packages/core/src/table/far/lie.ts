import type { Shaped } from '../group/shape.ts'
import type { FarContext } from './groups.ts'
import type { FarTest, FarValue } from './model.ts'

/** The rows that a drawing shows, and where they lie. */
export interface Lie {
  rows: number
  x: FarValue
  y: FarValue
  /** The ends of both positions, over all rows that have both. */
  ends: { x: [number, number]; y: [number, number] }
}

/** Asks how many rows there are, and how far they reach. */
export async function lieOf(
  { table, facts, ask }: FarContext,
  xName: string,
  yName: string,
  where: FarTest | undefined,
): Promise<Lie> {
  const [x, y] = await Promise.all([facts.value(xName), facts.value(yName)])
  // A row without one of them is not drawn, and says nothing of how far the other reaches.
  const placed = [x, y].map((value): FarTest => ({ is: 'not', test: { is: 'missing', value } }))
  const { columns } = await ask({
    ask: 'groups',
    table: table.farName,
    where: { is: 'all', tests: where ? [where, ...placed] : placed },
    by: [],
    measures: [
      { how: 'count' },
      { how: 'min', of: x },
      { how: 'max', of: x },
      { how: 'min', of: y },
      { how: 'max', of: y },
    ],
    most: 1,
  })
  const [rows, ...ends] = columns.map(values => Number(values[0]))
  return { rows, x, y, ends: { x: [ends[0], ends[1]], y: [ends[2], ends[3]] } }
}

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

/** Marks that are those in view, with the ends of all. */
export function reaching(shaped: Shaped, { ends }: Lie): Shaped {
  const roles = new Map(shaped.roles)
  for (const role of ['x', 'y'] as const) {
    const values = roles.get(role)
    if (values) roles.set(role, { ...values, reach: ends[role] })
  }
  return { ...shaped, roles }
}
