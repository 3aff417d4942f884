import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import type { Marks } from '../../describe/model.ts'
import { KINDS, positionScale, type ScaleKind } from '../../scale/scale.ts'
import { utc } from '../../table/cells/zone.ts'
import { type Counted, countAll } from './count.ts'

const COUNT = 1_200_000
const plot = { x: 10, y: 20, width: 120, height: 80 }
const [columns, rows] = [120, 80]

/** A cloud that is dense in its middle, with a lonely point out at each corner, in two colours. */
const wind = Float64Array.from({ length: COUNT }, (_, i) =>
  i < 2 ? 1 + i * 98 : 50 + Math.sin(i * 1.7) * (((i * 7919) % 99_991) / 2_500),
)
const delay = Float64Array.from({ length: COUNT }, (_, i) =>
  i < 2 ? 1 + i * 98 : 50 + Math.cos(i * 1.7) * (((i * 104_729) % 99_991) / 2_500),
)
const cloudOf = (x: Float64Array, y: Float64Array) =>
  ({ x: { at: x }, y: { at: y }, length: COUNT }) as unknown as Marks
const marks = cloudOf(wind, delay)
/** A third of them close together, more than a tile of any other cloud holds. */
const drawnIn = (values: Float64Array) =>
  values.map((value, i) => (i % 3 === 1 ? 48 + (value - 50) / 20 : value))
const crowded = cloudOf(drawnIn(wind), drawnIn(delay))

function counting(inks: number, kind: ScaleKind, of = marks) {
  const ink = Uint16Array.from({ length: COUNT }, (_, i) => (i % 50 === 0 ? inks - 1 : 0))
  const crowd = { marks: of, inks, inkOf: () => ink, inkName: String(inks), memory: new Map() }
  const elements = (x: [number, number], y: [number, number]) => ({
    x: positionScale({ name: 'x', kind, domain: x, range: [10, 130], zone: utc }),
    y: positionScale({ name: 'y', kind, domain: y, range: [100, 20], zone: utc }),
    plot,
    columns,
    rows,
  })
  // What was counted is in the room of what is counted next.
  const kept = ({ grids }: Counted) => grids.map(grid => grid?.slice())
  return {
    one: (x: [number, number], y: [number, number]) =>
      kept(countAll({ ...crowd, memory: undefined }, elements(x, y))),
    again: (x: [number, number], y: [number, number]) => kept(countAll(crowd, elements(x, y))),
  }
}

/** How many lie in the elements from the first corner to each. */
function corners(counts: Int32Array): Float64Array {
  const sums = new Float64Array((columns + 1) * (rows + 1))
  for (let row = 0; row < rows; row++)
    for (let column = 0, along = 0; column < columns; column++) {
      along += counts[row * columns + column]
      sums[(row + 1) * (columns + 1) + column + 1] = sums[row * (columns + 1) + column + 1] + along
    }
  return sums
}

const within = (sums: Float64Array, column: number, row: number, reach: number): number => {
  const [left, right] = [Math.max(0, column - reach), Math.min(columns, column + 1 + reach)]
  const [top, bottom] = [Math.max(0, row - reach), Math.min(rows, row + 1 + reach)]
  const at = (c: number, r: number) => sums[r * (columns + 1) + c]
  return at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top)
}

test.each([
  ['of one colour', 1, KINDS.linear, marks],
  ['of two colours', 2, KINDS.linear, marks],
  ['on logarithmic scales', 1, KINDS.log, marks],
  ['of a crowded tile', 1, KINDS.linear, crowded],
] as const)('cells %s put no point farther than the next element, and lose none', (_, inks, kind, of) => {
  const { one, again } = counting(inks, kind, of)
  again([1, 99], [1, 99])
  const all = (grids: (Int32Array | undefined)[]) => grids.map(grid => grid?.reduce((a, b) => a + b))
  expect(all(again([1, 99], [1, 99]))).toEqual(all(one([1, 99], [1, 99])))
  const inView = fc.tuple(fc.integer({ min: 1, max: 70 }), fc.integer({ min: 2, max: 98 }))
  fc.assert(
    fc.property(inView, inView, ([x, wide], [y, high]) => {
      const ends: [[number, number], [number, number]] = [
        [x, Math.min(99, x + wide)],
        [y, Math.min(99, y + high)],
      ]
      const [exact, cells] = [one(...ends), again(...ends)]
      exact.forEach((counts, ink) => {
        const found = cells[ink] ?? new Int32Array(columns * rows)
        if (!counts) {
          expect(found.some(n => n > 0)).toBe(false)
          return
        }
        const [those, these] = [corners(counts), corners(found)]
        // Away from the plot's edges, over which points may come and go.
        for (let row = 3; row < rows - 3; row += 5)
          for (let column = 3; column < columns - 3; column += 7) {
            expect(within(these, column, row, 2)).toBeGreaterThanOrEqual(within(those, column, row, 1) - 0.01)
            expect(within(those, column, row, 2)).toBeGreaterThanOrEqual(within(these, column, row, 1) - 0.01)
          }
      })
    }),
    { numRuns: runs(12) },
  )
})

test('points that share their places, as rounded values do, are counted where they lie', () => {
  const rounded = (values: Float64Array) => values.map(value => Math.round(value) + 0.1)
  const shared = cloudOf(rounded(wind), rounded(delay))
  const { one, again } = counting(1, KINDS.linear, shared)
  again([0, 100], [0, 100])
  for (const [x, y] of [
    [
      [0, 100],
      [0, 100],
    ],
    [
      [40, 60],
      [45, 80],
    ],
  ] as const)
    expect(again([...x], [...y])[0]).toEqual(one([...x], [...y])[0])
})
