import { describe, expect, test } from 'vitest'
import {
  type Batch,
  chart,
  type Description,
  type Discs,
  type Lines,
  type Rects,
  type Segments,
  table,
} from '../index.ts'
import { readAt, rowsInBox, View, walk } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = { width: 640, height: 400, measure: measureInter }
const routes = ['Tern Point', 'Kelp Narrows', 'Gannet Bay']
const vessels = ['Fulmar', 'Dunlin']
const sailings = table(
  routes.flatMap((route, r) =>
    vessels.map((vessel, v) => ({
      route,
      vessel,
      passengers: 40 + 17 * r + 31 * v,
      aim: 60 + 11 * v,
      low: 30 + r,
      high: 90 + v,
    })),
  ),
)
const grouped = { x: 'route', y: 'passengers', color: 'vessel' }
const seen = (description: unknown) => new View(chart(sailings, description as Description), {}, frame)
const batch = <B extends Batch>(view: View, kind: B['kind'], drawing: number): B =>
  view.scene.batches.find(
    batch => batch.kind === kind && batch.part === 'data' && batch.drawing === drawing,
  ) as B
const middles = ({ x, width }: Rects) => Array.from(x, (left, i) => left + width[i] / 2)

describe('drawings that stand side by side', () => {
  test('points, words, corners of lines and error bars stand on the bars of their series', () => {
    const view = seen({
      ...grouped,
      draw: [
        'bar',
        { as: 'scatter', y: 'aim', arrange: 'side' },
        { as: 'line', y: 'aim', arrange: 'side' },
        { as: 'reference', x: 'route', y: { from: 'low', to: 'high' }, series: 'vessel', arrange: 'side' },
      ],
    })
    const bars = batch<Rects>(view, 'rects', 0)
    const byKey = new Map(Array.from(bars.keys, (key, i) => [key, middles(bars)[i]]))
    const points = batch<Discs>(view, 'discs', 1)
    const line = batch<Lines>(view, 'lines', 2)
    const errors = batch<Segments>(view, 'segments', 3)
    for (const [keys, x] of [
      [points.keys, points.x],
      [line.keys, line.x],
    ] as const)
      for (let i = 0; i < keys.length; i++) expect(Math.abs(x[i] - byKey.get(keys[i])!)).toBeLessThan(1)
    const strokes = Array.from(errors.keys, (key, i) => ({ key, at: (errors.x1[i] + errors.x2[i]) / 2 }))
    expect(strokes.filter(({ key }) => byKey.has(key))).toHaveLength(6)
    for (const { key, at } of strokes)
      if (byKey.has(key)) expect(Math.abs(at - byKey.get(key)!)).toBeLessThan(1)
  })

  test('what is no series of the bars has a slot of its own beside them, and two measures are bars side by side', () => {
    const view = seen({
      x: 'route',
      y: 'sum of passengers',
      draw: [
        { as: 'bar', arrange: 'side' },
        { as: 'bar', y: 'sum of aim', against: 'right', arrange: 'side' },
        { as: 'scatter', y: 'sum of low', arrange: 'side' },
      ],
    })
    const [first, second] = [batch<Rects>(view, 'rects', 0), batch<Rects>(view, 'rects', 1)]
    const points = batch<Discs>(view, 'discs', 2)
    for (let i = 0; i < 3; i++) {
      expect(first.x[i] + first.width[i]).toBeLessThanOrEqual(second.x[i])
      expect(second.x[i] + second.width[i]).toBeLessThanOrEqual(points.x[i])
    }
  })

  test('is read, walked and selected where it is drawn', () => {
    const view = seen({ ...grouped, draw: { as: 'scatter', arrange: 'side' } })
    const points = batch<Discs>(view, 'discs', 0)
    expect(new Set(points.x).size).toBe(6)
    const composition = view.composition.value
    for (let i = 0; i < 6; i++) {
      const read = readAt(composition, points.x[i], points.y[i])!
      const pointed = read.rows.find(row => row.pointed)!
      expect(Math.abs(pointed.x - points.x[i])).toBeLessThan(0.01)
      const box = { x: points.x[i] - 2, y: points.y[i] - 2, width: 4, height: 4 }
      expect([...rowsInBox(composition, view.root, box)]).toEqual(Array.from(pointed.rows))
    }
    const start = walk(composition, undefined, 'first')!
    expect([...points.x].some(x => Math.abs(x - start.x) < 0.01)).toBe(true)
  })

  test('series of one colour are one entry of the legend, which hides them all', () => {
    const targets = { as: 'scatter', y: 'aim', arrange: 'side', style: { color: '#333333' } }
    const view = seen({ ...grouped, draw: ['bar', targets] })
    const { legend } = view.composition.value.panes[0].bound
    expect(legend.map(({ name }) => name)).toEqual(['Fulmar', 'Dunlin', 'Aim'])
    view.state.value = { hidden: [legend[2].key] }
    expect(batch<Discs>(view, 'discs', 1)?.x.length ?? 0).toBe(0)
    expect(batch<Rects>(view, 'rects', 0).x.length).toBe(6)
    view.state.value = { hidden: [legend[0].key] }
    expect(batch<Discs>(view, 'discs', 1).x.length).toBe(3)
  })

  test('says so where there are no places to share, and where a kind knows no such arrangement', () => {
    const told = (description: unknown) =>
      seen(description).findings.map(({ code, path }) => `${code} ${path}`)
    expect(told({ draw: { as: 'scatter', arrange: 'side' }, x: 'passengers', y: 'aim' })).toContain(
      'no-effect draw.arrange',
    )
    expect(told({ ...grouped, draw: ['bar', { as: 'scatter', arrange: 'stack' }] })).toContain(
      'no-effect draw[1].arrange',
    )
    expect(told({ ...grouped, arrange: 'stack', draw: ['bar', 'scatter'] })).toEqual([])
  })
})
