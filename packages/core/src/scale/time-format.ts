import { usable } from '../finding/check-format.ts'
import type { Unit } from '../table/cells/calendar.ts'
import { civilOf, DAY, withinDates } from '../table/cells/calendar.ts'
import type { Zone } from '../table/cells/zone.ts'
import { keptTexts } from './kept-texts.ts'

/** Writes a time. */
interface WritesTimes {
  format(time: number): string
}

const formats = new Map<string, WritesTimes>()

/** So many texts of each format are kept: charts of a page, and pictures of one that moves, write the same times. */
const KEPT = 512

/** What `Intl.DateTimeFormat` writes in a zone, kept; Gregorian calendar, since ticks are. */
export function timeFormat(locale: string, zone: string, options: Intl.DateTimeFormatOptions): WritesTimes {
  const name = `${locale}|${zone}|${JSON.stringify(options)}`
  let format = formats.get(name)
  if (!format) {
    const intl = usable(
      () =>
        new Intl.DateTimeFormat(locale, {
          calendar: 'gregory',
          hourCycle: options.hour ? 'h23' : undefined,
          ...options,
          timeZone: zone,
        }),
    )
    // Buckets and ticks may begin before the first date there is.
    format = { format: keptTexts(time => intl.format(withinDates(time)), KEPT) }
    formats.set(name, format)
  }
  return format
}

/** Dates before the year 100 would else be written "1"; an era tells no more than a minus. */
export function yearText(time: number, locale: string, zone: Zone): string {
  const { year } = civilOf(Math.floor((time + zone.offsetAt(time)) / DAY))
  return year < 1000 ? String(year) : timeFormat(locale, zone.name, { year: 'numeric' }).format(time)
}

/** ISO 8601 week number of a local day (days since 1970-01-01), with the year it belongs to. */
export function isoWeek(day: number): { week: number; year: number } {
  const thursday = day - ((((day + 3) % 7) + 7) % 7) + 3
  const { year } = civilOf(thursday)
  let first = thursday
  while (civilOf(first - 7).year === year) first -= 7
  return { week: Math.round((thursday - first) / 7) + 1, year }
}

/** A moment or an interval as people say it: `Mon, Mar 4, 2024`, `March 2024`, `Q1 2024`. */
export function momentText(time: number, unit: Unit | undefined, locale: string, zone: Zone): string {
  if (!Number.isFinite(time)) return '–'
  const write = (options: Intl.DateTimeFormatOptions) => timeFormat(locale, zone.name, options).format(time)
  const local = time + zone.offsetAt(time)
  switch (unit) {
    case 'year':
      return yearText(time, locale, zone)
    case 'quarter':
      return `Q${Math.floor((civilOf(Math.floor(local / DAY)).month - 1) / 3) + 1} ${yearText(time, locale, zone)}`
    case 'month':
      return write({ month: 'long', year: 'numeric' })
    case 'week':
      return `W${isoWeek(Math.floor(local / DAY)).week}, ${write({ day: 'numeric', month: 'short', year: 'numeric' })}`
    case 'day':
      return write({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
    case 'hour':
    case 'minute':
      return write({
        weekday: 'short',
        day: 'numeric',
        month: 'short',
        year: 'numeric',
        hour: '2-digit',
        minute: '2-digit',
      })
    default: {
      const clock = ((local % DAY) + DAY) % DAY
      if (clock === 0) return momentText(time, 'day', locale, zone)
      if (clock % 60_000 === 0) return momentText(time, 'minute', locale, zone)
      const fraction = clock % 1000 === 0 ? undefined : 3
      return write({
        day: 'numeric',
        month: 'short',
        year: 'numeric',
        hour: '2-digit',
        minute: '2-digit',
        second: '2-digit',
        fractionalSecondDigits: fraction,
      })
    }
  }
}

/** The name of a cycle's value: weekday 1 is Monday, month 1 January. A word that is none of them, such as the rest, stays. */
export function cycleText(
  cycle: string,
  word: string,
  locale: string,
  width: 'long' | 'short' | 'narrow' = 'short',
): string {
  const value = Number(word)
  if (word === '' || !Number.isInteger(value)) return word
  if (cycle === 'weekday') return timeFormat(locale, 'UTC', { weekday: width }).format((3 + value) * DAY)
  if (cycle === 'month of year')
    return timeFormat(locale, 'UTC', { month: width }).format(Date.UTC(1970, value - 1, 15))
  return cycle === 'hour of day' ? `${String(value).padStart(2, '0')}:00` : String(value)
}
