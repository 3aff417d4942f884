import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { table } from '../open/read.ts'
import { rowsWhere } from './where.ts'

const word = fc.constantFrom('North Sound', 'Gannet Bay', 'Kelp Narrows', '__proto__', '')
const row = fc.record({
  route: word,
  n: fc.option(fc.integer({ min: -5, max: 5 }), { nil: null }),
  day: fc.option(fc.integer({ min: 0, max: 800 }), { nil: null }),
})
type Row = typeof row extends fc.Arbitrary<infer R> ? R : never
const start = Date.UTC(2024, 0, 1)
const isoOf = (day: number) => new Date(start + day * 86_400_000).toISOString().slice(0, 10)
const tableOf = (rows: Row[]) =>
  table(
    {
      route: rows.map(one => one.route),
      n: rows.map(one => one.n),
      at: rows.map(one => (one.day === null ? null : isoOf(one.day))),
    },
    { columns: { route: { type: 'text' }, n: { type: 'number' }, at: { type: 'time' } } },
  )
const places = (rows: Row[], where: object) =>
  Array.from(rowsWhere(tableOf(rows), where as never, 'where') ?? rows.keys())
const expected = (rows: Row[], test: (row: Row) => boolean) =>
  rows.flatMap((one, i) => (test(one) ? [i] : []))
const rows = fc.array(row, { maxLength: 30 })

describe('conditions', () => {
  test('on numbers: a value, a list, a span that leaves its end out, what must not be, and missing', () => {
    fc.assert(
      fc.property(rows, fc.integer({ min: -5, max: 5 }), fc.integer({ min: -5, max: 5 }), (list, a, b) => {
        expect(places(list, { n: a })).toEqual(expected(list, one => one.n === a))
        expect(places(list, { n: [a, b] })).toEqual(expected(list, one => one.n === a || one.n === b))
        expect(places(list, { n: { from: a, until: b } })).toEqual(
          expected(list, one => one.n !== null && one.n >= a && one.n < b),
        )
        expect(places(list, { n: { not: [a, b] } })).toEqual(
          expected(list, one => one.n !== a && one.n !== b),
        )
        expect(places(list, { n: null })).toEqual(expected(list, one => one.n === null))
      }),
    )
  })

  test('on texts, none of which is anything but a text', () => {
    fc.assert(
      fc.property(rows, word, word, (list, a, b) => {
        // An empty text is a missing value, which no text equals.
        expect(places(list, { route: a })).toEqual(expected(list, one => a !== '' && one.route === a))
        expect(places(list, { route: { not: a } })).toEqual(
          expected(list, one => a === '' || one.route !== a),
        )
        expect(places(list, { route: { from: a, until: b } })).toEqual(
          expected(list, one => one.route !== '' && one.route >= a && one.route < b),
        )
        expect(places(list, { route: null })).toEqual(expected(list, one => one.route === ''))
      }),
    )
  })

  test('on times and their buckets', () => {
    fc.assert(
      fc.property(rows, fc.integer({ min: 0, max: 800 }), fc.integer({ min: 0, max: 800 }), (list, a, b) => {
        expect(places(list, { at: { from: isoOf(a), until: isoOf(b) } })).toEqual(
          expected(list, one => one.day !== null && one.day >= a && one.day < b),
        )
        const month = isoOf(a).slice(0, 7)
        expect(places(list, { 'month of at': `${month}-01` })).toEqual(
          expected(list, one => one.day !== null && isoOf(one.day).startsWith(month)),
        )
        expect(places(list, { 'weekday of at': '1' })).toEqual(
          expected(list, one => one.day !== null && new Date(isoOf(one.day)).getUTCDay() === 1),
        )
      }),
    )
  })

  test('hold all together, and none holds for all', () => {
    fc.assert(
      fc.property(rows, word, fc.integer({ min: -5, max: 5 }), (list, route, n) => {
        expect(places(list, { route: { not: route }, n: { from: n } })).toEqual(
          expected(list, one => (route === '' || one.route !== route) && one.n !== null && one.n >= n),
        )
        expect(rowsWhere(tableOf(list), {}, 'where')).toBeUndefined()
        expect(rowsWhere(tableOf(list), { n: undefined } as never, 'where')).toBeUndefined()
      }),
    )
  })

  test.each([
    [{ 'sum of n': 3 }, 'sums rows up'],
    [{ nn: 3 }, 'There is no column "nn"'],
    [{ n: 'three' }, '"three" is no number'],
    [{ at: 'soon' }, '"soon" is no time'],
    [{ n: { least: 3 } }, '"least" is no condition'],
  ])('%j is refused in one sentence', (where, sentence) => {
    const list: Row[] = [{ route: 'Gannet Bay', n: 1, day: 1 }]
    expect(() => places(list, where)).toThrow(sentence)
  })

  test('four figures are a year, of a time and of a bucket, in the zone of the column', () => {
    const visits = table(
      { at: ['2024-12-31T23:30', '2025-01-01T00:30', '2025-12-31T23:30', '2026-01-01T00:00'] },
      { columns: { at: { timeZone: 'Asia/Tokyo' } } },
    )
    const rowsOf = (where: object) => Array.from(rowsWhere(visits, where as never, 'where')!)
    expect(rowsOf({ 'year of at': 2025 })).toEqual([1, 2])
    expect(rowsOf({ at: { from: 2025, until: 2026 } })).toEqual([1, 2])
  })
})
