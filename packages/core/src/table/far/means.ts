import type { Question } from '../group/question.ts'
import type { Shaped } from '../group/shape.ts'
import { together } from './conditions.ts'
import type { FarContext } from './groups.ts'
import { cellsOver, type Lie, reaching } from './lie.ts'
import type { FarTest, FarValue } from './model.ts'
import { asRows, othersIn, rowParts, shapedRows } from './rows.ts'

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
  where: FarTest | undefined,
  lie: Lie,
): Promise<Shaped> {
  const { table, ask } = context
  const parts = await rowParts(context, question, where)
  const others = othersIn(parts)
  const has = (value: FarValue): FarTest => ({ is: 'not', test: { is: 'missing', value } })
  // Near the values, so that their squares keep their digits.
  const around = (lie.ends.y[0] + lie.ends.y[1]) / 2
  const by = [cellsOver(lie.x, lie.ends.x, STRETCHES), ...others.map(({ value }) => value)]
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
    ],
    most: 1_000_000,
  })
  const own = columns.slice(1, by.length)
  const [rows, x, y, squares] = columns.slice(by.length) as Float64Array[]
  const spreads = squares.map((value, i) => Math.max(0, value - rows[i] * (y[i] - around) ** 2))
  return {
    ...reaching(shapedRows(context, parts, asRows(parts, { x, y }, own), []), lie),
    crowd: { rows, spreads, ends: lie.ends.y, width: 0, height: 0 },
  }
}
