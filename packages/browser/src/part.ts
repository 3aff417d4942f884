import {
  type appear,
  type between,
  Chart,
  type Composition,
  type carrying,
  DapploError,
  type DataTable,
  type paced,
  type Reading,
  type Scene,
  Spread,
  type State,
  type View,
} from '@dapplo/core/small'
import type { Live, MountOptions } from './mount.ts'
import type { Playing } from './playing.ts'
import type { Pointer } from './pointer.ts'
import type { FilmOptions } from './record.ts'
import type { Stage } from './stage.ts'
import type { Zoom } from './zoom.ts'

/** Something that a live chart can do beside showing its picture and reading values: handed to `mount`, as kinds are to charts. */
export interface Part {
  readonly name: PartName
  install(host: PartHost): Installed
}

export type PartName =
  | 'motion'
  | 'exploring'
  | 'keyboard'
  | 'tableView'
  | 'saving'
  | 'menu'
  | 'controls'
  | 'playback'

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
  csv?(composition: Composition): string
  film?(options: FilmOptions): Promise<Blob>
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
  state: State
  /** Whether changes glide. */
  readonly glides: boolean
  /** Says something to those who listen. */
  say(words: string): void
  /** The next picture is shown at once: what follows a hand must not lag behind it. */
  jump(): void
  /** Measures the place of the picture anew. */
  refresh(): void
  clicked(place: { x: number; y: number }, adds: boolean): void
  /** What a control sets: a path of the description or, beginning with `state.`, of the state. */
  read(path: string): unknown
  write(path: string, value: unknown): void
}

/** What a description asks for that only a part can do. */
const NEEDED: readonly [option: string, part: PartName][] = [
  ['zoom', 'exploring'],
  ['select', 'exploring'],
  ['controls', 'controls'],
  ['through', 'playback'],
]

/** Throws `missing-part` where a chart asks for what no part of these can do. */
export function checkParts(shown: Chart | Spread, parts: readonly Part[]): void {
  if (!(shown instanceof Spread || shown instanceof Chart))
    throw new DapploError(
      'bad-chart',
      `${shown === null ? 'null' : `A plain ${typeof shown}`} is no chart that can be shown`,
      'chart',
      'Make one with chart(table, { … }).',
    )
  for (const { description } of shown instanceof Spread ? shown.charts : [shown])
    for (const [option, part] of NEEDED)
      if (
        (description as unknown as Record<string, unknown>)[option] &&
        !parts.some(({ name }) => name === part)
      )
        throw missing(part, option)
}

/** The error of what cannot be done without a part. */
export const missing = (part: PartName, path: string): DapploError =>
  new DapploError(
    'missing-part',
    `The part "${part}" is not here, and "${path}" needs it`,
    path,
    `Import it from dapplo/small and hand it to mount: { parts: [${part}] }, or import mount from dapplo.`,
  )
