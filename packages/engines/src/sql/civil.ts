import type { FarBucket } from '@dapplo/core/far'
import type { CalendarPart, Named } from './dialect.ts'

const DAY = 86_400_000
/** So many days are added before dividing, so that what is divided is never below zero and rounding goes down everywhere. */
const SHIFT = 146_097 * 700

/**
 * The calendar in whole-number arithmetic, for engines whose own calendar ends too soon or is slow: after Howard Hinnant,
 * "chrono-Compatible Low-Level Date Algorithms". `divide`: whole division of what is not below zero.
 */
export class Civil {
  private readonly divide: (a: string, b: number | string) => string

  constructor(divide: (a: string, b: number | string) => string) {
    this.divide = divide
  }

  /** Days since 1970. */
  day(milliseconds: string): string {
    return `(${this.divide(`(${milliseconds} + ${SHIFT * DAY})`, DAY)} - ${SHIFT})`
  }

  bucket(milliseconds: string, unit: FarBucket, named: Named): string {
    const day = named(this.day(milliseconds))
    if (unit === 'day') return day
    if (unit === 'week') return `(${this.divide(`(${day} + ${3 + SHIFT})`, 7)} - ${SHIFT / 7})`
    const { year, month } = this.yearAndMonth(day, named)
    if (unit === 'year') return `(${year} - 1970)`
    const months = `(${year} * 12 + ${month} - 1 - 23640)`
    // As many quarters before as there are months in the shift, so that it stays whole.
    return unit === 'month' ? months : `(${this.divide(`(${months} + 12000000)`, 3)} - 4000000)`
  }

  part(milliseconds: string, part: CalendarPart, named: Named): string {
    const day = named(this.day(milliseconds))
    if (part === 'hour')
      return this.divide(`(${milliseconds} + ${SHIFT * DAY} - (${day} + ${SHIFT}) * ${DAY})`, 3_600_000)
    if (part === 'weekday') return `((${day} + ${3 + SHIFT}) % 7 + 1)`
    const { year, month, date } = this.yearAndMonth(day, named)
    if (part === 'day') return date
    if (part === 'month') return month
    return `(${day} - ${this.firstDay(year)} + 1)`
  }

  private yearAndMonth(day: string, named: Named): { year: string; month: string; date: string } {
    const { divide } = this
    const z = named(`(${day} + ${719_468 + SHIFT})`)
    const era = named(divide(z, 146_097))
    const dayOfEra = named(`(${z} - ${era} * 146097)`)
    const yearOfEra = named(
      divide(
        `(${dayOfEra} - ${divide(dayOfEra, 1460)} + ${divide(dayOfEra, 36_524)} - ${divide(dayOfEra, 146_096)})`,
        365,
      ),
    )
    const dayOfYear = named(
      `(${dayOfEra} - (365 * ${yearOfEra} + ${divide(yearOfEra, 4)} - ${divide(yearOfEra, 100)}))`,
    )
    const shifted = named(divide(`(5 * ${dayOfYear} + 2)`, 153))
    const date = `(${dayOfYear} - ${divide(`(153 * ${shifted} + 2)`, 5)} + 1)`
    const month = `(CASE WHEN ${shifted} < 10 THEN ${shifted} + 3 ELSE ${shifted} - 9 END)`
    const early = `(CASE WHEN ${shifted} < 10 THEN 0 ELSE 1 END)`
    const year = named(`(${yearOfEra} + ${era} * 400 + ${early} - ${(SHIFT / 146_097) * 400})`)
    return { year, month, date }
  }

  /** The days from 1970 to the first of January. */
  private firstDay(year: string): string {
    const years = (SHIFT / 146_097) * 400
    const before = `(${year} - 1 + ${years})`
    const { divide } = this
    // To 1970-01-01 from the beginning of the shift.
    const days = `(${before} * 365 + ${divide(before, 4)} - ${divide(before, 100)} + ${divide(before, 400)})`
    return `(${days} - ${719_162 + SHIFT})`
  }
}
