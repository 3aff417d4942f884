import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, type Description, paintSvg, table } from '../index.ts'
import { View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = { width: 600, height: 400, measure: measureInter }
const descriptions: Description[] = [
  { draw: 'bar', x: 'route', y: 'sum of passengers' },
  { draw: 'bar', x: 'sum of passengers', y: 'route', order: 'ranked' },
  { draw: 'bar', x: 'month of departed', y: 'sum of passengers', color: 'vessel', arrange: 'stack' },
  { draw: 'area', x: 'month of departed', y: 'sum of passengers', color: 'vessel' },
  { draw: 'area', x: 'departed', y: 'passengers' },
  { draw: 'line', x: 'month of departed', y: 'count' },
  { draw: 'line', x: 'departed', y: 'passengers' },
  { draw: 'scatter', x: 'departed', y: 'passengers' },
  { draw: 'bar', x: 'departed', y: 'passengers' },
  { draw: 'scatter', x: 'departed', y: 'passengers', scales: { y: { kind: 'log' } } },
  { draw: 'heatmap', x: 'route', y: 'vessel', color: 'sum of passengers' },
]

test('rows without a place change nothing in the picture, and are told of', () => {
  const row = fc.record({
    route: fc.constantFrom('North Sound', 'Tern Point', 'Gannet Bay'),
    vessel: fc.constantFrom('Fulmar', 'Dunlin'),
    departed: fc.integer({ min: 0, max: 300 }).map(day => new Date(Date.UTC(2025, 0, 1 + day))),
    passengers: fc.integer({ min: 1, max: 90 }),
  })
  fc.assert(
    fc.property(
      fc.constantFrom(...descriptions),
      fc.array(row, { minLength: 2, maxLength: 20 }),
      fc.integer({ min: 1, max: 3 }),
      (description, rows, more) => {
        const adrift = Array.from({ length: more }, () => ({
          ...rows[0],
          route: null,
          departed: null,
          passengers: 5000,
        }))
        const [without, together] = [rows, [...rows, ...adrift]].map(
          all => new View(chart(table(all as typeof rows, { name: 'sailings' }), description), {}, frame),
        )
        const seen = ({ scene }: View) => paintSvg(scene).replace(/<desc.*?<\/desc>/s, '')
        expect(seen(together)).toEqual(seen(without))
        const told = together.findings
          .filter(({ code }) => code === 'without-place')
          .map(({ message }) => message)
        const name = [description.x, description.y].includes('route') ? 'route' : 'departed'
        const who = more === 1 ? 'One row has' : `${more} rows have`
        expect(told).toEqual([
          `${who} no "${name}", so ${more === 1 ? 'it is' : 'they are'} not in the picture`,
        ])
      },
    ),
    { numRuns: runs(120) },
  )
})
