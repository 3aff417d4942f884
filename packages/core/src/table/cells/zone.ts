import { tzOffset } from '@date-fns/tz/tzOffset'
import { DapploError } from '../../finding/error.ts'

/** A time zone that answers fast for millions of times. */
export interface Zone {
  readonly name: string
  /** Milliseconds to add to a UTC time to get the clock time there. */
  offsetAt(utc: number): number
  /** The UTC time at which clocks there show `local` (written as if it were UTC). A time skipped by a clock change moves on; one that occurs twice is the first. */
  toUtc(local: number): number
}

const WEEK = 7 * 86_400_000
const DAY = 86_400_000

export const utc: Zone = { name: 'UTC', offsetAt: () => 0, toUtc: local => local }

const zones = new Map<string, Zone>([
  ['UTC', utc],
  ['Etc/UTC', utc],
])

/** The zone of an IANA name such as `Europe/Lisbon`. Throws `unknown-time-zone`. */
export function zoneOf(name: string | undefined, path = 'timeZone'): Zone {
  if (!name) return utc
  let zone = zones.get(name)
  if (!zone) {
    try {
      new Intl.DateTimeFormat('en', { timeZone: name })
    } catch {
      throw new DapploError(
        'unknown-time-zone',
        `"${name}" is not a time zone`,
        path,
        'Use an IANA name such as "UTC" or "Europe/Lisbon".',
      )
    }
    zone = makeZone(name)
    zones.set(name, zone)
  }
  return zone
}

function makeZone(name: string): Zone {
  const ask = (ms: number) => {
    const minutes = tzOffset(name, new Date(Math.max(-8.64e15, Math.min(8.64e15, ms))))
    return Math.round(minutes * 60) * 1000
  }
  // Clocks change at most once within a week, so a week is either one offset or two with a change between them.
  type Span = { change: number; before: number; after: number }
  const spans = new Map<number, Span>()
  let lastWeek = Number.NaN
  let last: Span = { change: 0, before: 0, after: 0 }
  const spanOf = (week: number): Span => {
    let span = spans.get(week)
    if (!span) {
      const before = ask(week * WEEK)
      const after = ask((week + 1) * WEEK - 1)
      let change = (week + 1) * WEEK
      if (before !== after) {
        let low = week * WEEK
        while (change - low > 1000) {
          const middle = Math.floor((low + change) / 2000) * 1000
          if (middle <= low) break
          if (ask(middle) === before) low = middle
          else change = middle
        }
      }
      span = { change, before, after }
      spans.set(week, span)
    }
    return span
  }
  const offsetAt = (ms: number) => {
    if (Number.isNaN(ms)) return 0
    const week = Math.floor(ms / WEEK)
    if (week !== lastWeek) {
      last = spanOf(week)
      lastWeek = week
    }
    return ms < last.change ? last.before : last.after
  }
  const toUtc = (local: number) => {
    const early = local - offsetAt(local - DAY)
    if (early + offsetAt(early) === local) return early
    const late = local - offsetAt(local + DAY)
    return late + offsetAt(late) === local ? late : early
  }
  return { name, offsetAt, toUtc }
}
