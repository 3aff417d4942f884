import type { Bound, Domain, LegendSeries } from '../bind/model.ts'
import type { FormOf } from '../bind/number-forms.ts'
import type { Background, Settled, SpreadOptions } from '../describe/description.ts'
import type { Frame, State } from '../describe/frame.ts'
import type { Finding } from '../finding/error.ts'
import type { AxisInput, Room } from '../guide/axis-parts.ts'
import type { AxisLook } from '../guide/axis-shapes.ts'
import type { LabelSides } from '../guide/bar-labels.ts'
import type { HeadingFigures, HeadingWords } from '../resolve/model.ts'
import type { PositionScale } from '../scale/scale.ts'
import type { Batch, Box, Scene } from '../scene/scene.ts'
import type { Measure } from '../theme/text-width.ts'
import type { Theme } from '../theme/theme.ts'
import type { Tongue } from '../words/tongue.ts'
import type { PlacesLabels } from './label/labels.ts'

/** One axis of a chart, before it has a size. */
export interface PlannedAxis {
  name: string
  role: 'x' | 'y'
  input: AxisInput
  look: AxisLook
  hidden: boolean
  title: string
  /** Whether shapes grow along its scale. */
  grows: boolean
  /** The room beyond its ends that its own shapes need. */
  needs: Room | undefined
}

/** What axes are planned from. `labelRoom`: the widest a label beside the plot may be, in pixels. */
export interface PlanContext {
  description: Settled
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  zoom: State['zoom']
  labelRoom: number
  /** How numbers are written that an axis reads. */
  formOf: FormOf
  /** The radius of the largest point whose size is bound, in pixels. */
  largest: number
  box: Box
  theme: Theme
  measure: Measure
  /** By scale: the room beyond its ends that others need which share it. */
  beyond?: ReadonlyMap<string, Room>
}

/** One plot with its axes and words, and what it was made from, for reading values back. */
export interface Pane {
  /** What the ids of its batches begin with. */
  prefix: string
  bound: Bound
  plot: Box
  scales: ReadonlyMap<string, PositionScale>
  /** Ends of each scale without zoom, in data units. */
  full: ReadonlyMap<string, readonly [number, number]>
  batches: Batch[]
  /** What was asked of its axes and has no room. */
  findings: Finding[]
  /** Room that its labels and legends take on either side of the plot, in pixels: plots that line up share the largest. */
  insets: Insets
}

/** Room to the left and right of a plot, in pixels. */
export interface Insets {
  left: number
  right: number
  /** Beyond the least and the greatest value of its horizontal scale, which large points take. */
  beyond?: Room
}

/** A scene with the panes that it shows: one for a chart, several for a spread. */
export interface Composition {
  scene: Scene
  panes: Pane[]
  /** Room that its plots need beside them; undefined where plots stand side by side. */
  insets: Insets | undefined
  theme: Theme
  tongue: Tongue
}

/** Names that must stand somewhere, and the batches of texts in which they may. */
export interface NeededNames {
  ids: string[]
  entries: readonly LegendSeries[]
}

/** The words that are asked for. */
export interface AskedWords extends Pick<PaneInput, 'description' | 'bound' | 'labels'> {
  needed: readonly NeededNames[]
  /** Whether a legend of sizes is wished for. */
  sizes: boolean
  axes: readonly PlannedAxis[]
  tiny: boolean
}

export interface PaneInput {
  /** With the words of its heading, their holes filled. */
  description: Settled & HeadingWords
  /** The numbers in its heading. */
  figures: HeadingFigures
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  frame: Frame
  theme: Theme
  measure: Measure
  zoom: State['zoom']
  /** Where labels stood before; what is laid out writes down where they stand now. */
  sides?: LabelSides
  labels: PlacesLabels | undefined
  /** Looks for words that have no room, where that is wished for. */
  leftOut: ((asked: AskedWords, batches: readonly Batch[]) => Finding[]) | undefined
  /** The entry of a legend that stands out: other series fade. */
  preview?: string
  /** How many entries of a long legend are passed over. */
  listedFrom?: number
  box: Box
  /** Which plot of the scene this is, and what its batches and scales are called in it. */
  pane: number
  prefix: string
  /** Whether some values lie outside fixed ends, so that marks stand at those edges. */
  outside: boolean
  /** Whether another pane below shows the same horizontal axis. */
  sharedBelow?: boolean
  /** Whether another pane before it shows the same vertical axis. */
  sharedBeside?: boolean
  /** The radius of the largest point whose size is bound, in pixels, where other panes have the same. */
  largest?: number
  /** Whether titles of vertical axes stand elsewhere. */
  titled?: boolean
  /** By scale: the room beyond its ends that other charts need which share it. */
  beyond?: ReadonlyMap<string, Room>
}

/** A pane that knows where its plot will be, and has drawn nothing yet. */
export interface PaneLayout {
  insets: Insets
  /** The room under its plot, in pixels. */
  under: number
  /** Where its scales end, by name, once there is so much room beside the plot. */
  ends(insets: Insets): ReadonlyMap<string, readonly [number, number]>
  /** Draws it, once; `insets`: room to leave beside the plot at least, so that it lines up with others; `ends`: where scales are to end. */
  draw(insets?: Insets, ends?: ReadonlyMap<string, readonly [number, number]>): Pane
}

/** One chart of a picture, ready to be laid out. */
export interface PictureChart {
  description: Settled & HeadingWords
  /** The numbers in its heading. */
  figures: HeadingFigures
  bound: Bound
  domains: ReadonlyMap<string, Domain>
  /** Whether some values lie outside fixed ends, so that marks stand at those edges. */
  outside: boolean
  sides?: LabelSides
  labels: PlacesLabels | undefined
  leftOut: PaneInput['leftOut']
}

/** A spread, with its words filled; `panes`: whether its charts are the panes of one. */
export type SpreadInput = SpreadOptions & {
  figures?: HeadingFigures
  panes?: boolean
  compose(input: PictureInput, spread: SpreadInput, box: Box, words: Batch[]): Pane[]
}

export interface PictureInput {
  charts: readonly PictureChart[]
  /** How the charts stand together; undefined for a single chart. */
  spread: SpreadInput | undefined
  /** What lies behind everything, where told. */
  background: string | Background | undefined
  frame: Frame
  theme: Theme
  measure: Measure
  tongue: Tongue
  words: { title: string; description: string }
  zoom: State['zoom']
  /** The entry of a legend that stands out. */
  preview: string | undefined
  /** How many entries of a long legend are passed over. */
  listedFrom?: number
  /** Room to leave beside plots at least, so that they line up with those of other pictures. */
  beside: Insets | undefined
}
