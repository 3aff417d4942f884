import fc from 'fast-check'
import { expect, test } from 'vitest'
import { gathered } from './gather.ts'
import { type Ink, writeByTwo, writeOneInk } from './one-ink.ts'
import { PARTS } from './opacity.ts'

const ink: Ink = [20, 90, 160]

test('gathering while writing gives the picture that gathering before gives', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.integer({ min: 1, max: 30 }),
      fc.array(
        fc.tuple(
          fc.nat(1199),
          fc.oneof(fc.nat(9), fc.constant(0.3), fc.constant(6000)).map(points => Math.round(points * PARTS)),
        ),
        {
          maxLength: 80,
        },
      ),
      (columns, rows, points) => {
        const grid = new Int32Array(columns * rows)
        for (const [at, count] of points) grid[at % grid.length] += count
        const [once, twice] = [new Uint8ClampedArray(grid.length * 4), new Uint8ClampedArray(grid.length * 4)]
        writeByTwo(once, grid, columns, ink)
        writeOneInk(twice, gathered(grid, columns, rows, 2), ink)
        expect(once).toEqual(twice)
      },
    ),
  )
})

test('of large pictures a part tells how crowded places are, whatever rows and columns the points lie in', () => {
  const [columns, rows] = [1400, 900]
  const opaque = (isIn: (column: number, row: number) => boolean) => {
    const grid = new Int32Array(columns * rows)
    for (let i = 0; i < grid.length; i++)
      if (isIn(i % columns, Math.floor(i / columns))) grid[i] = PARTS * (1 + ((i * 7919) % 50 === 0 ? 19 : 0))
    const [some, all] = [new Uint8ClampedArray(grid.length * 4), new Uint8ClampedArray(grid.length * 4)]
    writeByTwo(some, grid, columns, ink)
    writeOneInk(all, gathered(grid, columns, rows, 2), ink)
    let most = 0
    for (let i = 3; i < all.length; i += 4) most = Math.max(most, Math.abs(all[i] - some[i]))
    return most
  }
  for (const isIn of [
    (column: number) => column % 12 === 0,
    (_: number, row: number) => row % 12 === 0,
    (column: number, row: number) => column === 700 || row === 400,
  ])
    expect(opaque(isIn)).toBeLessThan(12)
})
