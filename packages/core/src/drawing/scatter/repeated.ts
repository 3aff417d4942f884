import type { InSpace } from './spaces.ts'

/**
 * Places at which several points of a tile lie, each once, as rounded values have them: what is counted at such places stays as
 * sharp as the points are. A place is that of the first point in one of the tile's finest cells.
 */
export interface Repeated {
  x: Float64Array
  y: Float64Array
  /** How many points lie at each. */
  times: Float64Array
  /** By tile: where its places begin, and one more; a tile has none where its points lie apart. */
  starts: Uint32Array
}

/** From so many points for each place on. */
const SEVERAL = 3

/** `occupied`: how many of its finest cells, `sides` along each side, hold points of a tile; `cellOf`: the cell of a point. */
export function repeatedIn(
  { x, y, starts, ends }: InSpace,
  occupied: Uint32Array,
  sides: Uint16Array,
  cellOf: (tile: number, point: number) => number,
): Repeated {
  const tiles = starts.length - 1
  const own = new Uint32Array(tiles + 1)
  for (let tile = 0; tile < tiles; tile++) {
    const few = occupied[tile] * SEVERAL <= ends[tile] - starts[tile]
    own[tile + 1] = own[tile] + (few ? occupied[tile] : 0)
  }
  const length = own[tiles]
  const out = {
    x: new Float64Array(length),
    y: new Float64Array(length),
    times: new Float64Array(length),
    starts: own,
  }
  for (let tile = 0, next = 0; tile < tiles; tile++) {
    if (own[tile] === own[tile + 1]) continue
    const placeOf = new Int32Array(sides[tile] ** 2).fill(-1)
    for (let i = starts[tile]; i < ends[tile]; i++) {
      const cell = cellOf(tile, i)
      let place = placeOf[cell]
      if (place < 0) {
        place = placeOf[cell] = next++
        out.x[place] = x[i]
        out.y[place] = y[i]
      }
      out.times[place]++
    }
  }
  return out
}
