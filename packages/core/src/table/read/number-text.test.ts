import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { isCode, numberStyle, readPlain, readStyled } from './number-text.ts'

const amounts = fc.array(
  fc.integer({ min: -9_999_999, max: 9_999_999 }).map(n => n / 100),
  { minLength: 3, maxLength: 20 },
)

describe('numbers as people write them', () => {
  test.each([
    ['en', {}],
    ['de', {}],
    ['fr', {}],
    ['de-CH', {}],
    ['en-IN', {}],
    ['en', { style: 'percent', minimumFractionDigits: 2 }],
    ['de', { style: 'percent', minimumFractionDigits: 2 }],
    ['en', { style: 'currency', currency: 'EUR' }],
    ['de', { style: 'currency', currency: 'EUR' }],
    ['en', { style: 'currency', currency: 'EUR', currencySign: 'accounting' }],
    ['en', { style: 'currency', currency: 'CHF' }],
  ] as [string, Intl.NumberFormatOptions][])('in %s with %j are read back', (locale, options) => {
    const format = new Intl.NumberFormat(locale, { minimumFractionDigits: 2, ...options })
    fc.assert(
      fc.property(amounts, list => {
        const share = options.style === 'percent' ? 100 : 1
        // One with thousands and decimals settles what the separators mean.
        const values = [12_345.67, -1_234_567.89, ...list].map(v => v / share)
        const texts = values.map(v => format.format(v))
        const style = numberStyle(texts)
        expect(style).toBeDefined()
        texts.forEach((text, i) => {
          expect(readStyled(text, style!), text).toBeCloseTo(values[i], 9)
        })
        expect(style!.percent).toBe(options.style === 'percent')
        expect(style!.currency !== undefined).toBe(options.style === 'currency')
      }),
    )
  })

  test.each([
    '1,23,4',
    '1.2.3',
    '12,34.5',
    '1..2',
    '$',
    '%',
    '--1',
    '1 2 x',
    '1e',
    'abc',
    '',
    '0x1f',
    'Infinity',
    '(',
    '1-2',
    '(5',
    '5)',
  ])('"%s" is none', text => {
    expect(readStyled(text, { decimal: '.', percent: false, currency: undefined })).toBeNaN()
  })
})

test('numbers as programs write them are read back, and nothing else is', () => {
  fc.assert(
    fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), v => {
      expect(readPlain(String(v)) + 0).toBe(v + 0)
      expect(readPlain(v.toExponential()) + 0).toBe(v + 0)
    }),
  )
  fc.assert(
    fc.property(fc.string({ maxLength: 8 }), text => {
      const read = readPlain(text)
      if (!Number.isNaN(read)) expect(text).toMatch(/^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/)
    }),
  )
})

test('codes that only look like numbers stay texts', () => {
  expect(['007', '0123', '00'].every(isCode)).toBe(true)
  expect(['0', '0.5', '10', '-01', ''].some(isCode)).toBe(false)
})
