import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { RowList } from './row-list.ts'

type Step =
  | { do: 'append'; values: number[] }
  | { do: 'drop'; share: number }
  | { do: 'remove'; shares: number[] }
  | { do: 'set'; share: number; value: number }
  | { do: 'look' }

const share = fc.integer({ min: 0, max: 999 }).map(part => part / 1000)
const value = fc.integer({ min: -1000, max: 1000 })
const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ do: fc.constant('append' as const), values: fc.array(value, { maxLength: 40 }) }),
  fc.record({ do: fc.constant('drop' as const), share }),
  fc.record({ do: fc.constant('remove' as const), shares: fc.array(share, { maxLength: 60 }) }),
  fc.record({ do: fc.constant('set' as const), share, value }),
  fc.record({ do: fc.constant('look' as const) }),
)

test('after any history rows stand where an array has them, and what was given stays as it was', () => {
  fc.assert(
    fc.property(fc.array(value, { maxLength: 300 }), fc.array(step, { maxLength: 30 }), (given, steps) => {
      const mine = Float64Array.from(given)
      const list = new RowList(mine, false)
      const model = [...given]
      for (const step of steps) {
        const at = (share: number) => Math.floor(share * model.length)
        if (step.do === 'append') {
          list.append(Float64Array.from(step.values))
          model.push(...step.values)
        } else if (step.do === 'drop') {
          const count = Math.floor(at(step.share) / 4)
          list.dropFirst(count)
          model.splice(0, count)
        } else if (step.do === 'set' && model.length > 0) {
          list.set(at(step.share), step.value)
          model[at(step.share)] = step.value
        } else if (step.do === 'remove' && model.length > 0) {
          const rows = [...new Set(step.shares.map(at))].sort((a, b) => a - b)
          list.remove(rows)
          for (const row of rows.reverse()) model.splice(row, 1)
        } else if (step.do === 'look') expect([...list.all]).toEqual(model)
        expect(Array.from({ length: list.length }, (_, row) => list.get(row))).toEqual(model)
      }
      expect([...list.all]).toEqual(model)
      expect([...mine]).toEqual(given)
    }),
    { numRuns: runs(500) },
  )
})

test('a row is found by halving over gaps', () => {
  const list = new RowList(Int32Array.from({ length: 1000 }, (_, row) => row * 2))
  list.remove([3, 500, 501, 998])
  expect([
    list.firstAtLeast(6),
    list.firstAtLeast(8),
    list.firstAtLeast(1002),
    list.firstAtLeast(5000),
  ]).toEqual([3, 3, 499, 996])
})
