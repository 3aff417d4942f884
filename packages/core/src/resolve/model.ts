import type { Order, Settled } from '../describe/description.ts'
import type { Arrange, Between, Kind, Labels, MarkStyle } from '../describe/model.ts'
import type { Finding } from '../finding/error.ts'
import type { Figures } from '../scene/scene.ts'
import type { Conditions } from '../table/group/where.ts'
import type { Table } from '../table/live/table.ts'
import type { Meaning, Percentile } from '../table/phrase/meaning.ts'

/** One drawing, with what it inherits and what its phrases mean. */
export interface ResolvedDrawing {
  index: number
  /** Where it stands in the description, for messages. */
  path: string
  kind: Kind
  table: Table
  roles: Map<string, Meaning>
  /** For positions bound to several columns of a wide table: the meanings, one series each. */
  wide: { role: 'x' | 'y'; meanings: Meaning[] } | undefined
  where: Conditions | undefined
  arrange: Arrange | undefined
  between: Between
  points: boolean
  /** Words at each shape: the texts between the values of the roles `label 0`, `label 1` and so on; `own`: the value that the shape shows. */
  label: { pieces: readonly string[] } | 'own' | undefined
  /** Which shapes have words: those with the greatest values, those whose rows meet conditions; undefined for all. */
  labelled: { top?: number; where?: Conditions } | undefined
  /** Whether it has no entry in legends. */
  unlisted: boolean
  /** Whether labels are unwanted, also those that a kind has of its own. */
  wordless: boolean
  /** The level of the other drawings' values at which a reference stands. */
  level: Level | undefined
  /** How many categories are kept, and what gathers the others. */
  top: { count: number; rest: boolean | string | undefined } | undefined
  /** How categories are ordered, where their scale does not say. */
  order: Order | undefined
  style: MarkStyle
  /** What the legend calls it, where no role names its series. */
  name: string | undefined
  /** The scale that measures it vertically. */
  against: string
  /** What it says in `options`, and the looks that are its kind's own. */
  options: object
}

export type Level = 'mean' | 'median' | 'min' | 'max' | Percentile

export interface Resolved {
  /** What places words at shapes; undefined where there are none to place. */
  labels: Labels | undefined
  drawings: ResolvedDrawing[]
  description: Settled
  /** What the chart is played through, where it is. */
  throughMeaning: Meaning | undefined
  /** What splits it into panes, and how they stand. */
  panes: { by: Meaning; columns: number | undefined; share: string[] } | undefined
  /** The words around the chart, understood. */
  heading: ResolvedHeading[]
  /** What is amiss with them. */
  findings: Finding[]
  /** Every table that is drawn. */
  tables: Table[]
}

/** The words around a chart. */
export interface HeadingWords {
  title?: string
  subtitle?: string
  caption?: string
  source?: string
  stampWords?: string
  stampNote?: string
}

/** The numbers in the words around a chart. */
export type HeadingFigures = { [field in keyof HeadingWords]?: Figures }

/** Words of a heading, with what their holes mean. */
export interface ResolvedHeading {
  field: keyof HeadingWords
  pieces: string[]
  meanings: Meaning[]
  /** By hole: the rows that it is filled from. */
  from: HoleRows[]
}

/** Rows of a heading's hole: those that are drawn, all of the table, or those of the mark with the greatest value. */
export type HoleRows = 'drawn' | 'all' | 'leader'
