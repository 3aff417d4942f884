import * as v from 'valibot'
import { span, words } from '../table/cells/column-schema.ts'
import { conditions } from '../table/reshape/step-schema.ts'

/** Phrases are read with the table at hand. */
export const long = v.record(v.string(), v.unknown())
export const bind = v.nullable(v.union([v.string(), long]))
const place = v.nullable(v.union([v.string(), v.array(v.string()), long]))
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1))
const pixels = v.pipe(v.number(), v.minValue(0))
export const order = v.picklist(['given', 'name', 'ranked'])

/** Constant looks, not bound to data. */
export const style = v.strictObject({
  /** CSS colour. */
  color: v.optional(v.string()),
  /** 0 to 1. */
  opacity: v.optional(share),
  /** Line width in pixels. */
  width: v.optional(pixels),
  /** Lengths in pixels of dashes and the gaps between them. */
  dash: v.optional(v.array(v.number())),
  /** Radius of points in pixels. */
  size: v.optional(pixels),
  /** Share of a bar's room left empty, 0 to 1. */
  gap: v.optional(share),
  /** Rounded ends of lines, and cross strokes at the ends of extents. Default true. */
  caps: v.optional(v.boolean()),
})

/** What is bound to values. */
export const bound = {
  x: v.optional(place),
  y: v.optional(place),
  color: v.optional(bind),
  series: v.optional(bind),
  size: v.optional(bind),
  shape: v.optional(bind),
  dash: v.optional(bind),
  link: v.optional(bind),
  label: v.optional(v.union([bind, v.boolean()])),
}

/** How what is bound is drawn. */
export const looks = {
  /** The empty middle of a ring, as a share of its radius, 0 to 1. Default 0, a pie. */
  hollow: v.optional(share),
  /** Where the shares of slices stand: beside their names, or within the slices where there is room. Default `beside`. */
  values: v.optional(v.picklist(['beside', 'inside'])),
  /** The curve of a trend. Default `linear`. */
  fit: v.optional(
    v.union([
      v.picklist(['linear', 'log', 'exponential', 'power', 'local']),
      v.strictObject({ degree: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10)) }),
    ]),
  ),
  /** A band around a trend in which the curve lies with this confidence; true for 0.95. */
  band: v.optional(v.union([v.boolean(), share])),
  /** Draws only these rows. */
  where: v.optional(conditions),
  /**
   * How several series stand at one place. Default `side` for bars, `stack` for areas. Points, lines, words and references that
   * say `side` stand beside each other too, on the bars of their series or beside those of others.
   */
  arrange: v.optional(v.picklist(['side', 'stack', 'share', 'overlap'])),
  /** How a line or area gets from one point to the next. Default `direct`. */
  between: v.optional(v.picklist(['direct', 'smooth', 'hold', 'hold middle', 'hold next'])),
  /** How far apart two points of a line may be before it breaks between them: a number, or a span of time such as { hours: 2 }. */
  breakAfter: v.optional(v.union([pixels, span])),
  /** Whether lines mark their points. */
  points: v.optional(v.boolean()),
  /** Keeps this many categories: of the category position, else of colour, judged by the measure. */
  top: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
  /** Gathers what `top` leaves out into one category, always last; a text names it. */
  rest: v.optional(v.union([v.boolean(), v.string()])),
  /** Order of the category position: as given, by name, or by the measure. */
  order: v.optional(order),
  style: v.optional(style),
}
export const roles = v.strictObject({ ...bound, ...looks })

/** A user's own kind is an object with a draw function; only TypeScript can hold one. */
export const ownKind = v.looseObject({ name: v.string(), draw: v.function() })

/** What one drawing has beside its roles. */
const own = {
  /** Whether legends list its series. Default true. */
  listed: v.optional(v.boolean()),
  /** In the legend, where no role names the series. */
  name: v.optional(words),
  /** JSON: another table of the file. In TypeScript: on(otherTable, { … }). */
  table: v.optional(v.string()),
  /** The vertical scale that measures it. Default `y`. */
  against: v.optional(v.string()),
  /** For a reference: stands at this level of the values that the chart draws; `p90`: 90 of 100 do not exceed it. */
  level: v.optional(
    v.picklist(['mean', 'median', 'min', 'max', 'p1', 'p5', 'p10', 'p25', 'p75', 'p90', 'p95', 'p99']),
  ),
}
export const ownOfDrawing = v.strictObject(own)
export const drawing = v.strictObject({
  ...roles.entries,
  as: v.union([v.string(), ownKind]),
  ...own,
  options: v.optional(v.looseObject({})),
})
