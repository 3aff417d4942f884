import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import {
  builtinKinds,
  chart,
  compose,
  DapploError,
  type Description,
  on,
  readChartFile,
  type State,
  spread,
  table,
} from '../index.ts'
import { rowsInBox, View } from '../internal.ts'
import { paintSvg as toSvg } from '../paint/svg.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = { width: 640, height: 420, measure: measureInter }
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Kelp Narrows']
const made = (count = 80) =>
  table(
    Array.from({ length: count }, (_, i) => ({
      id: i,
      departed: new Date(Date.UTC(2024, (i * 5) % 12, 1 + (i % 28), i % 24)),
      route: routes[(i * 3) % 4],
      passengers: 40 + ((i * 37) % 90),
      delay: ((i * 13) % 40) - 8,
    })),
    { key: 'id' },
  )
const KINDS: Record<string, Partial<Description>> = {
  line: { draw: 'line', x: 'month of departed', y: 'sum of passengers', color: 'route' },
  bar: { draw: 'bar', x: 'route', y: 'sum of passengers', label: true },
  stack: { draw: 'bar', arrange: 'stack', x: 'quarter of departed', y: 'count', color: 'route' },
  area: { draw: 'area', x: 'month of departed', y: 'count', color: 'route' },
  scatter: { draw: 'scatter', x: 'delay', y: 'passengers', color: 'route', size: 'passengers' },
  heatmap: { draw: 'heatmap', x: 'route', y: 'weekday of departed', color: 'mean of delay' },
  pie: { draw: 'pie', x: 'route', y: 'sum of passengers' },
}
const ends = (low: number, high: number) =>
  fc
    .tuple(fc.double({ min: low, max: high, noNaN: true }), fc.double({ min: low, max: high, noNaN: true }))
    .map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const)
const state: fc.Arbitrary<State> = fc.record(
  {
    zoom: fc.record({ x: ends(-50, 2e12), y: ends(-200, 5000) }, { requiredKeys: [] }),
    hidden: fc.uniqueArray(fc.constantFrom(...routes, 'nothing known')),
    selected: fc.uniqueArray(fc.integer({ min: 0, max: 120 })),
  },
  { requiredKeys: [] },
) as fc.Arbitrary<State>

describe.each(Object.entries(KINDS))('the state of a %s', (_, kind) => {
  const rows = made()
  const shown = chart(rows, kind as Description)

  test('is data: however one came to it, and through JSON, it is the same picture; without it, the first', () => {
    const view = new View(shown, {}, frame)
    const first = toSvg(view.scene)
    fc.assert(
      fc.property(fc.array(state, { minLength: 1, maxLength: 4 }), states => {
        for (const one of states) {
          view.state.value = one
          void view.scene
        }
        const last = states.at(-1)!
        const direct = new View(shown, JSON.parse(JSON.stringify(last)), frame)
        expect(toSvg(view.scene)).toBe(toSvg(direct.scene))
        expect(view.scene.description).toBe(direct.scene.description)
        view.state.value = {}
        expect(toSvg(view.scene)).toBe(first)
      }),
      { numRuns: runs(25) },
    )
  })

  test('a description goes through JSON and back, and changes that are taken back leave nothing behind', () => {
    const again = chart(rows, JSON.parse(JSON.stringify(shown.toJSON())))
    const picture = toSvg(new View(shown, {}, frame).scene)
    expect(toSvg(new View(again, {}, frame).scene)).toBe(picture)
    const changed = shown.with({
      title: 'Another',
      style: { opacity: 0.5 },
      caption: 'Made up',
    } as never)
    expect(toSvg(new View(changed, {}, frame).scene)).not.toBe(picture)
    const back = changed.with({ title: null, style: null, caption: null } as never)
    expect(toSvg(new View(back, {}, frame).scene)).toBe(picture)
  })

  test('a larger box never gives fewer rows, and the whole plot gives those that are drawn', () => {
    const { composition, root } = new View(shown, {}, frame)
    const [plot] = composition.value.scene.plots
    const part = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(part, part, part, part, (a, b, c, d) => {
        const inner = {
          x: plot.x + Math.min(a, b) * plot.width,
          y: plot.y + Math.min(c, d) * plot.height,
          width: Math.abs(a - b) * plot.width,
          height: Math.abs(c - d) * plot.height,
        }
        const outer = { x: inner.x - 20, y: inner.y - 20, width: inner.width + 40, height: inner.height + 40 }
        const found = new Set(rowsInBox(composition.value, root, outer))
        for (const serial of rowsInBox(composition.value, root, inner)) expect(found.has(serial)).toBe(true)
      }),
      { numRuns: runs(40) },
    )
    expect(rowsInBox(composition.value, root, plot)).toHaveLength(rows.length)
  })
})

test('a chart that follows its table shows what a new chart on it would', () => {
  const change = fc.oneof(
    fc.record({ put: fc.integer({ min: 0, max: 99 }), passengers: fc.integer({ min: 0, max: 300 }) }),
    fc.record({ remove: fc.integer({ min: 0, max: 99 }) }),
  )
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.keys(KINDS)),
      fc.array(change, { maxLength: 8 }),
      (name, changes) => {
        const rows = made(40)
        const view = new View(chart(rows, KINDS[name] as Description), {}, frame)
        void view.scene
        for (const one of changes) {
          if ('remove' in one) rows.remove(one.remove)
          else
            rows.put({
              id: one.put,
              departed: new Date(Date.UTC(2024, one.put % 12, 3)),
              route: routes[one.put % 4],
              passengers: one.passengers,
              delay: one.put % 17,
            })
          void view.scene
        }
        expect(toSvg(view.scene)).toBe(
          toSvg(new View(chart(rows, KINDS[name] as Description), {}, frame).scene),
        )
      },
    ),
    { numRuns: runs(60) },
  )
})

test('plots of a spread line up, and scales that are shared reach as far', () => {
  const rows = made()
  const names = fc.uniqueArray(fc.constantFrom('line', 'stack', 'area'), { minLength: 2, maxLength: 3 })
  fc.assert(
    fc.property(names, fc.integer({ min: 1, max: 3 }), (kinds, columns) => {
      const charts = kinds.map(name => chart(rows, { ...KINDS[name], legend: false } as Description))
      const view = new View(
        spread(charts, { columns, share: ['y'] }),
        {},
        { ...frame, width: 900, height: 700 },
      )
      const { plots } = view.scene
      expect(plots).toHaveLength(kinds.length)
      plots.forEach((plot, i) => {
        const other = plots[i % columns]
        expect(plot.x).toBeCloseTo(other.x, 3)
        expect(plot.width).toBeCloseTo(other.width, 3)
        const beside = plots[Math.floor(i / columns) * columns]
        expect(plot.y).toBeCloseTo(beside.y, 3)
        expect(plot.height).toBeCloseTo(beside.height, 3)
      })
      const domains = view.composition.value.panes.map(pane => pane.scales.get('y')!.domain)
      for (const domain of domains) expect(domain).toEqual(domains[0])
    }),
    { numRuns: runs(30) },
  )
})

describe('a fault in a description', () => {
  const whole = {
    draw: [
      { as: 'bar', y: 'sum of passengers', style: { opacity: 0.5, width: 3 } },
      { as: 'line', y: 'mean of delay', against: 'right' },
    ],
    x: 'route',
    title: 'Sailings',
    scales: { right: { alignTo: 'y', include: 0 } },
    axes: { y: { title: 'People' } },
    top: 3,
    order: 'ranked',
    motion: { duration: 200 },
  }
  /** Every place of the description, as a list of keys. */
  const placesOf = (value: unknown, at: (string | number)[] = []): (string | number)[][] =>
    value !== null && typeof value === 'object'
      ? Object.entries(value).flatMap(([key, inner]) => {
          const place = [...at, Array.isArray(value) ? Number(key) : key]
          return [place, ...placesOf(inner, place)]
        })
      : []
  const written = (place: readonly (string | number)[]) =>
    place.map((key, i) => (typeof key === 'number' ? `[${key}]` : `${i > 0 ? '.' : ''}${key}`)).join('')
  function faulty(place: readonly (string | number)[], odd: unknown): unknown {
    const copy = structuredClone(whole) as never
    let inner: Record<string | number, unknown> = copy
    for (const key of place.slice(0, -1)) inner = inner[key] as never
    inner[place.at(-1)!] = odd
    return copy
  }

  test.each(placesOf(whole).map(place => [written(place), place] as const))(
    'at %s is told where it is',
    (path, place) => {
      const odd = Number.NaN
      try {
        chart(made(4), faulty(place, [{ odd }]) as Description)
        throw new Error(`${path} took nonsense`)
      } catch (error) {
        expect(error).toBeInstanceOf(DapploError)
        const told = error as DapploError
        expect(told.path.startsWith(path) || path.startsWith(told.path), told.sentence).toBe(true)
        expect(told.sentence).not.toMatch(/undefined|\[object/)
      }
    },
  )

  test.each(['titel', 'colour', '__proto__', 'constructor', 'draws'])(
    'such as the option "%s" is told by name',
    key => {
      const odd = JSON.parse(`{"draw":"bar","x":"route","y":"count",${JSON.stringify(key)}:{"a":1}}`)
      try {
        chart(made(4), odd)
        throw new Error('It was taken')
      } catch (error) {
        expect(error).toMatchObject({ code: 'unknown-option', path: key })
      }
    },
  )
})

test('a chart over two tables that were made in code is written as a file, by their names', () => {
  const sailings = table([{ month: 'Jan', passengers: 5 }], { name: 'sailings' })
  const targets = table([{ month: 'Jan', goal: 6 }], { name: 'targets' })
  const draw = (other: typeof targets) =>
    chart(sailings, {
      draw: ['bar', on(other, { as: 'line', x: 'month', y: 'goal' })],
      x: 'month',
      y: 'passengers',
    })
  const shown = draw(targets)
  const file = { tables: { sailings: { rows: sailings.rows() }, targets: { rows: targets.rows() } } }
  const text = JSON.stringify({ ...file, ...(shown.toJSON() as object) })
  const again = readChartFile(text, builtinKinds, () => '').chart
  expect(JSON.stringify(compose(again, {}, frame))).toBe(JSON.stringify(compose(shown, {}, frame)))
  // Two tables of one name could not be told apart.
  const same = table([{ month: 'Jan', goal: 6 }], { name: 'sailings' })
  expect(() => draw(same).toJSON()).toThrow('A table cannot be written')
})
