import { describe, expect, test } from 'vitest'
import { type Batch, chart, type Description, on, type Table, table } from '../index.ts'
import { hotspots } from '../read/hotspots.ts'
import { readAt } from '../read/reading.ts'
import type { Discs, Lines, Rects, Texts } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from './view.ts'

const ROUTES = ['North Sound', 'Gannet Bay', 'Tern Point', 'Kelp Narrows', 'Seal Rocks']
const rows = ROUTES.flatMap((route, r) =>
  ['2024-01', '2024-02', '2024-03'].map((month, m) => ({
    month,
    route,
    vessel: m % 2 ? 'Fulmar' : 'Dunlin',
    passengers: 100 * (r + 1) + m,
    wind: r * 3 + m,
  })),
)
const sailings = table(rows, { name: 'sailings' })
const viewOf = (description: unknown, over: Table = sailings, size = { width: 900, height: 600 }) =>
  new View(chart(over, description as Description), {}, { ...size, measure: measureInter })
const textsOf = (view: View, id: RegExp) =>
  view.scene.batches
    .filter((batch): batch is Texts => batch.kind === 'texts' && id.test(batch.id))
    .flatMap(batch => [...batch.texts])
const find = <B extends Batch>(view: View, kind: B['kind'], id: RegExp): B[] =>
  view.scene.batches.filter((batch): batch is B => batch.kind === kind && id.test(batch.id))
const lines = { draw: 'line', x: 'month', y: 'sum of passengers', panes: 'route' }

describe('panes', () => {
  test('are one for each category, each with its rows alone, called by it', () => {
    const view = viewOf(lines)
    expect(view.composition.value.panes.length).toBe(5)
    expect(textsOf(view, /^\d\/title/)).toEqual(ROUTES)
    find<Lines>(view, 'lines', /line$/).forEach(({ atY }, r) => {
      expect([...atY]).toEqual([0, 1, 2].map(m => 100 * (r + 1) + m))
    })
  })

  test('stand on one scale, with plots of one size, in line, and names once', () => {
    const view = viewOf(lines)
    const { plots } = view.scene
    for (const side of ['width', 'height'] as const)
      expect(new Set(plots.map(plot => Math.round(plot[side] * 10))).size).toBe(1)
    expect(new Set(plots.map(plot => Math.round(plot.x))).size).toBe(
      plots.filter(plot => Math.abs(plot.y - plots[0].y) < 1).length,
    )
    const scales = view.composition.value.panes.map(pane => pane.scales.get('y')!.domain)
    for (const domain of scales) expect(domain).toEqual(scales[0])
    const columns = plots.filter(plot => Math.abs(plot.y - plots[0].y) < 1).length
    const [label] = textsOf(view, /axis y\/labels/)
    expect(textsOf(view, /axis y\/labels/).filter(text => text === label).length).toBe(Math.ceil(5 / columns))
    expect(textsOf(view, /axis titles/)).toEqual(['Passengers'])
  })

  test('have scales of their own where none are shared', () => {
    const view = viewOf({ ...lines, panes: { by: 'route', share: [], columns: 2 } })
    const tops = view.composition.value.panes.map(pane => pane.scales.get('y')!.domain[1])
    expect(new Set(tops).size).toBeGreaterThan(2)
    expect(new Set(view.scene.plots.map(plot => Math.round(plot.x))).size).toBeLessThanOrEqual(3)
  })

  test('share one legend, which answers to a person, and one heading that counts all rows', () => {
    const view = viewOf({ ...lines, color: 'vessel', title: '{sum of passengers} boarded' })
    expect(textsOf(view, /legend\/names$/)).toEqual(['Dunlin', 'Fulmar'])
    expect(textsOf(view, /^title/)).toEqual(['4,515 boarded'])
    const spots = hotspots(view.composition.value, measureInter).filter(({ kind }) => kind === 'legend')
    expect(spots.map(({ name }) => name)).toEqual(['Dunlin', 'Fulmar'])
    // Also where it was wished for beside a plot.
    expect(textsOf(viewOf({ ...lines, color: 'vessel', legend: 'right' }), /legend\/names$/)).toEqual([
      'Dunlin',
      'Fulmar',
    ])
    view.state.value = { hidden: [spots[0].key] }
    for (const { atY } of find<Lines>(view, 'lines', /line$/)) expect([...atY].length).toBe(1)
    expect(viewOf({ ...lines, color: 'route' }).scene.batches.some(({ id }) => /legend/.test(id))).toBe(false)
  })

  test('mean the same by a colour and by an area', () => {
    const view = viewOf({
      draw: 'scatter',
      x: 'wind',
      y: 'passengers',
      size: 'passengers',
      color: 'wind',
      panes: 'route',
    })
    const radii = find<Discs>(view, 'discs', /scatter$/).map(({ radius }) => Math.max(...radius))
    expect(Math.max(...radii) / Math.min(...radii)).toBeCloseTo(Math.sqrt(502 / 102), 2)
    expect(textsOf(view, /ramp labels/)).toEqual(['0', '14'])
    expect(textsOf(view, /ramp title/)).toEqual(['Wind'])
  })

  test('narrow other tables by the same column, and follow their table', () => {
    const targets = table({
      route: [...ROUTES, 'North Sound'],
      month: ['2024-01', '2024-01', '2024-01', '2024-01', '2024-01', '2024-02'],
      goal: [1, 2, 3, 4, 5, 6],
    })
    const live = table(
      rows.map((row, id) => ({ ...row, id })),
      { key: 'id' },
    )
    const view = viewOf(
      { ...lines, draw: ['line', on(targets, { as: 'scatter', x: 'month', y: 'goal' })] },
      live,
    )
    expect(find<Discs>(view, 'discs', /scatter$/).map(({ x }) => x.length)).toEqual([2, 1, 1, 1, 1])
    live.put([{ ...rows[0], id: 99, route: 'Stack Road' }])
    expect(view.composition.value.panes.length).toBe(6)
  })

  test('begin at the right where people read from there, with the axis of all at that side', () => {
    const view = new View(
      chart(sailings, { ...lines, panes: { by: 'route', columns: 3 } } as Description),
      {},
      {
        width: 900,
        height: 600,
        locale: 'he',
        measure: measureInter,
      },
    )
    const { plots } = view.scene
    expect(plots[0].x).toBeGreaterThan(plots[1].x)
    expect(plots[1].x).toBeGreaterThan(plots[2].x)
    expect(new Set(plots.map(plot => Math.round(plot.width))).size).toBe(1)
    const [axis] = find<Texts>(view, 'texts', /^0\/axis y\/labels/)
    for (const x of axis.x) expect(x).toBeGreaterThan(plots[0].x + plots[0].width)
  })

  test('are read where they stand', () => {
    const view = viewOf({ draw: 'bar', x: 'vessel', y: 'sum of passengers', panes: 'route' })
    const bars = find<Rects>(view, 'rects', /bar$/)[3]
    const reading = readAt(view.composition.value, bars.x[1] + 4, bars.y[1] + 4)!
    expect(reading.rows.map(({ text }) => text)).toContain('401')
  })

  test.each([
    [{ panes: 'month of month' }, ['January 2024', 'February 2024', 'March 2024']],
    [{ panes: { by: { bins: 'wind', width: 10 } } }, undefined],
    [{ panes: 'weekday of month' }, undefined],
  ])('go by %j', (more, names) => {
    const view = viewOf({ ...lines, draw: 'bar', ...more })
    const marks = view.composition.value.panes.flatMap(({ bound }) =>
      bound.drawings.map(({ marks }) => marks.length),
    )
    expect(marks.every(count => count > 0)).toBe(true)
    if (names) expect(textsOf(view, /^\d\/title/)).toEqual(names)
  })

  test('too many are told, none are said so, and a summary splits nothing', () => {
    const many = table({
      berth: Array.from({ length: 60 }, (_, i) => `B${i}`),
      n: Array.from({ length: 60 }, (_, i) => i),
    })
    const view = viewOf({ draw: 'bar', x: 'berth', y: 'n', panes: 'berth' }, many)
    expect(view.findings.map(({ code }) => code)).toContain('too-many-panes')
    expect(view.composition.value.panes.length).toBe(36)
    const none = viewOf(lines, table({ month: [], route: [], passengers: [] }))
    expect(none.composition.value.panes.length).toBe(1)
    expect(none.findings.map(({ code }) => code)).toContain('no-rows')
    expect(() => viewOf({ ...lines, panes: 'sum of passengers' })).toThrow(/no categories to split by/)
  })
})
