import type { Question } from '../../group/question.ts'
import type { Shaped } from '../../group/shape.ts'
import { together } from '../conditions.ts'
import { equal, type FarContext } from '../groups.ts'
import type { FarTest } from '../model.ts'
import { asRows, fetchedRows, othersIn, type RowParts, shapedRows } from '../rows.ts'
import { asFine, betweenEnds, cellsOver, type Ends, inView, widthOf } from './cells.ts'
import { endsOnLogs, type Lie, meansWithin, reaching } from './lie.ts'
import { type CountedCells, reachedIn } from './reached.ts'

/** Places along each side: about two pixels each on a usual screen. */
const ACROSS = 560
const UP = 360

/** Rows counted by where they lie. */
interface Places extends CountedCells {
  logs: Logs
}

type Logs = { x: boolean; y: boolean }

/**
 * Very many points by how many lie at each place, where their middle is. Once those in view are few enough they are
 * fetched as points; what is beyond the view is left out then.
 */
export async function askPlaces(
  context: FarContext,
  question: Question,
  parts: RowParts,
  most: Lie,
): Promise<Shaped> {
  const { table, ask } = context
  const { grouping } = parts
  const lie = { ...most, ends: await endsOnLogs(context, question, most, grouping.where, most.ends) }
  const all = await placesOver(context, question, parts, lie, lie.ends, grouping.where)
  const ends = await reachedIn(context, lie, all, grouping.where)
  const drawn = ends.x[0] <= ends.x[1]
  const fine = (['x', 'y'] as const).every(
    role =>
      asFine(lie.ends[role], ends[role], all.logs[role]) && all.logs[role] === logIn(question, role, ends),
  )
  const view = { x: inView(ends.x, question.view?.x), y: inView(ends.y, question.view?.y) }
  if (!drawn || (fine && !view.x && !view.y))
    return reaching(shapedPlaces(context, parts, all, grouping.where), ends)
  // Where rows without a position reach much farther, all others are looked at more closely.
  if (!fine) for (const role of ['x', 'y'] as const) view[role] ??= ends[role]
  const seen = together([
    grouping.where,
    view.x && betweenEnds(lie.x, view.x),
    view.y && betweenEnds(lie.y, view.y),
  ])
  const counted = await ask({
    ask: 'groups',
    table: table.farName,
    where: seen,
    by: [],
    measures: [{ how: 'count' }],
    most: 1,
  })
  if ((counted.columns[0] as Float64Array)[0] <= table.most)
    return reaching(await fetchedRows(context, parts, seen), ends)
  const inSight = { x: view.x ?? ends.x, y: view.y ?? ends.y }
  const places = await placesOver(context, question, parts, lie, inSight, seen)
  return reaching(shapedPlaces(context, parts, places, seen), ends)
}

/** Whether cells along a position are of one width in powers of ten: what is not above zero has no place there. */
const logIn = (question: Question, role: 'x' | 'y', ends: Ends): boolean =>
  question.logs?.[role] === true && ends[role][0] > 0

async function placesOver(
  { table, ask }: FarContext,
  question: Question,
  parts: RowParts,
  lie: Lie,
  ends: Ends,
  where: FarTest | undefined,
): Promise<Places> {
  const logs = { x: logIn(question, 'x', ends), y: logIn(question, 'y', ends) }
  const by = [
    cellsOver(lie.x, ends.x, ACROSS, logs.x),
    cellsOver(lie.y, ends.y, UP, logs.y),
    ...othersIn(parts).map(({ value }) => value),
  ]
  const answer = await ask({
    ask: 'groups',
    table: table.farName,
    where,
    by,
    measures: [{ how: 'count' }, { how: 'mean', of: lie.x }, { how: 'mean', of: lie.y }],
    most: 4_000_000,
  })
  return { answer, by, ends, logs }
}

function shapedPlaces(
  context: FarContext,
  parts: RowParts,
  { answer, by, ends, logs }: Places,
  where: FarTest | undefined,
): Shaped {
  const own = answer.columns.slice(2, by.length)
  const [rows, x, y] = answer.columns.slice(by.length) as Float64Array[]
  const [across, up] = answer.columns as Float64Array[]
  const middles = { x: meansWithin(x, across, ends.x), y: meansWithin(y, up, ends.y) }
  const marks = asRows(parts, middles, own)
  // A place stands for the rows that lie in it, not for those in its middle.
  const rowsAt = (mark: number) =>
    together([where, ...by.map((value, i) => equal(value, answer.columns[i][mark]))])
  return {
    ...shapedRows(context, parts, marks, [], rowsAt),
    crowd: {
      rows,
      width: widthOf(ends.x, logs.x) / ACROSS,
      height: widthOf(ends.y, logs.y) / UP,
      logs,
    },
  }
}
