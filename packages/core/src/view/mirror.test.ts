import { expect, test } from 'vitest'
import { type Batch, chart, type Description, type Table, table } from '../index.ts'
import { readAt } from '../read/reading.ts'
import type { Discs, Lines, Pixels, Rects, Texts } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from './view.ts'

const sailings = table(
  {
    route: ['North Sound', 'Gannet Bay', 'Tern Point'],
    passengers: [119, 59, 31],
    wind: [10, 14, 31],
    departed: ['2024-01-01', '2024-02-01', '2024-03-01'],
  },
  { name: 'sailings' },
)
const viewOf = (description: Description, locale = 'he', rows: Table = sailings) =>
  new View(chart(rows, description), {}, { width: 640, height: 400, locale, measure: measureInter })
const batchOf = <B extends Batch>(view: View, kind: B['kind'], id: RegExp) =>
  view.scene.batches.find((batch): batch is B => batch.kind === kind && id.test(batch.id))!

test('where people read from the right, the whole chart begins there: axes, shapes and words', () => {
  const view = viewOf({ draw: 'bar', x: 'route', y: 'passengers', title: 'Boarded' })
  const [plot] = view.scene.plots
  const bars = batchOf<Rects>(view, 'rects', /bar$/)
  expect([...bars.x]).toEqual([...bars.x].sort((a, b) => b - a))
  const upright = batchOf<Texts>(view, 'texts', /axis y\/labels/)
  for (const x of upright.x) expect(x).toBeGreaterThan(plot.x + plot.width)
  expect(upright.anchor).toBe('start')
  expect(batchOf<Texts>(view, 'texts', /^title/).anchor).toBe('end')
})

test('bars lie from the right, lines run to the left, and what is read is what is pointed at', () => {
  const lying = viewOf({ draw: 'bar', x: 'passengers', y: 'route' })
  const bars = batchOf<Rects>(lying, 'rects', /bar$/)
  const ends = Array.from(bars.x, (x, i) => Math.round(x + bars.width[i]))
  expect(new Set(ends).size).toBe(1)
  expect([...bars.round]).toEqual([4, 4, 4])
  const read = readAt(lying.composition.value, bars.x[1] + 3, bars.y[1] + bars.height[1] / 2)!
  expect(read.rows.map(row => row.text)).toContain('59')
  const line = viewOf({ draw: 'line', x: 'departed', y: 'passengers' })
  const { x } = batchOf<Lines>(line, 'lines', /line$/)
  expect(x[0]).toBeGreaterThan(x[2])
  const [plot] = line.scene.plots
  expect(line.scene.scales.get('x')!.map(Date.UTC(2024, 0, 1))).toBeCloseTo(x[0], 3)
  expect(x[2]).toBeGreaterThanOrEqual(plot.x - 1)
})

test('points stand at the mirrored places, few or very many', () => {
  const places = (locale: string) =>
    batchOf<Discs>(viewOf({ draw: 'scatter', x: 'wind', y: 'passengers' }, locale), 'discs', /scatter/).x
  const [left, right] = [places('en'), places('he')]
  left.forEach((x, i) => {
    expect(x + right[i]).toBeCloseTo(640, 1)
  })
  const many = table({
    a: Array.from({ length: 70_000 }, (_, i) => i % 7),
    b: Array.from({ length: 70_000 }, (_, i) => (i % 7) ** 2),
  })
  const filled = (locale: string) => {
    const { rgba, columns } = batchOf<Pixels>(
      viewOf({ draw: 'scatter', x: 'a', y: 'b' }, locale, many),
      'pixels',
      /density/,
    )
    const rows = rgba.length / 4 / columns
    return Array.from({ length: columns }, (_, c) =>
      Array.from({ length: rows }, (_, r) => rgba[(r * columns + c) * 4 + 3]).reduce((a, b) => a + b, 0),
    )
  }
  expect(filled('he')).toEqual(filled('en').reverse())
})
