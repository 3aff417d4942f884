import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readEasing } from './easing.ts'
import { paced, timingOf } from './pace.ts'

const part = fc.double({ min: 0, max: 1, noNaN: true })

describe('easing in CSS syntax', () => {
  test.each([
    'linear',
    'ease',
    'ease-in',
    'ease-out',
    'ease-in-out',
    'cubic-bezier(0.4, 0, 0.2, 1)',
    'cubic-bezier(1, -2, 0, 3)',
    'steps(4)',
    'steps(3, jump-none)',
    'steps(3, jump-both)',
    'steps(2, start)',
    'linear(0, 0.25 75%, 1)',
    'linear(0, 1.2 60%, 0.9, 1)',
  ])('%s ends where it should', text => {
    const easing = readEasing(text)
    expect(easing(1)).toBeCloseTo(1, 9)
    if (!/start|both/.test(text)) expect(easing(0)).toBeCloseTo(0, 9)
    for (let i = 0; i <= 50; i++) expect(Number.isFinite(easing(i / 50))).toBe(true)
  })

  test('a Bézier curve is on its curve', () => {
    const any = fc.double({ min: -1, max: 2, noNaN: true })
    fc.assert(
      fc.property(part, any, part, any, part, (x1, y1, x2, y2, t) => {
        const at = (a: number, b: number) => 3 * (1 - t) ** 2 * t * a + 3 * (1 - t) * t * t * b + t ** 3
        const easing = readEasing(`cubic-bezier(${[x1, y1, x2, y2].map(v => v.toFixed(6)).join(',')})`)
        // Where the curve stands still, a hair in time is a leap in value.
        const rise = 3 * (1 - t) ** 2 * x1 + 6 * (1 - t) * t * (x2 - x1) + 3 * t * t * (1 - x2)
        fc.pre(rise > 0.05)
        expect(easing(at(x1, x2))).toBeCloseTo(at(y1, y2), 3)
      }),
    )
  })

  test('keywords that never overshoot rise all the way', () => {
    for (const text of ['linear', 'ease', 'ease-in', 'ease-out', 'ease-in-out']) {
      const easing = readEasing(text)
      for (let i = 1; i <= 200; i++)
        expect(easing(i / 200)).toBeGreaterThanOrEqual(easing((i - 1) / 200) - 1e-9)
    }
  })

  test.each([
    ['steps(4)', [0, 0.25, 0.25, 0.5, 0.75]],
    ['steps(4, start)', [0.25, 0.5, 0.5, 0.75, 1]],
    ['steps(4, jump-none)', [0, 1 / 3, 1 / 3, 2 / 3, 1]],
    ['steps(4, jump-both)', [0.2, 0.4, 0.4, 0.6, 0.8]],
  ])('%s jumps as CSS says', (text, values) => {
    const easing = readEasing(text)
    for (const [i, at] of [0, 0.25, 0.4, 0.5, 0.9].entries()) expect(easing(at)).toBeCloseTo(values[i], 9)
  })

  test('straight pieces pass through their stops', () => {
    const easing = readEasing('linear(0, 0.5 20% 40%, 1)')
    expect([0, 0.1, 0.2, 0.3, 0.4, 0.7].map(easing)).toEqual([0, 0.25, 0.5, 0.5, 0.5, 0.75])
  })

  test.each([
    'bounce',
    'cubic-bezier(2, 0, 0, 1)',
    'cubic-bezier(0, 0, 1)',
    'steps(0)',
    'steps(2, now)',
    'steps(1, jump-none)',
    'linear()',
    'linear(1)',
    '',
  ])('"%s" is refused', text => {
    expect(() => readEasing(text)).toThrow(
      expect.objectContaining({ code: 'bad-option', path: 'motion.easing' }),
    )
  })
})

describe('pace', () => {
  const motion = (progress: number) => ({ progress }) as never
  const progressAt = (timing: object, passed: number) =>
    (paced(motion, { ...timingOf({})!, ...timing })!.at(passed) as unknown as { progress: number }).progress

  test('begins at the beginning, ends at the end, and knows how long it takes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5000 }),
        fc.integer({ min: 0, max: 500 }),
        (duration, stagger) => {
          const made = paced(motion, { ...timingOf({})!, duration, stagger })!
          expect(made.total).toBe(duration + stagger)
          expect(progressAt({ duration, stagger }, 0)).toBe(0)
          expect(progressAt({ duration, stagger }, made.total)).toBe(1)
          expect(progressAt({ duration, stagger }, made.total * 5)).toBe(1)
        },
      ),
    )
  })

  test('without time there is no motion', () => {
    expect(timingOf(false)).toBeUndefined()
    expect(paced(motion, { ...timingOf({})!, duration: 0 })).toBeUndefined()
  })

  test('shapes that start one after the other all arrive', () => {
    const seen: number[][] = []
    const made = paced(
      ((_: number, __: number, each?: (i: number, count: number) => number) => {
        seen.push([0, 1, 2, 3].map(i => each!(i, 4)))
      }) as never,
      { ...timingOf({})!, duration: 100, stagger: 90, easing: 'linear' },
    )!
    for (const passed of [0, 30, 100, 190]) made.at(passed)
    expect(seen[0]).toEqual([0, 0, 0, 0])
    expect(seen[1]).toEqual([0.3, 0, 0, 0])
    expect(seen[2][0]).toBe(1)
    expect(seen[2][3]).toBeCloseTo(0.1, 9)
    expect(seen[3]).toEqual([1, 1, 1, 1])
  })
})
