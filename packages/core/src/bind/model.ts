import type { Marks, Positions, Slots } from '../describe/model.ts'
import type { Finding } from '../finding/error.ts'
import type { AxisInput } from '../guide/axis-parts.ts'
import type { LegendEntry } from '../guide/legend.ts'
import type { RampEntry } from '../guide/ramp-legend.ts'
import type { SizeEntry } from '../guide/size-legend.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import type { RoleValues, Shaped } from '../table/group/shape.ts'
import type { Tongue } from '../words/tongue.ts'

/** One drawing's rows or groups, before scales and series. */
export interface ShapedDrawing {
  drawing: ResolvedDrawing
  shaped: Shaped
  findings: Finding[]
}

/** A drawing with the scales that its positions stand on. */
export interface ScaledPart {
  drawing: ResolvedDrawing
  shaped: Shaped
  x: RoleValues
  y: RoleValues
  xInput: ScaleInput | undefined
  yInput: ScaleInput | undefined
}

/** A drawing in the terms of its scales. */
export interface BoundDrawing {
  drawing: ResolvedDrawing
  marks: Marks
  /** What the positions are, for titles and formats. */
  x: RoleValues
  y: RoleValues
  /** What colours the marks, where it is a number. */
  shade: RoleValues | undefined
  /** What sizes the marks, where it is bound. */
  size: RoleValues | undefined
  /** By series: the keys of the legend's entries that explain it. */
  explained: readonly (readonly string[])[]
  /** Labels and links that say nothing of some shapes, since the rows of those do not agree; by role, of how many. */
  disagreeing?: ReadonlyMap<string, number>
  /** The address that each mark leads to, where bound; empty for none. */
  links: LabelTexts | undefined
  /** What fills the holes of the words at marks. */
  labelValues: readonly (RoleValues | undefined)[]
  xScale: string
  yScale: string
  /** Why it has no marks, where its table has not answered. */
  unanswered: Shaped['unanswered']
  /** Where its series stand beside each other, where several drawings share the room of places. */
  slots: Slots | undefined
  /** What the kind remembers between frames. */
  memory: Map<string, unknown>
}

/** Everything that places values on one scale. */
export interface ScaleInput {
  name: string
  role: 'x' | 'y'
  type: 'number' | 'time' | 'text'
  /** Categories in order; empty for numbers and times. */
  words: string[]
  uses: ScaleUse[]
  /** What only annotates: it must be in view, but says nothing about the axis. */
  asides: ScaleUse[]
}

export interface ScaleUse {
  bound: BoundDrawing
  values: RoleValues
  positions: Positions
}

export interface Bound {
  drawings: BoundDrawing[]
  scales: Map<string, ScaleInput>
  /** The colours of numbers, where some are bound to colour. */
  ramp: RampEntry | undefined
  /** The areas of numbers, where some are bound to size. */
  sizes: SizeEntry | undefined
  /** What tells series apart, hidden ones too. */
  legend: LegendSeries[]
  /** Whether each entry of the legend is one series, so that it can stand at its line's end. */
  byName: boolean
  findings: Finding[]
  /** How it speaks. */
  tongue: Tongue
}

export interface LegendSeries extends LegendEntry {
  by: Telling | undefined
  title: string
}

/** What can tell series apart to the eye. */
export type Telling = 'color' | 'shape' | 'dash'

/** A scale's domain, settled but for rounding, which needs the ticks. */
export type Domain = Pick<AxisInput, 'kind' | 'min' | 'max' | 'round' | 'reverse' | 'words' | 'zone'>

/** The words that stand at a mark; empty for none. */
export type LabelTexts = (mark: number) => string
