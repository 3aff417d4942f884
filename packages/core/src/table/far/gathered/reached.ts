import { has, together } from '../conditions.ts'
import type { FarContext } from '../groups.ts'
import type { FarAnswer, FarTest, FarValue } from '../model.ts'
import { betweenEnds, type Ends, edgeOf, endsOf } from './cells.ts'
import type { Lie } from './lie.ts'

/** Rows counted by cells along x and y, over some ends. */
export interface CountedCells {
  answer: FarAnswer
  /** What they were counted by: cells along x and y, then what tells marks apart. */
  by: FarValue[]
  ends: Ends
}

/**
 * How far rows reach that have both positions, by the places that they were counted at. A row without one of them is not
 * drawn, and says nothing of how far the other reaches. The ends of all rows stand where no such row lies as far out as the
 * outermost of the others; else the rows about that cell are asked, which are few.
 */
export async function reachedIn(
  context: FarContext,
  lie: Lie,
  places: CountedCells,
  where: FarTest | undefined,
): Promise<Ends> {
  const [x, y] = places.answer.columns as Float64Array[]
  const [middleX, middleY] = places.answer.columns.slice(places.by.length + 1) as Float64Array[]
  const [across, up] = await Promise.all([
    reachedAlong(context, 'x', [x, middleY], lie, places, where),
    reachedAlong(context, 'y', [y, middleX], lie, places, where),
  ])
  return { x: across, y: up }
}

async function reachedAlong(
  context: FarContext,
  role: 'x' | 'y',
  [along, other]: readonly [Float64Array, Float64Array],
  lie: Lie,
  { ends, by }: CountedCells,
  where: FarTest | undefined,
): Promise<[number, number]> {
  const drawn = endsOf(along.filter((_, i) => !Number.isNaN(other[i])))
  if (drawn[0] > drawn[1]) return drawn
  const lacking = endsOf(along.filter((_, i) => Number.isNaN(other[i])))
  const cells = by[role === 'x' ? 0 : 1]
  const edge = (cell: number) => edgeOf(cells, cell)
  const find = async (how: 'min' | 'max', [from, last]: readonly [number, number]): Promise<number> => {
    const { columns } = await context.ask({
      ask: 'groups',
      table: context.table.farName,
      where: together([where, betweenEnds(lie[role], [from, last]), has(lie.x), has(lie.y)]),
      by: [],
      measures: [{ how, of: lie[role] }],
      most: 1,
    })
    return Number(columns[0][0])
  }
  const [min, max] = ends[role]
  // A cell more on each side, since edges are rounded.
  return Promise.all([
    lacking[0] > drawn[0] ? min : find('min', [min, edge(drawn[0] + 2)]),
    lacking[1] < drawn[1] ? max : find('max', [edge(drawn[1] - 1), max]),
  ])
}
