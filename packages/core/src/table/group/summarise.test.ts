import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { table } from '../open/read.ts'
import type { How } from '../phrase/meaning.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { encode } from './encode.ts'
import { groupRows } from './group.ts'
import { summarise } from './summarise.ts'

/** Whatever way rows are gathered — by runs, pairs, tables or maps — a plain loop over them finds the same. */

const row = fc.record({
  day: fc.option(fc.integer({ min: 0, max: 90 }), { nil: null }),
  route: fc.constantFrom('North Sound', 'Gannet Bay', 'Kelp Narrows', ''),
  pier: fc.constantFrom('a', 'b', 'c'),
  n: fc.option(fc.integer({ min: -9, max: 9 }), { nil: null }),
})
type Row = typeof row extends fc.Arbitrary<infer R> ? R : never
const start = Date.UTC(2024, 0, 1)

const tableOf = (rows: Row[]) =>
  table(
    {
      at: Float64Array.from(rows, one => (one.day === null ? Number.NaN : start + one.day * 86_400_000)),
      route: rows.map(one => one.route),
      pier: rows.map(one => one.pier),
      n: Float64Array.from(rows, one => one.n ?? Number.NaN),
    },
    {
      columns: {
        at: { type: 'time' },
        route: { type: 'text' },
        pier: { type: 'text' },
        n: { type: 'number' },
      },
    },
  )
const month = (one: Row) =>
  one.day === null ? null : new Date(start + one.day * 86_400_000).toISOString().slice(0, 7)
const BY: Record<string, (row: Row) => unknown> = {
  'month of at': month,
  route: one => one.route || null,
  pier: one => one.pier,
}

function oracle(how: How, values: (number | null)[]): number {
  const there = values.filter(v => v !== null)
  const sorted = [...there].sort((a, b) => a - b)
  const sum = there.reduce((a, b) => a + b, 0)
  const middle = sorted.length >> 1
  if (how === 'count') return values.length
  if (how === 'distinct') return new Set(there).size
  if (there.length === 0) return Number.NaN
  return {
    sum,
    mean: sum / there.length,
    p90: between(sorted, 0.9),
    p12: between(sorted, 0.12),
    median: sorted.length % 2 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2,
    min: sorted[0],
    max: sorted.at(-1)!,
    first: there[0],
    last: there.at(-1)!,
  }[how as 'sum' | 'p90' | 'p12']!
}

/** The value at a share of the way from the first to the last, by weights of all values. */
const between = (sorted: number[], share: number) =>
  sorted.reduce((sum, v, i) => sum + v * Math.max(0, 1 - Math.abs(i - (sorted.length - 1) * share)), 0)

describe.each([
  ['one role', ['route']],
  ['times', ['month of at']],
  ['two roles', ['month of at', 'route']],
  ['three roles', ['month of at', 'route', 'pier']],
])('grouped by %s', (_, phrases) => {
  test.each([true, false])('with times in order: %s', ordered => {
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 1, maxLength: 40 }),
        fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }),
        fc.boolean(),
        (list, marks, some) => {
          const rows = ordered ? list.filter(one => one.day !== null).sort((a, b) => a.day! - b.day!) : list
          const data = tableOf(rows)
          const encodings = phrases.map(phrase => {
            const meaning = readPhrase(phrase, data, 'x')
            return encode(meaning, data.needColumn('column' in meaning ? meaning.column! : '', 'x'))
          })
          const only = some ? Int32Array.from([...rows.keys()].filter(i => marks[i])) : undefined
          const groups = groupRows(encodings, data.length, only)
          const expected = new Map<string, number[]>()
          for (const i of only ?? rows.keys()) {
            const key = JSON.stringify(phrases.map(phrase => BY[phrase](rows[i])))
            expected.set(key, [...(expected.get(key) ?? []), i])
          }
          expect(groups.count).toBe(expected.size)
          // In order of first appearance, each with its rows in table order.
          const found = Array.from({ length: groups.count }, (_, g) => Array.from(groups.rowsOf(g)))
          expect(found).toEqual([...expected.values()])
          for (const how of [
            'count',
            'distinct',
            'sum',
            'mean',
            'median',
            'p90',
            'p12',
            'min',
            'max',
            'first',
            'last',
          ] as How[]) {
            const values = summarise(how, data.needColumn('n', 'y'), groups)
            found.forEach((own, g) => {
              const want = oracle(
                how,
                own.map(i => rows[i].n),
              )
              // A column without a gap sums to 0 where a group is empty; with gaps, nothing is nothing.
              if (Number.isNaN(want)) expect(values[g]).toBeNaN()
              else expect(values[g]).toBeCloseTo(want, 9)
            })
          }
        },
      ),
    )
  })
})
