import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { groupedBy, sum } from '../../../../../tests/support/grouping.ts'
import { table } from '../open/read.ts'
import { readPhrase } from '../phrase/phrase.ts'
import { shape } from './shape.ts'

const row = fc.record({
  month: fc.integer({ min: 1, max: 12 }),
  route: fc.constantFrom('North Sound', 'Gannet Bay', 'Kelp Narrows'),
  n: fc.integer({ min: 0, max: 90 }),
})
type Row = typeof row extends fc.Arbitrary<infer R> ? R : never
const rows = fc.array(row, { minLength: 1, maxLength: 40 })

/** Marks by month and route, with a measure, as records. */
function marks(list: Row[], y: unknown, roles: Record<string, unknown> = {}, shareOf?: 'x' | 'whole') {
  const data = table(
    {
      at: list.map(one => `2024-${String(one.month).padStart(2, '0')}-15`),
      route: list.map(one => one.route),
      n: list.map(one => one.n),
    },
    { columns: { route: { type: 'text' }, n: { type: 'number' }, at: { type: 'time' } } },
  )
  const phrases = { x: 'month of at', color: 'route', y, ...roles }
  const meanings = new Map(
    Object.entries(phrases).flatMap(([role, phrase]) =>
      phrase === undefined ? [] : [[role, readPhrase(phrase, data, role)] as const],
    ),
  )
  const shaped = shape(data, meanings, { order: 'x', shareOf })
  return Array.from({ length: shaped.length }, (_, i) => {
    const read = (role: string) => {
      const cells = shaped.roles.get(role)?.cells
      if (!cells) return undefined
      return cells.type === 'text' ? cells.words[cells.codes[i]] : cells.values[i]
    }
    return { x: read('x') as number, color: read('color') as string, y: read('y') as number }
  })
}

describe('worked out over groups', () => {
  test('shares of the whole come to one, shares of a place to one at each', () => {
    fc.assert(
      fc.property(rows, list => {
        fc.pre(sum(list.map(one => one.n)) > 0)
        const whole = marks(list, 'share of n', {}, 'whole').map(one => one.y || 0)
        expect(sum(whole)).toBeCloseTo(1, 9)
        const places = groupedBy(marks(list, 'share of n', {}, 'x'), one => one.x)
        for (const [, at] of places) {
          const present = at.map(one => one.y).filter(y => !Number.isNaN(y))
          if (present.length > 0) expect(sum(present)).toBeCloseTo(1, 9)
        }
      }),
    )
  })

  test('running totals never lose anything: each ends in the total of its series', () => {
    fc.assert(
      fc.property(rows, list => {
        const series = groupedBy(marks(list, 'sum so far of n'), one => one.color)
        for (const [route, all] of series) {
          const along = all.sort((a, b) => a.x - b.x)
          for (let i = 1; i < along.length; i++) expect(along[i].y).toBeGreaterThanOrEqual(along[i - 1].y)
          expect(along.at(-1)!.y).toBe(sum(list.filter(one => one.route === route).map(one => one.n)))
          for (const { x, y } of along) {
            const until = new Date(x).getUTCMonth() + 1
            expect(y).toBe(
              sum(list.filter(one => one.route === route && one.month <= until).map(one => one.n)),
            )
          }
        }
      }),
    )
  })

  test('rows are counted by their name in the long form too', () => {
    const list = [{ route: 'North Sound', month: 1, n: 3 }] as Row[]
    expect(marks(list, { share: 'count' })).toEqual(marks(list, 'share of count'))
    expect(marks(list, { rank: 'count' })).toEqual(marks(list, { rank: { count: true } }))
  })

  test('ranks count from the greatest, and equals share the better', () => {
    fc.assert(
      fc.property(rows, list => {
        const totals = new Map<string, number>()
        for (const one of list) totals.set(one.route, (totals.get(one.route) ?? 0) + one.n)
        for (const { color, y } of marks(list, 'rank of n', { x: undefined })) {
          const own = totals.get(color)!
          expect(y).toBe(1 + [...totals.values()].filter(other => other > own).length)
        }
      }),
    )
  })

  test('within something, totals begin anew', () => {
    const list = [
      { month: 1, route: 'North Sound', n: 1 },
      { month: 2, route: 'North Sound', n: 2 },
      { month: 2, route: 'Gannet Bay', n: 4 },
    ] as Row[]
    const within = { 'sum so far': 'n', within: 'route' }
    expect(
      marks(list, within)
        .filter(one => one.color === 'North Sound')
        .map(one => one.y),
    ).toEqual([1, 3])
    expect(() => marks(list, { share: 'n', within: 'weekday of at' })).toThrow('which no role is bound to')
  })
})
