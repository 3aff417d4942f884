import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { table } from '../open/read.ts'
import { derivedTable as reshape } from '../reshape/reshape.ts'
import { allTests, maskOf, rootOf, rootRows, rowsTest, rowTest, selectionsOf } from './selection.ts'

const routes = ['North Sound', 'Gannet Bay', 'Kelp Narrows']
const made = (count: number) =>
  table(
    Array.from({ length: count }, (_, i) => ({ id: i, route: routes[i % 3], n: (i * 7) % 11 })),
    { key: 'id' },
  )
const places = (mask: Uint8Array | undefined) => mask && [...mask.keys()].filter(row => mask[row] === 1)

describe('selections', () => {
  test('of others meet in what all of them hold', () => {
    fc.assert(
      fc.property(fc.array(fc.uniqueArray(fc.integer({ min: 0, max: 19 })), { maxLength: 4 }), lists => {
        const rows = made(20)
        const store = selectionsOf(rows)
        const owners = lists.map(() => ({}))
        lists.forEach((list, i) => {
          store.set(owners[i], list)
        })
        owners.forEach((owner, own) => {
          const others = lists.filter((list, i) => i !== own && list.length > 0)
          const expected = [...Array(20).keys()].filter(row => others.every(list => list.includes(row)))
          expect(places(store.byOthers(owner).value)).toEqual(others.length > 0 ? expected : undefined)
        })
        for (const owner of owners) store.set(owner, undefined)
        expect(store.byOthers({}).value).toBeUndefined()
      }),
    )
  })

  test('stay with their rows while others come and go', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 19 })),
        fc.uniqueArray(fc.integer({ min: 0, max: 19 })),
        (chosen, gone) => {
          const rows = made(20)
          rows.remove(gone).append([{ id: 99, route: 'Gannet Bay', n: 1 }])
          const ids = (places(maskOf(rows, chosen)) ?? []).map(row => rows.row(row).id)
          expect(ids).toEqual(chosen.filter(id => !gone.includes(id)).sort((a, b) => a - b))
        },
      ),
    )
  })

  test('reach through derived tables to the rows they came from', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 29 })), chosen => {
        const rows = made(30)
        const sorted = reshape(rows, [{ sort: 'n', order: 'down' }])
        const sums = reshape(sorted, [{ group: ['route'], values: ['sum of n'] }])
        expect(rootOf(sums)).toBe(rows)
        const mask = maskOf(rows, chosen)
        const passes = rowTest(sums, mask)
        for (let row = 0; row < sums.length; row++) {
          const behind = Array.from(rootRows(sums, row))
          const route = sums.row(row).route
          expect(behind.sort((a, b) => a - b)).toEqual(
            [...Array(30).keys()].filter(i => routes[i % 3] === route),
          )
          expect(passes(row)).toBe(behind.some(i => chosen.includes(i)))
        }
      }),
    )
  })

  test('as tests of rows pass what they list', () => {
    const test = rowsTest(Int32Array.of(1, 3, 900), 5)
    expect([0, 1, 2, 3, 4].map(test)).toEqual([false, true, false, true, false])
    expect([0, 1, 2, 3].map(allTests([test, row => row > 1]))).toEqual([false, false, false, true])
  })
})
