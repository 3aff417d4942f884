import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readDate, readIso, readSlashed, slashedStyle } from './date-text.ts'

const date = fc.date({ min: new Date('0000-01-01'), max: new Date('9999-12-31'), noInvalidDate: true })

describe('ISO 8601', () => {
  test('is read as the platform reads it', () => {
    fc.assert(
      fc.property(date, value => {
        const text = value.toISOString()
        expect(readIso(text)).toEqual({ local: value.getTime(), offset: 0, dateOnly: false })
        const day = text.slice(0, 10)
        expect(readIso(day)).toEqual({ local: Date.parse(day), offset: undefined, dateOnly: true })
        expect(readIso(text.slice(0, 7))?.local).toBe(Date.parse(text.slice(0, 7)))
        expect(readIso(text.slice(0, 16).replace('T', ' '))?.local).toBe(Date.parse(`${text.slice(0, 16)}Z`))
      }),
    )
  })

  test('keeps offsets', () => {
    fc.assert(
      fc.property(
        date,
        fc.integer({ min: -17 * 60, max: 17 * 60 }),
        fc.boolean(),
        (value, minutes, colon) => {
          const size = Math.abs(minutes)
          const two = (n: number) => String(n).padStart(2, '0')
          const zone = `${minutes < 0 ? '-' : '+'}${two(Math.floor(size / 60))}${colon ? ':' : ''}${two(size % 60)}`
          const read = readIso(`${value.toISOString().slice(0, 19)}${zone}`)!
          expect(read.offset! + 0).toBe(minutes * 60_000 + 0)
          expect(read.local).toBe(Math.floor(value.getTime() / 1000) * 1000)
        },
      ),
    )
  })

  test('days and clocks that there are not are none', () => {
    for (const text of ['2023-02-29', '1900-02-29', '2024-13-01', '2024-00-10', '2024-04-31', '2024-1-1'])
      expect(readIso(text), text).toBeUndefined()
    for (const text of [
      '2024-01-01T25:00',
      '2024-01-01T24:01',
      '2024-01-01T10:60',
      '2024-01-01T10',
      '2024-01-01T10:00+25:00',
    ])
      expect(readIso(text), text).toBeUndefined()
    for (const text of ['2024-02-29', '2000-02-29', '2024-01-01T24:00', '2024-01-01T23:59:60'])
      expect(readIso(text), text).toBeDefined()
  })

  test('nothing else is taken for it', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 24 }), text => {
        if (readIso(text)) expect(text).toMatch(/^\d{4}-\d\d(-\d\d([T t]\d\d:\d\d.*)?)?$/)
      }),
    )
  })
})

describe('days with slashes, dots and dashes', () => {
  const parts = fc.tuple(date, fc.constantFrom('/', '.', '-'))
  const write = (value: Date, mark: string, dayFirst: boolean) => {
    const [year, month, day] = value.toISOString().slice(0, 10).split('-')
    return [...(dayFirst ? [day, month] : [month, day]), year].join(mark)
  }

  test('are read in the order that the column has', () => {
    fc.assert(
      fc.property(parts, fc.boolean(), ([value, mark], dayFirst) => {
        const text = write(value, mark, dayFirst)
        const style = dayFirst ? 'day first' : 'month first'
        expect(readSlashed(text, style)?.local).toBe(Date.parse(value.toISOString().slice(0, 10)))
        expect(readDate(`${text} 08:30`, style)?.local).toBe(
          Date.parse(value.toISOString().slice(0, 10)) + 8.5 * 3_600_000,
        )
      }),
    )
  })

  test('settle their order only where one reading alone fits', () => {
    fc.assert(
      fc.property(fc.array(date, { minLength: 1, maxLength: 8 }), fc.boolean(), (values, dayFirst) => {
        const style = slashedStyle(values.map(value => write(value, '/', dayFirst)))
        const settled = values.some(value => value.getUTCDate() > 12)
        expect(style).toBe(settled ? (dayFirst ? 'day first' : 'month first') : 'unsettled')
      }),
    )
    expect(slashedStyle(['North Sound', ''])).toBeUndefined()
    expect(slashedStyle(['31/12/2024', '12/31/2024'])).toBeUndefined()
  })
})
