import type { FarMeasure, FarQuestion, FarTest, FarValue } from '@dapplo/core/far'
import type { Dialect } from './dialect.ts'
import { condition } from './tests.ts'
import { type EngineTable, Expressions } from './values.ts'

/** A question in the words of an engine. */
export interface Statement {
  sql: string
  values: (string | number)[]
  /** What its columns are. */
  types: ('number' | 'text')[]
}

/** Writes a question down as SQL. Names are quoted, and values are parameters or written by an encoder. */
export function statementOf(
  question: FarQuestion,
  table: EngineTable,
  dialect: Dialect,
  careful: boolean,
): Statement {
  const writer = dialect.writer()
  const by = new Expressions(dialect, table, writer, careful)
  // Parameters are numbered as they are written, so parts are written in their order.
  const sql = question.ask === 'groups' ? groups(question, by) : rows(question, by)
  const types =
    question.ask === 'groups'
      ? [...question.by.map(value => by.typeOf(value)), ...question.measures.map(one => typeOf(one, by))]
      : question.values.map(value => by.typeOf(value))
  return { sql, values: writer.values, types }
}

function groups(question: FarQuestion & { ask: 'groups' }, by: Expressions): string {
  const keys = question.by.map(value => output(value, by))
  const measures = question.measures.map(one => measure(one, by))
  const columns = [...keys, ...measures].map((column, i) => `${column} AS ${by.dialect.quote(`c${i}`)}`)
  const { plain, named } = conditions(question.where, by)
  const grouped = keys.length > 0 ? ` GROUP BY ${keys.map((_, i) => by.dialect.groupBy(i)).join(', ')}` : ''
  // Those of one size stand by their names, so that an answer is always the same.
  const first = by.dialect.quote(`c${keys.length}`)
  const largest =
    question.largest === undefined
      ? ''
      : ` ORDER BY ${[`${first} DESC`, ...keys.map((_, i) => by.dialect.quote(`c${i}`))].join(', ')}`
  const most = whole(question.largest ?? question.most + 1)
  return `SELECT ${columns.join(', ')} FROM ${by.from(plain, named)}${grouped}${largest} LIMIT ${most}`
}

function rows(question: FarQuestion & { ask: 'rows' }, by: Expressions): string {
  const columns = question.values.map((value, i) => `${output(value, by)} AS ${by.dialect.quote(`c${i}`)}`)
  const { plain, named } = conditions(question.where, by)
  const placed = by.table.place !== undefined
  if (question.every !== undefined && question.every > 1)
    named.push(by.dialect.everySo(placed ? by.place() : undefined, whole(question.every)))
  const order = placed ? ` ORDER BY ${by.place()}` : ''
  const most = whole(question.whole ? question.most + 1 : question.most)
  const after = question.after ? ` OFFSET ${whole(question.after)}` : ''
  return `SELECT ${columns.length > 0 ? columns.join(', ') : '1'} FROM ${by.from(plain, named)}${order} LIMIT ${most}${after}`
}

/** The conditions that all rows must meet: on columns as they are, and on what is worked out from them. */
export function conditions(test: FarTest | undefined, by: Expressions): { plain: string[]; named: string[] } {
  const plain: string[] = []
  const named: string[] = []
  const all = test === undefined ? [] : test.is === 'all' ? test.tests : [test]
  for (const one of all) (usesNames(one) ? named : plain).push(condition(one, by))
  return { plain, named }
}

/** Whether a test looks at more than columns as they are stored. */
function usesNames(test: FarTest): boolean {
  switch (test.is) {
    case 'all':
    case 'any':
      return test.tests.some(usesNames)
    case 'not':
      return usesNames(test.test)
    case 'within':
      return [test.x, test.y].some(value => value.is !== 'column' || value.clock !== undefined)
    default:
      return test.value.is !== 'column' || test.value.clock !== undefined
  }
}

/** Numbers arrive as doubles, whatever they are counted in. */
export const output = (value: FarValue, by: Expressions): string =>
  by.typeOf(value) === 'text' || WHOLE.has(value.is) ? by.of(value) : by.dialect.asNumber(by.of(value))

/** These are whole numbers, which group more quickly as what they are. */
const WHOLE = new Set<FarValue['is']>(['bucket', 'cycle', 'cell', 'step'])

export const typeOf = (one: FarMeasure, by: Expressions): 'number' | 'text' =>
  'of' in one && (one.how === 'first' || one.how === 'last') ? by.typeOf(one.of) : 'number'

export function measure(one: FarMeasure, by: Expressions): string {
  const { dialect } = by
  if (one.how === 'count') return dialect.asNumber('count(*)')
  if (one.how === 'min' || one.how === 'max') return by.extreme(one.how, one.of, one.with)
  const own = by.of(one.of)
  switch (one.how) {
    case 'present':
      return dialect.asNumber(`count(${own})`)
    case 'distinct':
      return dialect.asNumber(dialect.distinct(own))
    case 'sum':
      return dialect.asNumber(dialect.sum(by.summed(one.of)))
    case 'mean':
      return dialect.asNumber(dialect.mean(by.summed(one.of)))
    case 'squares': {
      const away = `(${own} - ${by.writer.number(one.around)})`
      return dialect.asNumber(dialect.sum(`(${away} * ${away})`))
    }
    case 'quantile':
      return dialect.quantile(own, one.share)
    case 'first':
    case 'last': {
      const found = dialect.valueAt(one.how === 'first' ? 'least' : 'greatest', own, by.of({ is: 'place' }))
      return by.typeOf(one.of) === 'text' ? found : dialect.asNumber(found)
    }
    case 'at least':
    case 'at greatest':
      return dialect.asNumber(
        dialect.valueAt(one.how === 'at least' ? 'least' : 'greatest', own, by.of(one.by)),
      )
  }
}

/** A count that stands in the text itself. */
export function whole(value: number): string {
  const count = Math.floor(value)
  if (!Number.isSafeInteger(count) || count < 0) throw new Error('a count must be a whole number')
  return String(count)
}
