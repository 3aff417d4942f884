import type { Box, Discs, Lines } from '../scene/scene.ts'

/** The part of a 2D canvas context that is painted with: a page's, a worker's, or one in Node. */
export interface Context2D {
  globalAlpha: number
  fillStyle: any
  strokeStyle: any
  lineWidth: number
  lineJoin: any
  lineCap: any
  font: string
  textAlign: any
  textBaseline: any
  save(): void
  restore(): void
  beginPath(): void
  closePath(): void
  moveTo(x: number, y: number): void
  lineTo(x: number, y: number): void
  arc(x: number, y: number, radius: number, start: number, end: number): void
  arcTo(x1: number, y1: number, x2: number, y2: number, radius: number): void
  rect(x: number, y: number, width: number, height: number): void
  fillRect(x: number, y: number, width: number, height: number): void
  clearRect(x: number, y: number, width: number, height: number): void
  fill(): void
  stroke(): void
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void
  clip(): void
  setLineDash(dash: number[]): void
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void
  translate(x: number, y: number): void
  rotate(angle: number): void
  /** Without it, figures have the widths that the font gives them. */
  measureText?(text: string): { width: number }
  fillText(text: string, x: number, y: number): void
  strokeText(text: string, x: number, y: number): void
  drawImage(source: any, x: number, y: number, width: number, height: number): void
}

/** The loaded picture behind an address; undefined while there is none. */
export type Pictures = (href: string) => { source: unknown; width: number; height: number } | undefined

/** Turns colour values into something that can be drawn as an image: a canvas of that size, which holds a copy of them. It is drawn before the next one is asked for. */
export type Bitmap = (rgba: Uint8ClampedArray, columns: number, rows: number) => unknown

/** Paints very many discs, or lines of very many vertices, as far as they are in a box, in less time than a path for each takes; whether it did. */
export type Dense = (
  batch: Lines | Discs,
  box: Box,
  context: Context2D,
  density: number,
  bitmap: Bitmap | undefined,
) => boolean

/** What painting may need from where it happens. */
export interface Surroundings {
  pictures?: Pictures
  /** Without it, pictures of colour values are painted as little rectangles, which is slow. */
  bitmap?: Bitmap
  /** Where frames follow each other, `paintDense`. */
  dense?: Dense
  /** Whether shapes stay shapes, as in a file that can be enlarged: else very many are painted as one picture. */
  shapes?: boolean
}
