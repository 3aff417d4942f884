import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, lookAt, readCsv, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { readWords } from '../words/holes.ts'
import { factsOf } from './facts.ts'
import { germanReasons } from './german-reasons.ts'
import { REASON_WORDS } from './reason-words.ts'
import { suggestCharts } from './suggest.ts'

const frame = { width: 640, height: 400, measure: measureInter }
const day = (at: number) => new Date(Date.UTC(2024, 0, 1 + at))
const shown = (rows: object[]) =>
  suggestCharts(table(rows as Record<string, unknown>[])).map(({ description: { draw, x, y } }) =>
    [draw, x, y].join(' '),
  )

test('what a table is decides what is worth seeing', () => {
  const sailings = Array.from({ length: 600 }, (_, i) => ({
    departed: day(i),
    route: ['North Sound', 'Tern Point', 'Gannet Bay'][i % 3],
    passengers: 40 + ((i * 7) % 60),
    delay_minutes: (i * 13) % 17,
  }))
  expect(shown(sailings)).toEqual([
    'line departed passengers',
    'bar route sum of passengers',
    'scatter delay_minutes passengers',
  ])
  // Without numbers rows are counted; what are of one size stand side by side.
  const counted = sailings.map(({ route }, i) => ({ route, departed: day(Math.floor(i / 4)) }))
  expect(shown(counted).slice(0, 2)).toEqual(['line week of departed count', 'bar route count'])
  expect(
    shown(
      sailings.map(({ departed, passengers }) => ({ departed, passengers, vehicles: passengers / 2 })),
    )[0],
  ).toBe('line departed passengers,vehicles')
  // Names that are many or long lie, the greatest first.
  const piers = Array.from({ length: 40 }, (_, i) => ({ pier: `Pier number ${i}`, boarded: (i * 37) % 90 }))
  const [best] = suggestCharts(table(piers))
  expect(best.description).toEqual({
    draw: 'bar',
    x: 'sum of boarded',
    y: 'pier',
    order: 'ranked',
    top: 12,
    rest: true,
    label: true,
  })
  // Years are no quantity, and keep their order.
  expect(shown(Array.from({ length: 20 }, (_, i) => ({ year: 2001 + i, passengers: i * i })))[0]).toBe(
    'bar sum of passengers year',
  )
  expect(shown([])).toEqual([])
  expect(shown([{ pier: 'Tern Point', boarded: 3 }])).toEqual(['bar pier sum of boarded'])
  expect(suggestCharts(readCsv('a,b\n'))).toEqual([])
})

test('amounts are added up, levels are compared by their mean, as their names tell', () => {
  const names = [
    'tonnage',
    'mileage',
    'crates',
    'wind_knots',
    'delay (min)',
    'windSpeed',
    'Age',
    'ticket price',
  ]
  const rows = Array.from({ length: 30 }, (_, i) =>
    Object.fromEntries(names.map((name, c) => [name, (i * (c + 3)) % 29])),
  )
  const added = factsOf(table(rows)).filter(({ adds }) => adds)
  expect(added.map(({ name }) => name)).toEqual(['tonnage', 'mileage', 'crates'])
})

test('whatever the columns hold, each suggestion can be drawn, and shows something', () => {
  const cell = {
    text: fc.constantFrom('North Sound', 'Tern Point', 'Kelp Narrows', null),
    number: fc.oneof(
      fc.integer({ min: -50, max: 900 }),
      fc.double({ noNaN: true, min: 0, max: 9 }),
      fc.constant(null),
    ),
    time: fc.oneof(fc.integer({ min: 0, max: 900 }).map(day), fc.constant(null)),
    same: fc.constant(7),
    name: fc.string({ minLength: 1, maxLength: 60 }),
  }
  const rows = fc
    .uniqueArray(fc.constantFrom('route', 'sum of x', 'year', 'share', 'constructor', 'delay (min)'), {
      minLength: 1,
      maxLength: 4,
    })
    .chain(names =>
      fc.array(
        fc.record(
          Object.fromEntries(names.map((name, i) => [name, Object.values(cell)[(name.length + i) % 5]])),
        ),
        { maxLength: 60, size: 'max' },
      ),
    )
  fc.assert(
    fc.property(rows, rows => {
      const own = table(rows as Record<string, unknown>[])
      const found = suggestCharts(own, { most: 9 })
      const worths = found.map(({ worth }) => worth)
      expect(worths).toEqual([...worths].sort((a, b) => b - a))
      for (const { description, reason } of found) {
        const { scene } = new View(chart(own, description), {}, frame)
        expect(scene.batches.some(({ part }) => part === 'data')).toBe(true)
        expect(reason).not.toBe('')
      }
    }),
    { numRuns: runs(150) },
  )
})

test('reasons have the same holes in German', () => {
  expect(Object.keys(germanReasons).sort()).toEqual([...REASON_WORDS].sort())
  for (const [words, own] of Object.entries(germanReasons))
    expect([...readWords(own).holes].sort(), words).toEqual([...readWords(words).holes].sort())
})

test('years are not added up, whatever their column is called', () => {
  const loans = table([
    { loaned: 2024, branch: 'Harbour', loans: 1200 },
    { loaned: 2025, branch: 'Harbour', loans: 900 },
    { loaned: 2024, branch: 'Mill Street', loans: 40 },
  ])
  expect(factsOf(loans).map(({ name, is }) => [name, is])).toEqual([
    ['loaned', 'category'],
    ['branch', 'category'],
    ['loans', 'measure'],
  ])
  expect(lookAt(loans).columns[0].odd).toEqual([
    'may be years: give it the type "time", or "text" to draw it as names',
  ])
  for (const { description } of suggestCharts(loans))
    expect(JSON.stringify(description)).not.toMatch(/(sum|mean) of loaned/)
})
