import type { Zone } from './zone.ts'

/** Units of time in which rows are gathered and axes are divided. Weeks are ISO 8601: from Monday. */
export type Unit =
  | 'millisecond'
  | 'second'
  | 'minute'
  | 'hour'
  | 'day'
  | 'week'
  | 'month'
  | 'quarter'
  | 'year'
/** Recurring positions in a calendar: ordered categories, not points in time. */
export type Cycle = 'hour of day' | 'weekday' | 'day of month' | 'day of year' | 'month of year'

export const SECOND = 1000
export const MINUTE = 60 * SECOND
export const HOUR = 60 * MINUTE
export const DAY = 24 * HOUR

/** Lengths in milliseconds; months, quarters and years are averages, good for choosing, not for counting. */
export const LENGTH: Record<Unit, number> = {
  millisecond: 1,
  second: SECOND,
  minute: MINUTE,
  hour: HOUR,
  day: DAY,
  week: 7 * DAY,
  month: 30.436875 * DAY,
  quarter: 91.310625 * DAY,
  year: 365.2425 * DAY,
}

/** A date reaches so many milliseconds before and after 1970, by ECMA-262. */
export const FARTHEST = 8.64e15

/** The nearest time that is a date. */
export const withinDates = (time: number): number => Math.max(-FARTHEST, Math.min(FARTHEST, time))

export interface Civil {
  year: number
  /** 1 to 12 */
  month: number
  /** 1 to 31 */
  day: number
}

/** Days since 1970-01-01 to year, month and day. After Howard Hinnant, "chrono-Compatible Low-Level Date Algorithms". */
export function civilOf(days: number): Civil {
  const z = days + 719_468
  const era = Math.floor(z / 146_097)
  const dayOfEra = z - era * 146_097
  const yearOfEra = Math.floor(
    (dayOfEra -
      Math.floor(dayOfEra / 1460) +
      Math.floor(dayOfEra / 36_524) -
      Math.floor(dayOfEra / 146_096)) /
      365,
  )
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const shifted = Math.floor((5 * dayOfYear + 2) / 153)
  const day = dayOfYear - Math.floor((153 * shifted + 2) / 5) + 1
  const month = shifted < 10 ? shifted + 3 : shifted - 9
  return { year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0), month, day }
}

/** Year, month (any whole number; 13 is January of the next year) and day to days since 1970-01-01. */
export function daysOf(year: number, month: number, day: number): number {
  const y0 = year + Math.floor((month - 1) / 12)
  const m = ((((month - 1) % 12) + 12) % 12) + 1
  const y = m <= 2 ? y0 - 1 : y0
  const era = Math.floor(y / 400)
  const yearOfEra = y - era * 400
  const dayOfYear = Math.floor((153 * (m > 2 ? m - 3 : m + 9) + 2) / 5) + day - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return era * 146_097 + dayOfEra - 719_468
}

/** The whole number of a unit's bucket on the local calendar: months since 1970-01, ISO weeks, days, … */
export function bucketOfDay(day: number, unit: 'day' | 'week' | 'month' | 'quarter' | 'year'): number {
  if (unit === 'day') return day
  if (unit === 'week') return Math.floor((day + 3) / 7)
  const { year, month } = civilOf(day)
  if (unit === 'year') return year - 1970
  const months = (year - 1970) * 12 + month - 1
  return unit === 'month' ? months : Math.floor(months / 3)
}

/** The first local day of a bucket. */
export function dayOfBucket(bucket: number, unit: 'day' | 'week' | 'month' | 'quarter' | 'year'): number {
  if (unit === 'day') return bucket
  if (unit === 'week') return bucket * 7 - 3
  if (unit === 'year') return daysOf(1970 + bucket, 1, 1)
  return daysOf(1970, (unit === 'month' ? bucket : bucket * 3) + 1, 1)
}

export function isClockUnit(unit: Unit): unit is 'millisecond' | 'second' | 'minute' | 'hour' {
  return unit === 'hour' || unit === 'minute' || unit === 'second' || unit === 'millisecond'
}

/** The latest time, not after `time`, at which a unit begins in the zone. */
export function floorTime(time: number, unit: Unit, zone: Zone): number {
  const offset = zone.offsetAt(time)
  // Clock units stay on their own side of a clock change, so that an hour that occurs twice stays two hours.
  if (isClockUnit(unit)) return Math.floor((time + offset) / LENGTH[unit]) * LENGTH[unit] - offset
  const day = Math.floor((time + offset) / DAY)
  return zone.toUtc(dayOfBucket(bucketOfDay(day, unit), unit) * DAY)
}

/** The time `count` units after one that begins a unit. */
export function addUnits(start: number, unit: Unit, count: number, zone: Zone): number {
  if (isClockUnit(unit)) return start + count * LENGTH[unit]
  const day = Math.floor((start + zone.offsetAt(start)) / DAY)
  return zone.toUtc(dayOfBucket(bucketOfDay(day, unit) + count, unit) * DAY)
}

/** How many values a cycle has, and the number of its first. */
export const CYCLES: Record<Cycle, { first: number; count: number }> = {
  'hour of day': { first: 0, count: 24 },
  weekday: { first: 1, count: 7 },
  'day of month': { first: 1, count: 31 },
  'day of year': { first: 1, count: 366 },
  'month of year': { first: 1, count: 12 },
}

/** Where a local time (milliseconds as if UTC) stands in a cycle: Monday is weekday 1, January month 1, midnight hour 0. */
export function cycleOf(local: number, cycle: Cycle): number {
  const day = Math.floor(local / DAY)
  switch (cycle) {
    case 'hour of day':
      return Math.floor((local - day * DAY) / HOUR)
    case 'weekday':
      return ((((day + 3) % 7) + 7) % 7) + 1
    case 'day of month':
      return civilOf(day).day
    case 'month of year':
      return civilOf(day).month
    case 'day of year':
      return day - daysOf(civilOf(day).year, 1, 1) + 1
  }
}
