import { chart, type Description, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { directionsOf, type Zoom, Zooming } from './zoom.ts'

const rows = table(
  Array.from({ length: 60 }, (_, i) => ({
    day: new Date(Date.UTC(2024, 0, 1 + i)),
    route: ['North Sound', 'Gannet Bay', 'Tern Point', 'Kelp Narrows'][i % 4],
    n: 5 + ((i * 37) % 90),
  })),
)
const KINDS: Record<string, Partial<Description>> = {
  line: { draw: 'line', x: 'day', y: 'n' },
  scatter: { draw: 'scatter', x: 'day', y: 'n' },
  'logarithmic scatter': { draw: 'scatter', x: 'day', y: 'n', scales: { y: { kind: 'log' } } },
  bar: { draw: 'bar', x: 'route', y: 'sum of n' },
}
function start(kind: string) {
  const view = new View(
    chart(rows, KINDS[kind] as Description),
    {},
    { width: 640, height: 400, measure: measureInter },
  )
  const zooming = new Zooming()
  zooming.learn(view.composition.value, {})
  const [pane] = view.composition.value.panes
  return { view, zooming, whole: new Map([...pane.scales].map(([name, scale]) => [name, scale.domain])) }
}
const share = fc.double({ min: 0, max: 1, noNaN: true })
const both = directionsOf('xy')

test('what is pointed at stays where it is while one zooms in', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('line', 'scatter', 'logarithmic scatter'),
      share,
      share,
      fc.double({ min: 0.2, max: 0.95, noNaN: true }),
      (kind, px, py, factor) => {
        const { view, zooming } = start(kind)
        const [pane] = view.composition.value.panes
        const at = { x: pane.plot.x + px * pane.plot.width, y: pane.plot.y + py * pane.plot.height }
        const values = { x: pane.scales.get('x')!.invert(at.x), y: pane.scales.get('y')!.invert(at.y) }
        view.state.value = { zoom: zooming.around(pane, {}, both, factor, at) }
        const [near] = view.composition.value.panes
        for (const role of ['x', 'y'] as const) {
          const { plot, scales } = near
          const [from, length] = role === 'x' ? [plot.x, plot.width] : [plot.y, plot.height]
          const old = role === 'x' ? px : py
          // In shares of the plot, since labels may need more or less room now.
          expect((scales.get(role)!.map(values[role]) - from) / length).toBeCloseTo(old, 2)
        }
      },
    ),
    { numRuns: runs(60) },
  )
})

test('no way of zooming and moving leads beyond the data, and all the way out is no zoom at all', () => {
  const step = fc.record({
    factor: fc.double({ min: 0.05, max: 4, noNaN: true }),
    x: share,
    y: share,
    moved: fc.record({ x: fc.integer({ min: -900, max: 900 }), y: fc.integer({ min: -900, max: 900 }) }),
    directions: fc.constantFrom('x' as const, 'y' as const, 'xy' as const),
  })
  fc.assert(
    fc.property(fc.constantFrom(...Object.keys(KINDS)), fc.array(step, { maxLength: 8 }), (kind, steps) => {
      const { view, zooming, whole } = start(kind)
      let zoom: Zoom = {}
      for (const { factor, x, y, moved, directions } of steps) {
        const [pane] = view.composition.value.panes
        const center = { x: pane.plot.x + x * pane.plot.width, y: pane.plot.y + y * pane.plot.height }
        const before = zoom
        zoom = zooming.around(pane, zoom, directionsOf(directions), factor, center, moved)
        for (const name of ['x', 'y'])
          if (!directions.includes(name)) expect(zoom[name]).toEqual(before[name])
        view.state.value = { zoom }
        zooming.learn(view.composition.value, zoom)
        for (const [name, [low, high]] of Object.entries(zoom)) {
          const [min, max] = [...whole.get(name)!].sort((a, b) => a - b)
          const dust = (max - min) * 1e-6
          expect(low).toBeGreaterThanOrEqual(min - dust)
          expect(high).toBeLessThanOrEqual(max + dust)
          expect(high).toBeGreaterThan(low)
        }
      }
      const [pane] = view.composition.value.panes
      const middle = { x: pane.plot.x + pane.plot.width / 2, y: pane.plot.y + pane.plot.height / 2 }
      expect(zooming.around(pane, zoom, both, 1e9, middle)).toEqual({})
    }),
    { numRuns: runs(60) },
  )
})

test('a logarithmic view keeps its decades while it is moved, also into the end', () => {
  const { view, zooming } = start('logarithmic scatter')
  view.state.value = { zoom: { y: [20, 40] } }
  const [pane] = view.composition.value.panes
  const middle = { x: pane.plot.x, y: pane.plot.y + pane.plot.height / 2 }
  for (const far of [5000, -5000]) {
    const [low, high] = zooming.around(pane, { y: [20, 40] }, both, 1, middle, { x: 0, y: far }).y
    expect(high / low).toBeCloseTo(2, 6)
  }
})

test('a zoom into nothing changes nothing', () => {
  const { view, zooming } = start('scatter')
  const [pane] = view.composition.value.panes
  const point = [pane.plot.x + 30, pane.plot.x + 30] as const
  expect(zooming.to(pane, {}, both, { x: point, y: point })).toEqual({})
  expect(zooming.around(pane, {}, both, 0, { x: 100, y: 100 })).toEqual({})
  expect(zooming.around(pane, {}, both, Number.NaN, { x: 100, y: 100 })).toEqual({})
  expect(directionsOf(undefined)).toEqual({ x: false, y: false })
})
