import fc from 'fast-check'
import { expect, test } from 'vitest'
import { chart, type Description, table } from '../../index.ts'
import { readAt } from '../../read/reading.ts'
import type { Rects, Texts } from '../../scene/scene.ts'
import { measureInter } from '../../theme/text-width.ts'
import { View } from '../../view/view.ts'
import { encodeBins } from './bins.ts'

test('an open bin holds all from where it begins, and no value is lost or moved otherwise', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 500 }), { minLength: 2, maxLength: 200 }),
      fc.integer({ min: 1, max: 300 }),
      (list, until) => {
        const values = Float64Array.from(list)
        const extent = { min: Math.min(...list), max: Math.max(...list) }
        const column = table({ value: values }).column('value')!
        const { codes, size, cellsOf, endOf } = encodeBins(column, { until })
        const starts = cellsOf(Int32Array.from({ length: size }, (_, code) => code))
        if (starts.type === 'text') throw new Error('Bins are numbers')
        values.forEach((value, i) => {
          const code = codes[i]
          expect(code).toBeGreaterThanOrEqual(0)
          expect(code).toBeLessThan(size)
          expect(value).toBeGreaterThanOrEqual(starts.values[code])
          const open = code === size - 1 && until > extent.min && until < extent.max
          if (!open) expect(value).toBeLessThanOrEqual(endOf!(code))
        })
      },
    ),
  )
})

const hours = table({ waited: [...Array.from({ length: 60 }, (_, i) => (i * 7) % 12), 96, 40] })
const viewOf = (description: unknown) =>
  new View(chart(hours, description as Description), {}, { width: 640, height: 400, measure: measureInter })

test('it is called by where it begins, at the axis and in what is read', () => {
  const view = viewOf({ draw: 'bar', x: { bins: 'waited', until: 12 }, y: 'count' })
  const axis = view.scene.batches.find(
    (batch): batch is Texts => batch.kind === 'texts' && batch.id === 'axis x/labels',
  )!
  expect(axis.texts.at(-1)).toBe('12+')
  expect(axis.texts.filter(text => text.includes('+')).length).toBe(1)
  const bars = view.scene.batches.find(
    (batch): batch is Rects => batch.kind === 'rects' && batch.id.endsWith('/bar'),
  )!
  const last = bars.x.length - 1
  const reading = readAt(view.composition.value, bars.x[last] + 2, bars.y[last] + 2)!
  expect(reading.heading).toBe('12+')
  expect(reading.rows[0].text).toBe('2')
  expect(view.findings.map(({ code }) => code)).not.toContain('far-value')
  expect(() => viewOf({ draw: 'bar', x: { bins: 'waited', until: 'late' }, y: 'count' })).toThrow(
    /bins could end/,
  )
})
