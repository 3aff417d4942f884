import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { tickTexts } from './number-format.ts'
import { chooseTicks, countEvery, logTicks, ticksEvery } from './ticks.ts'

const ends = fc
  .tuple(fc.double({ min: -1e12, max: 1e12, noNaN: true }), fc.double({ min: 1e-9, max: 1e12, noNaN: true }))
  .map(([low, span]) => ({ min: low, max: low + span }))
  .filter(({ min, max }) => max - min > Math.max(Math.abs(min), Math.abs(max)) * 1e-9)

describe('ticks', () => {
  test('are evenly spaced multiples of a step of 1, 2, 2.5 or 5, and enclose the data when asked to', () => {
    fc.assert(
      fc.property(ends, fc.integer({ min: 2, max: 12 }), ({ min, max }, wanted) => {
        const found = chooseTicks({ min, max, wanted, enclose: true })
        expect(found).toBeDefined()
        const { values, step } = found!
        const lead = step / 10 ** Math.floor(Math.log10(step) + 1e-9)
        expect([1, 2, 2.5, 5].some(neat => Math.abs(lead - neat) < 1e-6)).toBe(true)
        const slack = (max - min) * 1e-9
        expect(values[0]).toBeLessThanOrEqual(min + slack)
        expect(values.at(-1)).toBeGreaterThanOrEqual(max - slack)
        values.forEach((value, i) => {
          expect(Math.abs(value / step - Math.round(value / step))).toBeLessThan(1e-4)
          if (i > 0) expect(Math.abs(value - values[i - 1] - step)).toBeLessThan(step * 1e-3)
        })
        expect(values.length).toBeLessThanOrEqual(wanted * 2.5 + 2)
      }),
    )
  })

  test('stay inside fixed ends', () => {
    fc.assert(
      fc.property(ends, ({ min, max }) => {
        for (const value of chooseTicks({ min, max, wanted: 6, enclose: false })?.values ?? []) {
          expect(value).toBeGreaterThanOrEqual(min - (max - min) * 1e-9)
          expect(value).toBeLessThanOrEqual(max + (max - min) * 1e-9)
        }
      }),
    )
  })

  test('are whole when told so', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1000 }), fc.integer({ min: 2, max: 10 }), (max, wanted) => {
        for (const value of chooseTicks({ min: 0, max, wanted, enclose: true, whole: true })!.values)
          expect(Number.isInteger(value)).toBe(true)
      }),
    )
  })

  test.each([
    [0, 1331, 8, [0, 200, 400, 600, 800, 1000, 1200, 1400]],
    [0, 9, 4, [0, 5, 10]],
    [-8, 5, 4, [-10, -5, 0, 5]],
    [0.12, 0.47, 5, [0.1, 0.2, 0.3, 0.4, 0.5]],
  ])('between %d and %d are what a person would choose', (min, max, wanted, expected) => {
    expect(chooseTicks({ min, max, wanted, enclose: true })!.values).toEqual(expected)
  })

  test('have labels that all differ, however far in or out', () => {
    fc.assert(
      fc.property(ends, ({ min, max }) => {
        const values = chooseTicks({ min, max, wanted: 6, enclose: true })!.values
        const labels = tickTexts(values, { locale: 'en' })
        expect(new Set(labels).size).toBe(values.length)
      }),
    )
  })

  test('keep apart values a billionth from each other, and stay short at 1e15', () => {
    expect(tickTexts([5, 5.000000001, 5.000000002], { locale: 'en' })).toEqual([
      '5.000000000',
      '5.000000001',
      '5.000000002',
    ])
    expect(tickTexts([0, 5e14, 1e15], { locale: 'en' })).toEqual(['0', '0.5×10¹⁵', '1.0×10¹⁵'])
    expect(tickTexts([0, 100_000, 200_000], { locale: 'en' })).toEqual(['0', '100K', '200K'])
    expect(tickTexts([0, 0.25, 0.5], { locale: 'de', percent: true })).toEqual([
      '0\u00a0%',
      '25\u00a0%',
      '50\u00a0%',
    ])
  })

  test('come at a given interval, without rounding dust', () => {
    expect(ticksEvery(0, 0.5, 0.1).values).toEqual([0, 0.1, 0.2, 0.3, 0.4, 0.5])
    expect(countEvery(0, 1, 2 ** -30)).toBe(2 ** 30 + 1)
  })

  test('on a logarithmic scale are powers, with multiples between them', () => {
    const { major, minor } = logTicks(1, 10_000, 5)
    expect(major).toEqual([1, 10, 100, 1000, 10_000])
    expect(minor).toContain(20)
    expect(minor).not.toContain(10)
    expect(logTicks(3, 80, 5).major).toEqual([5, 10, 20, 50])
    expect(logTicks(0, 10, 5).major).toEqual([])
  })
})
