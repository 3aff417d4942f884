import type { Corner } from '@dapplo/core/internal'

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
