import { describe, expect, test } from 'vitest'
import { boxesOf } from '../guide/label-room.ts'
import { type Batch, chart, type Description, type Table, table } from '../index.ts'
import type { Areas, Discs, Lines, Rects, Texts, Wedges } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from '../view/view.ts'

const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
const boarded = table(
  {
    route: routes,
    passengers: [900, 450, 1600, 700, 350],
    pier: ['East', 'West', 'East', 'West', 'East'],
  },
  { name: 'boarded' },
)
const viewOf = (description: unknown, rows: Table = boarded, width = 640) =>
  new View(chart(rows, description as Description), {}, { width, height: 400, measure: measureInter })
const batchesOf = <B extends Batch>(view: View, kind: B['kind'], id: RegExp) =>
  view.scene.batches.filter((batch): batch is B => batch.kind === kind && id.test(batch.id))
const textsOf = (view: View, id: RegExp) =>
  batchesOf<Texts>(view, 'texts', id).flatMap(batch => [...batch.texts])

describe('labels', () => {
  const bars = { draw: 'bar', x: 'route', y: 'passengers' }
  test('may keep to the greatest values', () => {
    expect(textsOf(viewOf({ ...bars, label: { top: 2 } }), /labels (start|middle|end)/)).toEqual([
      '900',
      '1,600',
    ])
  })

  test('may keep to what meets conditions, with words of their own', () => {
    const label = { words: '{route}: {passengers}', where: { pier: 'West' } }
    expect(
      textsOf(
        viewOf({ draw: 'scatter', x: 'passengers', y: 'passengers', label }),
        /labels (start|middle|end)/,
      ),
    ).toEqual(['Gannet Bay: 450', 'Outer Skerries: 700'])
    const groups = viewOf({
      draw: 'bar',
      x: 'pier',
      y: 'sum of passengers',
      label: { where: { pier: 'East' } },
    })
    expect(textsOf(groups, /labels (start|middle|end)/)).toEqual(['2,850'])
  })

  test.each([0, 1.5, -2])('of %d shapes are refused', top => {
    expect(() => viewOf({ ...bars, label: { top } })).toThrow(/no number of shapes/)
  })

  test('of bars stand at all of them, or at none where too many would lie over others', () => {
    const many = table({
      week: Array.from({ length: 60 }, (_, i) => `W${i}`),
      calls: Array.from({ length: 60 }, (_, i) => 4000 - i * 37),
    })
    const view = viewOf({ draw: 'bar', x: 'week', y: 'calls', label: true }, many)
    expect(textsOf(view, /labels (start|middle|end)/)).toEqual([])
    expect(view.findings.map(({ message }) => message)).toContain('60 labels have no room and are left out')
  })

  test.each(['bar', 'scatter', 'line'])('of a %s are missed only where it is seen', draw => {
    const gaps = table({
      route: [...routes, 'Far Cay', 'Low Head'],
      hour: [1, 2, 3, 4, null, null, 7],
      passengers: [6, 5, null, 9, 4, 6, 7],
    })
    const labelled = { draw, x: draw === 'bar' ? 'route' : 'hour', y: 'passengers', label: 'route' }
    const view = viewOf(labelled, gaps, 1200)
    const seen = draw === 'bar' ? [0, 1, 3, 4, 5, 6] : [0, 1, 3, 6]
    expect(textsOf(view, /labels (start|middle|end)/).sort()).toEqual(
      seen.map(row => gaps.row(row).route).sort(),
    )
    // That rows have no hour is another matter.
    const told = ({ findings }: View) => findings.map(({ code }) => code)
    expect(told(view)).toEqual(draw === 'bar' ? [] : ['without-place'])
    if (draw === 'bar') return
    const near = new View(
      chart(gaps, labelled as Description),
      { zoom: { x: [0.5, 2.5] } },
      { width: 640, height: 400, measure: measureInter },
    )
    expect(textsOf(near, /labels (start|middle|end)/)).toEqual(['North Sound', 'Gannet Bay'])
    expect(told(near)).toEqual(['without-place'])
  })

  test.each([
    ['the names of lines at their ends', undefined, 'month of day', [9, 4, 5, 7]],
    ['a legend inside the plot', 'inside bottom left', 'hour', [9, 9, 9, 9, 3, 3, 3, 3]],
  ])('keep clear of %s', (_, legend, x, calls) => {
    const hours = calls.length / 2
    const rows = table({
      hour: calls.map((_, i) => i % hours),
      day: calls.map((_, i) => `2026-0${(i % hours) + 1}-01`),
      pier: calls.map((_, i) => (i < hours ? 'East' : 'West')),
      calls,
    })
    const view = viewOf({ draw: 'line', x, y: 'calls', color: 'pier', label: true, legend }, rows, 900)
    const words = view.scene.batches.filter(({ kind, id }) => kind === 'texts' || /^inside.*ground/.test(id))
    const boxes = (own: boolean) =>
      words.filter(({ id }) => /^drawing/.test(id) === own).flatMap(batch => boxesOf(batch, measureInter))
    expect(boxes(true).length).toBeGreaterThanOrEqual(3)
    for (const box of boxes(true))
      for (const other of boxes(false))
        expect(
          box.x + box.width <= other.x ||
            other.x + other.width <= box.x ||
            box.y + box.height <= other.y ||
            other.y + other.height <= box.y,
        ).toBe(true)
  })
})

describe('a legend', () => {
  const lines = { draw: 'bar', x: 'pier', y: 'passengers', color: 'route' }
  test.each(['start', 'middle', 'end'] as const)('stands at the %s of the plot', align => {
    const view = viewOf({ ...lines, legend: { at: 'top', align } }, boarded, 900)
    const [names] = batchesOf<Texts>(view, 'texts', /^legend\/names/)
    const ends = [names.x[0], names.x.at(-1)! + measureInter(names.texts.at(-1)!, names)]
    const free = [ends[0] - 16, 900 - 16 - ends[1]]
    if (align === 'start') expect(free[0]).toBeCloseTo(0, 0)
    if (align === 'end') expect(free[1]).toBeCloseTo(0, 0)
    if (align === 'middle') expect(Math.abs(free[0] - free[1])).toBeLessThan(2)
  })

  test('leaves out what is not to be listed, and lists once what is drawn twice', () => {
    const both = { x: 'route', y: 'passengers', color: 'pier', draw: ['area', 'line'] }
    expect(textsOf(viewOf(both), /^legend\/names/)).toEqual(['East', 'West'])
    const one = {
      x: 'route',
      draw: [
        { as: 'bar', y: 'passengers', name: 'Boarded' },
        { as: 'line', y: 'passengers', name: 'Target', listed: false },
      ],
    }
    expect(textsOf(viewOf(one), /^legend\/names/)).not.toContain('Target')
  })

  test('of more than a row stands in columns, each under the other', () => {
    const view = viewOf({ ...lines, legend: 'top' }, boarded, 330)
    const [names] = batchesOf<Texts>(view, 'texts', /^legend\/names/)
    const columns = new Set(Array.from(names.x, Math.round))
    expect(names.texts.length).toBe(5)
    expect(columns.size).toBeLessThan(4)
  })
})

describe('slices', () => {
  const pie = { draw: 'pie', x: 'route', y: 'passengers' }
  test('have their shares within, or beside where they are too thin', () => {
    const view = viewOf({ ...pie, values: 'inside' })
    expect(textsOf(view, /names (start|end)/).sort()).toEqual([...routes].sort())
    const [inside] = batchesOf<Texts>(view, 'texts', /shares$/)
    const [wedges] = batchesOf<Wedges>(view, 'wedges', /pie/)
    inside.texts.forEach((_, i) => {
      const far = Math.hypot(inside.x[i] - wedges.x[0], inside.y[i] - wedges.y[0])
      expect(far).toBeLessThan(wedges.outer[0])
    })
    const all = [...inside.texts, ...textsOf(view, /shares (start|end)/)]
    expect(all.length).toBe(5)
    expect(all.reduce((sum, text) => sum + Number.parseInt(text, 10), 0)).toBe(100)
  })
})

test('sizes have the radius and the steps that are told', () => {
  const sized = { draw: 'scatter', x: 'passengers', y: 'passengers', size: 'passengers' }
  const view = viewOf({ ...sized, scales: { size: { radius: 31, steps: [400, 1600] } } })
  const [points] = batchesOf<Discs>(view, 'discs', /scatter$/)
  expect(Math.max(...points.radius)).toBeCloseTo(31, 4)
  expect(textsOf(view, /^legend\/size/)).toEqual(['Passengers', '400', '1,600'])
  const [shown] = batchesOf<Discs>(view, 'discs', /^legend\/sizes/)
  expect([...shown.radius].map(Math.round)).toEqual([16, 31])
  const none = viewOf({ draw: 'scatter', x: 'passengers', y: 'passengers', scales: { size: { radius: 9 } } })
  expect(none.findings.map(({ code }) => code)).toContain('no-effect')
})

test('percentiles are levels and measures, by their own names', () => {
  const all = { draw: ['bar', { as: 'reference', level: 'p75' }], x: 'route', y: 'passengers' }
  expect(textsOf(viewOf(all), /labels/)).toContain('P75 900')
  const measured = viewOf({ draw: 'bar', x: 'pier', y: 'p50 of passengers' })
  expect(textsOf(measured, /axis titles/)).toEqual(['P50 of passengers'])
  for (const phrase of ['p0 of passengers', 'p100 of passengers', 'p9x of passengers'])
    expect(() => viewOf({ draw: 'bar', x: 'pier', y: phrase })).toThrow(/begins no phrase/)
})

test('a line breaks where its points are farther apart than told, be it drawn whole or thinned', () => {
  const hours = Array.from({ length: 9000 }, (_, i) => i + (i >= 6000 ? 500 : 0))
  const feed = table({
    at: hours.map(hour => new Date(Date.UTC(2024, 0, 1, hour))),
    waiting: hours.map(hour => hour % 24),
  })
  for (const where of [undefined, { at: { from: '2024-09-05', until: '2024-10-05' } }]) {
    const gaps = (breakAfter: unknown) => {
      const view = viewOf({ draw: 'line', x: 'at', y: 'waiting', where, breakAfter }, feed)
      const [{ y }] = batchesOf<Lines>(view, 'lines', /line$/)
      return y.filter(Number.isNaN).length
    }
    expect(gaps(undefined)).toBe(0)
    expect(gaps({ days: 2 })).toBe(1)
    expect(gaps({ days: 40 })).toBe(0)
  }
  const months = table({ month: ['2024-01', '2024-02', '2024-03', '2024-05'], n: [1, 2, 3, 4] })
  const monthly = viewOf({ draw: 'line', x: 'month', y: 'n', breakAfter: { months: 1 } }, months)
  expect([...batchesOf<Lines>(monthly, 'lines', /line$/)[0].y].map(Number.isNaN)).toEqual([
    false,
    false,
    false,
    true,
    false,
  ])
})

test('the plot has a ground of its own, which parts rings and letters from shapes', () => {
  const view = viewOf({
    draw: ['line', 'scatter'],
    x: 'passengers',
    y: 'passengers',
    label: 'route',
    plot: { background: '#f3ead0' },
  })
  const [ground] = batchesOf<Rects>(view, 'rects', /plot ground/)
  const [plot] = view.scene.plots
  expect([ground.x[0], ground.width[0]]).toEqual([Math.fround(plot.x), Math.fround(plot.width)])
  expect(ground.colors).toEqual(['#f3ead0'])
  expect(() =>
    viewOf({ draw: 'line', x: 'passengers', y: 'passengers', plot: { background: 'url(x)' } }),
  ).toThrow(/plot.background|colour/)
  for (const label of batchesOf<Texts>(view, 'texts', /labels (start|middle|end)/))
    expect(label.halo).toBe('#f3ead0')
})

test('an area is as translucent as its colour says', () => {
  const alphaOf = (color?: string) =>
    batchesOf<Areas>(
      viewOf({ draw: 'area', x: 'route', y: 'passengers', style: { color } }),
      'areas',
      /area/,
    )[0].alpha?.[0] ?? 1
  expect(alphaOf('rgba(10, 90, 80, 0.5)')).toBe(1)
  expect(alphaOf('#0a5a5080')).toBe(1)
  expect(alphaOf('#0a5a50')).toBeLessThan(0.5)
})
