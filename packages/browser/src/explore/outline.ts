import type { Corner, Pane } from '@dapplo/core/internal'

export interface Point {
  x: number
  y: number
}

/** What a drag is drawn around. */
export interface Outline {
  corners: readonly Corner[]
  box: boolean
  /** Selects these too, rather than others. */
  adds: boolean
  /** The drag has ended; while it lasts, the selection follows. */
  done: boolean
}

export const outlineOf = (path: readonly Point[], shape: 'box' | 'lasso'): Corner[] =>
  shape === 'box' ? cornersOf(path) : path.map(({ x, y }) => [x, y] as const)

/** The box from the first to the last point of a path. */
export function cornersOf(path: readonly Point[]): Corner[] {
  const a = path[0]
  const b = path[path.length - 1]
  const [left, right] = [Math.min(a.x, b.x), Math.max(a.x, b.x)]
  const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)]
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ]
}

/** How far it is from one point to another along both directions, as far as that lies within a plot. */
export function spansWithin({ x, y, width, height }: Pane['plot'], a: Point, b: Point) {
  const within = (value: number, low: number, length: number) => Math.max(low, Math.min(low + length, value))
  const span = (from: number, to: number, low: number, length: number): [number, number] => [
    within(Math.min(from, to), low, length),
    within(Math.max(from, to), low, length),
  ]
  return { x: span(a.x, b.x, x, width), y: span(a.y, b.y, y, height) }
}
