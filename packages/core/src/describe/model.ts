import type { InferOutput } from 'valibot'
import type { PositionScale } from '../scale/scale.ts'
import type { Hatch } from '../scene/hatch.ts'
import type { Marker } from '../scene/marker.ts'
import type { Batch, Box, Pixels, RowsOf } from '../scene/scene.ts'
import type { Pyramid } from '../table/cells/pyramid.ts'
import type { RunOfRows } from '../table/group/live-runs.ts'
import type { Gathers } from '../table/group/question.ts'
import type { Crowd } from '../table/group/shape.ts'
import type { Theme } from '../theme/theme.ts'
import type { roles, style } from './roles-schema.ts'

/** What a role of a kind may be bound to. */
export type RoleUse = 'position' | 'optional position' | 'category' | 'number'

/** The values of one position role, in the units of its scale: one for each mark, NaN where missing. */
export interface Positions {
  /** Where the mark stands: the value, the middle of its interval, or the number of its category. */
  at: Float64Array
  /** Ends of the interval that a bucket or category fills; absent for plain values. */
  from?: Float64Array
  to?: Float64Array
  /** Extremes of any stretch of `at`, where the column they come from knows them already. */
  pyramid?: () => Pyramid
  /** Whether values never fall and none is missing. */
  sorted: boolean
  /** Whether the values are sums, counts and other measures rather than what they are grouped by. */
  measured: boolean
  /** Whether they are times. */
  timed?: boolean
  /** Whether `from` and `to` are an extent that was bound as such, rather than the room of a bucket or category. */
  spans?: boolean
  /** Whether nothing is bound here: then all values are NaN. */
  unbound?: boolean
}

type Looks = Required<InferOutput<typeof roles>>
/** How several series stand at one place: side by side, on each other, on each other up to the whole, or over each other. */
export type Arrange = Looks['arrange']
/** How a line gets from one point to the next. */
export type Between = Looks['between']
/** The looks that several kinds share. */
export type SharedLook = 'arrange' | 'between' | 'points'

/** Marks that belong together: one line, one colour of bars. */
export interface Series {
  key: string
  /** What people read. */
  name: string
  color: string
  /** Lengths in pixels of dashes and gaps; empty for a solid line. */
  dash: readonly number[]
  /** The form of its points. Default a disc. */
  shape?: Marker
  /** The pattern of its surfaces. Default none. */
  hatch?: Hatch
}

/** What a drawing is made from: its rows, or groups of rows, in the terms of its scales. */
export interface Marks {
  length: number
  x: Positions
  y: Positions
  series: readonly Series[]
  /** The series of each mark; undefined where all are of the first. */
  seriesOf: Uint16Array | undefined
  /** Where marks are coloured by a number: the colours, and which each mark has. */
  shade: { colors: readonly string[]; of: Uint16Array } | undefined
  /** How many rows each mark stands for, where marks are places. */
  crowd?: Crowd
  /** A number for each mark to be shown as an area, from 0 up, with the greatest of them; undefined where none is bound. */
  size: { at: Float64Array; max: number } | undefined
  keyOf(mark: number): string | number
  rowsOf: RowsOf
  /** The marks of a series in the order of x, where they are kept so while rows change; undefined where they are not. */
  runOf?: (series: number) => RunOfRows | undefined
  begun?: Begun
  /** The one row of each mark, where none stands for several. */
  rowOf?: (mark: number) => number
}

/** What is remembered of the first marks, for as long as others only come after them, by a name that says which values these are. */
export interface Begun {
  memory: () => Map<string, unknown> | undefined
  name: string
  /** The values by now of the row that a mark is, along x and along y. */
  at: (row: number) => readonly [number, number]
}

/** Constant looks after inheritance. */
export type MarkStyle = InferOutput<typeof style>

/** How the room of each place is shared by series that stand side by side. */
export interface Slots {
  /** The positions whose places are shared. */
  along: 'x' | 'y'
  /** By series of the drawing: which slot is its own. */
  of: Uint16Array
  count: number
  /** The share of the room that is left free between places. */
  gap: number
}

/** All that a kind may know when it draws. */
export interface DrawInput<Options = any> {
  /** Prefix for the ids of batches. */
  id: string
  marks: Marks
  x: PositionScale
  y: PositionScale
  plot: Box
  /** Device pixels per pixel. */
  density: number
  style: MarkStyle
  arrange: Arrange
  /** Where its series stand beside each other and beside those of other drawings; undefined where the kind arranges them itself. */
  slots: Slots | undefined
  /** How a line gets from one point to the next. */
  between: Between
  /** Whether lines mark their points. */
  points: boolean
  /** The order that was wished for, where one was. */
  order: 'given' | 'name' | 'ranked' | undefined
  /** The radius of the largest point whose size is bound, in pixels. */
  largest: number
  /** Pixels to leave free around shapes for the labels beside them. */
  labelRoom: { x: number; y: number }
  /** A BCP 47 language tag. */
  locale: string
  theme: Theme
  /** What the drawing says in `options`, and the looks that are the kind's own. */
  options: Options
  /** Kept for as long as the marks stay the same: a place for what is costly to work out again in every frame. */
  memory: Map<string, unknown>
}

/** What decides how far shapes reach, beside their values; `time`: whether x is one. */
export type Reach<Options = any> = Pick<DrawInput<Options>, 'options' | 'between'> & { time: boolean }

/** A mark near a point. */
export interface NearMark {
  mark: number
  /** Where it stands, in pixels. */
  x: number
  y: number
  /** Pixels from the point, squared. */
  far: number
}

/** A kind of drawing. Built-in kinds are declared just as a user's own. */
export interface Kind<Options = any> {
  name: string
  /** The roles it understands, and how it uses them. */
  roles: Record<string, RoleUse>
  /**
   * The looks of a description that it reads, beside `where`, `top`, `rest`, `order` and `style`, which are for all: those
   * that kinds share come as fields of their own, others among its options. Default: all that kinds share.
   */
  looks?: readonly (SharedLook | 'hollow' | 'values' | 'fit' | 'band' | 'breakAfter')[]
  /** The constant looks in `style` that it reads. Default: all. */
  styles?: readonly (keyof MarkStyle)[]
  /** The shape that stands for a series in legends and tooltips. */
  swatch: 'line' | 'rect' | 'disc'
  /**
   * How it is read. `place`: at a place along one scale, every series that stands there (the default); `point`: the nearest
   * mark in any direction; `cell`: the cell under the pointer, by its colour; `slice`: the slice in its direction.
   */
  reads?: 'place' | 'point' | 'cell' | 'slice'
  /** Whether marks stand anywhere in the plot: gridlines then go both ways, and both scales have neat ends. */
  scattered?: boolean
  /** How it arranges series unless told. Default `side`. */
  arrange?: Arrange
  /** The arrangements that it knows, where it reads any. Default: all. */
  arranges?: readonly Arrange[]
  /** Whether shapes grow from zero, so that the measuring scale must show it. */
  fromZero?: boolean
  /** Whether shapes have a breadth across what they measure, which must not be cut at the plot's edge. */
  broad?: boolean
  /** Whether it reads or annotates what others draw: it inherits no roles of its own accord, and has no entry in the legend. */
  aside?: boolean
  /** Whether it takes no role from the chart, only what is bound in the drawing itself. */
  alone?: boolean
  /** Whether marks are parts of a whole: they have no axes, their colour tells them apart, and their measure sizes them. */
  parts?: boolean
  /** Whether each mark is a cell of its own, read by its colour rather than by its place. */
  cells?: boolean
  /** Whether its shapes are read by words at them, so that charts of it need what places words. */
  labelled?: boolean
  /** Draws marks as a picture of how many lie where, for kinds that have one for crowds. */
  crowd?: (
    id: string,
    marks: Marks,
    paint: { colors: readonly string[]; color: Uint16Array },
    x: PositionScale,
    y: PositionScale,
    plot: Box,
    density: number,
  ) => Pixels
  /** Finds the mark nearest to a point, in pixels, among very many, for kinds whose marks stand anywhere. */
  nearest?: (
    marks: Marks,
    memory: Map<string, unknown>,
    x: PositionScale,
    y: PositionScale,
    at: { x: number; y: number },
  ) => NearMark | undefined
  /**
   * What may stand for rows that are elsewhere, where they are too many to be fetched: the ends and extremes of stretches
   * along x, places with how many rows lie there, middles of stretches, or rows evenly chosen. By its options, where they
   * matter. Default: each row is needed.
   */
  gathers?: Gathers | ((options: Options) => Gathers)
  /** Shapes from marks; must not change anything outside. */
  draw(input: DrawInput<Options>): Batch[]
  /** The values that a measuring scale must show, where they are not those of the marks: sums of stacks. */
  extent?(marks: Marks, measured: 'x' | 'y', arrange: Arrange, reach: Reach<Options>): [number, number]
}

/** What places words at shapes, where a description wishes for them; the pane that draws knows what it can do. */
export interface Labels {
  readonly part: 'labels'
}
