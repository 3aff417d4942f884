import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { groupedBy, sum } from '../../../../tests/support/grouping.ts'
import { chart, type Description, readCsv, type Scene, spread, type Table, table } from '../index.ts'
import { csvText, dataTables, readAt, View } from '../internal.ts'
import type { Batch, Box } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'

/** What is drawn stands where the numbers say, and what is read is what is drawn. */

const routes = ['North Sound', 'Gannet Bay', 'Kelp Narrows', 'Outer Skerries']
const row = fc.record({
  route: fc.constantFrom(...routes),
  pier: fc.constantFrom('East', 'West', 'Old'),
  month: fc.integer({ min: 1, max: 12 }),
  n: fc.integer({ min: -50, max: 400 }),
  wind: fc.double({ min: 0, max: 60, noNaN: true }),
})
type Row = typeof row extends fc.Arbitrary<infer R> ? R : never
const rows = fc.array(row, { minLength: 1, maxLength: 40 })
const size = fc.constantFrom([420, 300] as const, [900, 560] as const)

const tableOf = (list: Row[]) =>
  table(
    list.map(one => ({ ...one, at: `2024-${String(one.month).padStart(2, '0')}-10` })),
    { columns: { route: { order: routes } } },
  )
function viewOf(over: Table, description: object, [width, height]: readonly [number, number]) {
  return new View(chart(over, description as Description), {}, { width, height, measure: measureInter })
}
type Rects = Extract<Batch, { kind: 'rects' }>
const rectsOf = (scene: Scene): Rects =>
  scene.batches.find((batch): batch is Rects => batch.kind === 'rects' && batch.part === 'data')!
const boxes = (batch: Rects): Box[] =>
  Array.from(batch.x, (x, i) => ({ x, y: batch.y[i], width: batch.width[i], height: batch.height[i] }))

describe('bars', () => {
  /** Each bar with its rows, its place along the categories, and its extent along the measure. */
  function barsOf(list: Row[], arrange: string, lying: boolean, frame: readonly [number, number]) {
    const roles = lying ? { x: 'sum of n', y: 'route' } : { x: 'route', y: 'sum of n' }
    const view = viewOf(tableOf(list), { draw: 'bar', ...roles, color: 'pier', arrange }, frame)
    const scene = view.scene
    const batch = rectsOf(scene)
    const [plot] = scene.plots
    const bars = boxes(batch).map((box, i) => {
      const own = Array.from(batch.rows!(i), r => list[r])
      return {
        route: own[0].route,
        value: sum(own.map(one => one.n)),
        across: lying ? ([box.y, box.y + box.height] as const) : ([box.x, box.x + box.width] as const),
        along: lying ? ([box.x, box.x + box.width] as const) : ([box.y, box.y + box.height] as const),
        inside:
          box.x >= plot.x - 0.6 &&
          box.y >= plot.y - 0.6 &&
          box.x + box.width <= plot.x + plot.width + 0.6 &&
          box.y + box.height <= plot.y + plot.height + 0.6,
      }
    })
    return { bars, scale: scene.scales.get(lying ? 'x' : 'y')! }
  }
  const length = ([a, b]: readonly [number, number]) => b - a

  test('side by side are as long as their values, from one baseline, and none is on another', () => {
    fc.assert(
      fc.property(rows, fc.boolean(), size, (list, lying, frame) => {
        const { bars, scale } = barsOf(list, 'side', lying, frame)
        const zero = scale.map(0)
        for (const { value, along, inside } of bars) {
          expect(inside).toBe(true)
          expect(length(along)).toBeCloseTo(Math.abs(scale.map(value) - zero), 2)
          expect(Math.min(Math.abs(along[0] - zero), Math.abs(along[1] - zero))).toBeLessThan(0.01)
        }
        for (const a of bars)
          for (const b of bars)
            if (a !== b)
              expect(a.across[1] <= b.across[0] + 0.01 || b.across[1] <= a.across[0] + 0.01).toBe(true)
      }),
    )
  })

  test('on each other sum up at each place, without gaps', () => {
    fc.assert(
      fc.property(rows, fc.boolean(), size, (list, lying, frame) => {
        const { bars, scale } = barsOf(list, 'stack', lying, frame)
        for (const [route, pile] of groupedBy(bars, bar => bar.route)) {
          const piers = groupedBy(
            list.filter(one => one.route === route),
            one => one.pier,
          )
          const sums = [...piers.values()].map(own => sum(own.map(one => one.n)))
          const [up, down] = [sums.filter(n => n > 0), sums.filter(n => n < 0)].map(sum)
          const ends = pile.flatMap(bar => bar.along)
          const reach = [scale.map(up), scale.map(down)].sort((a, b) => a - b)
          expect(Math.min(...ends)).toBeCloseTo(Math.min(reach[0], scale.map(0)), 1)
          expect(Math.max(...ends)).toBeCloseTo(Math.max(reach[1], scale.map(0)), 1)
          expect(sum(pile.map(bar => length(bar.along)))).toBeCloseTo(reach[1] - reach[0], 1)
          expect(pile.every(bar => bar.inside)).toBe(true)
        }
      }),
    )
  })

  test('to the whole fill it at every place', () => {
    fc.assert(
      fc.property(rows, fc.boolean(), size, (list, lying, frame) => {
        const { bars, scale } = barsOf(list, 'share', lying, frame)
        const whole = Math.abs(scale.map(1) - scale.map(0))
        for (const pile of groupedBy(bars, bar => bar.route).values())
          if (pile.some(bar => bar.value !== 0))
            expect(sum(pile.map(bar => length(bar.along)))).toBeCloseTo(whole, 1)
      }),
    )
  })
})

describe('cells', () => {
  test('tile the plot, one for each crossing, and each is read where it lies', () => {
    fc.assert(
      fc.property(rows, size, (list, frame) => {
        const view = viewOf(
          tableOf(list),
          { draw: 'heatmap', x: 'pier', y: 'route', color: 'sum of n' },
          frame,
        )
        const scene = view.scene
        const batch = rectsOf(scene)
        const all = boxes(batch)
        const [plot] = scene.plots
        all.forEach((box, i) => {
          expect(box.x).toBeGreaterThanOrEqual(plot.x - 0.6)
          expect(box.y + box.height).toBeLessThanOrEqual(plot.y + plot.height + 0.6)
          for (const other of all.slice(0, i))
            expect(
              box.x + box.width <= other.x + 0.6 ||
                other.x + other.width <= box.x + 0.6 ||
                box.y + box.height <= other.y + 0.6 ||
                other.y + other.height <= box.y + 0.6,
            ).toBe(true)
          const reading = readAt(view.composition.value, box.x + box.width / 2, box.y + box.height / 2)
          const read = new Set(reading!.rows.flatMap(one => Array.from(one.rows)))
          expect([...read].sort((a, b) => a - b)).toEqual(Array.from(batch.rows!(i)).sort((a, b) => a - b))
        })
        expect(all.length).toBe(new Set(list.map(one => `${one.pier}/${one.route}`)).size)
      }),
      { numRuns: runs(60) },
    )
  })
})

describe('points', () => {
  test('stand where their values are, and the one that is read is the nearest', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true })
    fc.assert(
      fc.property(rows, size, share, share, (list, frame, px, py) => {
        const view = viewOf(tableOf(list), { draw: 'scatter', x: 'wind', y: 'n', color: 'route' }, frame)
        const scene = view.scene
        const [plot] = scene.plots
        const [x, y] = [scene.scales.get('x')!, scene.scales.get('y')!]
        const batch = scene.batches.find(one => one.kind === 'discs' && one.part === 'data')
        if (batch?.kind !== 'discs') throw new Error('There are no points')
        list.forEach((one, i) => {
          expect(batch.x[i]).toBeCloseTo(x.map(one.wind), 2)
          expect(batch.y[i]).toBeCloseTo(y.map(one.n), 2)
          expect(batch.x[i]).toBeGreaterThanOrEqual(plot.x - 0.1)
          expect(batch.y[i]).toBeLessThanOrEqual(plot.y + plot.height + 0.1)
        })
        const at = [plot.x + px * plot.width, plot.y + py * plot.height] as const
        const reading = readAt(view.composition.value, ...at)!
        const far = (i: number) => Math.hypot(batch.x[i] - at[0], batch.y[i] - at[1])
        const nearest = Math.min(...list.map((_, i) => far(i)))
        expect(far(reading.rows[0].rows[0])).toBeCloseTo(nearest, 2)
        expect(Math.hypot(reading.x - at[0], reading.y - at[1])).toBeCloseTo(nearest, 2)
      }),
    )
  })
})

describe('lines', () => {
  test('pass through their values, and reading at a place tells every series there', () => {
    fc.assert(
      fc.property(rows, size, fc.double({ min: 0, max: 1, noNaN: true }), (list, frame, share) => {
        const view = viewOf(
          tableOf(list),
          { draw: 'line', x: 'month of at', y: 'sum of n', color: 'route' },
          frame,
        )
        const scene = view.scene
        const [plot] = scene.plots
        const y = scene.scales.get('y')!
        const batch = scene.batches.find(one => one.kind === 'lines' && one.part === 'data')
        if (batch?.kind !== 'lines') throw new Error('There are no lines')
        for (let i = 0; i < batch.x.length; i++) {
          if (Number.isNaN(batch.y[i])) continue
          expect(batch.y[i]).toBeCloseTo(y.map(batch.atY[i]), 1)
          expect(batch.y[i]).toBeGreaterThanOrEqual(plot.y - 0.6)
          expect(batch.y[i]).toBeLessThanOrEqual(plot.y + plot.height + 0.6)
        }
        const reading = readAt(view.composition.value, plot.x + share * plot.width, plot.y + 10)!
        const read = reading.rows.flatMap(one => Array.from(one.rows))
        const months = new Set(read.map(r => list[r].month))
        expect(months.size).toBeLessThanOrEqual(1)
        for (const month of months)
          expect([...read].sort((a, b) => a - b)).toEqual(
            list.flatMap((one, i) => (one.month === month ? [i] : [])),
          )
        for (const one of reading.rows) {
          const own = Array.from(one.rows, r => list[r])
          if (own.length === 0) continue
          expect(new Set(own.map(o => o.route)).size).toBe(1)
          expect(Number(one.text.replace(/,/g, ''))).toBe(sum(own.map(o => o.n)))
        }
      }),
    )
  })
})

test('large points are whole, on every kind of scale', () => {
  const kind = fc.constantFrom('linear', 'log', 'root', 'signed log', 'category', 'time')
  /** The same numbers as names or times. */
  const as = (value: number, on: string) =>
    on === 'category' ? `pier ${value % 9}` : on === 'time' ? new Date(Date.UTC(2024, 0, value)) : value
  const point = fc.record({
    x: fc.integer({ min: 1, max: 4000 }),
    y: fc.integer({ min: 1, max: 4000 }),
    n: fc.nat(50),
  })
  fc.assert(
    fc.property(fc.array(point, { minLength: 2, maxLength: 12 }), kind, kind, size, (list, x, y, frame) => {
      fc.pre(new Set(list.map(one => one.x)).size > 1 && new Set(list.map(one => one.y)).size > 1)
      const sized = { draw: 'scatter', x: 'x', y: 'y', size: 'n', scales: { x: { kind: x }, y: { kind: y } } }
      const rows = list.map(one => ({ x: as(one.x, x), y: as(one.y, y), n: one.n }))
      const { scene } = viewOf(table(rows), sized, frame)
      const [plot] = scene.plots
      for (const batch of scene.batches) {
        if (batch.kind !== 'discs' || batch.part !== 'data') continue
        for (let i = 0; i < batch.x.length; i++) {
          const radius = batch.radius[i]
          expect(batch.x[i] - radius, 'left').toBeGreaterThan(plot.x - 1.5)
          expect(batch.x[i] + radius, 'right').toBeLessThan(plot.x + plot.width + 1.5)
          expect(batch.y[i] - radius, 'top').toBeGreaterThan(plot.y - 1.5)
          expect(batch.y[i] + radius, 'bottom').toBeLessThan(plot.y + plot.height + 1.5)
        }
      }
    }),
  )
})

test('plots that share a scale line up to the pixel, whatever stands in them', () => {
  const drawn = fc.constantFrom<object>(
    { draw: 'scatter', size: 'n' },
    { draw: 'scatter' },
    { draw: 'line' },
    { draw: 'bar', label: true },
    { draw: 'area' },
  )
  const on = fc.constantFrom('linear', 'category', 'time')
  const point = fc.record({
    x: fc.integer({ min: 1, max: 400 }),
    y: fc.integer({ min: -40, max: 400 }),
    n: fc.nat(50),
  })
  const as = (value: number, kind: string) =>
    kind === 'category' ? `pier ${value % 7}` : kind === 'time' ? new Date(Date.UTC(2024, 0, value)) : value
  fc.assert(
    fc.property(
      fc.array(point, { minLength: 2, maxLength: 12 }),
      on,
      drawn,
      drawn,
      size,
      (list, kind, above, below, frame) => {
        const rows = table(list.map(one => ({ ...one, x: as(one.x, kind) })))
        const one = (own: object) => chart(rows, { x: 'x', y: 'y', ...own } as never)
        const view = new View(
          spread([one(above), one(below)], { share: ['x', 'y'] }),
          {},
          { width: frame[0], height: frame[1], measure: measureInter },
        )
        const [first, second] = view.composition.value.panes
        expect(second.plot.x).toBe(first.plot.x)
        for (const name of ['x', 'y']) {
          const [a, b] = [first.scales.get(name)!, second.scales.get(name)!]
          expect(b.domain, name).toEqual(a.domain)
        }
      },
    ),
  )
})

test('a ratio is a share of a whole, or so much for each', () => {
  const texts = (list: object[]) =>
    viewOf(
      table(list),
      { draw: 'bar', x: 'pier', y: { ratio: 'a', to: 'b' } },
      [420, 300],
    ).scene.batches.flatMap(batch =>
      batch.kind === 'texts' && batch.id === 'axis y/labels' ? batch.texts : [],
    )
  expect(texts([{ pier: 'Old', a: 60, b: 100 }]).every(text => text.endsWith('%'))).toBe(true)
  expect(texts([{ pier: 'Old', a: 1140, b: 100 }]).some(text => text.includes('%'))).toBe(false)
})

test('the values of a chart come out as a table that reads back to the same values', () => {
  fc.assert(
    fc.property(rows, list => {
      const view = viewOf(
        tableOf(list),
        { draw: 'bar', x: 'route', y: 'sum of n', color: 'pier' },
        [640, 400],
      )
      const text = csvText(dataTables(view.composition.value, Number.POSITIVE_INFINITY, 'plain'))
      const read = readCsv(text, { columns: { Route: { type: 'text' } } as never })
      const cells = groupedBy(list, one => `${one.route}/${one.pier}`)
      let seen = 0
      for (const one of read.rows() as Record<string, unknown>[])
        for (const pier of ['East', 'West', 'Old']) {
          const own = cells.get(`${one.Route}/${pier}`)
          if (!own) continue
          seen++
          // A pier that stands alone at its route has its name in a column.
          const value = Object.hasOwn(one, pier) ? one[pier] : one.Pier === pier ? one.N : undefined
          expect(value).toBe(sum(own.map(o => o.n)))
        }
      expect(seen).toBe(cells.size)
    }),
    { numRuns: runs(60) },
  )
})
