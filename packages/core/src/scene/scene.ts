import type { PositionScale } from '../scale/scale.ts'
import type { Hatched } from './hatch.ts'

/** A rectangle in pixels; y grows downwards. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** What shapes are recognised by from scene to scene. */
export type Keys = ArrayLike<string | number>

/** The rows a shape stands for. */
export type RowsOf = (shape: number) => ArrayLike<number>

interface Shapes {
  /** Names the batch within its scene: batches of two scenes with one id glide into each other. */
  id: string
  /** `data`: shapes that stand for rows; `guide`: axes, legends and words. */
  part: 'data' | 'guide'
  /** Whether shapes end at the edge of their plot. */
  clip: boolean
  /** For data: which of its pane's drawings it belongs to, counted from 0. */
  drawing?: number
  /** Which of the scene's plots they belong to; default the first. */
  pane?: number
  /** Whether shapes stand in one-to-one correspondence to these keys; lines have a key for each vertex. */
  keys: Keys
  rows?: RowsOf
  /** CSS colours, pointed into by `color`. */
  colors: readonly string[]
  /** Index into `colors`, by shape. */
  color: Uint16Array
  /** 0 to 1, by shape; absent where all are 1. */
  alpha?: Float32Array
  /** Patterns of strokes over surfaces, by their colour; absent for none. */
  hatched?: Hatched
  /** The scales that placed the shapes, so that motion can follow them. */
  along?: { x?: string; y?: string }
  /** Words that a kind wants to stand at its shapes, by shape; placed with all other labels. */
  labels?: readonly (string | undefined)[]
  /** Where shapes lead to: safe addresses only, empty for nowhere. */
  links?: (shape: number) => string
}

/** Rectangles: bars and cells. */
export interface Rects extends Shapes {
  kind: 'rects'
  x: Float32Array
  y: Float32Array
  width: Float32Array
  height: Float32Array
  /** Which end is rounded, by shape: 0 none, 1 top, 2 right, 3 bottom, 4 left. */
  round: Uint8Array
  /** Radius of rounding in pixels. */
  radius: number
  /** CSS colour of a line around each, a pixel wide, that parts those that pass each other. */
  edge?: string
  /** Where bars stand on each other: along which side of the plot, and by shape whether it grows to higher pixels (1) or lower (-1). */
  pileAlong?: 'x' | 'y'
  toward?: Int8Array
}

/** Points: discs and other forms of one area. */
export interface Discs extends Shapes {
  kind: 'discs'
  x: Float32Array
  y: Float32Array
  radius: Float32Array
  /** The ring that parts neighbours; absent for none. */
  ring?: { color: string; width: number }
  /** The form of each point, as its place in `MARKERS`; absent where all are discs. */
  form?: Uint8Array
}

/** Slices of a pie or ring. Angles in radians, clockwise from twelve o'clock. */
export interface Wedges extends Shapes {
  kind: 'wedges'
  /** The centre of each slice's circle. */
  x: Float32Array
  y: Float32Array
  from: Float32Array
  to: Float32Array
  /** Radii in pixels; an inner one of 0 makes a pie. */
  inner: Float32Array
  outer: Float32Array
  /** The line that parts neighbours. */
  ring: { color: string; width: number }
}

/** A picture made of colour values, for shapes too many to be drawn one by one. */
export interface Pixels extends Shapes {
  kind: 'pixels'
  /** Where the picture lies, in pixels of the scene: one box. */
  x: Float32Array
  y: Float32Array
  width: Float32Array
  height: Float32Array
  columns: number
  /** Red, green, blue and opacity of each picture element, 0 to 255, row by row; colours are not multiplied by opacity. */
  rgba: Uint8ClampedArray
}

/** Polylines. Vertices of line i stand from `starts[i]` up to `starts[i + 1]`; a vertex that is NaN breaks the line. */
export interface Lines extends Shapes {
  kind: 'lines'
  starts: Uint32Array
  x: Float32Array
  y: Float32Array
  /** Where each vertex stands in data units, for motion through changing scales. */
  atX: Float64Array
  atY: Float64Array
  width: Float32Array
  dash: readonly (readonly number[])[]
  /** Ends cut off flat rather than rounded. */
  flat?: boolean
  /** Names of the lines; `keys` name the vertices. */
  names: readonly string[]
  /** Joined by straight lines, or by curves that never overshoot. */
  smooth?: boolean
}

/** Filled bands between an upper and a lower edge that share their x. A vertex that is NaN breaks the band; `keys` name the vertices. */
export interface Areas extends Shapes {
  kind: 'areas'
  starts: Uint32Array
  x: Float32Array
  top: Float32Array
  base: Float32Array
  /** Where each vertex stands in data units, for motion through changing scales. */
  atX: Float64Array
  atTop: Float64Array
  atBase: Float64Array
  names: readonly string[]
  smooth?: boolean
  /** Whether bands stand on each other, from the first outwards. */
  piled?: boolean
}

/** Single straight lines: gridlines and the like. Drawn on whole device pixels where they are level or upright. */
export interface Segments extends Shapes {
  kind: 'segments'
  x1: Float32Array
  y1: Float32Array
  x2: Float32Array
  y2: Float32Array
  width: number
  dash?: readonly number[]
  /** The value on the scale named in `along`. */
  at?: Float64Array
}

/** The numbers in a text, so that between two pictures it can say what its shape shows there. */
export interface Figures {
  values: readonly number[]
  /** The text with other numbers in place of these. */
  write(values: readonly number[]): string
}

/** Words at their places, of one size. */
export interface Texts extends Shapes {
  kind: 'texts'
  x: Float32Array
  /** The baseline. */
  y: Float32Array
  texts: readonly string[]
  size: number
  weight: 400 | 600
  anchor: 'start' | 'middle' | 'end'
  /** Degrees, clockwise, around (x, y). */
  turn: number
  /** Whether all figures have one width, so that those above each other line up. */
  tabular?: boolean
  /** CSS colour of an edge around the letters that parts them from what lies behind. */
  halo?: string
  at?: Float64Array
  /** By text: all that it says, where it is shortened. */
  whole?: readonly (string | undefined)[]
  /** By text: the numbers in it, where it has some. */
  figures?: readonly (Figures | undefined)[]
  /** The id of the batch at whose shapes the texts stand, with the same keys: they go where it goes. */
  of?: string
  /** The scale on which the first of the figures is the value end of its shape, and along which side. */
  measuredOn?: { scale: string; axis: 'x' | 'y' }
}

/** Pictures: safe addresses only, see `safePicture`. Each keeps its proportions in the middle of its box, or covers it. */
export interface Images extends Shapes {
  kind: 'images'
  x: Float32Array
  y: Float32Array
  width: Float32Array
  height: Float32Array
  hrefs: readonly string[]
  /** What each shows, for those who cannot see it. */
  words: readonly string[]
  /** Whether boxes are filled, and what juts out cut off at the edge of the scene. */
  cover?: boolean
}

/** Shapes of one kind, painted together. */
export type Batch = Rects | Discs | Wedges | Lines | Areas | Segments | Texts | Images | Pixels

/** What a chart looks like at one moment: plain shapes in pixels. */
export interface Scene {
  width: number
  height: number
  /** CSS colour; undefined for transparent. */
  background: string | undefined
  font: string
  /** Where data are drawn, and clipped: one for a chart, one for each pane of a spread. */
  plots: Box[]
  /** Painted in this order. */
  batches: Batch[]
  /** For those who cannot see it: what it is called, and what it shows. */
  title: string
  description: string
  /** The position scales by name, so that motion can place what is only in the other scene. */
  scales: ReadonlyMap<string, PositionScale>
}

/** Data may reach this far, in pixels, beyond the plot's edge before they are clipped: half a stroke or point at the edge stays whole. */
export const CLIP_ROOM = 4

/** Where the data of a batch are clipped. */
export function clipBox({ plots }: Scene, batch: Batch): Box {
  const plot = plots[batch.pane ?? 0]
  return {
    x: plot.x - CLIP_ROOM,
    y: plot.y - CLIP_ROOM,
    width: plot.width + CLIP_ROOM * 2,
    height: plot.height + CLIP_ROOM * 2,
  }
}

/** How many shapes a batch has; for lines, how many lines. */
export function shapeCount(batch: Batch): number {
  return batch.kind === 'lines' || batch.kind === 'areas'
    ? batch.names.length
    : batch.kind === 'segments'
      ? batch.x1.length
      : batch.x.length
}

/** A picture's address, if it is one that can do no harm: a picture as data, or a file by http, https or a relative path. */
export function safePicture(href: string): string | undefined {
  const address = href.trim()
  if (/^data:image\/(png|jpeg|gif|webp|avif|svg\+xml)[;,]/i.test(address)) return address
  // Browsers skip control characters, so a scheme could hide behind one.
  if (/^https?:\/\//i.test(address) || !/^[^/?#]*:/.test(address.replace(/[\u0000-\u0020]/g, '')))
    return address
  return undefined
}

/** An address that a shape may lead to: http, https, mailto or relative; undefined for all others, which could run as code. */
export function safeLink(address: string): string | undefined {
  const text = address.trim()
  // Browsers skip control characters and blanks, so a scheme could hide behind them.
  const plain = text.replace(/[\u0000-\u0020\u007f-\u009f\u00a0\u2028\u2029\ufeff]/g, '')
  if (/^(https?:\/\/|mailto:)/i.test(plain)) return text
  // A backslash is a slash to browsers: `/\\host` leaves the site as `//host` does.
  return plain !== '' && !/^[^/?#]*:/.test(plain) && !/^(\\|\/[/\\])/.test(plain) ? text : undefined
}
