/** The parts of points in a square of `dot` elements around each element: what each point covers. */
export function gathered(grid: Int32Array, columns: number, rows: number, dot: number): Int32Array {
  if (dot === 1) return grid
  if (dot === 2) return gatheredByTwo(grid, columns)
  const before = dot >> 1
  const level = new Int32Array(grid.length)
  for (let row = 0; row < rows; row++) {
    const start = row * columns
    for (let column = 0; column < columns; column++) {
      const n = grid[start + column]
      if (n === 0) continue
      const from = Math.max(0, column - before)
      const to = Math.min(columns, column - before + dot)
      for (let c = from; c < to; c++) level[start + c] += n
    }
  }
  const out = new Int32Array(grid.length)
  for (let row = 0; row < rows; row++) {
    const from = Math.max(0, row - before)
    const to = Math.min(rows, row - before + dot)
    const start = row * columns
    for (let column = 0; column < columns; column++) {
      const n = level[start + column]
      if (n === 0) continue
      for (let r = from; r < to; r++) out[r * columns + column] += n
    }
  }
  return out
}

/** The same for squares of two, as on most screens: each element and its neighbours to the right and below, in place. */
function gatheredByTwo(grid: Int32Array, columns: number): Int32Array {
  const last = grid.length - columns
  for (let start = 0; start < grid.length; start += columns) {
    let before = 0
    for (let i = start + columns - 1; i >= start; i--) {
      const here = grid[i] + (start < last ? grid[i + columns] : 0)
      grid[i] = here + before
      before = here
    }
  }
  return grid
}
