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
        const style = numberStyle(texts)?.style
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

describe('what separates decimals', () => {
  test.each([
    // Texts; the separator, and what leaves it open.
    ['1.204 beside 980 is likely more than a thousand, and told', ['1.204', '980'], ',', '1.204'],
    ['three decimals at each number are decimals', ['1.204', '12.500', '3.001'], '.', undefined],
    ['so they are at numbers of four figures', ['1.204', '1204'], '.', undefined],
    ['a nought before it says decimals', ['1.204', '0.980', '3'], '.', undefined],
    ['so do other numbers of decimals', ['1.204', '3.5', '980'], '.', undefined],
    ['two points are thousands', ['1.204', '1.204.000', '980'], ',', undefined],
    ['1,204 beside 980 is more than a thousand', ['1,204', '980'], '.', undefined],
    ['1,204 alone is likely, and told', ['1,204', '1,859'], '.', '1,204'],
    ['in dollars it is', ['$1,204', '$1,859'], '.', undefined],
    ['a nought before a comma says decimals', ['1,204', '0,980'], ',', undefined],
    ['so do four figures', ['1,204', '1204,500'], ',', undefined],
    ['both kinds settle it', ['1.204,50', '980'], ',', undefined],
  ] as [string, string[], string, string | undefined][])('%s', (_, texts, decimal, unsettled) => {
    expect(numberStyle(texts)).toMatchObject({ style: { decimal }, unsettled })
  })

  test('is what somebody says, whatever the texts look like', () => {
    expect(numberStyle(['1.204', '980'], '.')).toMatchObject({
      style: { decimal: '.' },
      unsettled: undefined,
    })
    expect(numberStyle(['1,204'], ',')).toMatchObject({ style: { decimal: ',' }, unsettled: undefined })
  })

  test('whole numbers in any language that groups them are read back, and told of where that was a guess', () => {
    const list = fc.array(fc.integer({ min: 0, max: 9_999_999 }), { minLength: 2, maxLength: 12 })
    fc.assert(
      fc.property(fc.constantFrom('en', 'de', 'fr', 'de-CH', 'en-IN', 'id'), list, (locale, values) => {
        const texts = values.map(value => value.toLocaleString(locale))
        const found = numberStyle(texts)!
        const right = texts.every((text, i) => readStyled(text, found.style) === values[i])
        // Points at each of them, three figures after: as programs write decimals.
        const asPrograms = texts.every(text => /^[1-9]\d{0,2}\.\d{3}$/.test(text))
        expect(right || asPrograms).toBe(true)
      }),
    )
  })
})
