import { checkRest, measureOfRows, topOf } from '../group/best.ts'
import type { Encoded } from '../group/encoded.ts'
import type { Question } from '../group/question.ts'
import type { RoleValues, Shaped } from '../group/shape.ts'
import type { Meaning } from '../phrase/meaning.ts'
import { together } from './conditions.ts'
import { encodingOf, equal, type FarContext, type Grouping, groupingOf } from './groups.ts'
import { remembered } from './mark-rows.ts'
import type { FarAnswer, FarTest, FarValue } from './model.ts'

/** What roles are bound to, as an engine is asked for it, where marks are rows. */
export interface RowParts {
  grouping: Grouping
  /** By role: which value it has. */
  places: Map<string, number>
}

/** Understands the roles of marks that are rows. Categories that are kept are judged as they are where rows are here. */
export async function rowParts(
  context: FarContext,
  question: Question,
  where: FarTest | undefined,
): Promise<RowParts> {
  for (const [role, meaning] of question.roles) checkRest(role, topOf(role, meaning, question))
  const judge = measureOfRows(context.table, question.roles) ?? ({ is: 'summary', how: 'count' } as Meaning)
  const grouping = await groupingOf(context, question, where, judge)
  const places = new Map(grouping.parts.by.map(({ role, at }) => [role, at]))
  return { grouping, places }
}

/** The parts that stand for no position: what tells marks apart at one place. */
export const othersIn = ({ grouping, places }: RowParts): Grouping['kept'] =>
  grouping.kept.filter((_, at) => at !== places.get('x') && at !== places.get('y'))

/** Marks as if they were rows that had been fetched: their positions, and the columns of `othersIn`. */
export function asRows(
  parts: RowParts,
  { x, y }: { x: Float64Array; y: Float64Array },
  columns: FarAnswer['columns'],
): FarAnswer {
  const { grouping, places } = parts
  const others = othersIn(parts)
  return {
    length: x.length,
    columns: grouping.kept.map((part, at) => {
      if (at === places.get('x')) return x
      return at === places.get('y') ? y : columns[others.indexOf(part)]
    }),
  }
}

/** What rows are known by: their key, else their place in the order of the table. */
async function nameValues({ table, facts }: FarContext): Promise<FarValue[]> {
  if (table.key.length > 0) return Promise.all(table.key.map(column => facts.value(column)))
  return table.ordered ? [{ is: 'place' }] : []
}

/** Marks that are rows, each of them fetched; `every`: only every so manieth. */
export async function fetchedRows(
  context: FarContext,
  parts: RowParts,
  where: FarTest | undefined,
  every?: number,
): Promise<Shaped> {
  const { table, ask } = context
  const names = await nameValues(context)
  const answer = await ask({
    ask: 'rows',
    table: table.farName,
    where,
    values: [...parts.grouping.kept.map(({ value }) => value), ...names],
    most: table.most,
    ...(every === undefined ? { whole: true } : { every }),
  })
  return shapedRows(context, parts, answer, names)
}

/** Marks from rows that were fetched; after the values of roles come those by which rows are known. */
export function shapedRows(
  context: FarContext,
  { grouping, places }: RowParts,
  { columns, length }: FarAnswer,
  names: readonly FarValue[],
  rowsAt?: (mark: number) => FarTest | undefined,
): Shaped {
  const { table } = context
  const { parts, kept } = grouping
  const encodings = kept.map((part, i) => encodingOf(part, columns[i]))
  const roles = new Map<string, RoleValues>()
  for (const { role, meaning, column } of parts.by) {
    const encoded = encodings[places.get(role)!]
    roles.set(role, {
      cells: encoded.cellsOf(encoded.codes),
      meaning,
      column,
      zone: column.zone,
      ends: encoded.endOf ? endsOf(encoded) : undefined,
      some: encoded.some,
      far: kept[places.get(role)!].value,
    })
  }
  const known = columns.slice(kept.length, kept.length + names.length)
  const keyOf = (mark: number): string | number =>
    known.length === 0
      ? mark
      : known.length === 1
        ? (known[0][mark] ?? '')
        : known.map(values => values[mark] ?? '').join('\u001f')
  const own = (mark: number) => kept.map(({ value }, i) => equal(value, columns[i][mark]))
  const testOf = (mark: number) =>
    rowsAt?.(mark) ??
    together(
      known.length > 0
        ? names.map((value, i) => equal(value, known[i][mark]))
        : [grouping.where, ...own(mark)],
    )
  const rowOf = remembered(length, mark => table.markRow(keyOf(mark), testOf(mark), own(mark)))
  return { table, length, grouped: false, roles, keyOf, rowsOf: mark => [rowOf(mark)], rowOf }
}

const endsOf = (encoded: Encoded) =>
  Float64Array.from(encoded.codes, code => (code < 0 ? Number.NaN : encoded.endOf!(code)))
