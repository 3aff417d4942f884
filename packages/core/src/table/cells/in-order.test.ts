import fc from 'fast-check'
import { expect, test } from 'vitest'
import { inOrder } from './in-order.ts'

const few = fc.array(fc.integer({ min: -5, max: 5 }), { maxLength: 40 })
/** Almost in order: some values of a rising row are elsewhere. */
const almost = fc
  .tuple(
    fc.integer({ min: 0, max: 4000 }),
    fc.array(fc.tuple(fc.nat(3999), fc.integer({ min: -10, max: 9000 })), { maxLength: 12 }),
  )
  .map(([length, moved]) => {
    const values = Array.from({ length }, (_, i) => i)
    for (const [at, value] of moved) if (at < length) values[at] = value
    return values
  })
const shuffled = fc.array(fc.double({ noNaN: true }), { minLength: 1500, maxLength: 2500 })

test('rows come in the order of their values, equal ones as they stand', () => {
  fc.assert(
    fc.property(fc.oneof(few, almost, shuffled), values => {
      const rows = Int32Array.from(values.keys())
      const sorted = [...values.keys()].sort((a, b) => values[a] - values[b] || a - b)
      expect(Array.from(inOrder(Float64Array.from(values), rows))).toEqual(sorted)
    }),
  )
})
