import type { Question } from '../../group/question.ts'
import type { Shaped } from '../../group/shape.ts'
import type { Meaning } from '../../phrase/meaning.ts'
import type { FarContext } from '../groups.ts'
import type { FarTest } from '../model.ts'
import { fetchedRows, type RowParts, rowParts } from '../rows.ts'
import { type Lie, lieOf } from './lie.ts'
import { askMeans } from './means.ts'
import { askPlaces } from './places.ts'
import { askStretches } from './stretches.ts'

/** Rows evenly chosen in place of all of them. */
const SAMPLED = 20_000

/** Rows that are too many to be fetched one by one, gathered as the kind of drawing allows; undefined where they are few. */
export async function gathered(
  context: FarContext,
  question: Question,
  where: FarTest | undefined,
): Promise<Shaped | undefined> {
  const { table } = context
  const { gathers, roles } = question
  if (gathers === undefined || table.length <= table.most) return undefined
  const [x, y] = ['x', 'y'].map(role => roles.get(role))
  if (!isPlain(x) || !isPlain(y)) return undefined
  const numeric = [x, y].every(({ column }) => table.column(column)?.type !== 'text')
  if (!numeric) return undefined
  const lie = await lieOf(context, x.column, y.column, where)
  if (lie.rows <= table.most) return undefined
  const parts = await rowParts(context, question, where)
  if (gathers === 'stretches') return askStretches(context, question, parts, lie)
  if (gathers === 'means') return askMeans(context, question, parts, lie)
  if (gathers === 'places') return askPlaces(context, question, parts, lie)
  return askSample(context, parts, lie)
}

const isPlain = (meaning: Meaning | undefined): meaning is Meaning & { is: 'column' } =>
  meaning?.is === 'column' && meaning.top === undefined

async function askSample(context: FarContext, parts: RowParts, { rows }: Lie): Promise<Shaped> {
  const { table } = context
  const every = Math.ceil(table.length / SAMPLED)
  const shaped = await fetchedRows(context, parts, parts.grouping.where, every)
  return {
    ...shaped,
    findings: [
      {
        code: 'sampled-rows',
        message: `The curve follows ${shaped.length.toLocaleString('en')} of the ${rows.toLocaleString('en')} rows of ${table.title}, evenly chosen`,
        remedy: 'Choose fewer rows with where, so that all of them are followed.',
        path: '',
      },
    ],
  }
}
