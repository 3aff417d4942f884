import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, type Description, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const row = fc.record({
  pier: fc.constantFrom('Old Mole', 'Kelp Quay', 'Gannet Slip', 'Harbour Steps', 'East'),
  kind: fc.constantFrom('ferry', 'tug'),
  boats: fc.integer({ min: 0, max: 50 }),
})
const frame = { width: 600, height: 400, measure: measureInter }
const order = fc.constantFrom<Pick<Description, 'order' | 'scales'>>(
  { order: 'ranked' },
  { order: 'name' },
  {},
  { scales: { x: { domain: ['East', 'Old Mole', 'Harbour Steps', 'Kelp Quay', 'Gannet Slip'] } } },
)

test('a running total over categories adds up in the order in which they stand, with its bars or alone', () => {
  fc.assert(
    fc.property(
      fc.array(row, { minLength: 1, maxLength: 30 }),
      order,
      fc.boolean(),
      fc.boolean(),
      (rows, told, split, alone) => {
        const line = { as: 'line' as const, y: 'sum so far of boats' as const, against: 'right' }
        const bars = { as: 'bar' as const, y: 'sum of boats' as const }
        const description: Description<(typeof rows)[0]> = {
          x: 'pier',
          ...(split ? { color: 'kind' } : {}),
          draw: alone ? line : [bars, line],
          ...told,
        }
        const drawn = chart(table(rows), description)
        const { drawings, scales } = new View(drawn, {}, frame).composition.value.panes[0].bound
        const { marks } = drawings.at(-1)!
        const words = scales.get('x')!.words
        for (const [place, word] of words.entries()) {
          const before = words.slice(0, place + 1)
          for (let mark = 0; mark < marks.length; mark++) {
            if (marks.x.at[mark] !== place) continue
            const kinds = new Set(Array.from(marks.rowsOf(mark), at => rows[at].kind))
            const own = rows.filter(one => before.includes(one.pier) && (!split || kinds.has(one.kind)))
            expect(marks.y.at[mark], word).toBe(own.reduce((sum, one) => sum + one.boats, 0))
          }
        }
        if (told.order !== 'ranked') return
        const totals = words.map(word =>
          rows.filter(one => one.pier === word).reduce((sum, one) => sum + one.boats, 0),
        )
        expect(totals).toEqual([...totals].sort((a, b) => b - a))
      },
    ),
    { numRuns: runs(80) },
  )
})

test('the first drawing ranks, and the next settles what it leaves equal', () => {
  const piers = table([
    { pier: 'Old Mole', boats: 3, goal: 90 },
    { pier: 'Kelp Quay', boats: 5, goal: 1 },
    { pier: 'East', boats: 3, goal: 95 },
  ])
  const ranked = chart(piers, {
    x: 'pier',
    order: 'ranked',
    draw: [
      { as: 'bar', y: 'boats' },
      { as: 'scatter', y: 'goal' },
    ],
  })
  expect(new View(ranked, {}, frame).composition.value.panes[0].bound.scales.get('x')!.words).toEqual([
    'Kelp Quay',
    'East',
    'Old Mole',
  ])
})
