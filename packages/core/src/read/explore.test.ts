import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chart, type Description, reshape, type Table, table } from '../index.ts'
import {
  dataTables,
  hotspots,
  leadOf,
  readAt,
  rowsInBox,
  rowsInOutline,
  rowsOfEntry,
  type Standing,
  safeLink,
  selectionsOf,
  shownMeanings,
  tellMore,
  View,
  walk,
} from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { tongueOf } from '../words/tongue.ts'

const frame = { width: 800, height: 500, measure: measureInter }
const sailings = table(
  Array.from({ length: 120 }, (_, i) => ({
    id: i,
    departed: new Date(Date.UTC(2024, 0, 1 + i * 3, 8)),
    route: ['North Sound', 'Gannet Bay', 'Tern Point'][i % 3],
    passengers: 50 + ((i * 37) % 90),
    delay: ((i * 13) % 40) - 8,
  })),
  { key: 'id' },
)
const KINDS: Record<string, Partial<Description>> = {
  line: { draw: 'line', x: 'month of departed', y: 'sum of passengers', color: 'route' },
  bar: { draw: 'bar', y: 'route', x: 'sum of passengers' },
  stack: { draw: 'bar', arrange: 'stack', x: 'quarter of departed', y: 'count', color: 'route' },
  scatter: { draw: 'scatter', x: 'delay', y: 'passengers', color: 'route' },
  heatmap: { draw: 'heatmap', x: 'month of departed', y: 'weekday of departed', color: 'count' },
  pie: { draw: 'pie', x: 'route', y: 'sum of passengers' },
}
const viewOf = (kind: Partial<Description>, state = {}, over: Table = sailings) =>
  new View(chart(over, kind as Description), state, frame)

describe.each(Object.entries(KINDS))('a %s', (name, kind) => {
  const view = viewOf(kind)
  const composition = view.composition.value
  const { marks } = composition.panes[0].bound.drawings[0]

  test('is walked through from end to end, and every step can be read', () => {
    const reached = new Set<number>()
    let standing: Standing | undefined = walk(composition, undefined, 'first')
    // Along each series in turn, changing over where one ends.
    for (let series = 0; series < 8; series++) {
      for (let i = 0; i < marks.length + 2; i++) {
        if (standing) reached.add(standing.mark)
        const reading = standing && readAt(composition, standing.x, standing.y)
        expect(reading?.rows.length).toBeGreaterThan(0)
        standing = walk(composition, standing, 'next')
      }
      standing = walk(composition, standing, 'down')
      for (let i = 0; i < marks.length + 2; i++) standing = walk(composition, standing, 'previous')
    }
    const wanted = Array.from({ length: marks.length }, (_, i) => i).filter(
      i => !Number.isNaN(marks.x.at[i]) || name === 'pie',
    )
    expect(reached.size).toBeGreaterThanOrEqual(name === 'heatmap' ? wanted.length * 0.8 : wanted.length)
  })

  test('gives all of its rows to a box around the plot, none to one beside it', () => {
    const [plot] = composition.scene.plots
    expect(rowsInBox(composition, view.root, plot)).toHaveLength(120)
    expect(rowsInBox(composition, view.root, { x: -50, y: -50, width: 10, height: 10 })).toHaveLength(0)
  })

  test('lists its values', () => {
    const [list] = dataTables(composition)
    expect(list.rows.length).toBeGreaterThan(2)
    for (const row of list.rows) expect(row).toHaveLength(list.head.length)
  })
})

test('an outline picks what lies within it, whichever way it is drawn', () => {
  const view = viewOf(KINDS.scatter)
  const { scales } = view.scene
  const inside = (row: { delay: number; passengers: number }) =>
    row.delay > 0 && row.delay < 20 && row.passengers > 60 && row.passengers < 100
  const [x1, x2] = [0, 20].map(scales.get('x')!.map)
  const [y1, y2] = [60, 100].map(scales.get('y')!.map)
  const outline = [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ] as const
  const wanted = sailings.rows().filter(inside).length
  for (const way of [outline, [...outline].reverse()]) {
    const picked = rowsInOutline(view.composition.value, view.root, way)
    // Points on the very edge may fall on either side.
    const strict = Array.from(picked).filter(serial => inside(sailings.row(serial)))
    expect(strict).toHaveLength(wanted)
  }
})

describe('selections', () => {
  test('dim what is not selected, and filter other charts on any table of the same root', () => {
    const north = rowsOfEntry(viewOf(KINDS.line).composition.value, sailings, 'North Sound')
    expect(north).toHaveLength(40)
    const own = viewOf({ ...KINDS.bar, respond: 'narrow' }, { selected: north })
    const bars = own.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')!
    expect(Array.from(bars.alpha!).filter(alpha => alpha < 0.5)).toHaveLength(2)
    const derived = reshape(sailings, [{ where: { delay: { from: 0, until: 100 } } }])
    const other = viewOf({ draw: 'bar', x: 'route', y: 'count', respond: 'narrow' }, {}, derived)
    expect(other.composition.value.panes[0].bound.drawings[0].marks.length).toBe(3)
    selectionsOf(sailings).set(own, north)
    expect(other.composition.value.panes[0].bound.drawings[0].marks.length).toBe(1)
    // It never filters the chart it was made in.
    expect(own.composition.value.panes[0].bound.drawings[0].marks.length).toBe(3)
    selectionsOf(sailings).set(own, undefined)
    expect(other.composition.value.panes[0].bound.drawings[0].marks.length).toBe(3)
  })

  test('of several charts intersect, whatever they hold', () => {
    const serials = fc.uniqueArray(fc.integer({ min: 0, max: 119 }), { minLength: 1, maxLength: 60 })
    fc.assert(
      fc.property(serials, serials, (a, b) => {
        const store = selectionsOf(sailings)
        const [one, two] = [{}, {}]
        store.set(one, Float64Array.from(a))
        store.set(two, Float64Array.from(b))
        const shown = viewOf({ draw: 'scatter', x: 'id', y: 'delay', respond: 'narrow' })
        const found = Array.from(shown.composition.value.panes[0].bound.drawings[0].marks.x.at)
        store.set(one, undefined)
        store.set(two, undefined)
        expect(found.sort((p, q) => p - q)).toEqual(a.filter(id => b.includes(id)).sort((p, q) => p - q))
      }),
    )
  })

  test('in a crowd too large for points shine over the faint crowd', () => {
    const count = 30_000
    const crowd = table({
      x: Float64Array.from({ length: count }, (_, i) => i % 173),
      y: Float64Array.from({ length: count }, (_, i) => i % 191),
    })
    const view = viewOf({ draw: 'scatter', x: 'x', y: 'y' }, { selected: [5, 6, 7] }, crowd)
    const pictures = view.scene.batches.filter(batch => batch.kind === 'pixels')
    expect(pictures.map(batch => batch.alpha?.[0] ?? 1)).toEqual([expect.closeTo(0.22, 5), 1])
  })
})

test('the lead is the greatest shape, or the one with the selected rows, in its colour', () => {
  const view = viewOf({ ...KINDS.bar, color: 'route' })
  const composition = view.composition.value
  const lead = leadOf(composition, sailings, undefined)!
  expect(new Set(Array.from(lead.serials, serial => sailings.row(serial).route)).size).toBe(1)
  const chosen = leadOf(composition, sailings, [2])!
  const { marks } = composition.panes[0].bound.drawings[0]
  expect(chosen.color).toBe(marks.series.find(one => one.name === 'Tern Point')!.color)
})

test('legends and category names are spots that a person can act on', () => {
  const spots = hotspots(viewOf({ ...KINDS.stack, legend: 'top' }).composition.value, measureInter)
  expect(spots.filter(spot => spot.kind === 'legend').map(spot => spot.name)).toEqual([
    'North Sound',
    'Gannet Bay',
    'Tern Point',
  ])
  expect(spots.filter(spot => spot.kind === 'label').length).toBe(4)
})

test('tooltips tell further phrases and filled words about the rows behind', () => {
  const row = { table: sailings, rows: Int32Array.of(0, 3, 6, 1, 2) }
  expect(tellMore(['route', 'sum of passengers', 'count'], row, tongueOf('en'))).toEqual([
    { name: 'Route', text: 'North Sound, Gannet Bay, Tern Point' },
    { name: 'Passengers', text: expect.stringMatching(/^\d{3}$/) },
    { name: 'Count', text: '5' },
  ])
  // In the long form a value has a name and a format of its own; what is read anyway is said once.
  const most = { max: 'passengers' as const, label: 'At most', format: { minimumFractionDigits: 1 } }
  expect(tellMore([most], row, tongueOf('en'))).toEqual([
    { name: 'At most', text: expect.stringMatching(/^\d+\.0$/) },
  ])
  const sums = chart(sailings, { draw: 'bar', x: 'route', y: 'sum of passengers', tooltip: ['count', most] })
  const [pane] = new View(sums, {}, { width: 400, height: 300, measure: measureInter }).composition.value
    .panes
  const shown = shownMeanings(pane.bound, sailings)
  const again = tellMore(['route', 'sum of passengers', 'count'], row, tongueOf('en'), shown)
  expect(again.map(({ name }) => name)).toEqual(['Count'])
  expect(tellMore('{count} sailings', row, tongueOf('en'))).toEqual([{ name: '', text: '5 sailings' }])
  expect(() => chart(sailings, { draw: 'bar', x: 'route', y: 'count', tooltip: ['vesel' as never] })).toThrow(
    'There is no column "vesel"',
  )
})

test('links lead only where no code can run', () => {
  for (const address of [
    'https://ferry.example/a?b=c:d',
    'mailto:crew@ferry.example',
    'routes/north.html',
    '#here',
    '/x:y',
  ])
    expect(safeLink(address)).toBe(address)
  for (const address of [
    'javascript:alert(1)',
    ' java\nscript:alert(1)',
    '\u0000javascript:x',
    'data:text/html,x',
    'vbscript:x',
    '//evil.example',
    'file:///etc',
    '',
  ])
    expect(safeLink(address)).toBeUndefined()
})

test('the summary says where the greatest and the least values are, and whether there is a trend', () => {
  const rising = table({
    at: Array.from({ length: 12 }, (_, i) => new Date(Date.UTC(2024, i, 1))),
    n: Array.from({ length: 12 }, (_, i) => i * 3 + (i % 2)),
  })
  const { description } = viewOf({ draw: 'line', x: 'month of at', y: 'sum of n' }, {}, rising).scene
  expect(description).toContain('Values from 0 (January 2024) to 34 (December 2024).')
  expect(description).toContain('Values rise over time.')
})
