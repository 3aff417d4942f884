import type { Column, Format, Span, Value, Words } from '../table/cells/options.ts'
import type { Step } from '../table/reshape/derive.ts'
import type { House, Motion } from '../theme/house.ts'
import type { Kind } from './kind.ts'
import type { Bind, Place, Where } from './phrases.ts'

export type { Bind, Long, Phrase, Place, Summary, Where } from './phrases.ts'

export type Order = 'given' | 'name' | 'ranked'
export type Builtin = 'line' | 'area' | 'bar' | 'scatter' | 'pie' | 'heatmap' | 'reference' | 'trend' | 'text'

/** Constant looks, not bound to data. */
export interface Style {
  /** CSS colour. */
  color?: string
  /** 0 to 1. */
  opacity?: number
  /** Line width in pixels. */
  width?: number
  /** Lengths in pixels of dashes and the gaps between them. */
  dash?: number[]
  /** Radius of points in pixels. */
  size?: number
  /** Share of a bar's room left empty, 0 to 1. */
  gap?: number
  /** Rounded ends of lines, and cross strokes at the ends of extents. Default true. */
  caps?: boolean
}

/** Roles and looks: given once for the chart, inherited or overridden by each drawing. */
export type Roles<R> = { x?: Place<R>; y?: Place<R> } & {
  [role in 'color' | 'series' | 'size' | 'shape' | 'dash' | 'link']?: Bind<R>
} & {
  /** What stands at each shape: a phrase, words with holes, or true for the value that the shape shows; false for none. */
  label?: Bind<R> | { words: Words } | boolean
  /** Draws only these rows. */
  where?: Where<R>
  /** Keeps this many categories: of the category position, else of colour, judged by the measure. */
  top?: number
  /** Gathers what `top` leaves out into one category, always last; a text names it. */
  rest?: boolean | Words
  /** Order of the category position: as given, by name, or by the measure. */
  order?: Order
  /** How bars and areas of several series stand at one place. Default `side` for bars, `stack` for areas. */
  arrange?: 'side' | 'stack' | 'share' | 'overlap'
  /** How a line or area gets from one point to the next. Default `direct`. */
  between?: 'direct' | 'smooth' | 'hold' | 'hold middle' | 'hold next'
  /** Whether lines mark their points. */
  points?: boolean
  /** The empty middle of a ring, as a share of its radius, 0 to 1. Default 0, a pie. */
  hole?: number
  /** The curve of a trend. Default `linear`. */
  fit?: 'linear' | 'log' | 'exponential' | 'local' | { degree: number }
  /** A band around a trend in which the curve lies with this confidence; true for 0.95. */
  band?: boolean | number
  style?: Style
}

export type Drawing<R> = Roles<R> & {
  as: Builtin | Kind
  /** In the legend, where no role names the series. */
  name?: Words
  /** JSON: another table of the file. In TypeScript: on(otherTable, { … }). */
  table?: string
  /** The vertical scale that measures it. Default `y`. */
  against?: string
  /** For a reference: stands at this level of the values that the chart draws. */
  level?: 'mean' | 'median' | 'min' | 'max'
  /** For own kinds. */
  options?: object
}

/** What moves or recolours a shape. The domain is settled in the order domain, include, pad, roundEnds. */
export interface Scale {
  kind?:
    | 'linear'
    | 'log'
    | 'root'
    | 'signed log'
    | 'time'
    | 'category'
    | 'sequential'
    | 'diverging'
    | 'stepped'
  /** Ends, null being open; for categories their list in order. */
  domain?: [Value | null, Value | null] | Value[]
  /** Values that must be in view. */
  include?: number | number[]
  /** Room at both ends, as a share of the domain. */
  pad?: number
  /** Ends at neat numbers. */
  roundEnds?: boolean
  reverse?: boolean
  /** Keeps its first fit when data change. */
  fixed?: boolean
  /** The scale on whose gridlines this one's ticks fall. */
  alignTo?: string
  /** Reads the scale `y` as a percentage of this total. */
  percentOf?: number
  order?: Order
  /** Of `through`: milliseconds from one period to the next. Default 900. */
  each?: number
  /** Of `through`: whether periods without rows are bridged by one glide, or the one before is held. Default `bridge`. */
  missing?: 'bridge' | 'hold'
  /** Colours of categories: a list in order, or by category. */
  colors?: string[] | Record<string, string>
}

/** What reads a scale back to the person; false leaves it out. */
export type Axis = false | AxisOptions
export interface AxisOptions {
  title?: Words | false
  side?: 'left' | 'right' | 'top' | 'bottom'
  /** About how many ticks, the ticks themselves, or their interval. */
  ticks?: number | Value[] | { every: number | Span }
  /** Smaller divisions between ticks; logarithmic scales have them unless told otherwise. */
  minor?: boolean
  /** Gridlines; with lengths of dashes and gaps in pixels, and a CSS colour. */
  grid?: boolean | { dash?: number[]; color?: string }
  /** A faint ground in every other room between ticks. */
  stripes?: boolean
  /** One stronger gridline where this unit of time begins. */
  emphasis?: 'minute' | 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year'
  /** Length of a stroke at each tick, in pixels. Default 0. */
  tickLength?: number
  format?: Format
  /** Pictures by category. */
  images?: Record<string, string>
}
/** `auto`: names at the ends of lines where there is room, else under the heading. `inside …`: in a corner of the plot. */
export type LegendPlace =
  | 'auto'
  | 'ends'
  | 'top'
  | 'right'
  | 'bottom'
  | 'left'
  | `inside ${'top' | 'bottom'} ${'left' | 'right'}`
/** `columns`: how many entries stand side by side. */
export type Legend = false | LegendPlace | { at?: LegendPlace; columns?: number; title?: Words }
export type { Motion } from '../theme/house.ts'
export type Gesture = 'click' | 'box' | 'lasso'
/** Something to choose by: `set` names a part of the description, such as `draw` or `where.route`; `to` are its values. */
export interface Control {
  set: string
  to: readonly unknown[]
  as?: 'menu' | 'segments' | 'slider' | 'checks'
  label?: Words
  /** What people read for each value; default the value itself. */
  names?: readonly Words[]
}

/** A picture behind a chart. */
export interface Background {
  /** Its address: https, a relative path, or a picture as data. */
  image?: string
  /** CSS colour under the picture, and of the veil over it. */
  color?: string
  /** How much of the picture the veil hides, 0 to 1. Default 0.85. */
  veil?: number
}

export interface Heading {
  id?: string
  title?: Words
  subtitle?: Words
  caption?: Words
  source?: Words
  /** Behind everything: a CSS colour, or a picture under a veil that keeps words readable. */
  background?: string | Background
  /** By name; a text makes the scale one with those of the same text in other charts on the page. */
  scales?: Record<string, Scale | string>
}

export type Description<R = any> = Heading &
  Roles<R> & {
    /** One kind, one drawing, or several; later ones lie on top. */
    draw: Builtin | Kind | Drawing<R> | Elsewhere | (Builtin | Kind | Drawing<R> | Elsewhere)[]
    axes?: Record<string, Axis>
    /** For all legends, or by what they explain: `color`, `size`, `shape`, `dash`. */
    legend?: Legend | { [role in 'color' | 'size' | 'shape' | 'dash']?: Legend }
    /** What a tooltip says: other phrases about what is pointed at, words with holes, or a function that is given the rows. */
    tooltip?: false | string[] | Words | ((rows: R[]) => unknown)
    /** What the chart is played through, such as `year of departed`: one picture for each of its values. */
    through?: Bind<R>
    /** Shown large in the plot while the chart plays. Default the value that is reached. */
    period?: Words
    /** Words under the period, filled in from its rows. */
    summary?: Words
    /** The directions in which the wheel, a drag, a pinch and keys zoom. Default none. */
    zoom?: false | 'x' | 'y' | 'xy'
    /** The gestures that select. Default none. */
    select?: false | Gesture | Gesture[]
    /** What selections made in other charts on the same table do here. Default `highlight`. */
    respond?: 'highlight' | 'filter' | 'ignore'
    /** The id of the chart whose selected, else leading, shape this one explains. */
    detailOf?: string
    /** Controls that stand above the chart, each of which sets a part of the description. */
    controls?: Control[]
    motion?: Motion
  }

/** A description whose shared scales stand on their own: what drawing needs to know. */
export type Settled = Omit<Description, 'scales'> & { scales?: Record<string, Scale> }

/** The names under which a chart's scales are shared, by scale. */
export function sharedScales({ scales }: Description): Map<string, string> {
  const entries = Object.entries(scales ?? {})
  return new Map(entries.filter((entry): entry is [string, string] => typeof entry[1] === 'string'))
}

/** The description with shared scales left to their defaults. */
export function settled(description: Description): Settled {
  const { scales, ...rest } = description
  if (!scales) return rest
  const own = Object.entries(scales).filter((entry): entry is [string, Scale] => typeof entry[1] !== 'string')
  return { ...rest, scales: Object.fromEntries(own) }
}

/** Where the rows of a JSON file's table come from. */
export interface Source {
  /** Records, or a list of values for each column. */
  rows?: object[] | Record<string, unknown[]>
  /** Relative to the file. */
  url?: string
  /**
   * The format, or how news come: `events` (Server-Sent Events) or `socket` (a WebSocket). Default by the address. Tables
   * follow their news in pages; in pictures they show the rows they begin with.
   */
  as?: 'csv' | 'json' | 'lines' | 'events' | 'socket'
  /** How often it is fetched again. Default once. */
  every?: Span
  /** How many rows, or rows of what span before the newest, are kept. Default all. */
  keep?: number | Span
  /** The time column by which rows age. */
  at?: string
  /** After how long without news the table counts as stale. Default never. */
  stale?: Span
  key?: string | string[]
  columns?: Record<string, Column>
  /** Steps that shape the table before it is drawn. */
  shape?: Step[]
}
/** Several charts in one picture; scales named in `share` have one domain in all of them. */
export type Spread = Pick<Heading, 'id' | 'title' | 'subtitle' | 'caption' | 'source' | 'background'> & {
  spread: (Description<any> & { table?: string })[]
  /** How many stand side by side. Default 1. */
  columns?: number
  share?: string[]
}
/** A whole chart or spread as JSON: its tables and its description. A chart's own table is the first, unless `table` names another. */
export type ChartFile = { tables: Record<string, Source>; house?: House | string } & (
  | (Description<any> & { table?: string })
  | Spread
)

declare const elsewhere: unique symbol
/** A drawing over another table, made by on(otherTable, { … }). */
export interface Elsewhere {
  [elsewhere]?: true
  table: unknown
  drawing: Drawing<any>
}

/** What a spread says beside its charts. */
export type SpreadOptions = Omit<Spread, 'spread'>
