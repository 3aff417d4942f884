import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { chart } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'
import { extremes } from '../cells/pyramid.ts'
import { table } from '../open/read.ts'
import { followRuns } from './live-runs.ts'

interface Reading {
  id: number
  at: number | null
  load: number | null
  route: string | null
}

const ROUTES = ['Tern Point', 'Gannet Bay', 'North Sound'] as const
// In one order, or a table would remember its own.
const columns = {
  at: { type: 'number' },
  load: { type: 'number' },
  route: { type: 'text', order: [...ROUTES] as string[] },
} as const
const reading = (id: number): fc.Arbitrary<Reading> =>
  fc.record({
    id: fc.constant(id),
    at: fc.option(fc.integer({ min: 0, max: 30 }), { freq: 9 }),
    load: fc.option(fc.integer({ min: -9, max: 9 }), { freq: 9 }),
    route: fc.option(fc.constantFrom(...ROUTES), { freq: 9 }),
  })
const change = fc.oneof(
  { weight: 4, arbitrary: fc.record({ put: fc.nat(60).chain(reading) }) },
  { weight: 4, arbitrary: fc.record({ come: fc.nat(1e9).chain(reading) }) },
  // Moved, and changed where it is then.
  {
    weight: 2,
    arbitrary: fc.record({ moved: fc.nat(60).chain(reading), load: fc.integer({ min: -9, max: 9 }) }),
  },
  { weight: 2, arbitrary: fc.record({ drop: fc.integer({ min: 1, max: 5 }) }) },
  { weight: 1, arbitrary: fc.record({ remove: fc.nat(60) }) },
  { weight: 1, arbitrary: fc.record({ seventh: fc.nat(6) }) },
)
const histories = fc.tuple(
  fc.array(fc.nat(60).chain(reading), { minLength: 1, maxLength: 40 }),
  fc.array(change, { minLength: 1, maxLength: 16 }),
)
/** Whether somebody looks after each step: what nobody looks at is put in its place later. */
const looks = fc.array(fc.boolean(), { minLength: 17, maxLength: 17 })
const began = (first: readonly Reading[]) =>
  table<Reading>([...new Map(first.map(row => [row.id, row])).values()], { key: 'id', columns })

function apply(
  live: ReturnType<typeof began>,
  step: typeof change extends fc.Arbitrary<infer C> ? C : never,
) {
  if ('put' in step) live.put([step.put])
  else if ('moved' in step) live.put([step.moved]).put([{ ...step.moved, load: step.load }])
  else if ('come' in step)
    live.append([{ ...step.come, id: step.come.id + 100 + live.version.peek() * 1e10 }])
  else if ('drop' in step) live.dropFirst(step.drop)
  else if ('remove' in step) live.remove(step.remove)
  else live.removeWhere(({ id }) => id % 7 === step.seventh)
}

test('runs are the rows in their order, after any history', () => {
  fc.assert(
    fc.property(histories, looks, fc.boolean(), ([first, steps], looked, apart) => {
      const live = began(first)
      const [at, load, route] = ['at', 'load', 'route'].map(name => live.column(name)!)
      const kept = () => followRuns(live, at, load, apart ? route : undefined)
      const runs = kept()
      for (const [i, step] of [undefined, ...steps].entries()) {
        if (step) apply(live, step)
        if (i < steps.length && !looked[i]) continue
        expect(kept()).toBe(runs)
        const words = route.cells.type === 'text' ? route.cells.words : []
        for (const code of apart ? [-1, ...words.keys()] : [0]) {
          const own = live
            .rows()
            .map((row, i) => ({ ...row, i }))
            .filter(row => row.at !== null && (!apart || (row.route ?? '') === (words[code] ?? '')))
            .sort((a, b) => a.at! - b.at! || a.i - b.i)
          const found = runs!.of(code)
          expect(Array.from(found?.along ?? [], (_, place) => found!.rowOf(place))).toEqual(
            own.map(({ i }) => i),
          )
          expect(Array.from(found?.along ?? [])).toEqual(own.map(row => row.at))
          const values = own.map(row => row.load ?? Number.NaN)
          expect(Array.from(found?.values ?? [])).toEqual(values)
          if (!found) continue
          expect(found.pyramid.missing).toBe(values.filter(Number.isNaN).length)
          const half = Math.floor(own.length / 3)
          const present = values.slice(half).filter(value => !Number.isNaN(value))
          expect({ ...extremes(found.pyramid, half, own.length) }).toEqual({
            min: Math.min(...present),
            max: Math.max(...present),
          })
        }
      }
    }),
    { numRuns: runs(300) },
  )
})

test('lines over rows that come late, change and age are drawn as over a fresh table', () => {
  const frame = { width: 500, height: 300, measure: measureInter }
  fc.assert(
    fc.property(histories, looks, fc.constantFrom('route', undefined), ([first, steps], looked, color) => {
      const live = began(first)
      const lines = { draw: 'line', x: 'at', y: 'load', ...(color && { color }) } as const
      const view = new View(chart(live, lines), {}, frame)
      for (const [i, step] of steps.entries()) {
        if (looked[i]) void view.scene
        apply(live, step)
      }
      if (live.length === 0) return
      const shapes = ({ scene }: View) =>
        scene.batches.flatMap(batch =>
          batch.kind === 'lines' && batch.part === 'data'
            ? [[batch.names, Array.from(batch.starts), Array.from(batch.atX), Array.from(batch.atY)]]
            : [],
        )
      const fresh = table<Reading>(live.rows(), { key: 'id', columns })
      const other = new View(chart(fresh, lines), {}, frame)
      expect(shapes(view)).toEqual(shapes(other))
    }),
    { numRuns: runs(60) },
  )
})
