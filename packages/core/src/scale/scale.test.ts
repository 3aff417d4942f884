import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { utc } from '../table/cells/zone.ts'
import { KINDS, positionScale, type ScaleKind } from './scale.ts'

const value = fc.double({ min: -1e9, max: 1e9, noNaN: true }).filter(v => v === 0 || Math.abs(v) > 1e-6)
const kinds = Object.values(KINDS) as ScaleKind[]
const near = (a: number, b: number, span: number) =>
  Math.abs(a - b) <= 1e-6 * Math.max(span, Math.abs(a), Math.abs(b))

describe.each(kinds.map(kind => [kind.name, kind] as const))('a %s scale', (name, kind) => {
  const values = value.map(v => (name === 'log' ? Math.abs(v) + 1e-6 : v))
  const scale = (domain: readonly [number, number], range: readonly [number, number]) =>
    positionScale({ name: 'x', kind, domain, range, zone: utc })

  test('leads from values to pixels and back', () => {
    fc.assert(
      fc.property(values, values, values, fc.boolean(), (a, b, v, turned) => {
        fc.pre(Math.abs(a - b) > 1e-3)
        const made = scale([a, b], turned ? [640, 0] : [0, 640])
        expect(made.map(a)).toBeCloseTo(made.range[0], 6)
        expect(made.map(b)).toBeCloseTo(made.range[1], 6)
        expect(near(made.invert(made.map(v)), v, Math.abs(b - a))).toBe(true)
      }),
    )
  })

  test('keeps the order of values', () => {
    fc.assert(
      fc.property(fc.array(values, { minLength: 2, maxLength: 20 }), list => {
        const sorted = [...new Set(list)].sort((p, q) => p - q)
        // Within a millionth of their size, values are not shown apart.
        fc.pre(sorted.at(-1)! - sorted[0] > 1e-6 * Math.max(...sorted.map(Math.abs)))
        const made = scale([sorted[0], sorted.at(-1)!], [0, 640])
        sorted.forEach((v, i) => {
          if (i > 0) expect(made.map(v)).toBeGreaterThanOrEqual(made.map(sorted[i - 1]))
          expect(made.map(v)).toBeGreaterThanOrEqual(-1e-6)
          expect(made.map(v)).toBeLessThanOrEqual(640 + 1e-6)
        })
      }),
    )
  })

  test('shows a domain without width in the middle', () => {
    fc.assert(
      fc.property(values, v => {
        const made = scale([v, v], [100, 300])
        expect(made.map(v)).toBe(200)
        expect(made.invert(200)).toBe(v)
      }),
    )
  })
})

test('a signed log scale is its own mirror image, and shows zero and both sides of it', () => {
  const { forward, backward, allows } = KINDS['signed log']
  fc.assert(
    fc.property(value, v => {
      expect(forward(-v)).toBe(-forward(v))
      expect(backward(-forward(v))).toBe(-backward(forward(v)))
    }),
  )
  expect(forward(0)).toBe(0)
  expect(allows(0)).toBe(true)
  expect([1, 0, -1].map(KINDS.log.allows)).toEqual([true, false, false])
})
