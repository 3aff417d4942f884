import fc from 'fast-check'
import { expect, test, vi } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { Cubes } from './cubes.ts'
import { betweenEnds } from './gathered/cells.ts'
import type { FarAnswer, FarMeasure, FarQuestion, FarTest, FarValue } from './model.ts'

interface Row {
  pier: string
  wind: number | null
  delay: number | null
  load: number | null
}
const of = (column: keyof Row): FarValue => ({ is: 'column', column })
const number = (value: number | string | null) => (value === null ? Number.NaN : Number(value))

function valueIn(row: Row, value: FarValue): number | string | null {
  if (value.is === 'column') return row[value.column as keyof Row]
  if (value.is !== 'cell') throw new Error(`not asked here: ${value.is}`)
  const own = row[value.column as keyof Row]
  return own === null ? null : Math.floor((Number(own) - value.from) * value.perUnit)
}

function meets(row: Row, test: FarTest | undefined): boolean {
  if (!test) return true
  if (test.is === 'all') return test.tests.every(one => meets(row, one))
  if (test.is !== 'between') throw new Error(`not asked here: ${test.is}`)
  const own = valueIn(row, test.value)
  return own !== null && own >= test.from! && own <= test.last!
}

function measured(rows: Row[], measure: FarMeasure): number {
  if (measure.how === 'count') return rows.length
  const values = rows.map(row => number(valueIn(row, measure.of))).filter(value => value === value)
  if (measure.how === 'present') return values.length
  if (values.length === 0) return Number.NaN
  const sum = values.reduce((total, value) => total + value, 0)
  if (measure.how === 'sum') return sum
  if (measure.how === 'mean') return sum / values.length
  return measure.how === 'min' ? Math.min(...values) : Math.max(...values)
}

/** An engine of a few lines. */
function answerOf(rows: Row[], question: FarQuestion): FarAnswer {
  if (question.ask !== 'groups') throw new Error('not asked here')
  const groups = new Map<string, Row[]>()
  if (question.by.length === 0) groups.set('[]', [])
  for (const row of rows.filter(row => meets(row, question.where))) {
    const key = JSON.stringify(question.by.map(value => valueIn(row, value)))
    groups.set(key, [...(groups.get(key) ?? []), row])
  }
  const all = [...groups.values()]
  return {
    length: all.length,
    columns: [
      ...question.by.map(value => {
        const list = all.map(([row]) => valueIn(row, value))
        return value.is === 'cell' ? Float64Array.from(list, number) : (list as string[])
      }),
      ...question.measures.map(measure => Float64Array.from(all, own => measured(own, measure))),
    ],
  }
}

const whole = (max: number) => fc.option(fc.integer({ min: 0, max }), { nil: null, freq: 8 })
const row = fc.record({
  pier: fc.constantFrom('Old Mole', 'Kelp Quay', 'East'),
  wind: whole(60),
  delay: whole(30),
  load: whole(90),
})
const measures: FarMeasure[] = [
  { how: 'count' },
  ...(['sum', 'mean', 'present'] as const).map(how => ({ how, of: of('load') })),
]
// Between the values of rows, so that it is clear which are meant.
const ends = (max: number) =>
  fc
    .tuple(fc.integer({ min: 0, max }), fc.integer({ min: 0, max }))
    .map(([a, b]): [number, number] => [Math.min(a, b) - 0.5, Math.max(a, b) + 0.5])
// Sums that are taken from each other are near, not exact.
const round = (value: number) => Math.round(value * 1e9) / 1e9 + 0
const byPier = (answer: FarAnswer) =>
  Object.fromEntries(
    Array.from({ length: answer.length }, (_, i) => [
      answer.columns.length > 4 ? answer.columns[0][i] : '',
      answer.columns.slice(-4).map(values => round(values[i] as number)),
    ]),
  )

test('while a box is dragged, its cells add up to what the engine would answer, in one question for all of it', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(row, { maxLength: 60 }),
      fc.array(fc.tuple(ends(60), ends(30)), { minLength: 3, maxLength: 8 }),
      fc.boolean(),
      fc.boolean(),
      async (rows, boxes, flat, grouped) => {
        let asked = 0
        const cubes = new Cubes(
          async question => {
            asked++
            return answerOf(rows, question)
          },
          () => {},
        )
        let answered = 0
        for (const [wind, delay] of boxes) {
          const tests = flat
            ? [betweenEnds(of('wind'), wind)]
            : [betweenEnds(of('wind'), wind), betweenEnds(of('delay'), delay)]
          const selection: FarTest = { is: 'all', tests }
          const question: FarQuestion = {
            ask: 'groups',
            table: 't',
            where: { is: 'all', tests: [betweenEnds(of('load'), [0, 80]), selection] },
            by: grouped ? [of('pier')] : [],
            measures,
            most: 100,
          }
          const found = await cubes.answer(question, selection)
          if (found) {
            answered++
            expect(byPier(found)).toEqual(byPier(answerOf(rows, question)))
          }
          await new Promise(resolve => setImmediate(resolve))
        }
        const steps = boxes.filter((box, i) => i > 0 && JSON.stringify(box) !== JSON.stringify(boxes[i - 1]))
        // How many groups there are, how far they reach, and the cube; anew where another side begins to move.
        expect(asked).toBeLessThanOrEqual(6)
        if (
          rows.some(
            ({ wind, delay, load }) => wind !== null && delay !== null && load !== null && load <= 80,
          ) &&
          steps.length === boxes.length - 1 &&
          flat
        )
          expect(answered).toBeGreaterThanOrEqual(boxes.length - 1)
      },
    ),
    { numRuns: runs(150) },
  )
})

test('what cannot be added up is asked, and so is a selection that stands still', () => {
  const cubes = new Cubes(
    async () => ({ length: 0, columns: [] }),
    () => {},
  )
  const selection: FarTest = { is: 'all', tests: [betweenEnds(of('wind'), [0, 1])] }
  const question = (measure: FarMeasure): FarQuestion => ({
    ask: 'groups',
    table: 't',
    where: selection,
    by: [],
    measures: [measure],
    most: 9,
  })
  for (const measure of [
    { how: 'quantile', of: of('load'), share: 0.5 },
    { how: 'distinct', of: of('pier') },
    { how: 'min', of: of('load') },
  ] as const)
    expect(cubes.answer(question(measure), selection)).toBeUndefined()
  expect(cubes.answer(question({ how: 'count' }), selection)).toBeUndefined()
  expect(cubes.answer(question({ how: 'count' }), selection)).toBeUndefined()
  expect(cubes.answer(question({ how: 'count' }), undefined)).toBeUndefined()
})

test('each drag is of its own boxes, and equal questions within one are answered alike', async () => {
  vi.useFakeTimers()
  try {
    const rows: Row[] = Array.from({ length: 40 }, (_, i) => ({
      pier: 'East',
      wind: i,
      delay: i % 20,
      load: i % 30,
    }))
    let rests = 0
    const cubes = new Cubes(
      async question => answerOf(rows, question),
      () => rests++,
    )
    const ends = { wind: 10.5, delay: 10.5, load: 10.5 }
    const ask = async () => {
      const selection: FarTest = {
        is: 'all',
        tests: (['wind', 'delay', 'load'] as const).map(name => betweenEnds(of(name), [-0.5, ends[name]])),
      }
      const question: FarQuestion = { ask: 'groups', table: 't', where: selection, by: [], measures, most: 9 }
      const found = await cubes.answer(question, selection)
      return found && { found: byPier(found), exact: byPier(answerOf(rows, question)) }
    }
    expect(await ask()).toBeUndefined()
    for (const name of ['wind', 'delay', 'load'] as const) {
      for (const end of [12.5, 14.5]) {
        ends[name] = end
        for (const told of [await ask(), await ask()]) expect(told?.found).toEqual(told?.exact)
        expect((await ask())?.found).toBeDefined()
      }
      vi.advanceTimersByTime(1000)
      // At rest it is asked.
      expect(await ask()).toBeUndefined()
    }
    expect(rests).toBe(3)
  } finally {
    vi.useRealTimers()
  }
})
