import { expect, test } from 'vitest'
import { KINDS } from '../../scale/scale.ts'
import { countsIn, takeOut } from './cells-in-space.ts'
import { type InSpace, spacesOf } from './spaces.ts'

const COUNT = 600_000
const kinds = { x: KINDS.linear, y: KINDS.linear }
const inSpace = (x: Float64Array, y: Float64Array): InSpace =>
  spacesOf({ x, y }, kinds, 1, () => new Uint16Array(x.length))![0]

/** By tile: what is known of it at each resolution, and of places that points share. */
function knownOf(
  space: InSpace,
): { side: number; corners: number[][]; places: [number, number, number][] }[] {
  const { levels, repeated } = countsIn(space)!
  const finest = levels[levels.length - 1]
  return Array.from(finest.sides, (side, tile) => {
    const corners = levels.map(({ sides, first, sums }) =>
      Array.from(sums.subarray(first[tile], first[tile] + (sides[tile] + 1) ** 2)),
    )
    const places: [number, number, number][] = []
    for (let place = repeated.starts[tile]; place < repeated.starts[tile + 1]; place++)
      if (repeated.times[place] > 0)
        places.push([repeated.x[place], repeated.y[place], repeated.times[place]])
    return { side, corners, places: places.sort(([a, b], [c, d]) => a - c || b - d) }
  })
}

test.each([
  ['apart', 0],
  ['at places that they share', 1],
])('points %s that leave are as if they had never been there', (_, step) => {
  const round = (value: number) => (step > 0 ? Math.round(value / step) * step : value)
  const at = (i: number) => [round(((i * 7919) % 99_991) / 1000), round(((i * 104_729) % 99_989) / 1000)]
  const leaves = (i: number) => i % 2003 === 7
  const column = (part: 0 | 1, stays: (i: number) => boolean) =>
    Float64Array.from(Array.from({ length: COUNT }, (_, i) => i).filter(stays), i => at(i)[part])
  const [all, left] = [() => true, (i: number) => !leaves(i)]
  const space = inSpace(column(0, all), column(1, all))
  countsIn(space)
  for (let i = 0; i < COUNT; i++) if (leaves(i)) takeOut(space, ...(at(i) as [number, number]))
  const [found, anew] = [knownOf(space), knownOf(inSpace(column(0, left), column(1, left)))]
  let alike = 0
  for (const [tile, own] of found.entries()) {
    // One with fewer points may have fewer cells when it is counted anew.
    if (own.side !== anew[tile].side) continue
    expect(own).toEqual(anew[tile])
    alike++
  }
  expect(alike).toBeGreaterThan(found.length / 2)
})
