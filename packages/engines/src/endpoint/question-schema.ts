import type { FarQuestion, FarTest, FarValue } from '@dapplo/core/far'
import * as v from 'valibot'

/** Longer lists than this are no question that a chart asks. */
const MOST_LISTED = 20_000
const MOST_CHANGES = 5000
const MOST_PARTS = 64

const number = v.pipe(v.number(), v.finite())
const count = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1e9))
const text = v.pipe(v.string(), v.maxLength(100_000))
const name = v.pipe(v.string(), v.maxLength(1000))
const offsets = v.strictObject({
  first: number,
  changes: v.pipe(v.array(v.strictObject({ at: number, offset: number })), v.maxLength(MOST_CHANGES)),
})
const times = {
  column: name,
  clock: v.optional(offsets),
  as: v.optional(v.picklist(['number', 'text'])),
}
const values = v.pipe(v.array(v.union([text, number])), v.maxLength(MOST_LISTED))

const value: v.GenericSchema<FarValue> = v.lazy(() =>
  v.variant('is', [
    v.strictObject({ is: v.literal('place') }),
    v.strictObject({ is: v.literal('column'), ...times }),
    v.strictObject({
      is: v.literal('bucket'),
      ...times,
      unit: v.picklist(['day', 'week', 'month', 'quarter', 'year']),
      offsets,
    }),
    v.strictObject({
      is: v.literal('step'),
      ...times,
      step: v.pipe(number, v.integer(), v.minValue(1)),
      shift: number,
    }),
    v.strictObject({
      is: v.literal('cycle'),
      ...times,
      cycle: v.picklist(['hour of day', 'weekday', 'day of month', 'day of year', 'month of year']),
      offsets,
    }),
    v.strictObject({ is: v.literal('bin'), ...times, step: v.pipe(number, v.gtValue(0)), most: number }),
    v.strictObject({
      is: v.literal('cell'),
      ...times,
      from: number,
      perUnit: number,
      log10: v.optional(v.literal(true)),
    }),
    v.strictObject({ is: v.literal('kept'), of: value, values, rest: text }),
  ]),
) as v.GenericSchema<FarValue>

const end = v.optional(v.union([text, number]))
const test: v.GenericSchema<FarTest> = v.lazy(() =>
  v.variant('is', [
    v.strictObject({
      is: v.picklist(['all', 'any']),
      tests: v.pipe(v.array(test), v.maxLength(MOST_LISTED)),
    }),
    v.strictObject({ is: v.literal('not'), test }),
    v.strictObject({ is: v.literal('missing'), value }),
    v.strictObject({ is: v.literal('among'), value, values }),
    v.strictObject({ is: v.literal('between'), value, from: end, until: end, last: end }),
    v.strictObject({
      is: v.literal('within'),
      x: value,
      y: value,
      outline: v.pipe(v.array(v.tuple([number, number])), v.maxLength(MOST_CHANGES)),
    }),
  ]),
) as v.GenericSchema<FarTest>

const measure = v.variant('how', [
  v.strictObject({ how: v.literal('count') }),
  v.strictObject({
    how: v.picklist(['present', 'distinct', 'sum', 'mean', 'first', 'last']),
    of: value,
  }),
  v.strictObject({ how: v.picklist(['min', 'max']), of: value, with: v.optional(value) }),
  v.strictObject({
    how: v.literal('quantile'),
    of: value,
    share: v.pipe(number, v.minValue(0), v.maxValue(1)),
  }),
  v.strictObject({ how: v.literal('squares'), of: value, around: number }),
  v.strictObject({ how: v.picklist(['at least', 'at greatest']), of: value, by: value }),
])

/** A question as it may come from anywhere. */
export const questionSchema = v.variant('ask', [
  v.strictObject({
    ask: v.literal('groups'),
    table: name,
    where: v.optional(test),
    by: v.pipe(v.array(value), v.maxLength(MOST_PARTS)),
    measures: v.pipe(v.array(measure), v.maxLength(MOST_PARTS * 16)),
    most: count,
    largest: v.optional(count),
  }),
  v.strictObject({
    ask: v.literal('rows'),
    table: name,
    where: v.optional(test),
    values: v.pipe(v.array(value), v.maxLength(MOST_PARTS)),
    most: count,
    after: v.optional(count),
    whole: v.optional(v.boolean()),
    every: v.optional(count),
  }),
]) as unknown as v.GenericSchema<FarQuestion>

/** The names of columns that a question looks at. */
export function columnsIn(asked: unknown, found: Set<string> = new Set()): Set<string> {
  if (Array.isArray(asked)) for (const one of asked) columnsIn(one, found)
  else if (asked !== null && typeof asked === 'object') {
    const { column } = asked as Record<string, unknown>
    if (typeof column === 'string') found.add(column)
    for (const one of Object.values(asked)) if (one !== null && typeof one === 'object') columnsIn(one, found)
  }
  return found
}

/** How deep a question goes; it ends looking where that is too deep. */
export function tooDeep(asked: unknown, left = 24): boolean {
  if (asked === null || typeof asked !== 'object') return false
  if (left === 0) return true
  return Object.values(asked).some(one => tooDeep(one, left - 1))
}
