import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { TableColumn } from './column.ts'
import { extentOf } from './extent.ts'
import { extremes } from './pyramid.ts'
import type { Reader } from './reader.ts'
import { utc } from './zone.ts'

const ROWS = 12_000
/** So many rows are looked at together. */
const WIDE = 70

const own = fc.oneof(
  { weight: 5, arbitrary: fc.integer({ min: -500, max: 500 }) },
  { weight: 1, arbitrary: fc.constant(Number.NaN) },
)
const share = fc.integer({ min: 0, max: 999 }).map(part => part / 1000)
const step = fc.oneof(
  fc.record({ do: fc.constant('append' as const), values: fc.array(own, { minLength: 1, maxLength: 9 }) }),
  fc.record({ do: fc.constant('drop' as const), count: fc.integer({ min: 1, max: 400 }) }),
  fc.record({ do: fc.constant('remove' as const), shares: fc.array(share, { minLength: 1, maxLength: 9 }) }),
  fc.record({ do: fc.constant('write' as const), share, value: own }),
  fc.record({ do: fc.constant('look' as const), share }),
)

const reader: Reader = { type: 'number', numbers: undefined, dates: 'iso', dateOnly: false, zone: utc }
const cells = (values: number[]) => ({ type: 'number' as const, values: Float64Array.from(values) })

test('what a column knows of its numbers after any history is what these are', () => {
  fc.assert(
    fc.property(fc.boolean(), fc.array(step, { minLength: 5, maxLength: 25 }), (sorted, steps) => {
      const column = new TableColumn(
        'delay',
        cells(Array.from({ length: ROWS }, (_, row) => (sorted ? row : (row * 7919) % 997))),
        reader,
      )
      let length = ROWS
      const look = (share: number) => {
        const { values } = column.cells as { values: Float64Array }
        expect(column.extent).toEqual(extentOf({ type: 'number', values }))
        for (let from = Math.floor(share * WIDE); from < length; from += WIDE) {
          const part = values.subarray(from, from + WIDE).filter(value => !Number.isNaN(value))
          const { min, max } = extremes(column.pyramid, from, Math.min(length, from + WIDE))
          if (min !== Math.min(...part) || max !== Math.max(...part))
            expect([from, min, max]).toEqual([from, Math.min(...part), Math.max(...part)])
        }
        expect(column.pyramid.missing).toBe(values.reduce((n, value) => n + Number(Number.isNaN(value)), 0))
      }
      look(0)
      for (const step of steps) {
        if (step.do === 'append') column.append(cells(step.values))
        else if (step.do === 'drop') column.dropFirst(step.count)
        else if (step.do === 'write') column.write(Math.floor(step.share * length), cells([step.value]), 0)
        else if (step.do === 'look') look(step.share)
        else {
          const rows = [...new Set(step.shares.map(share => Math.floor(share * length)))]
          column.remove(rows.sort((a, b) => a - b))
          length -= rows.length
        }
        if (step.do === 'append') length += step.values.length
        if (step.do === 'drop') length -= step.count
      }
      look(0.5)
    }),
    { numRuns: runs(150) },
  )
})
