import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { DAY, HOUR } from '../table/cells/calendar.ts'
import { utc, zoneOf } from '../table/cells/zone.ts'
import { measureInter } from '../theme/text-width.ts'
import { chooseTimeTicks, timesEvery } from './time-ticks.ts'

const measure = (text: string) => measureInter(text, { size: 12, weight: 400 })
const ticks = (min: string, max: string, length: number, zone = utc, locale = 'en') =>
  chooseTimeTicks({
    min: Date.parse(min),
    max: Date.parse(max),
    length,
    most: Math.floor(length / 40),
    locale,
    zone,
    measure,
  })

describe('time ticks', () => {
  test.each([
    ['2023-01-01', '2026-01-01', 1200, ['January', 'April', 'July', 'October', 'January'], '2023'],
    ['2023-01-01', '2026-01-01', 300, ['Jan', 'Jul', 'Jan'], '2023'],
    ['2024-03-04', '2024-03-25', 700, ['5', '7', '9'], 'Mar 2024'],
    ['2024-03-04T00:00Z', '2024-03-04T12:00Z', 700, ['00:00', '01:00', '02:00'], 'Mon, Mar 4, 2024'],
    ['1900-01-01', '2000-01-01', 700, ['1900', '1910', '1920'], ''],
    [
      '2024-03-04T10:00:00.000Z',
      '2024-03-04T10:00:00.050Z',
      700,
      ['0.000', '0.005', '0.010'],
      'Mar 4, 2024, 10:00',
    ],
  ])('from %s to %s over %d pixels divide the calendar', (min, max, length, first, larger) => {
    const found = ticks(min, max, length)
    expect(found.labels.slice(0, first.length)).toEqual(first)
    expect(found.larger[0] ?? '').toBe(larger)
  })

  test('never collide and never fall, whatever span, width and zone', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -6e13, max: 2.5e14, noNaN: true }),
        fc.double({ min: 0, max: 15, noNaN: true }),
        fc.integer({ min: 60, max: 1800 }),
        fc.constantFrom('UTC', 'America/St_Johns', 'Pacific/Apia', 'Europe/Lisbon'),
        (start, power, length, zoneName) => {
          const min = Math.floor(start)
          const max = Math.min(8e15, min + Math.ceil(10 ** power))
          const { values, labels } = chooseTimeTicks({
            min,
            max,
            length,
            most: Math.floor(length / 40),
            locale: 'en',
            zone: zoneOf(zoneName),
            measure,
          })
          expect(labels.length).toBe(values.length)
          values.forEach((value, i) => {
            expect(value).toBeGreaterThanOrEqual(min)
            expect(value).toBeLessThanOrEqual(max)
            if (i === 0) return
            const room = ((value - values[i - 1]) / (max - min)) * length
            expect(room).toBeGreaterThanOrEqual((measure(labels[i]) + measure(labels[i - 1])) / 2)
          })
        },
      ),
      { numRuns: runs(300) },
    )
  })

  test('stand on the local clock on both sides of a change to summer time', () => {
    const lisbon = zoneOf('Europe/Lisbon')
    const times = timesEvery(
      { unit: 'hour', count: 6 },
      Date.parse('2024-03-30T00:00Z'),
      Date.parse('2024-04-01T00:00Z'),
      lisbon,
    )
    const clock = new Intl.DateTimeFormat('en-GB', {
      timeZone: 'Europe/Lisbon',
      hour: '2-digit',
      minute: '2-digit',
    })
    expect(times.map(time => clock.format(time))).toEqual([
      '00:00',
      '06:00',
      '12:00',
      '18:00',
      '00:00',
      '06:00',
      '12:00',
      '18:00',
      '00:00',
    ])
    expect(times[5] - times[4]).toBe(5 * HOUR)
  })

  test('of weeks begin on Mondays', () => {
    for (const time of timesEvery({ unit: 'week', count: 1 }, 0, 400 * DAY, utc))
      expect(new Date(time).getUTCDay()).toBe(1)
  })
})
