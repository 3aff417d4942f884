import type { FarMeasure, FarQuestion } from '@dapplo/core/far'

import type { Dialect } from './dialect.ts'
import type { RunResult } from './result.ts'
import { conditions, measure, output, type Statement, typeOf, whole } from './statement.ts'
import { type EngineTable, Expressions } from './values.ts'

export type Groups = FarQuestion & { ask: 'groups' }

/** Several questions in one statement, and what each of them is answered of its result. */
export interface Gathered extends Statement {
  answers: (result: RunResult) => { result: RunResult; types: Statement['types'] }[]
}

/** Measures that cost little beside reading the rows, so that those of one question may be worked out for all. */
const CHEAP = new Set<FarMeasure['how']>(['count', 'present', 'sum', 'mean', 'squares', 'min', 'max'])
/** More columns to group by than this tell sets of them apart by too long a number. */
const MOST_KEYS = 24

/** Answers that may be larger are no quicker together: what is worked out for one would be for all. */
const MOST_GROUPS = 100_000

/** Whether a question may be gathered with others over the same rows. */
export const gathers = (question: FarQuestion): question is Groups =>
  question.ask === 'groups' &&
  question.largest === undefined &&
  question.most <= MOST_GROUPS &&
  question.by.length < 8 &&
  question.measures.every(({ how }) => CHEAP.has(how))

/** What questions must have in common to be gathered. */
export const sameRows = ({ table, where }: Groups): string => JSON.stringify([table, where])

/** Questions over the same rows as one statement by GROUPING SETS: the rows are read once. */
export function gatheredStatement(
  questions: readonly Groups[],
  table: EngineTable,
  dialect: Dialect,
): Gathered | undefined {
  const writer = dialect.writer()
  const by = new Expressions(dialect, table, writer, false)
  const keys = new Map<string, { name: string; type: 'number' | 'text'; place: number }>()
  const measures = new Map<string, { sql: string; type: 'number' | 'text'; place: number }>()
  const sets = new Map<string, number[]>()
  const asked = questions.map(question => {
    const own = question.by.map(value => {
      const id = JSON.stringify(value)
      const key = keys.get(id) ?? {
        name: by.named(output(value, by)),
        type: by.typeOf(value),
        place: keys.size,
      }
      keys.set(id, key)
      return key
    })
    const set = [...new Set(own.map(({ place }) => place))].sort((a, b) => a - b)
    sets.set(set.join(), set)
    return { question, own, set: set.join() }
  })
  if (keys.size > MOST_KEYS) return undefined
  for (const { measures: list } of questions)
    for (const one of list) {
      const id = JSON.stringify(one)
      if (!measures.has(id))
        measures.set(id, { sql: measure(one, by), type: typeOf(one, by), place: measures.size })
    }
  const names = [...keys.values()].map(({ name }) => name)
  const { plain, named } = conditions(questions[0].where, by)
  const columns = [...names, ...[...measures.values()].map(({ sql }) => sql)]
  if (names.length > 0) columns.push(`grouping_id(${names.join(', ')})`)
  const listed = columns.map((column, i) => `${column} AS ${dialect.quote(`c${i}`)}`)
  const grouped =
    names.length > 0
      ? ` GROUP BY GROUPING SETS (${[...sets.values()].map(set => `(${set.map(place => names[place]).join(', ')})`).join(', ')})`
      : ''
  const most = questions.reduce((sum, question) => sum + question.most + 1, 0)
  // A bit for each column by which a set does not group, the first being the highest.
  const idOf = (set: readonly number[]) =>
    names.reduce((id, _, place) => id * 2 + (set.includes(place) ? 0 : 1), 0)
  return {
    sql: `SELECT ${listed.join(', ')} FROM ${by.from(plain, named)}${grouped} LIMIT ${whole(most)}`,
    values: writer.values,
    types: [],
    answers: result => {
      const ids = result.columns[columns.length - 1]
      const rows = new Map<number, number[]>()
      for (let row = 0; row < result.length; row++) {
        const id = names.length > 0 ? Number(ids[row]) : 0
        const own = rows.get(id)
        if (own) own.push(row)
        else rows.set(id, [row])
      }
      return asked.map(({ question, own, set }) => {
        const mine = rows.get(names.length > 0 ? idOf(sets.get(set)!) : 0) ?? []
        const taken = question.measures.map(one => measures.get(JSON.stringify(one))!)
        const places = [...own.map(({ place }) => place), ...taken.map(({ place }) => names.length + place)]
        return {
          types: [...own, ...taken].map(({ type }) => type),
          result: {
            length: mine.length,
            columns: places.map(place => mine.map(row => result.columns[place][row])),
          },
        }
      })
    },
  }
}
