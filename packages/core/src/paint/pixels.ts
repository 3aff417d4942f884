import type { Pixels } from '../scene/scene.ts'

/** Stretches of a picture that have one colour: column, row and length of each. */
export interface PixelRuns {
  /** CSS colour. */
  color: string
  /** 0 to 1. */
  opacity: number
  runs: [column: number, row: number, length: number][]
}

/** Levels that each colour channel and the opacity are rounded to, so that neighbours join: finer than an eye tells apart. */
const STEP = 8

/** The picture as runs of one colour, gathered by colour; clear elements are left out. */
export function pixelRuns({ columns, rgba }: Pixels): PixelRuns[] {
  const found = new Map<number, PixelRuns>()
  const rows = rgba.length / 4 / columns
  const level = (value: number) => Math.min(255, Math.round(value / STEP) * STEP)
  for (let row = 0; row < rows; row++) {
    let open = -1
    let start = 0
    for (let column = 0; column <= columns; column++) {
      let code = -1
      if (column < columns) {
        const i = (row * columns + column) * 4
        if (rgba[i + 3] > 0)
          code =
            ((level(rgba[i]) * 256 + level(rgba[i + 1])) * 256 + level(rgba[i + 2])) * 256 +
            Math.max(STEP, level(rgba[i + 3]))
      }
      if (code === open) continue
      if (open >= 0) add(found, open, start, row, column - start)
      open = code
      start = column
    }
  }
  return [...found.values()]
}

function add(found: Map<number, PixelRuns>, code: number, column: number, row: number, length: number): void {
  let runs = found.get(code)
  if (!runs) {
    const opacity = (code % 256) / 255
    const rgb = Math.floor(code / 256)
    runs = { color: `#${rgb.toString(16).padStart(6, '0')}`, opacity, runs: [] }
    found.set(code, runs)
  }
  runs.runs.push([column, row, length])
}
