/**
 * Least and greatest values over any stretch of a column, in a handful of steps however long the stretch:
 * a pyramid of blocks, each level holding the extremes of `BLOCK` entries of the level below.
 * Missing values (NaN) are passed over; a stretch without values has min Infinity and max -Infinity.
 */
const BLOCK = 32

export interface Pyramid {
  values: Float64Array
  mins: Float64Array[]
  maxs: Float64Array[]
  /** How many values are missing. */
  missing: number
}

export function buildPyramid(values: Float64Array): Pyramid {
  const mins: Float64Array[] = []
  const maxs: Float64Array[] = []
  const blocks = Math.ceil(values.length / BLOCK)
  let min = new Float64Array(blocks)
  let max = new Float64Array(blocks)
  let missing = 0
  for (let block = 0, i = 0; block < blocks; block++) {
    const end = Math.min(i + BLOCK, values.length)
    let low = Number.POSITIVE_INFINITY
    let high = Number.NEGATIVE_INFINITY
    // Comparisons with NaN are false, so missing values drop out by themselves.
    for (; i < end; i++) {
      const value = values[i]
      if (value < low) low = value
      if (value > high) high = value
      if (value !== value) missing++
    }
    min[block] = low
    max[block] = high
  }
  for (;;) {
    mins.push(min)
    maxs.push(max)
    if (min.length <= BLOCK * 4) return { values, mins, maxs, missing }
    const next = Math.ceil(min.length / BLOCK)
    const lower = new Float64Array(next).fill(Number.POSITIVE_INFINITY)
    const upper = new Float64Array(next).fill(Number.NEGATIVE_INFINITY)
    for (let i = 0; i < min.length; i++) {
      const block = (i / BLOCK) | 0
      if (min[i] < lower[block]) lower[block] = min[i]
      if (max[i] > upper[block]) upper[block] = max[i]
    }
    min = lower
    max = upper
  }
}

/** One object, filled anew by each call of `extremes`. */
const found = { min: 0, max: 0 }

/** Least and greatest of `values[from]` up to, without, `values[to]`. The result is valid until the next call. */
export function extremes(pyramid: Pyramid, from: number, to: number): { min: number; max: number } {
  let low = Number.POSITIVE_INFINITY
  let high = Number.NEGATIVE_INFINITY
  let lower = pyramid.values
  let upper = pyramid.values
  let start = from
  let end = to
  for (let level = 0; start < end; level++) {
    const top = level >= pyramid.mins.length
    // Entries outside whole blocks are read here, whole blocks one level up.
    const innerStart = top ? end : Math.min(end, Math.ceil(start / BLOCK) * BLOCK)
    const innerEnd = top ? end : Math.max(innerStart, Math.floor(end / BLOCK) * BLOCK)
    for (let i = start; i < innerStart; i++) {
      if (lower[i] < low) low = lower[i]
      if (upper[i] > high) high = upper[i]
    }
    for (let i = innerEnd; i < end; i++) {
      if (lower[i] < low) low = lower[i]
      if (upper[i] > high) high = upper[i]
    }
    if (top) break
    start = innerStart / BLOCK
    end = innerEnd / BLOCK
    lower = pyramid.mins[level]
    upper = pyramid.maxs[level]
  }
  found.min = low
  found.max = high
  return found
}
