import type { Question } from '../../group/question.ts'
import type { Shaped } from '../../group/shape.ts'
import { together } from '../conditions.ts'
import type { FarContext } from '../groups.ts'
import type { FarAnswer, FarMeasure } from '../model.ts'
import { asRows, othersIn, type RowParts, shapedRows } from '../rows.ts'
import { asFine, betweenEnds, cellsOver, type Ends, endsOf, inView, middleOf } from './cells.ts'
import { endsOnLogs, type Lie, reaching } from './lie.ts'

/** Stretches along x: more than a wide screen has columns. */
const STRETCHES = 4096
/** Where there are many series, each has fewer. */
const LEAST_STRETCHES = 512
/** About so many marks in all. */
const MOST_MARKS = 80_000

/**
 * A line of very many rows by the first, last, least and greatest of each stretch, by series: in pixels it is the line of
 * all its rows. After U. Jugel et al., "M4: A Visualization-Oriented Time Series Data Aggregation", VLDB 2014. What is in
 * view is gathered more finely; beyond it stays what is known of the whole.
 */
export async function askStretches(
  context: FarContext,
  question: Question,
  parts: RowParts,
  lie: Lie,
): Promise<Shaped> {
  const series = await seriesIn(context, parts)
  const count = Math.max(LEAST_STRETCHES, Math.min(STRETCHES, Math.floor(MOST_MARKS / 4 / series)))
  const log = question.logs?.x === true
  const all = await stretches(context, parts, lie, { ends: lie.ends.x, count, log })
  const ends = endsIn(all)
  const whole = asFine(lie.ends.x, ends.x, log)
    ? all
    : await stretches(context, parts, lie, { ends: ends.x, count, log, only: ends.x })
  const view = inView(ends.x, question.view?.x)
  const fine = view && (await stretches(context, parts, lie, { ends: view, count, log, only: view }))
  const marks = fine ? [...whole.filter(({ x }) => x < view[0] || x > view[1]), ...fine] : whole
  return reaching(
    shapedRows(context, parts, answerOf(parts, marks), []),
    await endsOnLogs(context, question, lie, parts.grouping.where, ends),
  )
}

interface Stretch {
  x: number
  y: number
  others: (number | string | null)[]
}

/** How far rows reach that have both positions: the first, last, least and greatest of them are among the marks. */
function endsIn(marks: readonly Stretch[]): Ends {
  const placed = marks.filter(({ y }) => !Number.isNaN(y))
  return {
    x: endsOf(Float64Array.from(placed, ({ x }) => x)),
    y: endsOf(Float64Array.from(placed, ({ y }) => y)),
  }
}

/** How many series there are, at most. */
async function seriesIn({ table, ask }: FarContext, parts: RowParts): Promise<number> {
  const by = othersIn(parts).map(({ value }) => value)
  if (by.length === 0) return 1
  const { length } = await ask({
    ask: 'groups',
    table: table.farName,
    where: parts.grouping.where,
    by,
    measures: [],
    most: table.most,
  })
  return Math.max(1, length)
}

/** What is gathered: so many stretches over some ends, of all rows or of those within other ends. */
interface Over {
  ends: readonly [number, number]
  count: number
  /** Whether they are of one width on a logarithmic scale. */
  log: boolean
  only?: readonly [number, number]
}

async function stretches(
  { table, ask }: FarContext,
  parts: RowParts,
  { x, y }: Lie,
  { ends, count, log, only }: Over,
): Promise<Stretch[]> {
  const by = othersIn(parts).map(({ value }) => value)
  const measures: FarMeasure[] = [
    { how: 'min', of: x, with: y },
    { how: 'at least', of: y, by: x },
    { how: 'max', of: x, with: y },
    { how: 'at greatest', of: y, by: x },
    { how: 'min', of: y },
    { how: 'at least', of: x, by: y },
    { how: 'max', of: y },
    { how: 'at greatest', of: x, by: y },
  ]
  // What is not above zero has no place there.
  const cells = cellsOver(x, ends, count, log && ends[0] > 0)
  const answer = await ask({
    ask: 'groups',
    table: table.farName,
    where: together([parts.grouping.where, only && betweenEnds(x, only)]),
    by: [cells, ...by],
    measures,
    most: 1_000_000,
  })
  return marksOf(answer, by.length, stretch => middleOf(cells, stretch))
}

/** Up to four marks a stretch, in the order of x; one without a value is a gap. */
function marksOf(
  { columns, length }: FarAnswer,
  series: number,
  middle: (stretch: number) => number,
): Stretch[] {
  const out: Stretch[] = []
  const own = columns.slice(1, 1 + series)
  const [firstX, firstY, lastX, lastY, least, leastX, greatest, greatestX] = columns.slice(
    1 + series,
  ) as Float64Array[]
  for (let i = 0; i < length; i++) {
    const stretch = (columns[0] as Float64Array)[i]
    if (Number.isNaN(stretch)) continue
    const others = own.map(values => values[i])
    const corners: [number, number][] = Number.isNaN(least[i])
      ? [[middle(stretch), Number.NaN]]
      : [
          [firstX[i], firstY[i]],
          [leastX[i], least[i]],
          [greatestX[i], greatest[i]],
          [lastX[i], lastY[i]],
        ]
    const seen = new Set<string>()
    for (const [x, y] of corners) {
      const name = `${x} ${y}`
      if (seen.has(name)) continue
      seen.add(name)
      out.push({ x, y, others })
    }
  }
  return out.sort((a, b) => a.x - b.x)
}

/** The marks as if they were rows that had been fetched. */
function answerOf(parts: RowParts, marks: readonly Stretch[]): FarAnswer {
  const columns = othersIn(parts).map(({ value, column }, own): FarAnswer['columns'][number] => {
    const values = marks.map(({ others }) => others[own])
    return value.is === 'kept' || column.type === 'text'
      ? (values as (string | null)[])
      : Float64Array.from(values, Number)
  })
  const at = (role: 'x' | 'y') => Float64Array.from(marks, mark => mark[role])
  return asRows(parts, { x: at('x'), y: at('y') }, columns)
}
