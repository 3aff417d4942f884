import { expect, test } from 'vitest'
import type { BoundDrawing } from '../bind/model.ts'
import { chart, table } from '../index.ts'
import type { Pixels } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { View } from '../view/view.ts'
import { dimmed } from './dim.ts'

test('of places that stand for many rows, each of those that are selected counts its own', () => {
  const [wide, high] = [200, 120]
  const places = table(
    Array.from({ length: wide * high }, (_, i) => ({ wind: i % wide, delay: Math.floor(i / wide) })),
  )
  const frame = { width: 900, height: 500, measure: measureInter }
  const view = new View(chart(places, { draw: 'scatter', x: 'wind', y: 'delay' }), {}, frame)
  const composition = view.composition.value
  const [pane] = composition.panes
  const [bound] = pane.bound.drawings
  // As a table elsewhere tells them: few rows at places below, very many at every second one above.
  const rowsAt = (mark: number) => (mark < (wide * high) / 2 ? 1 : mark % 2 ? 900 : 5)
  const crowd = { rows: Float64Array.from({ length: wide * high }, (_, i) => rowsAt(i)), width: 0, height: 0 }
  const far: BoundDrawing = { ...bound, marks: { ...bound.marks, crowd } }
  const told = { ...composition, panes: [{ ...pane, bound: { ...pane.bound, drawings: [far] } }] }
  for (const row of [70, 90]) {
    const own = (mark: number) => Math.floor(mark / wide) === row
    const { batches } = dimmed(told, new Map([[far, own]]))
    const lit = batches.find((batch): batch is Pixels => batch.id.endsWith('/selected'))!
    const opacities = new Set<number>()
    for (let i = 3; i < lit.rgba.length; i += 4) if (lit.rgba[i] > 0) opacities.add(lit.rgba[i])
    expect([...opacities].sort((a, b) => a - b)).toEqual([expect.toSatisfy(low => low < 230), 255])
  }
})
