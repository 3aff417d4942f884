import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { DAY } from '../table/cells/calendar.ts'
import { utc, zoneOf } from '../table/cells/zone.ts'
import { cycleText, isoWeek, momentText, yearText } from './time-format.ts'

test('weeks are those of ISO 8601: the first has the first Thursday, and each has seven days', () => {
  fc.assert(
    fc.property(fc.integer({ min: -200_000, max: 200_000 }), day => {
      const { week, year } = isoWeek(day)
      const monday = day - ((((day + 3) % 7) + 7) % 7)
      for (let d = monday; d < monday + 7; d++) expect(isoWeek(d)).toEqual({ week, year })
      const next = isoWeek(monday + 7)
      expect(next.year === year ? next.week : next.week + week).toBe(week + 1)
      // The Thursday lies in the year that the week belongs to, and counts its weeks.
      const thursday = new Date((monday + 3) * DAY)
      expect(thursday.getUTCFullYear()).toBe(year)
      const dayOfYear = (thursday.getTime() - Date.UTC(year, 0, 1)) / DAY
      if (year >= 100) expect(week).toBe(Math.floor(dayOfYear / 7) + 1)
    }),
  )
})

describe('a moment', () => {
  const time = Date.UTC(2024, 2, 4, 23, 30)
  test.each([
    ['year', 'en', 'UTC', '2024'],
    ['quarter', 'en', 'UTC', 'Q1 2024'],
    ['month', 'en', 'UTC', 'March 2024'],
    ['month', 'de', 'UTC', 'März 2024'],
    ['week', 'en', 'UTC', 'W10, Mar 4, 2024'],
    ['day', 'en', 'UTC', 'Mon, Mar 4, 2024'],
    // In the east the day is another.
    ['day', 'en', 'Asia/Tokyo', 'Tue, Mar 5, 2024'],
    ['hour', 'en', 'UTC', 'Mon, Mar 4, 2024, 23:30'],
    [undefined, 'en', 'UTC', 'Mon, Mar 4, 2024, 23:30'],
  ] as const)('by %s in %s and %s is said as people say it', (unit, locale, zone, expected) => {
    expect(momentText(time, unit, locale, zoneOf(zone, 'timeZone'))).toBe(expected)
  })

  test('says no more of the clock than there is', () => {
    const midnight = Date.UTC(2024, 2, 4)
    expect(momentText(midnight, undefined, 'en', utc)).toBe('Mon, Mar 4, 2024')
    expect(momentText(midnight + 1000, undefined, 'en', utc)).toBe('Mar 4, 2024, 00:00:01')
    expect(momentText(midnight + 250, undefined, 'en', utc)).toBe('Mar 4, 2024, 00:00:00.250')
    expect(momentText(Number.NaN, 'day', 'en', utc)).toBe('–')
  })

  test('of long ago is a year without an era', () => {
    expect(yearText(new Date('0476-09-04').getTime(), 'en', utc)).toBe('476')
    expect(yearText(new Date('-000043-03-15').getTime(), 'en', utc)).toBe('-43')
  })
})

test('cycles have the names of the language', () => {
  expect([1, 7].map(i => cycleText('weekday', String(i), 'en'))).toEqual(['Mon', 'Sun'])
  expect([1, 12].map(i => cycleText('month of year', String(i), 'fr', 'long'))).toEqual([
    'janvier',
    'décembre',
  ])
  expect(cycleText('hour of day', '7', 'en')).toBe('07:00')
  expect(cycleText('day of month', '31', 'en')).toBe('31')
})
