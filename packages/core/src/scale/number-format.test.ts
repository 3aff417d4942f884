import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { briefText, briefWriter, decimalsOf, tickTexts, valueText } from './number-format.ts'
import { ticksEvery } from './ticks.ts'

const english = { locale: 'en' }

describe('labels of ticks', () => {
  test('say their value: read back, each is what it stands for', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(1, 2, 2.5, 5),
        fc.integer({ min: -6, max: 4 }),
        fc.integer({ min: -400, max: 400 }),
        (lead, power, start) => {
          const step = Number((lead * 10 ** power).toPrecision(12))
          const { values } = ticksEvery(start * step, (start + 6) * step, step)
          const texts = tickTexts(values, english)
          const read = texts.map(readCompact)
          values.forEach((v, i) => {
            expect(Math.abs(read[i] - v), `${texts[i]} for ${v}`).toBeLessThan(step * 0.02)
          })
        },
      ),
    )
  })

  test('agree in their decimals', () => {
    fc.assert(
      fc.property(fc.constantFrom(0.25, 0.5, 0.001, 2), fc.integer({ min: -20, max: 20 }), (step, start) => {
        const { values } = ticksEvery(start * step, (start + 5) * step, step)
        const decimals = tickTexts(values, english).map(text => text.split('.')[1]?.length ?? 0)
        expect(new Set(decimals).size).toBe(1)
      }),
    )
  })

  test.each([
    [[0, 0.25, 0.5], { locale: 'en', percent: true }, ['0%', '25%', '50%']],
    [[0, 0.005, 0.01], { locale: 'en', percent: true }, ['0.0%', '0.5%', '1.0%']],
    [[1990, 2000, 2010], { locale: 'en', plain: true }, ['1990', '2000', '2010']],
    [[0, 1500, 3000], { locale: 'de' }, ['0', '1.500', '3.000']],
    [[0, 200_000, 400_000], english, ['0', '200K', '400K']],
    [[0, 2_500_000, 5_000_000], english, ['0', '2.5M', '5.0M']],
    [[0, 500], { locale: 'en', format: { style: 'currency', currency: 'EUR' } as const }, ['€0', '€500']],
    [[-10, 0, 10], english, ['-10', '0', '10']],
    [[0, 1], { locale: 'en', format: (n: number) => `${n} boats` }, ['0 boats', '1 boats']],
  ])('%j are written %j as %j', (values, look, expected) => {
    expect(tickTexts(values, look)).toEqual(expected)
  })

  test('of one scale have one unit, and no number that is not nothing reads as nothing', () => {
    const reach = { low: -1_800_000, high: 0 }
    const write = briefWriter([-1_800_000, -640_200, -12_050, -300], { locale: 'en', reach })
    expect([-1_800_000, -640_200, -12_050, -300, 0].map(write)).toEqual([
      '-1.80M',
      '-0.64M',
      '-0.01M',
      '>-0.01M',
      '0',
    ])
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e18, max: 1e18, noNaN: true }), { minLength: 1, maxLength: 9 }),
        fc.constantFrom('en', 'de', 'ja', 'hi', 'ru'),
        (values, locale) => {
          const write = briefWriter(values, { locale })
          const units = values
            .filter(value => value !== 0)
            .map(value => write(value).replace(/[<>\-−\d.,\s\u00a0]/g, ''))
          expect(new Set(units).size).toBeLessThan(2)
          for (const value of values)
            if (value !== 0) expect(write(value)).not.toMatch(/^[-−]?0([.,]0+)?(?![\d.,])/)
        },
      ),
    )
  })

  test('one number alone has the unit that it is read in', () => {
    const alone = [745_000, 915_000, 999_400, 1_000_000, 1_200_000, 999_000_000].map(value =>
      briefText(value, english),
    )
    expect(alone).toEqual(['745K', '915K', '999K', '1M', '1.2M', '999M'])
  })

  test('on a scale of ratios each have a unit of their own', () => {
    expect(tickTexts([1, 1000, 1e6], { locale: 'en', each: true })).toEqual(['1', '1K', '1M'])
  })

  test('zero has no sign', () => {
    expect(tickTexts([-0, 1], english)[0]).toBe('0')
  })
})

test('decimals are as many as write the values to a thousandth of their steps, and no more', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -99_999, max: 99_999 }), { minLength: 2, maxLength: 8 }),
      fc.integer({ min: 0, max: 6 }),
      (list, places) => {
        const values = list.map(n => Number((n / 10 ** places).toFixed(places)))
        const digits = decimalsOf(values)
        expect(digits).toBeLessThanOrEqual(places)
        const steps = values.slice(1).map((v, i) => Math.abs(v - values[i]))
        const close = Math.min(...steps.filter(step => step > 0), Number.POSITIVE_INFINITY) / 1000
        fc.pre(Number.isFinite(close))
        const off = (places: number) =>
          Math.max(...values.map(v => Math.abs(Math.round(v * 10 ** places) / 10 ** places - v)))
        expect(off(digits)).toBeLessThanOrEqual(close)
        if (digits > 0) expect(off(digits - 1)).toBeGreaterThan(close)
      },
    ),
  )
})

describe('a value read out', () => {
  test('is within half of its last figure', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e14, max: 1e14, noNaN: true }).filter(v => v === 0 || Math.abs(v) >= 1e-4),
        v => {
          const read = Number(valueText(v, english).replace(/,/g, ''))
          expect(Math.abs(read - v)).toBeLessThanOrEqual(Math.abs(v) * 5.001e-4)
        },
      ),
    )
  })

  test.each([
    [Number.NaN, english, '–'],
    [0.12345, { locale: 'en', percent: true }, '12.3%'],
    [1234.56, english, '1,235'],
    [12.3456, english, '12.35'],
    [0.00000123, english, '1.23×10⁻⁶'],
    [2e18, english, '2×10¹⁸'],
    [17, { locale: 'en', unit: 'knots' }, '17 knots'],
    [1999.5, { locale: 'en', format: { style: 'currency', currency: 'EUR' } as const }, '€2,000'],
    [9.5, { locale: 'en', format: { style: 'currency', currency: 'EUR' } as const }, '€9.50'],
    [2024, { locale: 'en', plain: true }, '2024'],
  ])('%d as %j is "%s"', (v, look, expected) => {
    expect(valueText(v, look)).toBe(expected)
  })
})

/** `2.5M` and `1.5×10⁻⁷` as the numbers that they stand for. */
function readCompact(text: string): number {
  const [, digits, power, unit] = /^(-?[\d.,]+)(?:×10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+))?([KMBT]?)$/.exec(text) ?? []
  const size = { K: 1e3, M: 1e6, B: 1e9, T: 1e12 }[unit] ?? 1
  const raised = [...(power ?? '⁰')].map(digit => '⁰¹²³⁴⁵⁶⁷⁸⁹⁻'.indexOf(digit))
  const exponent = Number(raised.map(digit => (digit === 10 ? '-' : digit)).join(''))
  return Number(digits.replace(/,/g, '')) * size * 10 ** exponent
}
