import { expect, test } from 'vitest'
import { type Batch, chart, type Description, type Scene, table } from '../index.ts'
import type { Discs, Rects, Segments, Texts } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from '../view/view.ts'

const piers = table(
  { pier: ['Old Mole', 'Kelp Quay', 'Tern Jetty'], weight: [90, 40, 20], price: [1.2, 3.4, 2.2] },
  { name: 'piers' },
)
const draw = (description: unknown): Scene =>
  new View(chart(piers, description as Description), {}, { width: 700, height: 400, measure: measureInter })
    .scene
const find = <B extends Batch>(scene: Scene, kind: B['kind'], id: RegExp) =>
  scene.batches.find((batch): batch is B => batch.kind === kind && id.test(batch.id))!

test('lying bars have a second measure on a scale of its own above them, on the same gridlines', () => {
  const scene = draw({
    y: 'pier',
    draw: [
      { as: 'bar', x: 'weight', name: 'Weight' },
      { as: 'scatter', x: 'price', against: 'top', name: 'Price' },
    ],
  })
  const [bars, points] = [find<Rects>(scene, 'rects', /bar$/), find<Discs>(scene, 'discs', /scatter$/)]
  points.y.forEach((y, i) => {
    expect(y).toBeCloseTo(bars.y[i] + bars.height[i] / 2, 0)
    expect(points.x[i]).toBeCloseTo(scene.scales.get('top')!.map([1.2, 3.4, 2.2][i]), 2)
  })
  const top = find<Texts>(scene, 'texts', /^axis top\/labels/)
  const [plot] = scene.plots
  for (const y of top.y) expect(y).toBeLessThan(plot.y)
  const grid = [...find<Segments>(scene, 'segments', /^grid x/).x1, scene.scales.get('x')!.map(0)]
  for (const x of top.x) expect(grid.some(line => Math.abs(line - x) < 0.6)).toBe(true)
  // Names of categories stand once.
  const axes = scene.batches.filter(({ id }) => /^axis .*labels$/.test(id)).map(({ id }) => id)
  expect(axes.sort()).toEqual(['axis top/labels', 'axis x/labels', 'axis y/labels'])
  expect([...find<Texts>(scene, 'texts', /^legend\/names/).texts]).toEqual(['Weight', 'Price (top)'])
  const title = scene.batches.flatMap(batch =>
    batch.kind === 'texts' && batch.id === 'axis title x' ? [...batch.y] : [],
  )
  expect(Math.min(...title)).toBeGreaterThan(Math.min(...top.y) - 24)
})
