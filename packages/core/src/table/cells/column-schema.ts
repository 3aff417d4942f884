import * as v from 'valibot'

/** How values are written: `Intl` options, or in TypeScript a function. */
export type Format = Intl.NumberFormatOptions | Intl.DateTimeFormatOptions | ((value: any) => string)

export const value = v.union([v.string(), v.number(), v.boolean(), v.date()])
export const words = v.string()
/** What `Intl` takes is its own matter, and a function is only to be had in code. */
export const format = v.union([
  v.record(v.string(), v.unknown()),
  v.function(),
]) as unknown as v.GenericSchema<Format>
export const span = v.record(
  v.picklist(['years', 'months', 'weeks', 'days', 'hours', 'minutes', 'seconds']),
  v.number(),
)

/** What is known of a column beyond its cells. */
export const column = v.strictObject({
  /** Overrides the guess. */
  type: v.optional(v.picklist(['number', 'time', 'text'])),
  /** Which comes first in dates such as 03/04/2024, where none of them says. */
  dates: v.optional(v.picklist(['day first', 'month first'])),
  /** What separates the decimals of numbers such as 1.204, where none of them says whether that is more than a thousand. */
  numbers: v.optional(v.picklist(['decimal point', 'decimal comma'])),
  /** The name people read; default: the column's name, made readable. */
  label: v.optional(words),
  /** Shown once per axis, and in tooltips. */
  unit: v.optional(v.string()),
  /** How its values are written. */
  format: v.optional(format),
  /** The order of its categories. */
  order: v.optional(v.array(value)),
  /** Fixed colours by category, in CSS syntax. */
  colors: v.optional(v.record(v.string(), v.string())),
  /** Shorter names by category, the longer first: an axis shows the longest ones for which all have room. */
  shorter: v.optional(v.record(v.string(), v.pipe(v.array(v.string()), v.readonly()))),
  /** Pictures by category. */
  images: v.optional(v.record(v.string(), v.string())),
  /** The IANA time zone in which times without an offset are read and in which days begin. */
  timeZone: v.optional(v.string()),
})
