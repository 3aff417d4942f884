import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { englishNumbers } from './english-numbers.ts'

const value = fc.oneof(
  fc.double({ noNaN: true }),
  fc.integer(),
  fc.double({ min: -2e6, max: 2e6, noNaN: true }),
  // Halves, where rounding is decided.
  fc.integer({ min: -100_000, max: 100_000 }).map(n => n / 8),
)
const options = fc.oneof(
  fc.record({ useGrouping: fc.boolean() }),
  fc.record({ maximumSignificantDigits: fc.integer({ min: 1, max: 8 }) }),
  fc
    .tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }), fc.boolean())
    .map(([a, b, useGrouping]) => ({
      minimumFractionDigits: Math.min(a, b),
      maximumFractionDigits: Math.max(a, b),
      useGrouping,
    })),
  fc.integer({ min: 0, max: 20 }).map(maximumFractionDigits => ({ maximumFractionDigits })),
)

test('writes every number as Intl does, or leaves it to it', () => {
  let written = 0
  fc.assert(
    fc.property(value, options, (value, options) => {
      const text = englishNumbers('en', options)?.(value)
      if (text === undefined) return
      written++
      expect(text).toBe(new Intl.NumberFormat('en', options).format(value))
    }),
    { numRuns: runs(4000) },
  )
  expect(written).toBeGreaterThan(runs(2500))
})

test('leaves other languages and options alone', () => {
  expect(englishNumbers('de', {})).toBeUndefined()
  expect(englishNumbers('en', { style: 'percent' })).toBeUndefined()
  expect(englishNumbers('en', { notation: 'compact' })).toBeUndefined()
  expect(englishNumbers('en', {})?.(Number.NaN)).toBeUndefined()
})
