// Periods and cycles of time in a named zone, worked out from nothing but what `Intl` says a clock there shows.

export const UNITS = ['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year'] as const
export type Unit = (typeof UNITS)[number]
export const CYCLES = ['hour of day', 'weekday', 'day of month', 'day of year', 'month of year'] as const
export type Cycle = (typeof CYCLES)[number]

export interface Period {
  from: number
  until: number
}

const MINUTE = 60_000
const DAY = 86_400_000
const clocks = new Map<string, Intl.DateTimeFormat>()

/** What a clock in the zone shows at an instant, as the instant at which a clock in UTC shows the same. */
export function shown(at: number, zone: string): number {
  let clock = clocks.get(zone)
  if (!clock) {
    clock = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      calendar: 'iso8601',
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    })
    clocks.set(zone, clock)
  }
  const part: Record<string, number> = {}
  for (const { type, value } of clock.formatToParts(at)) part[type] = Number(value)
  const ms = ((at % 1000) + 1000) % 1000
  return Date.UTC(part.year, part.month - 1, part.day, part.hour, part.minute, part.second, ms)
}

/** The first instant at which a clock in the zone shows this or, where it leaps over it, more. */
export function firstInstant(wanted: number, zone: string): number {
  const before = wanted - 2 * DAY - (shown(wanted - 2 * DAY, zone) - (wanted - 2 * DAY))
  const offsets = new Set(
    [-30, -14, -2, 0, 2, 14, 30].map(h => offset(before + 2 * DAY + h * 3_600_000, zone)),
  )
  const hits = [...offsets].map(by => wanted - by).filter(at => shown(at, zone) === wanted)
  if (hits.length > 0) return Math.min(...hits)
  // The clock leaps over it: halve the stretch in which it does.
  let [low, high] = [wanted - Math.max(...offsets) - DAY, wanted - Math.min(...offsets) + DAY]
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (shown(middle, zone) >= wanted) high = middle
    else low = middle
  }
  return high
}

const offset = (at: number, zone: string) => shown(at, zone) - at

/** The beginning of the unit in which a clock stands, and that of the next one; both as instants of UTC's clock. */
function around(clock: number, unit: Unit): [number, number] {
  const date = new Date(clock)
  const [year, month] = [date.getUTCFullYear(), date.getUTCMonth()]
  const midnight = Math.floor(clock / DAY) * DAY
  switch (unit) {
    case 'minute':
      return [Math.floor(clock / MINUTE) * MINUTE, Math.floor(clock / MINUTE) * MINUTE + MINUTE]
    case 'hour':
      return [
        Math.floor(clock / 3_600_000) * 3_600_000,
        Math.floor(clock / 3_600_000) * 3_600_000 + 3_600_000,
      ]
    case 'day':
      return [midnight, midnight + DAY]
    case 'week': {
      // Weeks begin on Mondays (ISO 8601); 1 January 1970 was a Thursday.
      const monday = midnight - ((((midnight / DAY + 3) % 7) + 7) % 7) * DAY
      return [monday, monday + 7 * DAY]
    }
    case 'month':
      return [Date.UTC(year, month), Date.UTC(year, month + 1)]
    case 'quarter':
      return [Date.UTC(year, month - (month % 3)), Date.UTC(year, month - (month % 3) + 3)]
    case 'year':
      return [Date.UTC(year, 0), Date.UTC(year + 1, 0)]
  }
}

/** The period of a unit that an instant falls in. Hours and minutes go by what has passed, so that none is counted twice. */
export function periodOf(at: number, unit: Unit, zone: string): Period {
  const [from, until] = around(shown(at, zone), unit)
  if (unit === 'minute' || unit === 'hour') {
    const by = offset(at, zone)
    return { from: from - by, until: until - by }
  }
  return { from: firstInstant(from, zone), until: firstInstant(until, zone) }
}

/** The place in a cycle: hours from 0, weekdays from Monday as 1, days and months from 1. */
export function placeOf(at: number, cycle: Cycle, zone: string): number {
  const clock = shown(at, zone)
  const date = new Date(clock)
  switch (cycle) {
    case 'hour of day':
      return date.getUTCHours()
    case 'weekday':
      return date.getUTCDay() || 7
    case 'day of month':
      return date.getUTCDate()
    case 'day of year':
      return Math.floor((clock - Date.UTC(date.getUTCFullYear(), 0)) / DAY) + 1
    case 'month of year':
      return date.getUTCMonth() + 1
  }
}

/** How people write a place in a cycle. */
export function placeName(place: number, cycle: Cycle, locale: string): string {
  const say = (at: number, options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options }).format(at)
  if (cycle === 'weekday') return say(Date.UTC(2024, 0, place), { weekday: 'short' })
  if (cycle === 'month of year') return say(Date.UTC(2024, place - 1), { month: 'short' })
  if (cycle === 'hour of day')
    return say(Date.UTC(2024, 0, 1, place), { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' })
  return String(place)
}

/** The number of the ISO 8601 week that an instant falls in, with the year that it is counted in. */
export function isoWeek(at: number): [year: number, week: number] {
  const [monday] = around(at, 'week')
  const year = new Date(monday + 3 * DAY).getUTCFullYear()
  const [first] = around(Date.UTC(year, 0, 4), 'week')
  return [year, (monday - first) / (7 * DAY) + 1]
}
