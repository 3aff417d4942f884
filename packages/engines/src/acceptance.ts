/** What an engine must answer: for those who write an adapter. Needs the package `fast-check`. */
import { table } from '@dapplo/core'
import { type FarEngine, type FarTableOptions, farTable } from '@dapplo/core/far'
import { ask, type Question, readPhrase } from '@dapplo/core/internal'
import fc from 'fast-check'

/** A column of what an engine is tried with. */
export interface TriedColumn {
  name: string
  /** `moment`: times in UTC; `clock`: times without a zone, as clocks showed them. */
  type: 'number' | 'moment' | 'clock' | 'date' | 'text'
  /** Times as milliseconds; of clocks and dates as if they were UTC. */
  values: (number | string | null)[]
}

/** What is tried. */
export interface Trial {
  engine: FarEngine
  /** Makes a table of these columns and rows, and says what it is called. A column `place` numbers the rows. */
  fill(columns: readonly TriedColumn[]): Promise<string>
  /** Types of columns that it does not have. */
  lacks?: readonly TriedColumn['type'][]
  /** Times that it can hold. Default: from year 1 to 9000. */
  times?: readonly [from: number, until: number]
  /** Whether its numbers can be none, or without end. */
  endless?: boolean
  /** Letters that its texts cannot have. */
  without?: RegExp
}

/** The marks of an answer, told in one way whoever answered; or the message of an error. */
export type ToldMarks = { key: string; values: Record<string, number | string | null> }[] | { error: string }

/** Asks the columns here and an engine the same question about the same rows. */
export async function bothAnswers(
  trial: Trial,
  columns: readonly TriedColumn[],
  phrases: Record<string, unknown>,
  more: Omit<Question, 'roles'> = {},
  options: FarTableOptions = {},
): Promise<{ here: ToldMarks; there: ToldMarks }> {
  const numbered: TriedColumn[] = [
    ...columns,
    { name: 'place', type: 'number', values: (columns[0]?.values ?? []).map((_, i) => i) },
  ]
  const near = table(
    Object.fromEntries(numbered.map(({ name, type, values }) => [name, values.map(asText(type))])),
    {
      columns: Object.fromEntries(numbered.map(({ name, type }) => [name, { type: TYPES[type] }])),
      ...options,
    },
  )
  const far = await farTable(trial.engine, await trial.fill(numbered), options)
  const question = (of: typeof near | typeof far): Question => ({
    ...more,
    roles: new Map(Object.entries(phrases).map(([role, phrase]) => [role, readPhrase(phrase, of, role)])),
  })
  return {
    here: await told(() => ask(near, question(near))),
    there: await told(() => ask(far, question(far))),
  }
}

/** Zones with and without daylight saving, ahead of UTC and behind it. */
const ZONES = ['UTC', 'Europe/Lisbon', 'America/New_York']

/** A property for fast-check: of random questions about random rows, handed to `compare` as the engine and as columns here answer. */
export const answersAlike = (
  trial: Trial,
  of: Parameters<typeof rowsFor>[0],
  compare: (there: ToldMarks, here: ToldMarks) => void,
) =>
  fc.asyncProperty(
    rowsFor(of),
    questionsFor(of),
    fc.constantFrom(...ZONES),
    async (columns, [phrases, more], timeZone) => {
      const { here, there } = await bothAnswers(trial, columns, phrases, more, { timeZone })
      compare(there, here)
    },
  )

/** How many rows lie in cells of one width on a logarithmic scale, as the columns here would count them and as an engine does. */
export async function countsOnLog(
  trial: Trial,
): Promise<{ here: Record<string, number>; there: Record<string, number> }> {
  const values = [1.5, 12, 15, 99, 110, 4000, 0.02, 0, -5, null, 1e12]
  const [from, perUnit] = [-1.25, 2.5]
  const place: TriedColumn = { name: 'place', type: 'number', values: values.map((_, i) => i) }
  const name = await trial.fill([{ name: 'value', type: 'number', values: [...values] }, place])
  await trial.engine.describe(name)
  const { columns, length } = await trial.engine.ask({
    ask: 'groups',
    table: name,
    by: [{ is: 'cell', column: 'value', from, perUnit, log10: true }],
    measures: [{ how: 'count' }],
    most: 1000,
  }).answer
  const here: Record<string, number> = {}
  for (const value of values) {
    // What is not above zero has no place on such a scale.
    const cell = value !== null && value > 0 ? Math.floor((Math.log10(value) - from) * perUnit) : Number.NaN
    here[cell] = (here[cell] ?? 0) + 1
  }
  const there = Object.fromEntries(
    Array.from({ length }, (_, i) => [String(columns[0][i]), Number(columns[1][i])]),
  )
  return { here, there }
}

const TYPES = { number: 'number', moment: 'time', clock: 'time', date: 'time', text: 'text' } as const

/** Values as they would come in a file: dates without a clock, clock times without a zone. */
const asText = (type: TriedColumn['type']) => (value: number | string | null) => {
  if (value === null || typeof value === 'string') return value
  if (type === 'moment') return new Date(value)
  if (type === 'clock') return new Date(value).toISOString().replace('Z', '')
  return type === 'date' ? new Date(value).toISOString().slice(0, 10) : value
}

async function told(answer: () => ReturnType<typeof ask>): Promise<ToldMarks> {
  try {
    const shaped = await answer()
    return Array.from({ length: shaped.length }, (_, mark) => ({
      key: shaped.grouped ? String(shaped.keyOf(mark)) : String(mark),
      values: Object.fromEntries(
        [...shaped.roles].flatMap(([role, { cells, ends }]) => {
          const value =
            cells.type === 'text' ? (cells.words[cells.codes[mark]] ?? null) : neat(cells.values[mark])
          return ends
            ? [
                [role, value],
                [`${role} end`, neat(ends[mark])],
              ]
            : [[role, value]]
        }),
      ),
    }))
  } catch (error) {
    const { code, message } = error as { code?: string; message: string }
    return { error: code === undefined || code === 'engine-failed' ? message : code }
  }
}

/** Numbers that are equal to nine digits are told alike. */
function neat(value: number): number | null {
  if (Number.isNaN(value)) return null
  const rounded = Number(value.toPrecision(9))
  return rounded === 0 ? 0 : rounded
}

const DAY = 86_400_000
/** Names and texts that are hard to write down. */
export const HARD = [
  'Tern Point',
  "O'Kelp",
  'say "when"',
  'select',
  '__proto__',
  '); DROP TABLE t; --',
  '\\',
  '$1',
  'ü漢字🚢',
  '%',
  '{a}',
  ' lead',
  'line\nbreak',
  '1',
]

/** Rows that an engine is tried with. */
export function rowsFor({
  lacks = [],
  times,
  without,
  endless = false,
}: Omit<Trial, 'engine' | 'fill'>): fc.Arbitrary<TriedColumn[]> {
  const [from, until] = times ?? [Date.UTC(1, 0, 2) - 1900 * 365.25 * DAY, Date.UTC(9000, 0, 1)]
  const usual = fc.integer({ min: Date.UTC(2023, 9, 1) / 60_000, max: Date.UTC(2024, 4, 1) / 60_000 })
  const time = fc.oneof(
    { weight: 8, arbitrary: usual.map(minute => minute * 60_000) },
    {
      weight: 1,
      arbitrary: fc
        .integer({
          min: Math.ceil(Math.max(from, -2e12) / 1000),
          max: Math.floor(Math.min(until, 4e12) / 1000),
        })
        .map(second => second * 1000),
    },
  )
  const texts = HARD.filter(text => !without?.test(text))
  const cell = {
    number: fc.oneof(
      fc.integer({ min: -5, max: 9 }),
      fc.constantFrom(0.1, -0.25, 1e15, 2 ** 53, 1e-7, -0),
      ...(endless ? [fc.constantFrom(Number.NaN, Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY)] : []),
    ),
    moment: time,
    clock: time,
    date: time.map(value => Math.floor(value / DAY) * DAY),
    text: fc.constantFrom(...texts),
  }
  const gaps = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { freq: 8 })
  const columns = (
    [
      ['departed', 'moment'],
      ['boarded', 'clock'],
      ['day', 'date'],
      ['route', 'text'],
      ['say "vessel"', 'text'],
      ['load', 'number'],
      ['select', 'number'],
    ] as const
  ).filter(([, type]) => !lacks.includes(type))
  return fc
    .array(fc.tuple(...columns.map(([, type]) => gaps<number | string>(cell[type]))), { maxLength: 40 })
    .map(rows =>
      columns.map(([name, type], i) => ({
        name,
        type,
        values: rows.map(row => row[i] as number | string | null),
      })),
    )
}

/** Questions that an engine is tried with: what roles are bound to, and all else that is asked. */
export function questionsFor({
  lacks = [],
}: Omit<Trial, 'engine' | 'fill'> = {}): fc.Arbitrary<[Record<string, unknown>, Omit<Question, 'roles'>]> {
  const times = (['departed', 'boarded', 'day'] as const).filter(
    name => !lacks.includes(({ departed: 'moment', boarded: 'clock', day: 'date' } as const)[name]),
  )
  const time = fc.constantFrom(...times)
  const number = fc.constantFrom('load', 'select')
  const text = fc.constantFrom('route', 'say "vessel"')
  const unit = fc.constantFrom('minute', 'hour', 'day', 'week', 'month', 'quarter', 'year')
  const cycle = fc.constantFrom('hour of day', 'weekday', 'day of month', 'day of year', 'month of year')
  const of = (word: fc.Arbitrary<string>, column: fc.Arbitrary<string>) =>
    fc.tuple(word, column).map(([word, column]) => ({ [word]: column }))
  const column = (name: fc.Arbitrary<string>) => name.map(column => ({ column }))
  const group: fc.Arbitrary<object> = fc.oneof(
    of(unit, time),
    of(cycle, time),
    column(text),
    column(number),
    fc
      .tuple(number, fc.option(fc.constantFrom(2, 10), { nil: undefined }))
      .map(([bins, width]) => ({ bins, ...(width ? { width } : {}) })),
    fc
      .tuple(text, fc.integer({ min: 1, max: 4 }), fc.constantFrom(undefined, true, 'Others'))
      .map(([column, top, rest]) => ({ column, top, ...(rest ? { rest } : {}) })),
  )
  const measure: fc.Arbitrary<object> = fc.oneof(
    fc.constant({ count: true }),
    of(
      fc.constantFrom(
        'sum',
        'mean',
        'median',
        'p90',
        'min',
        'max',
        'first',
        'last',
        'share',
        'rank',
        'sum so far',
      ),
      number,
    ),
    of(fc.constant('distinct'), fc.oneof(number, text, time)),
    of(fc.constantFrom('min', 'max', 'first', 'last'), time),
    fc.constant({ ratio: 'load', to: 'select' }),
  )
  const condition: fc.Arbitrary<Question['where']> = fc.oneof(
    fc.tuple(text, fc.constantFrom(...HARD)).map(([name, word]) => ({ [name]: word })),
    fc.tuple(text, fc.subarray(HARD, { minLength: 1 })).map(([name, words]) => ({ [name]: { not: words } })),
    text.map(name => ({ [name]: { from: 'S', until: 'ü' } })),
    fc
      .tuple(number, fc.constantFrom(-1, -0.25, -4.5e-7))
      .map(([name, from]) => ({ [name]: { from, until: 5 } })),
    fc.oneof(number, text, time).map(name => ({ [name]: null })),
    time.map(name => ({ [name]: { from: '2023-12-03', until: '2024-03-31T01:30' } })),
    fc.tuple(unit, time).map(([word, name]) => ({ [`${word} of ${name}`]: { from: '2024-01-01' } })),
    time.map(name => ({ [`weekday of ${name}`]: ['6', '7'] })),
    number.map(name => ({ [`bins of ${name}`]: { not: 0 } })),
  )
  const roles: fc.Arbitrary<Record<string, unknown>> = fc.oneof(
    fc.tuple(group, measure).map(([x, y]) => ({ x, y })),
    fc.tuple(group, measure, group).map(([x, y, color]) => ({ x, y, color })),
    measure.map(y => ({ y })),
    fc
      .tuple(column(fc.oneof(time, number)), column(number), column(text))
      .map(([x, y, color]) => ({ x, y, color })),
    fc.tuple(of(unit, time), column(number)).map(([x, y]) => ({ x, y })),
  )
  const order = fc.constantFrom(undefined, 'x')
  const shareOf = fc.constantFrom(undefined, 'x' as const, 'whole' as const)
  return fc.tuple(
    roles,
    fc.record({
      where: fc.option(condition, { nil: undefined }),
      order,
      shareOf,
      other: fc.constant('Other'),
    }),
  )
}
