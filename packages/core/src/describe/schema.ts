import * as v from 'valibot'
import { column, span, value, words } from '../table/cells/column-schema.ts'
import { step } from '../table/reshape/step-schema.ts'
import { house, motion } from '../theme/house-schema.ts'
import { legend } from './legend-schema.ts'
import { bind, drawing, long, ownKind, roles } from './roles-schema.ts'
import { axis, scale } from './scale-schema.ts'

/** The description as data: its types are inferred from here, and JSON is checked by it at run time. */
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1))

/** A picture behind a chart. */
export const background = v.strictObject({
  /** Its address: https, a relative path, or a picture as data. */
  image: v.optional(v.string()),
  /** CSS colour under the picture, and of the veil over it. */
  color: v.optional(v.string()),
  /** How much of the picture the veil hides, 0 to 1. Default 0.85. */
  veil: v.optional(share),
})

export const gesture = v.picklist(['click', 'box', 'lasso'])

/** Something to choose by: `set` names a part of the description, such as `draw` or `where.route`; `to` are its values. */
export const control = v.strictObject({
  set: v.string(),
  to: v.pipe(v.array(v.unknown()), v.minLength(1), v.readonly()),
  as: v.optional(v.picklist(['menu', 'segments', 'slider', 'checks'])),
  label: v.optional(words),
  /** What people read for each value; default the value itself. */
  names: v.optional(v.pipe(v.array(words), v.readonly())),
})

const noted = v.union([value, v.strictObject({ from: value, until: value })])

/** Words about something in the picture, with an arrow to a datum or a bracket over a stretch. */
export const note = v.strictObject({
  words,
  /** A value on the scale, or a stretch of it. With x or y alone, the note is about the shape that stands there. */
  x: v.optional(noted),
  y: v.optional(noted),
  /** The name of the series whose shape is meant. Default the one that reaches farthest. */
  series: v.optional(v.string()),
  /** The vertical scale on which y is a value. Default `y`. */
  against: v.optional(v.string()),
})

/** Words that say what is shown at the moment. */
export const stamp = v.strictObject({
  /** Default, while a chart plays, the value that is reached. */
  words: v.optional(words),
  /** Smaller, under the words, with holes that are filled from the rows that are shown. */
  note: v.optional(words),
  /** `title`: at the upper right, on the lines of the title; else in a corner of the plot, behind the shapes. Default `title`. */
  at: v.optional(
    v.picklist(['title', 'inside top left', 'inside top right', 'inside bottom left', 'inside bottom right']),
  ),
})

/** What stands around a chart or a spread. */
const heading = {
  id: v.optional(v.string()),
  title: v.optional(words),
  subtitle: v.optional(words),
  caption: v.optional(words),
  source: v.optional(words),
  /** Behind everything: a CSS colour, or a picture under a veil that keeps words readable. */
  background: v.optional(v.union([v.string(), background])),
}

/** What a chart says of itself as a whole. */
export const whole = v.strictObject({
  ...heading,
  /** The ground of the plot alone, as a CSS colour. */
  plot: v.optional(v.strictObject({ background: v.optional(v.string()) })),
  /** By name; a text makes the scale one with those of the same text in other charts on the page. */
  scales: v.optional(v.record(v.string(), v.union([scale, v.string()]))),
  /** By the name of the scale that they read. */
  axes: v.optional(v.record(v.string(), axis)),
  /** For all legends, or by what they explain: `color`, `size`, `shape`, `dash`. */
  legend: v.optional(legend),
  /** Says what a chart shows at the moment, while it plays the period that is reached; words alone, or with their place. */
  stamp: v.optional(v.union([v.literal(false), words, stamp])),
  /** The directions in which the wheel, a drag, a pinch and keys zoom. Default none. */
  zoom: v.optional(v.union([v.literal(false), v.picklist(['x', 'y', 'xy'])])),
  /** The gestures that select. Default none. */
  select: v.optional(v.union([v.literal(false), gesture, v.array(gesture)])),
  /** What selections made in other charts on the same table do here. Default `dim`. */
  respond: v.optional(v.picklist(['dim', 'narrow', 'ignore'])),
  /** The id of the chart whose selected, else leading, shape this one explains. */
  detailOf: v.optional(v.string()),
  /** Controls that stand above the chart, each of which sets a part of the description. */
  controls: v.optional(v.array(control)),
  /** Words about single data, stretches or moments, placed so that they hide nothing. */
  notes: v.optional(v.array(note)),
  /** Whether title and subtitle name series in their colours. Default false. */
  colorNames: v.optional(v.boolean()),
  motion: v.optional(motion),
})

const elsewhere = v.strictObject({ table: v.looseObject({ version: v.unknown() }), drawing })
const drawable = v.union([v.string(), ownKind, drawing, elsewhere])

export const description = v.strictObject({
  ...roles.entries,
  ...whole.entries,
  draw: v.union([drawable, v.array(drawable)]),
  tooltip: v.optional(
    v.union([v.literal(false), v.array(v.union([v.string(), long])), v.string(), v.function()]),
  ),
  through: v.optional(bind),
  /** Splits the chart into a pane for each category: a phrase, or with how they stand. */
  panes: v.optional(
    v.union([
      v.string(),
      v.strictObject({
        by: bind,
        /** How many stand side by side. Default as the room asks. */
        columns: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
        /** Scales that have one domain in all of them. Default x and y. */
        share: v.optional(v.array(v.picklist(['x', 'y']))),
      }),
    ]),
  ),
})

/** Where the rows of a JSON file's table come from. */
export const source = v.strictObject({
  /** Records, or a list of values for each column. */
  rows: v.optional(
    v.union([v.array(v.record(v.string(), v.unknown())), v.record(v.string(), v.array(v.unknown()))]),
  ),
  /** Relative to the file. */
  url: v.optional(v.string()),
  /**
   * The format, or how news come: `events` (Server-Sent Events) or `socket` (a WebSocket). Default by the address. Tables
   * follow their news in pages; in pictures they show the rows they begin with.
   */
  as: v.optional(v.picklist(['csv', 'json', 'lines', 'events', 'socket'])),
  /** How often it is fetched again. Default once. */
  every: v.optional(span),
  /** How many rows, or rows of what span before the newest, are kept. Default all. */
  keep: v.optional(v.union([v.pipe(v.number(), v.integer(), v.minValue(0)), span])),
  /** The time column by which rows age. */
  at: v.optional(v.string()),
  /** After how long without news the table counts as stale. Default never. */
  stale: v.optional(span),
  /**
   * The database in which the rows stay, as in `postgres://reader@localhost/line`, or `$NAME` for a variable of the
   * environment that holds it: an address in a file has no password.
   */
  engine: v.optional(v.string()),
  /** What the database calls the table. Default the name that it has here. */
  table: v.optional(v.string()),
  /** The question whose answer is the table, in the language of the database. */
  query: v.optional(v.string()),
  /** The column that puts its rows in order. */
  order: v.optional(v.string()),
  /** The address at which a page asks about rows that stay elsewhere. */
  endpoint: v.optional(v.string()),
  /** What a database answered when the file was written. */
  frozen: v.optional(v.looseObject({ answers: v.array(v.unknown()) })),
  key: v.optional(v.union([v.string(), v.array(v.string())])),
  /** What the rows are, as people read it: so counts of them are called. */
  rowsAre: v.optional(words),
  columns: v.optional(v.record(v.string(), column)),
  /** Steps that shape the table before it is drawn. */
  shape: v.optional(v.array(step)),
})

/** A chart's own table is the first, unless it names another. */
const table = v.optional(v.string())
const ofFile = {
  tables: v.record(v.string(), source),
  house: v.optional(v.union([v.string(), house])),
}
export const chartFile = v.strictObject({ ...ofFile, table, ...description.entries })

/** What a spread says beside its charts. */
export const spreadOptions = v.strictObject({
  ...heading,
  /** How many stand side by side. Default 1. */
  columns: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
  /** Scales that have one domain in all charts. */
  share: v.optional(v.array(v.string())),
})
export const spreadFile = v.strictObject({
  ...ofFile,
  ...spreadOptions.entries,
  spread: v.pipe(v.array(v.strictObject({ ...description.entries, table })), v.minLength(1)),
})
