import type { InferOutput } from 'valibot'
import type { Words } from '../table/cells/options.ts'
import type { legend, oneLegend } from './legend-schema.ts'
import type { Kind } from './model.ts'
import type { Bind, Long, Phrase, Place, Where } from './phrases.ts'
import type { bound, order, ownOfDrawing, roles, style } from './roles-schema.ts'
import type { axis, axisOptions, scale } from './scale-schema.ts'
import type * as schema from './schema.ts'

export type { Motion } from '../theme/house.ts'
export type { Bind, Long, Phrase, Place, Summary, Where } from './phrases.ts'

/** The order of categories: as given, by name, or by the measure, the greatest first. */
export type Order = InferOutput<typeof order>
export type Builtin = 'line' | 'area' | 'bar' | 'scatter' | 'pie' | 'heatmap' | 'reference' | 'trend' | 'text'

/** Constant looks, not bound to data. */
export type Style = InferOutput<typeof style>

/** Roles and looks: given once for the chart, inherited or overridden by each drawing. */
export type Roles<R> = { x?: Place<R>; y?: Place<R> } & {
  [role in 'color' | 'series' | 'size' | 'shape' | 'dash' | 'link']?: Bind<R>
} & {
  /**
   * What stands at each shape: a phrase, words with holes, or true for the value that the shape shows; false for none.
   * `top` keeps to the shapes with the greatest values, `where` to those whose rows meet conditions.
   */
  label?: Bind<R> | { words?: Words; top?: number; where?: Where<R> } | boolean
  /** Draws only these rows. */
  where?: Where<R>
} & Omit<InferOutput<typeof roles>, keyof typeof bound | 'where'>

/** One drawing of a chart that has several: its kind, and what it says otherwise than the chart. */
export type Drawing<R> = Roles<R> &
  InferOutput<typeof ownOfDrawing> & {
    as: Builtin | Kind
    /** For own kinds. */
    options?: object
  }

/** What moves or recolours a shape. The domain is settled in the order domain, include, pad, roundEnds. */
export type Scale = InferOutput<typeof scale>
/** What reads a scale back to the person; false leaves it out. */
export type Axis = InferOutput<typeof axis>
/** What an axis may be told. */
export type AxisOptions = InferOutput<typeof axisOptions>
/** Where and how one legend stands; false for none. */
export type Legend = InferOutput<typeof oneLegend>
/** `auto`: names at the ends of lines where there is room, else under the heading. `inside …`: in a corner of the plot. */
export type LegendPlace = Extract<Legend, string>
/** One legend for all, or one for each of what they explain. */
export type Legends = InferOutput<typeof legend>
/** What a person selects by. */
export type Gesture = InferOutput<typeof schema.gesture>
/** Something to choose by: `set` names a part of the description, such as `draw` or `where.route`; `to` are its values. */
export type Control = InferOutput<typeof schema.control>
/** Words that say what a chart shows at the moment. */
export type Stamp = NonNullable<InferOutput<typeof schema.whole>['stamp']>
/** Words about something in a picture: a datum, a stretch or a moment. */
export type Note = InferOutput<typeof schema.note>
/** A picture behind a chart. */
export type Background = InferOutput<typeof schema.background>

/** What a chart is to be: what is drawn, what it is bound to, and how scales, axes, legends and words are to stand. Plain data, but for functions that only TypeScript can hold. */
export type Description<R = any> = Roles<R> &
  InferOutput<typeof schema.whole> & {
    /** One kind, one drawing, or several; later ones lie on top. */
    draw: Builtin | Kind | Drawing<R> | Elsewhere | (Builtin | Kind | Drawing<R> | Elsewhere)[]
    /**
     * What a tooltip says: a list of phrases about what is pointed at, in which words with holes may stand as well; words with
     * holes; or a function that is given the rows.
     */
    tooltip?:
      | false
      | (Phrase<R> | Long<R> | `${string}{${string}}${string}`)[]
      | Words
      | ((rows: R[]) => unknown)
    /** Splits the chart into a pane for each category: a phrase such as `route`, or with how the panes stand. */
    panes?: Phrase<R> | { by: Bind<R>; columns?: number; share?: ('x' | 'y')[] }
    /** What the chart is played through, such as `year of departed`: one picture for each of its values. */
    through?: Bind<R>
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
export type Source = InferOutput<typeof schema.source>
/** What a spread says beside its charts. */
export type SpreadOptions = InferOutput<typeof schema.spreadOptions>
/** Several charts in one picture; scales named in `share` have one domain in all of them. */
export type Spread = SpreadOptions & { spread: (Description<any> & { table?: string })[] }
/** A whole chart or spread as JSON: its tables and its description. A chart's own table is the first, unless `table` names another. */
export type ChartFile = Pick<InferOutput<typeof schema.chartFile>, 'tables' | 'house'> &
  ((Description<any> & { table?: string }) | Spread)

declare const elsewhere: unique symbol
/** A drawing over another table, made by on(otherTable, { … }). */
export interface Elsewhere {
  [elsewhere]?: true
  table: unknown
  drawing: Drawing<any>
}
