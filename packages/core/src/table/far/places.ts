import type { Question } from '../group/question.ts'
import type { Shaped } from '../group/shape.ts'
import { together } from './conditions.ts'
import { equal, type FarContext } from './groups.ts'
import { betweenEnds, cellsOver, inView, type Lie, reaching } from './lie.ts'
import type { FarTest } from './model.ts'
import { asRows, fetchedRows, othersIn, rowParts, shapedRows } from './rows.ts'

/** Places along each side: about two pixels each on a usual screen. */
const ACROSS = 560
const UP = 360

/**
 * Very many points by how many lie at each place, where their middle is. Once those in view are few enough they are
 * fetched as points; what is beyond the view is left out then.
 */
export async function askPlaces(
  context: FarContext,
  question: Question,
  where: FarTest | undefined,
  lie: Lie,
): Promise<Shaped> {
  const { table, ask } = context
  const parts = await rowParts(context, question, where)
  const { grouping } = parts
  const view = {
    x: inView(lie.ends.x, question.view?.x),
    y: inView(lie.ends.y, question.view?.y),
  }
  const seen = together([
    grouping.where,
    view.x && betweenEnds(lie.x, view.x),
    view.y && betweenEnds(lie.y, view.y),
  ])
  if (view.x || view.y) {
    const counted = await ask({
      ask: 'groups',
      table: table.farName,
      where: seen,
      by: [],
      measures: [{ how: 'count' }],
      most: 1,
    })
    if ((counted.columns[0] as Float64Array)[0] <= table.most)
      return reaching(await fetchedRows(context, parts, seen), lie)
  }
  const ends = { x: view.x ?? lie.ends.x, y: view.y ?? lie.ends.y }
  // What is not above zero has no place there.
  const logs = {
    x: question.logs?.x === true && ends.x[0] > 0,
    y: question.logs?.y === true && ends.y[0] > 0,
  }
  const others = othersIn(parts)
  const by = [
    cellsOver(lie.x, ends.x, ACROSS, logs.x),
    cellsOver(lie.y, ends.y, UP, logs.y),
    ...others.map(({ value }) => value),
  ]
  const answer = await ask({
    ask: 'groups',
    table: table.farName,
    where: seen,
    by,
    measures: [{ how: 'count' }, { how: 'mean', of: lie.x }, { how: 'mean', of: lie.y }],
    most: 4_000_000,
  })
  const own = answer.columns.slice(2, 2 + others.length)
  const [rows, x, y] = answer.columns.slice(2 + others.length) as Float64Array[]
  const marks = asRows(parts, { x, y }, own)
  // A place stands for the rows that lie in it, not for those in its middle.
  const rowsAt = (mark: number) =>
    together([seen, ...by.map((value, i) => equal(value, answer.columns[i][mark]))])
  return {
    ...reaching(shapedRows(context, parts, marks, [], rowsAt), lie),
    crowd: {
      rows,
      width: span(ends.x, logs.x) / ACROSS,
      height: span(ends.y, logs.y) / UP,
      logs,
    },
  }
}

const span = ([min, max]: readonly [number, number], log10: boolean): number =>
  log10 ? Math.log10(max / min) : max - min
