import {
  bucketOfDay,
  CYCLES,
  type Cycle,
  cycleOf,
  DAY,
  dayOfBucket,
  isClockUnit,
  LENGTH,
  withinDates,
} from '../cells/calendar.ts'
import { type Cells, numbersOf } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import { firstAtLeast } from '../cells/search.ts'
import type { Zone } from '../cells/zone.ts'
import { type Meaning, meaningKey, untopped } from '../phrase/meaning.ts'
import { encodeBins } from './bins.ts'
import type { Encoded } from './encoded.ts'

export type DayUnit = 'day' | 'week' | 'month' | 'quarter' | 'year'

/** Buckets beyond this many days apart are looked up one by one rather than by table. */
const MOST_DAYS = 4_000_000

/** Encodes the values of a grouping phrase over all rows of its column. */
export function encode(meaning: Meaning, column: TableColumn): Encoded {
  // Which categories `top` keeps is settled after encoding, anew for each chart.
  const name = `encoded ${meaningKey(untopped(meaning))}`
  let encoded = column.kept.get(name) as Encoded | undefined
  if (!encoded) {
    encoded = encodeAnew(meaning, column)
    column.kept.set(name, encoded)
  }
  return encoded
}

function encodeAnew(meaning: Meaning, column: TableColumn): Encoded {
  const cells = column.cells
  if (cells.type === 'text') {
    const words = cells.words
    return {
      codes: cells.codes,
      size: words.length,
      // Asked for by runs alone: a column that was never looked at is looked through for it.
      get whole() {
        return column.extent.missing === 0
      },
      codeOf: code => code,
      cellsOf: codes => ({ type: 'text', codes, words }),
    }
  }
  const { values } = cells
  switch (meaning.is) {
    case 'bucket':
      return isClockUnit(meaning.unit)
        ? encodeSteps(column, values, LENGTH[meaning.unit])
        : encodeDays(values, meaning.unit, column)
    case 'cycle':
      return encodeCycle(values, meaning.cycle, column.zone)
    case 'bins':
      return encodeBins(column, meaning)
    default:
      return encodeDistinct(values, cells.type)
  }
}

function encodeCycle(values: Float64Array, cycle: Cycle, zone: Zone): Encoded {
  const { first } = CYCLES[cycle]
  const codeOf = (time: number) => (time !== time ? -1 : cycleOf(time + zone.offsetAt(time), cycle) - first)
  const codes = new Int32Array(values.length)
  for (let i = 0; i < values.length; i++) codes[i] = codeOf(values[i])
  return { codes, codeOf, ...cycleCodes(cycle) }
}

/** What the codes of values stand for. */
export type Codes = Pick<Encoded, 'size' | 'cellsOf' | 'endOf'>

/** The places of a cycle, counted from its first. */
export function cycleCodes(cycle: Cycle): Codes {
  const { first, count } = CYCLES[cycle]
  const words = Array.from({ length: count }, (_, i) => String(first + i))
  return { size: count, cellsOf: picked => ({ type: 'text', codes: picked, words }) }
}

/** How far the steps of a zone's clock are from those of UTC. */
export const phaseAt = (zone: Zone, step: number, time: number): number =>
  ((zone.offsetAt(time) % step) + step) % step

function encodeSteps(column: TableColumn, values: Float64Array, step: number): Encoded {
  const codes = new Int32Array(values.length)
  let least = Number.POSITIVE_INFINITY
  let most = Number.NEGATIVE_INFINITY
  const { zone } = column
  // Steps are counted in time that passes, so an hour that the clock shows twice stays two hours.
  const phaseOf = (times: Float64Array) => phaseAt(zone, step, times.find(v => v === v) ?? 0)
  const shift = phaseOf(values)
  for (let i = 0; i < values.length; i++) {
    const n = Math.floor((values[i] + shift) / step)
    if (n < least) least = n
    if (n > most) most = n
  }
  if (most - least >= 2 ** 31 - 1)
    return encodeDistinct(
      values.map(v => Math.floor((v + shift) / step) * step - shift),
      'time',
      step,
    )
  for (let i = 0; i < values.length; i++) {
    const value = values[i]
    codes[i] = value === value ? Math.floor((value + shift) / step) - least : -1
  }
  return {
    codes,
    codeOf: stepCode(step, shift, least),
    still: () => phaseOf(numbersOf(column.cells)) === shift,
    ...stepCodes(step, shift, least, most),
  }
}

/** Steps of one length, counted from `least`. */
export function stepCodes(step: number, shift: number, least: number, most: number): Codes {
  const timeOf = (code: number) => withinDates((code + least) * step - shift)
  return {
    size: most >= least ? most - least + 1 : 0,
    cellsOf: picked => timeCells(picked, timeOf),
    endOf: code => timeOf(code + 1),
  }
}

/** Buckets of the calendar, counted from `least`. */
export function bucketCodes(unit: DayUnit, zone: Zone, least: number, most: number): Codes {
  const timeOf = (code: number) => withinDates(zone.toUtc(dayOfBucket(code + least, unit) * DAY))
  return {
    size: most >= least ? most - least + 1 : 0,
    cellsOf: picked => timeCells(picked, timeOf),
    endOf: code => timeOf(code + 1),
  }
}

/** Apart from the rows that were encoded first, which would else be kept for as long as it is. */
const stepCode = (step: number, shift: number, least: number) => (value: number) => {
  if (value !== value) return -1
  const code = Math.floor((value + shift) / step) - least
  return code >= 0 && code < 2 ** 31 ? code : undefined
}

function encodeDays(values: Float64Array, unit: DayUnit, column: TableColumn): Encoded {
  const { zone } = column
  const { min, max } = column.extent
  if (!(min <= max))
    return {
      codes: new Int32Array(values.length).fill(-1),
      size: 0,
      cellsOf: picked => timeCells(picked, () => Number.NaN),
      endOf: () => Number.NaN,
    }
  const firstDay = Math.floor((min + zone.offsetAt(min)) / DAY)
  const lastDay = Math.floor((max + zone.offsetAt(max)) / DAY)
  const least = bucketOfDay(firstDay, unit)
  const size = bucketOfDay(lastDay, unit) - least + 1
  const days = lastDay - firstDay + 1
  const timeOf = (code: number) => withinDates(zone.toUtc(dayOfBucket(code + least, unit) * DAY))
  // The calendar is asked once a day, not once a row.
  const bucketOf =
    days <= MOST_DAYS
      ? Int32Array.from({ length: days }, (_, d) => bucketOfDay(firstDay + d, unit) - least)
      : undefined
  const codeOf = (value: number) => {
    const day = Math.floor((value + zone.offsetAt(value)) / DAY)
    return bucketOf ? bucketOf[day - firstDay] : bucketOfDay(day, unit) - least
  }
  const rest = { codeOf: dayCode(unit, zone, least), ...bucketCodes(unit, zone, least, least + size - 1) }
  // Not spread into each other: that would make the codes at once.
  if (column.extent.sorted) return Object.assign(runsOfSorted(values, codeOf, timeOf), rest)
  const codes = new Int32Array(values.length)
  encodeRuns(values, codes, codeOf, timeOf)
  return { ...rest, codes }
}

const dayCode = (unit: DayUnit, zone: Zone, least: number) => (value: number) => {
  if (value !== value) return -1
  const code = bucketOfDay(Math.floor((value + zone.offsetAt(value)) / DAY), unit) - least
  return code >= 0 ? code : undefined
}

/** In sorted times each bucket is one run, whose end is found by halving. Codes by row are made only when asked for. */
function runsOfSorted(
  values: Float64Array,
  codeOf: (value: number) => number,
  timeOf: (code: number) => number,
): Pick<Encoded, 'codes' | 'runs'> {
  const ends: number[] = []
  const runCodes: number[] = []
  for (let from = 0; from < values.length; ) {
    const code = codeOf(values[from])
    const until = timeOf(code + 1)
    const end = firstAtLeast(values, until, from + 1)
    ends.push(end)
    runCodes.push(code)
    from = end
  }
  let codes: Int32Array | undefined
  return {
    runs: { ends: Int32Array.from(ends), codes: Int32Array.from(runCodes) },
    get codes() {
      if (!codes) {
        codes = new Int32Array(values.length)
        for (let run = 0; run < ends.length; run++)
          codes.fill(runCodes[run], run === 0 ? 0 : ends[run - 1], ends[run])
      }
      return codes
    },
  }
}

/** Rows of one time usually follow each other, so most lie in the bucket of the row before and need no calendar. */
function encodeRuns(
  values: Float64Array,
  codes: Int32Array,
  codeOf: (value: number) => number,
  timeOf: (code: number) => number,
): void {
  let from = Number.POSITIVE_INFINITY
  let until = Number.NEGATIVE_INFINITY
  let code = -1
  for (let i = 0; i < values.length; i++) {
    const value = values[i]
    if (value >= from && value < until) codes[i] = code
    else if (value !== value) codes[i] = -1
    else {
      code = codeOf(value)
      codes[i] = code
      from = timeOf(code)
      until = timeOf(code + 1)
    }
  }
}

const timeCells = (codes: Int32Array, timeOf: (code: number) => number): Cells => ({
  type: 'time',
  values: valuesOfCodes(codes, timeOf),
})

/** The value of each code; missing for -1. Equal codes mostly follow each other, and are asked for once. */
export function valuesOfCodes(codes: Int32Array, of: (code: number) => number): Float64Array {
  const out = new Float64Array(codes.length)
  let last = -1
  let value = Number.NaN
  for (let i = 0; i < codes.length; i++) {
    const code = codes[i]
    if (code !== last) {
      last = code
      value = code < 0 ? Number.NaN : of(code)
    }
    out[i] = value
  }
  return out
}

export function encodeDistinct(values: Float64Array, type: 'number' | 'time', step?: number): Encoded {
  const known = new Map<number, number>()
  const distinct: number[] = []
  const codeOf = (value: number): number => {
    if (value !== value) return -1
    let code = known.get(value)
    if (code === undefined) {
      code = distinct.push(value) - 1
      known.set(value, code)
    }
    return code
  }
  const codes = new Int32Array(values.length)
  for (let i = 0; i < values.length; i++) codes[i] = codeOf(values[i])
  return {
    codes,
    size: distinct.length,
    // Values that were made into steps are none of the column's.
    ...(step === undefined ? { codeOf } : {}),
    cellsOf: picked => ({ type, values: valuesOfCodes(picked, code => distinct[code]) }),
    endOf: step === undefined ? undefined : code => distinct[code] + step,
  }
}
