import * as v from 'valibot'
import { format, span, value, words } from '../table/cells/column-schema.ts'
import { order } from './roles-schema.ts'

/** What moves or recolours a shape. The domain is settled in the order domain, include, pad, roundEnds. */
export const scale = v.strictObject({
  kind: v.optional(
    v.picklist([
      'linear',
      'log',
      'root',
      'signed log',
      'time',
      'category',
      'sequential',
      'diverging',
      'stepped',
    ]),
  ),
  /** Ends, null being open; for categories their list in order. */
  domain: v.optional(v.array(v.nullable(value))),
  /** Values that must be in view. */
  include: v.optional(v.union([v.number(), v.array(v.number())])),
  /** Room at both ends, as a share of the domain. */
  pad: v.optional(v.pipe(v.number(), v.minValue(0))),
  /** Ends at neat numbers. */
  roundEnds: v.optional(v.boolean()),
  reverse: v.optional(v.boolean()),
  /** Keeps its first fit when data change. */
  fixed: v.optional(v.boolean()),
  /** The scale on whose gridlines this one's ticks fall. Default the first vertical one, null for none. */
  alignTo: v.optional(v.nullable(v.string())),
  /** Reads the scale `y` as a percentage of this total. */
  percentOf: v.optional(v.number()),
  order: v.optional(order),
  /** Of `through`: milliseconds from one period to the next. Default 900. */
  each: v.optional(v.pipe(v.number(), v.minValue(1))),
  /** Of `through`: whether what was shown stays: lines over the same times grow to the moment, points leave a trail. */
  keeps: v.optional(v.boolean()),
  /** Of `through`: whether periods without rows are bridged by one glide, or the one before is held. Default `bridge`. */
  missing: v.optional(v.picklist(['bridge', 'hold'])),
  /** Of sizes: the radius of the point with the greatest value, in pixels. Default by the size of the chart. */
  radius: v.optional(v.pipe(v.number(), v.minValue(1), v.maxValue(200))),
  /** Of sizes: the values that their legend shows. Default a few neat ones. */
  steps: v.optional(v.array(v.number())),
  /** Of colours: whether patterns and dashes tell categories apart as well, as in print without colour. Default beyond the first eight alone. */
  hatched: v.optional(v.boolean()),
  /** Colours of categories: a list in order, or by category. */
  colors: v.optional(v.union([v.array(v.string()), v.record(v.string(), v.string())])),
})

/** What reads a scale back to the person. */
export const axisOptions = v.strictObject({
  title: v.optional(v.union([words, v.literal(false)])),
  side: v.optional(v.picklist(['left', 'right', 'top', 'bottom'])),
  /** Smaller divisions between ticks; logarithmic scales have them unless told otherwise. */
  minor: v.optional(v.boolean()),
  /** A faint ground in every other room between ticks. */
  stripes: v.optional(v.boolean()),
  /** One stronger gridline where this unit of time begins. */
  strongAt: v.optional(v.picklist(['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year'])),
  /** Length of a stroke at each tick, in pixels. Default 0. */
  tickLength: v.optional(v.pipe(v.number(), v.minValue(0))),
  /** Pictures by category. */
  images: v.optional(v.record(v.string(), v.string())),
  /** About how many ticks, the ticks themselves, or their interval. */
  ticks: v.optional(
    v.union([v.number(), v.array(value), v.strictObject({ every: v.union([v.number(), span]) })]),
  ),
  /** Gridlines; with lengths of dashes and gaps in pixels, and a CSS colour. */
  grid: v.optional(
    v.union([
      v.boolean(),
      v.strictObject({ dash: v.optional(v.array(v.number())), color: v.optional(v.string()) }),
    ]),
  ),
  format: v.optional(format),
})
export const axis = v.union([v.literal(false), axisOptions])
