import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chart, type Discs, table } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'

const frame = { width: 700, height: 460, measure: measureInter }

/** Pixels from each point to its label. */
function ways(view: View): Map<string | number, { x: number; y: number }> {
  const { batches } = view.scene
  const points = batches.find((batch): batch is Discs => batch.kind === 'discs')!
  const at = new Map(Array.from(points.keys, (key, i) => [key, { x: points.x[i], y: points.y[i] }]))
  const out = new Map<string | number, { x: number; y: number }>()
  for (const batch of batches)
    if (batch.kind === 'texts' && batch.of === points.id)
      for (let i = 0; i < batch.texts.length; i++) {
        const point = at.get(batch.keys[i])!
        out.set(batch.keys[i], { x: batch.x[i] - point.x, y: batch.y[i] - point.y })
      }
  return out
}
const same = (a: { x: number; y: number }, b: { x: number; y: number } | undefined) =>
  b !== undefined && Math.hypot(a.x - b.x, a.y - b.y) < 0.01

test('labels that others pushed to another side stay there when those others go', () => {
  const port = fc.record({ wind: fc.integer({ min: 0, max: 40 }), delay: fc.integer({ min: 0, max: 40 }) })
  let stayed = 0
  let jumped = 0
  fc.assert(
    fc.property(
      fc.array(port, { minLength: 3, maxLength: 12 }),
      fc.array(port, { minLength: 6, maxLength: 14 }),
      (first, later) => {
        const ports = table(
          later.map((port, i) => ({ port: `New ${i}`, ...port })),
          { key: 'port' },
        )
        const old = first.map((port, i) => ({ port: `Port ${i}`, ...port }))
        ports.append(old)
        const scales = { x: { domain: [0, 40] }, y: { domain: [0, 40] } }
        const labelled = chart(ports, { draw: 'scatter', x: 'wind', y: 'delay', label: 'port', scales })
        const view = new View(labelled, {}, frame)
        const crowded = ways(view)
        ports.remove(later.map((_, i) => `New ${i}`))
        const alone = ways(new View(labelled, {}, frame))
        const after = ways(view)
        for (const [key, way] of after) {
          const before = crowded.get(key)
          // A leader gets shorter when there is room again.
          if (!before || Math.hypot(before.x, before.y) > 12 || same(before, alone.get(key))) continue
          same(way, before) ? stayed++ : jumped++
        }
      },
    ),
    { numRuns: 60 },
  )
  expect(stayed).toBeGreaterThan(20)
  expect(jumped).toBeLessThan(stayed / 10)
})

test('a label that had to leave its side stays on the new one when the old one is free again', () => {
  const ports = table(
    [
      { port: 'Gannet Bay', wind: 20, delay: 20 },
      { port: 'Tern Point', wind: 20.5, delay: 39 },
    ],
    { key: 'port' },
  )
  const view = new View(
    chart(ports, {
      draw: 'scatter',
      x: 'wind',
      y: 'delay',
      label: 'port',
      scales: { x: { domain: [0, 40] }, y: { domain: [0, 40] } },
    }),
    {},
    frame,
  )
  const first = ways(view).get(0)!
  expect(first.x).toBeGreaterThan(0)
  ports.put([{ port: 'Tern Point', wind: 22, delay: 20 }])
  const crowded = ways(view).get(0)!
  expect(same(first, crowded)).toBe(false)
  ports.put([{ port: 'Tern Point', wind: 22, delay: 30 }])
  expect(same(crowded, ways(view).get(0))).toBe(true)
})
