import { DapploError } from '../../finding/error.ts'
import type { Cells } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Agreed } from '../group/agreed.ts'
import { judged, judgeOf, topOf } from '../group/best.ts'
import type { Encoded } from '../group/encoded.ts'
import type { Groups } from '../group/group.ts'
import type { Question } from '../group/question.ts'
import { type Parts, partsOf, type Shaped, shapeGathered } from '../group/shape.ts'
import { keepTop, restName } from '../group/top.ts'
import { type How, type Meaning, shareOfPercentile, untopped } from '../phrase/meaning.ts'
import { together } from './conditions.ts'
import type { FarAsk, FarFacts } from './facts.ts'
import type { FarTable } from './far-table.ts'
import { remembered } from './mark-rows.ts'
import type { FarMeasure, FarTest, FarValue } from './model.ts'
import { type Understood, understand } from './understand.ts'

/** What a question is put with. */
export interface FarContext {
  table: FarTable
  facts: FarFacts
  ask: FarAsk
}

/** A part that groups, with what is kept of its values. */
interface Kept extends Understood {
  /** What stands for its codes, where some were kept. */
  encodedAs?: (answers: Float64Array | (string | null)[]) => Encoded
}

/** How a question groups: its parts with what is kept of them, and the rows that are left. */
export interface Grouping {
  parts: Parts
  kept: Kept[]
  where: FarTest | undefined
}

/** Understands the parts of a question, and asks which of their values are kept. */
export async function groupingOf(
  context: FarContext,
  question: Pick<Question, 'roles' | 'top' | 'other'>,
  where: FarTest | undefined,
  measure?: Meaning,
): Promise<Grouping> {
  const parts = partsOf(context.table, question.roles)
  const measured = measure ?? parts.measures[0]?.[1]
  const kept: Kept[] = await Promise.all(
    parts.grouped.map(meaning =>
      understand(untopped(meaning) as Meaning & { column: string }, context.facts),
    ),
  )
  let rows = where
  const done = new Set<number>()
  for (const { role, meaning, at } of parts.by) {
    const told = topOf(role, meaning, question)
    if (!told || done.has(at)) continue
    done.add(at)
    const rest = told.rest === true ? (question.other ?? told.rest) : told.rest
    const own = kept[at]
    const best = await bestOf(context, own, judgeOf(told.by ?? measured), told.count, rest, rows)
    kept[at] = best.kept
    rows = together([rows, best.only])
  }
  return { parts, kept, where: rows }
}

async function bestOf(
  context: FarContext,
  own: Understood,
  judge: Meaning,
  count: number,
  rest: boolean | string | undefined,
  where: FarTest | undefined,
): Promise<{ kept: Kept; only: FarTest | undefined }> {
  const { table, ask } = context
  const measures = new Measures(context)
  measures.need(judge)
  const { columns } = await ask({
    ask: 'groups',
    table: table.farName,
    where,
    by: [own.value],
    measures: await measures.list(),
    most: 1_000_000,
  })
  const encoded = own.read(columns[0])
  const groups = measures.groups([encoded], columns.slice(1), [...encoded.codes.keys()])
  const values = judged(table, judge, groups, encoded)
  const best = keepTop(encoded, values, count, rest)
  const answered = columns[0] as ArrayLike<string | number>
  const kept = Array.from(answered).filter((_, i) => best.codes[i] >= 0 && best.codes[i] < encoded.size)
  const gathers = rest !== undefined && rest !== false
  if (gathers) {
    const name = restName(rest)
    const value: FarValue = { is: 'kept', of: own.value, values: kept, rest: name }
    return {
      kept: {
        ...own,
        value,
        encodedAs: answers => {
          const texts = answers as (string | null)[]
          const plain = own.read(texts.map(text => (text === name ? null : text)))
          const codes = plain.codes.map((code, i) => (texts[i] === name ? plain.size : code))
          return {
            ...keepTop({ ...plain, codes: new Int32Array(0) }, new Float64Array(plain.size), 0, rest),
            codes,
          }
        },
      },
      only: undefined,
    }
  }
  return {
    kept: { ...own, encodedAs: answers => ({ ...own.read(answers), some: true }) },
    only: {
      is: 'any',
      tests: [
        { is: 'among', value: own.value, values: kept },
        { is: 'missing', value: own.value },
      ],
    },
  }
}

/** The codes of a part in an answer. */
export const encodingOf = (part: Kept, answers: Float64Array | (string | null)[]): Encoded =>
  (part.encodedAs ?? part.read)(answers)

/** What sums up, as an engine is asked for it: each once. */
export class Measures {
  private readonly asked: { how: How; column: string | undefined }[] = []
  private readonly places = new Map<string, number>()
  private readonly context: Pick<FarContext, 'table' | 'facts'>

  constructor(context: Pick<FarContext, 'table' | 'facts'>) {
    this.context = context
  }

  /** What an engine is asked for. */
  list(): Promise<FarMeasure[]> {
    return Promise.all(this.asked.map(({ how, column }) => this.measure(how, column)))
  }

  /** Sees to it that all is asked for that a meaning needs. */
  need(meaning: Meaning): void {
    for (const { how, column } of summariesIn(meaning)) this.place(how, column)
  }

  place(how: How, column: string | undefined): number {
    const name = nameOf(how, column)
    let at = this.places.get(name)
    if (at === undefined) {
      at = this.asked.push({ how, column }) - 1
      this.places.set(name, at)
    }
    return at
  }

  /** Groups of which an engine answered these columns. `order`: which of the answered groups stand, in their order. */
  groups(
    encodings: readonly Encoded[],
    columns: readonly (Float64Array | (string | null)[])[],
    order: readonly number[],
  ): Groups {
    return {
      count: order.length,
      ofRow: new Int32Array(0),
      rows: undefined,
      codes: encodings.map(({ codes }) => Int32Array.from(order, group => codes[group])),
      rowsOf: () => new Int32Array(0),
      summary: (how, column) => {
        const all = columns[this.place(how, how === 'count' ? undefined : column?.name)] as Float64Array
        return Float64Array.from(order, group => all[group])
      },
    }
  }

  private async measure(how: How, column: string | undefined): Promise<FarMeasure> {
    if (how === 'count' || column === undefined) return { how: 'count' }
    const { table, facts } = this.context
    const of = await facts.value(column)
    const share = how === 'median' ? 0.5 : shareOfPercentile(how)
    if (share !== undefined) return { how: 'quantile', of, share }
    if ((how === 'first' || how === 'last') && !table.ordered)
      throw new DapploError(
        'no-order',
        `"${how} of ${column}" needs an order of rows, and those of ${table.title} have none`,
        '',
        'Name the column that puts them in order: order: "departed".',
      )
    return { how: how as 'sum', of }
  }
}

const nameOf = (how: How, column: string | undefined) => (column === undefined ? 'count' : `${how} ${column}`)

/** The summaries of columns that a meaning is worked out from. */
function summariesIn(meaning: Meaning): { how: How; column: string | undefined }[] {
  switch (meaning.is) {
    case 'summary':
      return [{ how: meaning.how, column: meaning.how === 'count' ? undefined : meaning.column }]
    case 'ratio':
      return [
        { how: 'sum', column: meaning.column },
        { how: 'sum', column: meaning.to },
      ]
    case 'window':
      return meaning.column === undefined || meaning.how === 'count so far'
        ? [{ how: 'count', column: undefined }]
        : [{ how: 'sum', column: meaning.column }]
    default:
      return []
  }
}

/** Marks from the groups that an engine answers with. */
export async function askGroups(
  context: FarContext,
  question: Question,
  where: FarTest | undefined,
): Promise<Shaped> {
  const { table, ask } = context
  const grouping = await groupingOf(context, question, where)
  const { parts, kept } = grouping
  const measures = new Measures(context)
  for (const [, meaning] of parts.measures) measures.need(meaning)
  const counted = kept.length === 0 ? measures.place('count', undefined) : -1
  const asked = await measures.list()
  const placed = table.ordered && kept.length > 0
  const { columns, length } = await ask({
    ask: 'groups',
    table: table.farName,
    where: grouping.where,
    by: kept.map(({ value }) => value),
    measures: placed ? [...asked, { how: 'min', of: { is: 'place' } }] : asked,
    most: table.most,
  })
  const keys = columns.slice(0, kept.length)
  const values = columns.slice(kept.length) as Float64Array[]
  const encodings = kept.map((part, i) => encodingOf(part, keys[i]))
  const count = counted >= 0 && values[counted][0] === 0 ? 0 : length
  const order = orderOf(count, encodings, placed ? values[asked.length] : undefined)
  const groups = measures.groups(encodings, values, order)
  const shaped = shapeGathered(table, parts, question, { groups, encodings }, untold)
  const testOf = (group: number) =>
    together([grouping.where, ...kept.map(({ value }, i) => equal(value, keys[i][group]))])
  for (const { role, at } of parts.by) {
    const values = shaped.roles.get(role)
    if (values) shaped.roles.set(role, { ...values, far: kept[at].value })
  }
  const rowOf = remembered(count, mark => table.markRow(shaped.keyOf(mark), testOf(order[mark])))
  return count > 0 ? { ...shaped, rowsOf: mark => [rowOf(mark)], rowOf } : { ...shaped, rowsOf: () => [] }
}

/** What rows agree in is not asked of an engine: it tells nothing of a group but what groups it. */
function untold(_: Meaning, { type }: TableColumn, { count }: Groups, length: number): Agreed {
  const cells: Cells =
    type === 'text'
      ? { type, codes: new Int32Array(length).fill(-1), words: [] }
      : { type, values: new Float64Array(length).fill(Number.NaN) }
  return { cells, ends: undefined, several: count }
}

/** The test of rows that have a value. */
export function equal(value: FarValue, answer: string | number | null): FarTest {
  return answer === null || answer !== answer
    ? { is: 'missing', value }
    : { is: 'among', value, values: [answer] }
}

/** Groups in the order in which their rows begin; by their values, where rows have no order. */
function orderOf(count: number, encodings: readonly Encoded[], places: Float64Array | undefined): number[] {
  const order = Array.from({ length: count }, (_, group) => group)
  if (places) return order.sort((a, b) => places[a] - places[b])
  return order.sort((a, b) => {
    for (const { codes } of encodings) if (codes[a] !== codes[b]) return codes[a] - codes[b]
    return 0
  })
}
