import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chart, type Description, type State, table } from '../index.ts'
import { dataTables, readAt, View } from '../internal.ts'
import { endsOf } from '../motion/shape-ends.ts'
import { measureInter } from '../theme/text-width.ts'

/** Whatever is bound can be read, under its own name, at its own mark. */

const sailing = fc.record({
  route: fc.constantFrom('Harbour', 'Tern Point', 'Gull Isle'),
  vessel: fc.constantFrom('Auk', 'Gannet', 'Petrel'),
  wind: fc.integer({ min: 0, max: 60 }),
  delay: fc.integer({ min: -5, max: 90 }),
  litres: fc.integer({ min: 1, max: 900 }),
})
const sailings = fc
  .uniqueArray(sailing, { minLength: 1, maxLength: 9, selector: one => `${one.route} ${one.vessel}` })
  .map(list => list.map((one, id) => ({ id, ...one, until: one.delay + one.litres })))
type Sailing = { id: number } & Record<'wind' | 'delay' | 'litres' | 'until', number> &
  Record<'route' | 'vessel', string>

const viewOf = (rows: Sailing[], description: Description, state: State = {}) =>
  new View(chart(table(rows, { key: 'id' }), description), state, {
    width: 900,
    height: 600,
    measure: measureInter,
  })

/** What is read at each shape, by its key. */
function readings(view: View) {
  const composition = view.composition.value
  const shapes = view.scene.batches.filter(
    batch => batch.part === 'data' && (batch.kind === 'rects' || batch.kind === 'discs'),
  )
  return [...endsOf(shapes)].map(([key, { x, y }]) => {
    const reading = readAt(composition, x, y)!
    const rows = reading.rows.filter(row => row.key === key)
    return { key, heading: reading.heading, said: rows.map(({ name, text }) => [name, text]) }
  })
}

describe('tooltips', () => {
  test('say the place, the value, the size and the colour of a point', () => {
    fc.assert(
      fc.property(sailings, rows => {
        const view = viewOf(rows, { draw: 'scatter', x: 'wind', y: 'delay', size: 'litres', color: 'until' })
        for (const { key, said } of readings(view)) {
          // Of points at one place the first is read.
          if (said.length === 0) continue
          const { wind, delay, litres, until } = rows.find(({ id }) => id === key)!
          expect(said).toEqual([
            ['Wind', String(wind)],
            ['Delay', String(delay)],
            ['Litres', String(litres)],
            ['Until', String(until)],
          ])
        }
      }),
    )
  })

  test.each([
    ['standing', { x: 'vessel', y: 'sum of litres' }],
    ['lying', { y: 'vessel', x: 'sum of litres' }],
  ] as const)('of %s bars name their own place, whatever is hidden', (_, bound) => {
    fc.assert(
      fc.property(sailings, fc.subarray(['Harbour', 'Tern Point']), (rows, hidden) => {
        const view = viewOf(rows, { draw: 'bar', ...bound, color: 'route' }, { hidden })
        const shown = rows.filter(({ route }) => !hidden.includes(route))
        const all = readings(view)
        expect(all).toHaveLength(shown.length)
        for (const { key, heading, said } of all) {
          const row = shown.find(one => [one.vessel, one.route].every(part => String(key).includes(part)))!
          expect([heading, ...said]).toEqual([row.vessel, [row.route, String(row.litres)]])
        }
      }),
    )
  })

  test('say both ends of an extent, and so do the summary, the axis and the data', () => {
    const rows = [
      { id: 1, route: 'Harbour', vessel: 'Auk', wind: 1, delay: 2, litres: 3, until: 9 },
      { id: 2, route: 'Tern Point', vessel: 'Auk', wind: 1, delay: 4, litres: 3, until: 12 },
    ]
    for (const lying of [false, true]) {
      const extent = { from: 'delay', to: 'until' }
      const view = viewOf(rows, {
        draw: 'bar',
        ...(lying ? { x: extent, y: 'route' } : { x: 'route', y: extent }),
      } as Description)
      expect(readings(view).map(({ heading, said }) => [heading, ...said])).toEqual([
        ['Harbour', ['Delay – Until', '2 – 9']],
        ['Tern Point', ['Delay – Until', '4 – 12']],
      ])
      expect(view.scene.description).toContain('from 2')
      expect(view.scene.description).toContain('to 12')
      const titles = view.scene.batches.flatMap(batch => (batch.kind === 'texts' ? [...batch.texts] : []))
      expect(titles).toContain('Delay – Until')
      const composition = view.composition.value
      expect(dataTables(composition, 10)[0].rows[0]).toEqual(['Harbour', '2 – 9'])
      expect(dataTables(composition, 10, 'plain')[0].rows[0]).toEqual(['Harbour', '2/9'])
    }
  })

  test('a scatter names its group once, with its colour, over the values', () => {
    const rows = [{ id: 1, route: 'Harbour', vessel: 'Auk', wind: 1, delay: 2, litres: 3, until: 9 }]
    const view = viewOf(rows, { draw: 'scatter', x: 'wind', y: 'delay', color: 'route' })
    const reading = readAt(view.composition.value, 450, 300)!
    expect([reading.heading, reading.series?.name]).toEqual(['Harbour', 'Harbour'])
    expect(reading.rows.every(({ series }) => series === undefined)).toBe(true)
  })
})

test('lying bars over a plain column are summed up by their values, not by their places', () => {
  const rows = [
    { id: 1, route: 'Harbour', vessel: 'Auk', wind: 1, delay: 30, litres: 3, until: 9 },
    { id: 2, route: 'Tern Point', vessel: 'Auk', wind: 1, delay: 45, litres: 3, until: 9 },
  ]
  const view = viewOf(rows, { draw: 'bar', x: 'delay', y: 'route' })
  expect(view.scene.description).toContain('Values from 30 (Harbour) to 45 (Tern Point).')
})
