import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type Areas, chart, compose, type Lines, table } from '../../index.ts'
import { measureInter } from '../../theme/text-width.ts'

type Row = { at: number; load: number | null; pier: string }
const HOLDS = ['hold', 'hold middle', 'hold next'] as const

function shapesOf<K extends 'areas' | 'lines'>(
  rows: Row[],
  draw: 'area' | 'line',
  between: string,
  arrange: string,
  kind: K,
) {
  const scene = compose(
    chart(table(rows), {
      draw,
      x: 'at',
      y: 'load',
      color: 'pier',
      between: between as 'hold',
      ...(draw === 'area' ? { arrange: arrange as 'stack' } : {}),
    }),
    {},
    { width: 640, height: 360, measure: measureInter },
  )
  return scene.batches.find(batch => batch.kind === kind && batch.part === 'data') as unknown as
    | (K extends 'areas' ? Areas : Lines)
    | undefined
}
const own = (starts: ArrayLike<number>, s: number, ...lists: ArrayLike<number>[]) =>
  Array.from({ length: starts[s + 1] - starts[s] }, (_, i) => lists.map(list => list[starts[s] + i]))

const load = fc.option(fc.integer({ min: 0, max: 20 }), { freq: 6 })
const places = fc.uniqueArray(fc.integer({ min: 0, max: 30 }), { minLength: 1, maxLength: 8 })
const series = (pier: string) =>
  places.chain(list =>
    fc.tuple(...list.map(() => load)).map(loads => list.map((at, i): Row => ({ at, load: loads[i], pier }))),
  )
const rowsArb = fc.tuple(series('Harbour'), series('Tern Point'), series('Gull Isle')).map(all => all.flat())

describe('areas that hold their values', () => {
  test('one alone has the very edge that a line has', () => {
    fc.assert(
      fc.property(series('Harbour'), fc.constantFrom(...HOLDS), (rows, between) => {
        // A line marks a value that holds for no time by a point.
        if (rows.filter(({ load }) => load !== null).length < rows.length || rows.length < 2) return
        const area = shapesOf(rows, 'area', between, 'stack', 'areas')!
        const line = shapesOf(rows, 'line', between, 'side', 'lines')!
        const vertices = (points: number[][]) => {
          const out = points.filter(([x, y]) => !Number.isNaN(x + y)).map(String)
          return out.filter((point, i) => point !== out[i - 1])
        }
        expect(vertices(own(area.starts, 0, area.atX!, area.atTop!))).toEqual(
          vertices(own(line.starts, 0, line.atX!, line.atY!)),
        )
      }),
    )
  })

  test('stacked, each stands on those before it, level from step to step, and none covers another', () => {
    fc.assert(
      fc.property(rowsArb, fc.constantFrom(...HOLDS), fc.boolean(), (rows, between, share) => {
        const area = shapesOf(rows, 'area', between, share ? 'share' : 'stack', 'areas')
        if (!area) return
        const bands = area.names.map((_, s) => own(area.starts, s, area.atX!, area.atTop!, area.atBase!))
        // What a place shows just to the right of it.
        const at = (band: number[][], x: number) => {
          const i = band.findLastIndex(([place]) => place <= x)
          const [from, to] = [band[i], band[i + 1]]
          if (!from || !to || to[0] <= x) return undefined
          return Number.isNaN(from[1] + to[1]) ? undefined : [from, to]
        }
        for (const x of new Set(bands.flat().map(([place]) => place))) {
          let pile = 0
          for (const band of bands) {
            const found = at(band, x)
            if (!found) continue
            const [from, to] = found
            expect(from.slice(1)).toEqual(to.slice(1))
            expect(from[2]).toBeCloseTo(pile, 9)
            pile = from[1]
          }
          if (share && pile > 0) expect(pile).toBeCloseTo(1, 9)
        }
      }),
    )
  })
})
