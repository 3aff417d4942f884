import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { SortedNumbers } from './sorted-numbers.ts'

test('numbers that come and leave in any number between looks are in order at each', () => {
  const number = fc.integer({ min: -20, max: 20 })
  const step = fc.record({
    come: fc.array(number, { maxLength: 6 }),
    leave: fc.array(number, { maxLength: 6 }),
  })
  fc.assert(
    fc.property(
      fc.array(number, { maxLength: 600, size: 'max' }),
      fc.array(step, { maxLength: 6 }),
      (first, steps) => {
        const sorted = new SortedNumbers()
        const all: number[] = []
        for (const { come, leave } of [{ come: first, leave: [] }, ...steps]) {
          for (const value of come) {
            sorted.add(value)
            all.push(value)
          }
          for (const value of leave) {
            if (!all.includes(value)) continue
            sorted.remove(value)
            all.splice(all.indexOf(value), 1)
          }
          const inOrder = [...all].sort((a, b) => a - b)
          expect(sorted.length).toBe(all.length)
          expect(inOrder.map((_, place) => sorted.at(place))).toEqual(inOrder)
        }
      },
    ),
    { numRuns: runs(200) },
  )
})
