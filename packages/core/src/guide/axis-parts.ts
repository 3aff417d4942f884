import type { Finding } from '../finding/error.ts'
import type { NumberLook } from '../scale/number-format.ts'
import type { PositionScale, ScaleKind } from '../scale/scale.ts'
import type { TimeStep } from '../scale/time-ticks.ts'
import type { Unit } from '../table/cells/calendar.ts'
import type { Zone } from '../table/cells/zone.ts'
import type { Font, Measure } from '../theme/text-width.ts'

export type Side = 'bottom' | 'left' | 'right' | 'top'

/** Pixels beyond the least and the greatest value of a scale. */
export interface Room {
  min: number
  max: number
}

/** What an axis has to show and how. */
export interface AxisInput {
  name: string
  side: Side
  kind: ScaleKind
  min: number
  max: number
  /** Which ends may be moved outwards to neat numbers. */
  round: { min: boolean; max: boolean }
  reverse: boolean
  words: readonly string[]
  zone: Zone
  look: NumberLook
  /** Ticks asked for: about how many, which, or how far apart. */
  wish?: number | number[] | { every: number | TimeStep }
  /** The finest unit the values have: no ticks between days where there is one value a day. */
  unit?: Unit
  /** Where an open bin begins, which holds all from there on: no number beyond it is read off the axis. */
  openFrom?: number
  /** Whether values fill intervals of that unit, so that labels stand in their middle: instants have theirs at their place. */
  intervals?: boolean
  /** Whether all values are whole numbers, so that nothing between two of them is worth a tick. */
  whole?: boolean
  cycle?: string
  timeFormat?: Intl.DateTimeFormatOptions | ((value: any) => string)
  /** Pixels beyond the least and the greatest value that labels at the shapes take, where ends may move. */
  beyond?: Room
  /** The widest a label beside the plot may be, in pixels. */
  labelRoom: number
  /** How far names under the plot may reach down, in pixels. Default as far as slanted ones ever do. */
  depth?: number
  /** Whether smaller divisions are wanted between ticks. */
  minor?: boolean
  /** Pictures by category, shown with or instead of its name. */
  images?: Readonly<Record<string, string>>
  /** Shorter names by category, the longer first. */
  shorter?: Readonly<Record<string, readonly string[]>>
  /** The scale on whose gridlines the ticks must fall. */
  alignTo?: string
  /** The total of which this axis reads the values of the scale `y` as a percentage. */
  percentOf?: number
}

/** An axis worked out for a length of pixels. */
export interface AxisLayout {
  scale: PositionScale
  ticks: number[]
  /** Where labels stand: at their ticks, but in the middle of the interval where ticks begin buckets. */
  labelAt: number[]
  minor: number[]
  /** Lines of text at each tick. */
  labels: string[][]
  /** What each says in full, where it has a shorter name. */
  wholes?: (string | undefined)[]
  /** A picture at each tick; empty where there are none. */
  pictures: (string | undefined)[]
  /** The larger unit of time, at the ticks where it changes; empty texts elsewhere. */
  larger: string[]
  /** Degrees by which labels are turned. */
  turn: number
  /** Pixels between the plot and the far edge of the labels. */
  thickness: number
  /** What was asked of it and has no room. */
  findings?: Finding[]
}

/** Everything a layout of one kind of axis works with. */
export interface AxisContext {
  input: AxisInput
  /** Pixels from end to end. */
  length: number
  /** Whether it runs from left to right. */
  level: boolean
  font: Font
  measure: Measure
  /** The scale for a domain. */
  make(min: number, max: number): PositionScale
}

/** Room between plot and labels, in pixels. */
export const LABEL_GAP = 7
/** Least free space between neighbouring labels, in pixels. */
export const APART = 10
/** Width and height of a picture at a tick, in pixels. */
export const PICTURE = 22
