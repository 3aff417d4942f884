import {
  addUnits,
  civilOf,
  DAY,
  dayOfBucket,
  floorTime,
  HOUR,
  isClockUnit,
  LENGTH,
  type Unit,
} from '../table/cells/calendar.ts'
import type { Zone } from '../table/cells/zone.ts'
import { timeFormat, yearText } from './time-format.ts'

/** A division of the calendar: every `count` units, on the unit's own beginnings. */
export interface TimeStep {
  unit: Unit
  count: number
}

export interface TimeTicks {
  values: number[]
  labels: string[]
  /** The larger unit, named at the first tick that lies in it; empty elsewhere. */
  larger: string[]
  step: TimeStep
}

const steps = (unit: Unit, ...counts: number[]): TimeStep[] => counts.map(count => ({ unit, count }))

/** From a millisecond to ten thousand years: the divisions that calendars and clocks have. */
const STEPS: readonly TimeStep[] = [
  ...steps('millisecond', 1, 2, 5, 10, 20, 50, 100, 200, 500),
  ...steps('second', 1, 2, 5, 10, 15, 30),
  ...steps('minute', 1, 2, 5, 10, 15, 30),
  ...steps('hour', 1, 2, 3, 6, 12),
  ...steps('day', 1, 2),
  ...steps('week', 1),
  ...steps('month', 1),
  ...steps('quarter', 1, 2),
  ...steps('year', 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000, 50_000, 100_000),
]

/** About how many times a step begins between two times. */
export const countTimes = ({ unit, count }: TimeStep, min: number, max: number): number =>
  (max - min) / (LENGTH[unit] * count)

/** The divisions of the calendar that are longer than a step, the shortest first. */
export const coarserSteps = ({ unit, count }: TimeStep): TimeStep[] =>
  STEPS.filter(step => LENGTH[step.unit] * step.count > LENGTH[unit] * count * 1.001)

/** Times at which a step begins, inside the ends, oldest first. Ask `countTimes` first about how many there will be. */
export function timesEvery({ unit, count }: TimeStep, min: number, max: number, zone: Zone): number[] {
  const times: number[] = []
  const add = (time: number) => {
    if (time >= min && time <= max && time !== times[times.length - 1]) times.push(time)
  }
  if (isClockUnit(unit)) {
    const length = LENGTH[unit] * count
    if (length <= HOUR) {
      const offset = zone.offsetAt(min)
      for (let time = Math.ceil((min + offset) / length) * length - offset; time <= max; time += length)
        add(time)
    } else {
      const first = Math.floor((min + zone.offsetAt(min)) / length) * length
      const end = max + zone.offsetAt(max)
      for (let local = first; local <= end; local += length) add(zone.toUtc(local))
    }
    return times
  }
  if (unit === 'day' && count > 1) {
    // Every second day starts anew with each month: 1, 3, … 29, so that the same days are named every month.
    for (let time = floorTime(min, 'month', zone); time <= max; time = addUnits(time, 'month', 1, zone)) {
      const next = addUnits(time, 'month', 1, zone)
      for (let day = time; day < next - (count - 1) * DAY; day = addUnits(day, 'day', count, zone)) add(day)
    }
    return times
  }
  if (unit === 'year') {
    const { year } = civilOf(Math.floor((min + zone.offsetAt(min)) / DAY))
    const last = civilOf(Math.floor((max + zone.offsetAt(max)) / DAY)).year
    for (let y = Math.ceil(year / count) * count; y <= last; y += count)
      add(zone.toUtc(dayOfBucket(y - 1970, 'year') * DAY))
    return times
  }
  const perYear = unit === 'quarter' ? 4 : unit === 'month' ? 12 : undefined
  let start = floorTime(min, perYear ? 'year' : unit, zone)
  for (; start <= max; start = addUnits(start, unit, count, zone)) add(start)
  return times
}

const LARGER: Record<Unit, Unit | undefined> = {
  millisecond: 'minute',
  second: 'minute',
  minute: 'day',
  hour: 'day',
  day: 'month',
  week: 'month',
  month: 'year',
  quarter: 'year',
  year: undefined,
}

/** Label options by unit, the widest first. */
function looks(unit: Unit): Intl.DateTimeFormatOptions[] {
  switch (unit) {
    case 'millisecond':
      return [{ second: '2-digit', fractionalSecondDigits: 3 }]
    case 'second':
      return [{ minute: '2-digit', second: '2-digit' }]
    case 'minute':
    case 'hour':
      return [{ hour: '2-digit', minute: '2-digit' }]
    case 'day':
    case 'week':
      return [{ day: 'numeric' }]
    case 'month':
    case 'quarter':
      return [{ month: 'long' }, { month: 'short' }, { month: 'narrow' }]
    case 'year':
      return [{ year: 'numeric' }]
  }
}

const usual = (unit: Unit) => (unit === 'month' || unit === 'quarter' ? 1 : 0)

function largerText(time: number, unit: Unit, locale: string, zone: Zone): string {
  if (unit === 'year') return yearText(time, locale, zone)
  const options: Intl.DateTimeFormatOptions =
    unit === 'month'
      ? { month: 'short', year: 'numeric' }
      : unit === 'day'
        ? { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' }
        : { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' }
  return timeFormat(locale, zone.name, options).format(time)
}

const quarterText = (time: number, zone: Zone) =>
  `Q${Math.ceil(civilOf(Math.floor((time + zone.offsetAt(time)) / DAY)).month / 3)}`

/** The labels of ticks: the tick's own unit, and the larger unit where it changes. */
export function labelTimes(
  values: readonly number[],
  unit: Unit,
  look: Intl.DateTimeFormatOptions,
  locale: string,
  zone: Zone,
  quarters = false,
): { labels: string[]; larger: string[] } {
  const format = timeFormat(locale, zone.name, look)
  const labels = values.map(value =>
    unit === 'year'
      ? yearText(value, locale, zone)
      : quarters
        ? quarterText(value, zone)
        : format.format(value),
  )
  const above = LARGER[unit]
  let before = Number.NaN
  const larger = values.map(value => {
    if (above === undefined) return ''
    const begins = floorTime(value, above, zone)
    if (begins === before) return ''
    before = begins
    return largerText(value, above, locale, zone)
  })
  return { labels, larger }
}

/**
 * Ticks for a time axis: the finest division of the calendar whose labels fit. Month names are written out
 * where there is room, and shortened to an initial only where nothing coarser would leave two ticks.
 * `length`: pixels of the axis; `measure`: the width of a label in pixels; `most`: no more ticks than this.
 */
export function chooseTimeTicks(wish: {
  min: number
  max: number
  length: number
  most: number
  locale: string
  zone: Zone
  measure: (text: string) => number
  least?: Unit
  /** Writes labels in a way of its own; default the usual ones, at the length that fits. */
  write?: (values: number[], unit: Unit) => string[]
}): TimeTicks {
  const { min, max, length, most, locale, zone, measure } = wish
  const span = max - min || 1
  const fits = (values: number[], labels: string[], gap: number) => {
    for (let i = 1; i < values.length; i++) {
      const room = ((values[i] - values[i - 1]) / span) * length
      if ((measure(labels[i]) + measure(labels[i - 1])) / 2 + gap > room) return false
    }
    return true
  }
  let fallback: TimeTicks | undefined
  for (const step of STEPS) {
    if (
      countTimes(step, min, max) > most * 1.5 + 1 ||
      (wish.least && LENGTH[step.unit] < LENGTH[wish.least] * 0.99)
    )
      continue
    const values = timesEvery(step, min, max, zone)
    if (values.length > most) continue
    const at = wish.write ? 0 : usual(step.unit)
    const written = wish.write
      ? [{ labels: wish.write(values, step.unit), larger: values.map(() => '') }]
      : looks(step.unit).map(look =>
          labelTimes(
            values,
            step.unit,
            look,
            locale,
            zone,
            wish.least === 'quarter' && step.unit === 'quarter',
          ),
        )
    if (fits(values, written[at].labels, 14)) {
      const best = at > 0 && fits(values, written[0].labels, 24) ? written[0] : written[at]
      // One tick or none says too little: the last division that left two of them is better, shortened if need be.
      if (values.length < 2 && fallback) return fallback
      return { values, ...best, step }
    }
    const short = written[written.length - 1]
    if (fits(values, short.labels, 5)) fallback = { values, ...short, step }
  }
  return fallback ?? { values: [], labels: [], larger: [], step: { unit: 'year', count: 1 } }
}

/** A span of a description as a step of the calendar; undefined where it is none: one unit, so many whole times. */
export function stepOfSpan(span: { [unit: string]: number | undefined }): TimeStep | undefined {
  const given = Object.entries(span).filter(([, count]) => count !== undefined)
  if (given.length !== 1) return undefined
  const [name, count] = given[0]
  const unit = name.replace(/s$/, '') as Unit
  return LENGTH[unit] > 0 && Number.isInteger(count) && count! > 0 ? { unit, count: count! } : undefined
}
