import type { Question } from '../../group/question.ts'
import type { Shaped } from '../../group/shape.ts'
import { has, together } from '../conditions.ts'
import type { FarContext } from '../groups.ts'
import type { FarAnswer } from '../model.ts'
import { asRows, othersIn, type RowParts, shapedRows } from '../rows.ts'
import { asFine, cellsOver, type Ends, endsOf } from './cells.ts'
import { endsOnLogs, type Lie, meansWithin, reaching } from './lie.ts'

/** Stretches along x: so many that what lies within one of them counts for nothing in the slope of all. */
const STRETCHES = 4096

/**
 * What a curve is fitted to in place of very many rows, by series: of each stretch along x how many rows it has, their middle,
 * and how far they spread along y. A curve of least squares through the middles, each as heavy as its rows, is that through
 * all rows, but for what x differs within a stretch.
 */
export async function askMeans(
  context: FarContext,
  question: Question,
  parts: RowParts,
  lie: Lie,
): Promise<Shaped> {
  let means = await meansOver(context, parts, lie, lie.ends)
  const ends = means.reached
  if (!asFine(lie.ends.x, ends.x) || !asFine(lie.ends.y, ends.y))
    means = await meansOver(context, parts, lie, ends)
  const { rows, x, y, spreads, own } = means
  return {
    ...reaching(
      shapedRows(context, parts, asRows(parts, { x, y }, own), []),
      await endsOnLogs(context, question, lie, parts.grouping.where, ends),
    ),
    crowd: { rows, spreads, ends: ends.y, width: 0, height: 0 },
  }
}

interface Means {
  rows: Float64Array
  x: Float64Array
  y: Float64Array
  spreads: Float64Array
  /** What tells series apart. */
  own: FarAnswer['columns']
  /** How far rows reach that have both positions. */
  reached: Ends
}

async function meansOver({ table, ask }: FarContext, parts: RowParts, lie: Lie, ends: Ends): Promise<Means> {
  // Near the values, so that their squares keep their digits.
  const around = (ends.y[0] + ends.y[1]) / 2
  const by = [cellsOver(lie.x, ends.x, STRETCHES), ...othersIn(parts).map(({ value }) => value)]
  const { columns } = await ask({
    ask: 'groups',
    table: table.farName,
    where: together([parts.grouping.where, has(lie.x), has(lie.y)]),
    by,
    measures: [
      { how: 'count' },
      { how: 'mean', of: lie.x },
      { how: 'mean', of: lie.y },
      { how: 'squares', of: lie.y, around },
      { how: 'min', of: lie.x },
      { how: 'max', of: lie.x },
      { how: 'min', of: lie.y },
      { how: 'max', of: lie.y },
    ],
    most: 1_000_000,
  })
  const cells = columns[0] as Float64Array
  const own = columns.slice(1, by.length)
  const [rows, x, y, squares, ...reach] = columns.slice(by.length) as Float64Array[]
  const spreads = squares.map((value, i) => Math.max(0, value - rows[i] * (y[i] - around) ** 2))
  const [fromX, untilX, fromY, untilY] = reach.map(endsOf)
  const reached: Ends = { x: [fromX[0], untilX[1]], y: [fromY[0], untilY[1]] }
  return { rows, x: meansWithin(x, cells, reached.x), y: meansWithin(y, x, reached.y), spreads, own, reached }
}
