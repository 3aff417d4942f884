import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { chart, type Pixels, table } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'

const COUNT = 40_000
const clouds = Array.from({ length: COUNT }, (_, i) => ({
  wind: ((i * 7919) % 9973) / 100 + 0.1,
  delay: i % 400 === 0 ? Number.NaN : ((i * 104_729) % 997) / 10 + 0.5,
  vessel: ['Fulmar', 'Dunlin', 'Petrel'][(i >> 2) % 3],
  // Islands with empty room between them.
})).filter(({ wind, delay }) => (Math.floor(wind / 13) + Math.floor(delay / 17)) % 3 !== 0)
const columns = {
  wind: Float64Array.from(clouds, ({ wind }) => wind),
  delay: Float64Array.from(clouds, ({ delay }) => delay),
  vessel: clouds.map(({ vessel }) => vessel),
}
const frame = { width: 500, height: 320, measure: measureInter }

test.each([
  ['of one colour', {}],
  ['of several colours', { color: 'vessel' }],
  ['on a logarithmic scale', { color: 'vessel', scales: { x: { kind: 'log' } } }],
] as const)(
  'very many points %s look the same while a person zooms as in a picture of their own',
  (_, more) => {
    const description = { draw: 'scatter', x: 'wind', y: 'delay', ...more } as const
    const view = new View(chart(table(columns), description), {}, frame)
    const cloud = (of: View) =>
      Buffer.from(of.scene.batches.find((batch): batch is Pixels => batch.kind === 'pixels')!.rgba)
    const inView = fc.tuple(fc.integer({ min: 1, max: 90 }), fc.integer({ min: 2, max: 60 }))
    void view.scene
    fc.assert(
      fc.property(inView, inView, ([x, wide], [y, high]) => {
        const zoom = { x: [x, x + wide] as [number, number], y: [y, y + high] as [number, number] }
        view.state.value = { zoom }
        // Of a table of its own, which nobody has looked at before.
        const anew = new View(chart(table(columns), description), { zoom }, frame)
        expect(Buffer.compare(cloud(view), cloud(anew))).toBe(0)
      }),
      { numRuns: runs(25) },
    )
  },
)

test('points that come, change and go while a person zooms look as if all had been there from the first', () => {
  const vessels = ['Fulmar', 'Dunlin', 'Petrel', 'Skua']
  const row = (id: number, seed: number) => ({
    id,
    wind: ((id * 7919 + seed) % 9973) / 100 + 0.1,
    delay: (id + seed) % 400 === 0 ? null : (((id + seed) * 104_729) % 997) / 10 + 0.5,
    vessel: vessels[(id >> 2) % 3],
  })
  const places = { draw: 'scatter', x: 'wind', y: 'delay' } as const
  const cloud = (of: View) =>
    Buffer.from(of.scene.batches.find((batch): batch is Pixels => batch.kind === 'pixels')!.rgba)
  const deed = fc.record({
    does: fc.constantFrom('append', 'append', 'many', 'newcomer', 'put', 'remove', 'look'),
    seed: fc.nat(9999),
  })
  fc.assert(
    fc.property(fc.boolean(), fc.array(deed, { minLength: 2, maxLength: 9 }), (colored, deeds) => {
      const description = { ...places, ...(colored && ({ color: 'vessel' } as const)) }
      const rows = Array.from({ length: 22_000 }, (_, id) => row(id, 0))
      const live = table(rows, { key: 'id' })
      const view = new View(chart(live, description), {}, frame)
      let next = rows.length
      for (const { does, seed } of deeds) {
        const count = does === 'many' ? 6000 : 3
        if (does === 'append' || does === 'many')
          live.append(Array.from({ length: count }, () => row(next++, seed)))
        else if (does === 'newcomer') live.append([{ ...row(next++, seed), vessel: vessels[seed % 4] }])
        else if (does === 'put') live.put([row(seed, seed)])
        else if (does === 'remove') live.remove(seed)
        const low = seed % 50
        const zoom = {
          x: [low, low + 30] as [number, number],
          y: [low / 2, low / 2 + 40] as [number, number],
        }
        // From the second picture of the same points on they are put in order.
        view.state.value = { zoom: { x: [low, low + 31] } }
        void view.scene
        view.state.value = { zoom }
        const anew = new View(chart(table(live.rows(), { key: 'id' }), description), { zoom }, frame)
        expect(Buffer.compare(cloud(view), cloud(anew))).toBe(0)
      }
    }),
    { numRuns: runs(10) },
  )
})

test('points that come to lie in empty room are drawn while a person zooms', () => {
  const wind = Float64Array.from({ length: 22_000 }, (_, i) => ((i * 7919) % 9973) / 400)
  const delay = Float64Array.from({ length: 22_000 }, (_, i) => ((i * 104_729) % 9967) / 400)
  const live = table({ wind, delay })
  const description = { draw: 'scatter', x: 'wind', y: 'delay' } as const
  const view = new View(chart(live, description), {}, frame)
  const cloud = (of: View) =>
    Buffer.from(of.scene.batches.find((batch): batch is Pixels => batch.kind === 'pixels')!.rgba)
  const zoomed = (far: number) => ({ zoom: { x: [0, far], y: [0, far] } }) as const
  for (const far of [99, 98]) {
    view.state.value = zoomed(far)
    void view.scene
  }
  live.append([
    { wind: 60, delay: 40 },
    { wind: 90, delay: 80 },
  ])
  view.state.value = zoomed(97)
  const anew = new View(chart(table(live.rows()), description), zoomed(97), frame)
  expect(Buffer.compare(cloud(view), cloud(anew))).toBe(0)
})
