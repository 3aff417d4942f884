import { DAY, daysOf } from '../cells/calendar.ts'
import type { DateStyle } from '../cells/reader.ts'

/** A date read from text. `local`: milliseconds as if the clock were UTC; `offset`: as written, undefined where none is. */
export interface ReadDate {
  local: number
  offset: number | undefined
  dateOnly: boolean
}

const digit = (text: string, at: number) => {
  const code = text.charCodeAt(at) - 48
  return code >= 0 && code <= 9 ? code : -1
}

const two = (text: string, at: number) => {
  const tens = digit(text, at)
  const ones = digit(text, at + 1)
  return tens < 0 || ones < 0 ? -1 : tens * 10 + ones
}

const MONTH_DAYS = [31, 29, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]

function dayNumber(year: number, month: number, day: number): number {
  if (month < 1 || month > 12 || day < 1 || day > MONTH_DAYS[month - 1]) return Number.NaN
  if (month === 2 && day === 29 && (year % 4 !== 0 || (year % 100 === 0 && year % 400 !== 0)))
    return Number.NaN
  return daysOf(year, month, day)
}

// One object, filled again for each call: a million dates should not make a million objects.
const out: ReadDate = { local: 0, offset: undefined, dateOnly: true }

let lastYear = -1
let lastMonth = -1
let monthStart = 0

/**
 * ISO 8601: `2024-03-01`, `2024-03`, `2024`, `2024-03-01T08:30`, with seconds, fractions and `Z` or an offset; a space may stand for the T.
 * The result is valid until the next call. Undefined when the text is not such a date.
 */
export function readIso(text: string): ReadDate | undefined {
  const length = text.length
  if (length !== 4 && (length < 7 || text.charCodeAt(4) !== 45)) return undefined
  const year = two(text, 0) * 100 + two(text, 2)
  if (length === 4)
    return two(text, 0) < 0 || two(text, 2) < 0 ? undefined : fill(daysOf(year, 1, 1) * DAY, undefined, true)
  const month = two(text, 5)
  if (two(text, 0) < 0 || two(text, 2) < 0 || month < 1 || month > 12) return undefined
  if (length === 7) return fill(daysOf(year, month, 1) * DAY, undefined, true)
  if (text.charCodeAt(7) !== 45) return undefined
  const day = two(text, 8)
  if (day < 1 || day > 28) {
    if (Number.isNaN(dayNumber(year, month, day))) return undefined
  }
  if (year !== lastYear || month !== lastMonth) {
    lastYear = year
    lastMonth = month
    monthStart = daysOf(year, month, 1)
  }
  const midnight = (monthStart + day - 1) * DAY
  if (length === 10) return fill(midnight, undefined, true)
  const separator = text.charCodeAt(10)
  if (separator !== 84 && separator !== 32 && separator !== 116) return undefined
  return readClock(text, 11, midnight)
}

/** `08:30`, `08:30:15.250`, then `Z`, `+02:00`, `+0200` or nothing. */
function readClock(text: string, start: number, midnight: number): ReadDate | undefined {
  let at = start
  const hour = two(text, at)
  const minute = two(text, at + 3)
  if (text.charCodeAt(at + 2) !== 58 || hour < 0 || hour > 24 || minute < 0 || minute > 59) return undefined
  at += 5
  let clock = hour * 3_600_000 + minute * 60_000
  if (text.charCodeAt(at) === 58) {
    const second = two(text, at + 1)
    if (second < 0 || second > 60) return undefined
    clock += second * 1000
    at += 3
    const mark = text.charCodeAt(at)
    if (mark === 46 || mark === 44) {
      let scale = 100
      at++
      if (digit(text, at) < 0) return undefined
      for (let d = digit(text, at); d >= 0; d = digit(text, ++at)) {
        clock += Math.floor(d * scale)
        scale /= 10
      }
    }
  }
  if (clock > DAY) return undefined
  if (at === text.length) return fill(midnight + clock, undefined, false)
  const sign = text.charCodeAt(at)
  if ((sign === 90 || sign === 122) && at + 1 === text.length) return fill(midnight + clock, 0, false)
  if (sign !== 43 && sign !== 45) return undefined
  const offsetHour = two(text, at + 1)
  const colon = text.charCodeAt(at + 3) === 58 ? 1 : 0
  const offsetMinute = at + 3 === text.length ? 0 : two(text, at + 3 + colon)
  if (offsetHour < 0 || offsetHour > 18 || offsetMinute < 0 || offsetMinute > 59) return undefined
  if (at + 3 !== text.length && at + 5 + colon !== text.length) return undefined
  const offset = (offsetHour * 60 + offsetMinute) * 60_000
  return fill(midnight + clock, sign === 45 ? -offset : offset, false)
}

function fill(local: number, offset: number | undefined, dateOnly: boolean): ReadDate {
  out.local = local
  out.offset = offset
  out.dateOnly = dateOnly
  return out
}

const SLASHED = /^(\d{1,2})([/.-])(\d{1,2})\2(\d{4})(?:[ T,]+(\d{2}:\d{2}\S*))?$/

/** Whether a text is a date of this form, whichever comes first in it. */
export const isSlashed = (text: string): boolean =>
  readSlashed(text, 'day first') !== undefined || readSlashed(text, 'month first') !== undefined

/** `31/12/2024`, `31.12.2024`, `12-31-2024`, with an optional clock time. The result is valid until the next call. */
export function readSlashed(text: string, style: 'day first' | 'month first'): ReadDate | undefined {
  const found = SLASHED.exec(text)
  if (!found) return undefined
  const first = Number(found[1])
  const second = Number(found[3])
  const days = dayNumber(
    Number(found[4]),
    style === 'day first' ? second : first,
    style === 'day first' ? first : second,
  )
  if (Number.isNaN(days)) return undefined
  return found[5] ? readClock(found[5], 0, days * DAY) : fill(days * DAY, undefined, true)
}

/** Reads a text in the column's style. */
export function readDate(text: string, style: DateStyle): ReadDate | undefined {
  return style === 'iso' ? readIso(text) : readSlashed(text, style)
}

/**
 * Which of day and month comes first in texts such as `03/04/2024`: settled only when some text can be read one way alone.
 * Undefined when the texts are not such dates; `unsettled` when both readings fit all of them.
 */
export function slashedStyle(texts: Iterable<string>): 'day first' | 'month first' | 'unsettled' | undefined {
  let day = true
  let month = true
  let some = false
  for (const text of texts) {
    const dayFirst = readSlashed(text, 'day first') !== undefined
    const monthFirst = readSlashed(text, 'month first') !== undefined
    if (!dayFirst && !monthFirst) continue
    some = true
    day &&= dayFirst
    month &&= monthFirst
  }
  if (!some || (!day && !month)) return undefined
  if (day && month) return 'unsettled'
  return day ? 'day first' : 'month first'
}
