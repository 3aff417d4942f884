/**
 * Least and greatest values over any stretch of a column, in a handful of steps however long the stretch:
 * a pyramid of blocks, each level holding the extremes of `BLOCK` entries of the level below.
 * Missing values (NaN) are passed over; a stretch without values has min Infinity and max -Infinity.
 */
const BLOCK = 32
/** A top level of so many entries is read as it is. */
const TOP = BLOCK * 4

export interface Pyramid {
  values: Float64Array
  /** How many rows have left before the first: blocks are counted from where they stood. */
  gone: number
  levels: Level[]
  /** How many values are missing. */
  missing: number
}

interface Level {
  /** With room for more than its entries. */
  mins: Float64Array
  maxs: Float64Array
  length: number
}

export function buildPyramid(values: Float64Array): Pyramid {
  const pyramid: Pyramid = { values, gone: 0, levels: [], missing: 0 }
  for (let i = 0; i < values.length; i++) if (values[i] !== values[i]) pyramid.missing++
  raise(pyramid, 0)
  return pyramid
}

/** Rows have come at the end of the values. */
export function appendToPyramid(pyramid: Pyramid, values: Float64Array, added: number): void {
  const before = values.length - added
  pyramid.values = values
  for (let i = before; i < values.length; i++) if (values[i] !== values[i]) pyramid.missing++
  raise(pyramid, before)
}

/** The value of a row has changed. */
export function writeToPyramid(pyramid: Pyramid, values: Float64Array, row: number, before: number): void {
  pyramid.values = values
  if (before !== before) pyramid.missing--
  if (values[row] !== values[row]) pyramid.missing++
  let block = row + pyramid.gone
  for (let level = 0; level < pyramid.levels.length; level++) {
    block = Math.floor(block / BLOCK)
    fill(pyramid, level, block, block + 1)
  }
}

/** The first rows have left, so many of them without a value. */
export function dropFromPyramid(
  pyramid: Pyramid,
  values: Float64Array,
  count: number,
  missing: number,
): void {
  pyramid.values = values
  pyramid.gone += count
  pyramid.missing -= missing
}

/**
 * Rows have gone, given in rising order as they stood, so many of them without a value. Blocks of those before them are made
 * anew, as if these had moved down, or of those after them, whichever are fewer.
 */
export function removeFromPyramid(
  pyramid: Pyramid,
  values: Float64Array,
  rows: ArrayLike<number>,
  missing: number,
): void {
  pyramid.values = values
  pyramid.missing -= missing
  const last = rows[rows.length - 1]
  if (last + 1 >= values.length + rows.length - rows[0]) {
    raise(pyramid, rows[0])
    return
  }
  let [from, to] = [pyramid.gone, pyramid.gone + last + 1]
  pyramid.gone += rows.length
  for (let level = 0; level < pyramid.levels.length; level++) {
    from = Math.floor(from / BLOCK)
    to = Math.ceil(to / BLOCK)
    fill(pyramid, level, from, to)
  }
}

/** Rows from one on are others than they were; how many values are missing is known already. */
export function renewPyramid(pyramid: Pyramid, values: Float64Array, from: number): void {
  pyramid.values = values
  raise(pyramid, from)
}

/** Makes the blocks from that of a row on anew, on every level, and levels where the top one has become long. */
function raise(pyramid: Pyramid, row: number): void {
  const { levels } = pyramid
  let from = row + pyramid.gone
  let length = pyramid.values.length + pyramid.gone
  for (let level = 0; level === 0 || level < levels.length || length > TOP; level++) {
    from = Math.floor(from / BLOCK)
    length = Math.ceil(length / BLOCK)
    if (level === levels.length) {
      levels.push({ mins: new Float64Array(length), maxs: new Float64Array(length), length: 0 })
      from = 0
    }
    const own = levels[level]
    if (length > own.mins.length) {
      own.mins = longer(own.mins, length)
      own.maxs = longer(own.maxs, length)
    }
    own.length = length
    fill(pyramid, level, from, length)
  }
}

function longer(values: Float64Array, length: number): Float64Array {
  const grown = new Float64Array(Math.ceil(length * 1.5) + 8)
  grown.set(values)
  return grown
}

/** The extremes of some blocks of a level, from the level below. */
function fill({ values, levels, gone }: Pyramid, level: number, from: number, to: number): void {
  const { mins, maxs } = levels[level]
  const lower = level === 0 ? values : levels[level - 1].mins
  const upper = level === 0 ? values : levels[level - 1].maxs
  const shift = level === 0 ? gone : 0
  const end = level === 0 ? values.length + gone : levels[level - 1].length
  for (let block = from; block < to; block++) {
    let low = Number.POSITIVE_INFINITY
    let high = Number.NEGATIVE_INFINITY
    const last = Math.min((block + 1) * BLOCK, end) - shift
    // Comparisons with NaN are false, so missing values drop out by themselves.
    for (let i = Math.max(block * BLOCK - shift, 0); i < last; i++) {
      if (lower[i] < low) low = lower[i]
      if (upper[i] > high) high = upper[i]
    }
    mins[block] = low
    maxs[block] = high
  }
}

/** One object, filled anew by each call of `extremes`. */
const found = { min: 0, max: 0 }

/** Least and greatest of `values[from]` up to, without, `values[to]`. The result is valid until the next call. */
export function extremes({ values, levels, gone }: Pyramid, from: number, to: number): typeof found {
  let low = Number.POSITIVE_INFINITY
  let high = Number.NEGATIVE_INFINITY
  let lower = values
  let upper = values
  let shift = gone
  let start = from + gone
  let end = to + gone
  for (let level = 0; start < end; level++) {
    const top = level >= levels.length
    // Entries outside whole blocks are read here, whole blocks one level up.
    const innerStart = top ? end : Math.min(end, Math.ceil(start / BLOCK) * BLOCK)
    const innerEnd = top ? end : Math.max(innerStart, Math.floor(end / BLOCK) * BLOCK)
    for (let i = start - shift; i < innerStart - shift; i++) {
      if (lower[i] < low) low = lower[i]
      if (upper[i] > high) high = upper[i]
    }
    for (let i = innerEnd - shift; i < end - shift; i++) {
      if (lower[i] < low) low = lower[i]
      if (upper[i] > high) high = upper[i]
    }
    if (top) break
    start = innerStart / BLOCK
    end = innerEnd / BLOCK
    lower = levels[level].mins
    upper = levels[level].maxs
    shift = 0
  }
  found.min = low
  found.max = high
  return found
}
