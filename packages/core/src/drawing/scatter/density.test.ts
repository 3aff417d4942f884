import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { chart, type Pixels, table } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'

const COUNT = 22_000
const points = table({
  wind: Float64Array.from({ length: COUNT }, (_, i) => ((i * 7919) % 9973) / 100),
  delay: Float64Array.from({ length: COUNT }, (_, i) => ((i * 104_729) % 997) / 10),
})
const described = chart(points, { draw: 'scatter', x: 'wind', y: 'delay' })

test('counted points stand on whole pixels of the screen, which cover the plot and no pixel more', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 200, max: 700, noNaN: true }),
      fc.double({ min: 150, max: 500, noNaN: true }),
      fc.constantFrom(1, 1.25, 1.5, 2, 1.1),
      (width, height, density) => {
        const { scene } = new View(described, {}, { width, height, density, measure: measureInter })
        const pixels = scene.batches.find((batch): batch is Pixels => batch.kind === 'pixels')!
        const [plot] = scene.plots
        for (const [from, size, count, start, room] of [
          [pixels.x[0], pixels.width[0], pixels.columns, plot.x, plot.width],
          [pixels.y[0], pixels.height[0], pixels.rgba.length / 4 / pixels.columns, plot.y, plot.height],
        ]) {
          expect(Math.abs(from * density - Math.round(from * density))).toBeLessThan(1e-3)
          expect(size * density).toBeCloseTo(count, 2)
          expect(start - from).toBeGreaterThan(-1e-3)
          expect((start - from) * density).toBeLessThan(1 + 1e-3)
          expect(from + size - (start + room)).toBeGreaterThan(-1e-3)
          expect((from + size - (start + room)) * density).toBeLessThan(1 + 1e-3)
        }
      },
    ),
    { numRuns: runs(30) },
  )
})
