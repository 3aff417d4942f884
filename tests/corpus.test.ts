import { expect, test } from 'vitest'
// @ts-expect-error Plain modules, so that the command for all of them runs without a build of its own.
import { PICTURES } from './corpus/charts.mjs'
// @ts-expect-error
import { drawPicture } from './corpus/draw.mjs'
// @ts-expect-error
import { faultsOf } from './corpus/faults.mjs'

/** A tenth of the corpus, another size for each chart; `npm run corpus` draws all of it, and contact sheets to look at. */
const some = PICTURES.filter((_: unknown, i: number) => i % 6 === Math.floor(i / 6) % 6)

test('pictures of tables unlike the demo’s have no fault that can be read off them', () => {
  expect(some.length).toBeGreaterThan(45)
  let drawn = 0
  const faults = some.flatMap((picture: { name: string }) => {
    const { scene, refusal } = drawPicture(picture)
    if (refusal) return [`${picture.name}: ${refusal}`]
    drawn += scene.batches.length > 0 ? 1 : 0
    return faultsOf(scene).map((fault: string) => `${picture.name}: ${fault}`)
  })
  expect(faults).toEqual([])
  expect(drawn).toBe(some.length)
})

test('the checks see what they are for', () => {
  const [picture] = PICTURES.filter(
    ({ table, frame }: any) => table === 'both sides of zero' && frame.width === 640,
  )
  const { scene } = drawPicture(picture)
  const spoil = (change: (batch: any) => any) => faultsOf({ ...scene, batches: scene.batches.map(change) })
  const text = (change: object) => (batch: any) => (batch.kind === 'texts' ? { ...batch, ...change } : batch)
  expect(faultsOf(scene)).toEqual([])
  expect(
    spoil(batch => (batch.kind === 'texts' ? { ...batch, x: batch.x.map(() => 9) } : batch)).join(),
  ).toMatch(/touches/)
  expect(spoil(text({ colors: new Array(9).fill(scene.background) })).join()).toMatch(/faint/)
  expect(
    spoil(batch =>
      batch.part === 'data'
        ? { ...batch, colors: batch.colors.map((_: string, i: number) => `#80808${i}`) }
        : batch,
    ).join(),
  ).toMatch(/look alike/)
  expect(
    spoil(batch =>
      /axis y.labels/.test(batch.id) ? { ...batch, at: batch.at.map((at: number) => at ** 3) } : batch,
    ).join(),
  ).toMatch(/uneven/)
})
