import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { civilOf, DAY, daysOf, floorTime, HOUR } from './calendar.ts'
import { zoneOf } from './zone.ts'

const zones = fc.constantFrom(
  'UTC',
  'Europe/Lisbon',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Apia',
)
const times = fc.integer({ min: Date.UTC(1980, 0, 1), max: Date.UTC(2035, 0, 1) })

describe('the calendar', () => {
  test('agrees with the platform for every day of four thousand years', () => {
    let looked = 0
    for (let day = daysOf(1, 1, 1); day < daysOf(4000, 1, 1); day += 13, looked++) {
      const date = new Date(day * DAY)
      const platform = { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() }
      const own = civilOf(day)
      // Asserting costs more than the calendar: only what differs is shown.
      if (own.year !== platform.year || own.month !== platform.month || own.day !== platform.day)
        expect(own).toEqual(platform)
    }
    expect(looked).toBeGreaterThan(100_000)
  })

  test('a zone shows the clock that Intl shows', () => {
    fc.assert(
      fc.property(zones, times, (name, time) => {
        const local = new Date(time + zoneOf(name).offsetAt(time))
          .toISOString()
          .slice(0, 16)
          .replace('T', ', ')
        const shown = new Intl.DateTimeFormat('en-CA', {
          timeZone: name,
          year: 'numeric',
          month: '2-digit',
          day: '2-digit',
          hour: '2-digit',
          minute: '2-digit',
          hourCycle: 'h23',
        }).format(time)
        expect(local).toBe(shown)
      }),
      { numRuns: runs(500) },
    )
  })

  test('a clock time leads back to itself, but for the hour that summer time skips', () => {
    fc.assert(
      fc.property(zones, times, (name, local) => {
        const zone = zoneOf(name)
        const utc = zone.toUtc(local)
        const back = utc + zone.offsetAt(utc)
        expect(back === local || (back > local && back - local <= 24 * HOUR)).toBe(true)
      }),
      { numRuns: runs(500) },
    )
  })

  test('units begin at or before the time, and beginnings begin themselves', () => {
    fc.assert(
      fc.property(
        zones,
        times,
        fc.constantFrom(
          'hour' as const,
          'day' as const,
          'week' as const,
          'month' as const,
          'quarter' as const,
          'year' as const,
        ),
        (name, time, unit) => {
          const zone = zoneOf(name)
          const start = floorTime(time, unit, zone)
          expect(start).toBeLessThanOrEqual(time)
          expect(floorTime(start, unit, zone)).toBe(start)
        },
      ),
    )
  })

  test('an unknown zone is named in one sentence', () => {
    expect(() => zoneOf('Europe/Skerry')).toThrow(
      expect.objectContaining({ code: 'unknown-time-zone', hint: expect.stringContaining('IANA') }),
    )
  })
})
