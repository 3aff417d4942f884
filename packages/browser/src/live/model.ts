import type {
  appear,
  between,
  Composition,
  carrying,
  DataTable,
  momentBetween,
  paced,
  View,
} from '@dapplo/core/internal'
import type { Chart, Finding, House, Reading, Scene, Spread, State, Table, Theme } from '@dapplo/core/small'
import type { Zoom } from '../explore/zoom.ts'
import type { Playing } from '../play/playing.ts'
import type { Pointer } from '../point/pointer.ts'
import type { RecordingOptions } from '../save/record.ts'
import type { Stage } from './stage.ts'

/** How a chart is shown on a page. */
export interface MountOptions {
  /** `auto` follows the person's setting. Default `day`. */
  theme?: 'day' | 'night' | 'auto' | Theme
  /** A BCP 47 language tag; default that of the element or the page, else `en`. */
  locale?: string
  /** The style of the application, over both themes. */
  house?: House
  /** Whether the theme's background is painted. Default true. */
  background?: boolean
  /** Height in pixels where the container has none of its own; default three fifths of the width. */
  height?: number
  state?: State
  /** A button under the chart that opens a list: keep it as a picture, drawing or film, copy, print, list its values. Default false. */
  menu?: boolean
  /** Whether the key S plays the series that is read by keys as tones: pitch by value, from left to right. Default false. */
  tones?: boolean
  /** Whether its values stand under it as a table when it is printed. Default false. */
  printsTable?: boolean
  /** What the chart can do beside showing its picture and reading values. Default everything; from `dapplo/small` nothing. */
  parts?: readonly Part[]
  /** Told of likely mistakes in data and description, once the page is idle: at first where there are some, then whenever they change. */
  onFindings?: (findings: readonly Finding[]) => void
  /** Called once the chart is off the page. */
  onDestroy?: () => void
}

/** A chart on a page. */
export interface Live<R = any> {
  /** The element that the chart fills. */
  readonly element: HTMLElement
  readonly chart: Chart | Spread
  /** What is on screen, mid-motion too. */
  readonly scene: Scene
  /** What the person has done; set it to do the same by program. */
  state: State
  /** Likely mistakes in data and description. */
  readonly findings: readonly Finding[]
  /** Whether shapes are on their way. */
  readonly moving: boolean
  /** Glides to another chart. Throws what the chart's data make impossible, and then still shows the old one. */
  show(chart: Chart | Spread): void
  /** Changes theme, locale or background. */
  reframe(options: Pick<MountOptions, 'theme' | 'house' | 'locale' | 'background'>): void
  /** Tells of every change of the state, until the returned function is called. What a listener throws is reported, and breaks nothing. */
  watch(listener: (state: State) => void): () => void
  /**
   * Tells of what the person does, with the rows behind it, until the returned function is called; a listener may prevent
   * what the chart would do: `live.when('clicked', async deed => show(await deed.rows()))`.
   */
  when(what: Deed, listener: (happening: Happening<R>) => void): () => void
  /** Plays a chart that has periods to play through, from where it is; or stops it. */
  play(): void
  pause(): void
  /** The rows of the table that are selected here, as records; in time, since they may be far. */
  selectedRows(): Promise<R[]>
  /** The picture that is shown: a PNG of twice the size, or an SVG document. `end`: as it will stand when nothing moves. */
  toPng(options?: { end?: boolean }): Promise<Blob>
  toSvg(options?: { end?: boolean }): string
  /**
   * A film of the chart as WebM, made while it plays through its periods, or while what `during` does changes it. Throws
   * `no-film` where there is nothing to film or the browser cannot record; `signal` ends it.
   */
  toWebm(options?: RecordingOptions): Promise<Blob>
  /** The values that are shown, as CSV. */
  toCsv(): string
  /** Takes the chart off the page, with every listener and element that it brought. */
  destroy(): void
}

/** What a person does with a chart. */
export type Deed = 'pointed' | 'clicked' | 'doubleClicked' | 'selected' | 'hidden' | 'zoomed' | 'played'

/** What a person has done, and what it means. */
export interface Happening<R = any> {
  readonly what: Deed
  readonly live: Live<R>
  /** The state as it will be, unless this is prevented. */
  readonly state: State
  /** What was read at the place, as the tooltip says it; undefined where there is nothing, or no place. */
  readonly reading: Reading | undefined
  /** The key of the shape, or of the legend's entry, that is meant. */
  readonly key: string | number | undefined
  /** The records behind it, in time: they may be far. */
  rows(): Promise<R[]>
  /** Keeps the chart from doing what it would do. */
  prevent(): void
}

/** What a part knows of a deed. */
export interface DeedDetails {
  state?: State
  reading?: Reading
  key?: string | number
  /** The rows behind it; default those of what was read. */
  rows?: () => { table: Table; rows: ArrayLike<number> }
}

/** Something that a live chart can do beside showing its picture and reading values: handed to `mount`, as kinds are to charts. */
export interface Part {
  readonly name: PartName
  install(host: PartHost): Installed
}

/** The names of the parts that a live chart may have. */
export type PartName =
  | 'motion'
  | 'exploring'
  | 'keyboard'
  | 'tableView'
  | 'saving'
  | 'menu'
  | 'controls'
  | 'playback'
  | 'renewing'

/** A part at work in one chart. */
export interface Installed {
  /** Puts what it needs beside the picture, before the picture takes its size. */
  settle?(): void
  /** After each drawing. */
  drawn?(composition: Composition): void
  remove?(): void
}

/** How shapes get from one picture to the next. */
export interface Moves {
  appear: typeof appear
  between: typeof between
  carrying: typeof carrying
  momentBetween: typeof momentBetween
  paced: typeof paced
}

/** What parts bring for each other and for the chart. */
export interface Abilities {
  moves?: Moves
  setZoom?(zoom: Zoom, gently: boolean): void
  /** Zooms around the middle of the plot, or moves by a share of it. */
  zoomBy?(factor: number, x?: number, y?: number): void
  /** Answers a click, where clicks select; else false. */
  click?(place: { x: number; y: number }, adds: boolean): boolean
  select?(reading: Reading, adds: boolean): void
  /** Whether there was a selection to clear. */
  clearSelection?(): boolean
  /** Shows the rows behind a reading. */
  openRows?(reading: Reading): void
  openTables?(title: string, tables: readonly DataTable[]): void
  dataTables?(): DataTable[]
  png?(scene: Scene): Promise<Blob>
  svg?(scene: Scene): string
  /** Shows the drawing for paper instead of the canvases, or these again. */
  print?(prints: boolean): void
  /** The drawing for paper: that of the day. */
  paper?(): string
  /** What stands under it on paper. */
  paperTables?(): HTMLElement[]
  csv?(composition: Composition): string
  film?(options: RecordingOptions): Promise<Blob>
  playing?: Playing
}

/** The live chart, as its parts know it. */
export interface PartHost {
  readonly live: Live
  readonly stage: Stage
  readonly view: View
  readonly pointer: Pointer
  readonly options: MountOptions
  readonly can: Abilities
  /** The view that is shown: that of the period that is reached, where the chart is played. */
  readonly current: View
  /** What is shown at this moment, to be read back. */
  readonly composition: Composition
  state: State
  /** Whether changes glide. */
  readonly glides: boolean
  /** Tells of what the person does; whether the chart is to do what it would do. */
  allow(what: Deed, details: DeedDetails): boolean
  /** Says something to those who listen. */
  say(words: string): void
  /** The next picture is shown at once: what follows a hand must not lag behind it. */
  jump(): void
  /** Measures the place of the picture anew. */
  refresh(): void
  clicked(place: { x: number; y: number }, adds: boolean): void
}
