import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, DapploError, type Description, table } from '../index.ts'
import { readAt, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

/** Numbers and dates at the ends of what there is end in a picture without nonsense, or in one plain sentence. */

const number = fc.oneof(
  fc.double(),
  fc.constantFrom(
    0,
    -0,
    5e-324,
    -1e-310,
    1e-100,
    1e15,
    1e16 + 2,
    -1e100,
    1e300,
    Number.MAX_VALUE,
    -Number.MAX_VALUE,
    Number.NaN,
    Number.POSITIVE_INFINITY,
    2 ** 53,
    2 ** 53 + 2,
  ),
)
const time = fc
  .constantFrom(0, 8.64e15, -8.64e15, 8.7e15, -6e13, 1.7e12, 1.7e12 + 1, 1e18, Number.NaN)
  .map(at => (Math.abs(at) > 8.64e15 ? at : new Date(at)))
const row = fc.record({
  a: number,
  b: number,
  c: number,
  t: time,
  g: fc.constantFrom('North', 'South', '', '__proto__'),
})
const description = fc.record(
  {
    draw: fc.constantFrom('line', 'bar', 'scatter', 'area', 'heatmap', 'pie'),
    x: fc.constantFrom('a', 't', 'g', 'bins of a', 'month of t', 'year of t', 'weekday of t', 'minute of t'),
    y: fc.constantFrom('b', 'sum of b', 'mean of b', 'count', 'share of b', 'sum so far of b', 'median of c'),
    color: fc.constantFrom('g', 'c'),
    label: fc.constant(true),
    arrange: fc.constantFrom('stack', 'share', 'side', 'overlap'),
    scales: fc.constantFrom('linear', 'log', 'root', 'signed log').map(kind => ({ y: { kind } })),
  },
  { requiredKeys: ['draw', 'x', 'y'] },
)
const types = { a: 'number', b: 'number', c: 'number', t: 'time', g: 'text' } as const

test('whatever the values, there is a picture or a reason', () => {
  fc.assert(
    fc.property(
      fc.array(row, { minLength: 1, maxLength: 6 }),
      description,
      fc.constantFrom([60, 40], [200, 500], [800, 200]),
      (rows, wish, [width, height]) => {
        const columns = Object.fromEntries(Object.entries(types).map(([name, type]) => [name, { type }]))
        try {
          const made = chart(table(rows, { columns }), wish as Description)
          const view = new View(made, {}, { width, height, measure: measureInter })
          for (const batch of view.scene.batches)
            if (batch.kind === 'texts')
              for (const text of batch.texts) expect(text).not.toMatch(/NaN|undefined|Invalid|Infinity/)
          const reading = readAt(view.composition.value, width / 2, height / 2)
          for (const one of reading?.rows ?? []) expect(one.text).not.toMatch(/NaN|undefined|Invalid/)
          expect(view.scene.description).not.toMatch(/NaN|undefined|Invalid/)
        } catch (error) {
          if (!(error instanceof DapploError)) throw error
          expect(error.sentence).not.toMatch(/undefined|\[object/)
        }
      },
    ),
    { numRuns: runs(400) },
  )
})

test('times that are no dates are missing, and the table says so', () => {
  const nanoseconds = [1.7e18, 1.7e18 + 1e9]
  for (const at of [nanoseconds, Float64Array.from(nanoseconds), [new Date(Number.NaN), 1e17]]) {
    const made = table({ at, n: [1, 2] }, { columns: { at: { type: 'time' } } })
    expect(made.rows().map(one => one.at)).toEqual([null, null])
    expect(made.findings.map(one => one.code)).toContain('unreadable-cells')
  }
  expect(table({ word: ['a', new Date(Number.NaN)] }).row(1)).toEqual({ word: null })
})
