import type { Question } from '../../group/question.ts'
import type { Shaped } from '../../group/shape.ts'
import { has, together } from '../conditions.ts'
import type { FarContext } from '../groups.ts'
import type { FarTest, FarValue } from '../model.ts'
import type { Ends } from './cells.ts'

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

/** Means of what lies in cells between two ends: by rounding they may come out beyond them. */
export const meansWithin = (
  means: Float64Array,
  cells: Float64Array,
  [min, max]: readonly [number, number],
): Float64Array =>
  means.map((mean, i) => (Number.isNaN(cells[i]) ? mean : Math.min(Math.max(mean, min), max)))

/** Marks that are those in view, with the ends of all. */
export function reaching(shaped: Shaped, ends: Ends): Shaped {
  const roles = new Map(shaped.roles)
  for (const role of ['x', 'y'] as const) {
    const values = roles.get(role)
    if (values) roles.set(role, { ...values, reach: ends[role] })
  }
  return { ...shaped, roles }
}
