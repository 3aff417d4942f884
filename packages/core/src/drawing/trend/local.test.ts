import fc from 'fast-check'
import { expect, test } from 'vitest'
import { localCurve } from './local.ts'
import { studentQuantile } from './student.ts'

const points = fc.array(fc.tuple(fc.integer({ min: -100, max: 100 }), fc.integer({ min: -50, max: 50 })), {
  minLength: 3,
  maxLength: 40,
})

test('a local curve through points of a line is that line', () => {
  fc.assert(
    fc.property(
      points,
      fc.integer({ min: -9, max: 9 }),
      fc.integer({ min: -9, max: 9 }),
      (list, slope, start) => {
        const x = [...new Set(list.map(([at]) => at))]
        fc.pre(x.length > 3)
        const curve = localCurve(
          x,
          x.map(at => start + slope * at),
        )!
        for (const at of x) expect(curve.at(at)).toBeCloseTo(start + slope * at, 4)
      },
    ),
  )
})

test('a local curve moves with its points, whatever their order', () => {
  fc.assert(
    fc.property(points, fc.integer({ min: -40, max: 40 }), (list, shift) => {
      const curve = localCurve(
        list.map(([x]) => x),
        list.map(([, y]) => y),
      )!
      const back = [...list].reverse()
      const moved = localCurve(
        back.map(([x]) => x),
        back.map(([, y]) => y + shift),
      )!
      fc.pre(new Set(list.map(([x]) => x)).size === list.length)
      for (const [x] of list) expect(moved.at(x)).toBeCloseTo(curve.at(x) + shift, 4)
    }),
  )
  expect(localCurve([1], [1])).toBeUndefined()
  expect(localCurve([3, 3], [1, 2])!.at(3)).toBe(1.5)
})

// From printed tables of Student's distribution.
test.each([
  [0.975, 1, 12.706],
  [0.975, 2, 4.303],
  [0.975, 5, 2.571],
  [0.95, 10, 1.812],
  [0.995, 30, 2.75],
  [0.975, 1000, 1.962],
  [0.5, 7, 0],
])('the quantile %d with %d degrees of freedom is %d', (probability, freedom, value) => {
  expect(studentQuantile(probability, freedom)).toBeCloseTo(value, 1)
  expect(studentQuantile(1 - probability, freedom)).toBeCloseTo(-value, 1)
})
