import { expect, test } from 'vitest'
import { chart, compose, type Description, type Scene, table } from '../index.ts'
import { between } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { decimalsBetween, roundedTo } from './figures.ts'

/** Words that pass each other on their way are not printed over each other, but for a touch of their edges. */

const FRAME = { width: 640, height: 400, measure: measureInter }
const sceneOf = (carried: [string, number][], description: Description) =>
  compose(chart(table(carried.map(([pier, carried]) => ({ pier, carried }))), description), {}, FRAME)
const RANKED: Description = {
  draw: 'bar',
  x: 'carried',
  y: 'pier',
  order: 'ranked',
  label: true,
  scales: { x: { domain: [0, 100] } },
}
const BEFORE: [string, number][] = [
  ['Gannet Slip', 90],
  ['Harbour', 60],
  ['Kelp Quay', 40],
]
const AFTER: [string, number][] = [
  ['Gannet Slip', 42],
  ['Harbour', 61],
  ['Kelp Quay', 88],
]

/** The labels at the shapes of a scene that are more seen than not, with the box that each takes. */
function seenLabels(scene: Scene) {
  return scene.batches.flatMap(batch =>
    batch.kind === 'texts' && batch.of !== undefined
      ? batch.texts.flatMap((text, i) => {
          const width = measureInter(text, { size: batch.size, weight: batch.weight })
          const left = batch.x[i] - { start: 0, middle: 0.5, end: 1 }[batch.anchor] * width
          const seen = (batch.alpha?.[i] ?? 1) > 0.5
          return seen ? [{ text, left, right: left + width, base: batch.y[i], size: batch.size }] : []
        })
      : [],
  )
}

test('labels of bars that pass each other give way, and all are there at the end', () => {
  const motion = between(sceneOf(BEFORE, RANKED), sceneOf(AFTER, RANKED))
  let fewest = Number.POSITIVE_INFINITY
  for (let step = 1; step <= 200; step++) {
    const labels = seenLabels(motion(step / 200, step / 200))
    fewest = Math.min(fewest, labels.length)
    labels.forEach((a, i) => {
      for (const b of labels.slice(i + 1)) {
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left)
        const down = a.size * 0.7 - Math.abs(a.base - b.base)
        expect(Math.min(across, down), `${a.text} over ${b.text} at ${step / 200}`).toBeLessThan(3)
      }
    })
  }
  expect(fewest).toBe(2)
  expect(seenLabels(motion(1, 1)).map(({ text }) => text)).toHaveLength(3)
})

test('a label that comes to stand at its other edge starts where it was', () => {
  const labelOf = (scene: Scene) => seenLabels(scene)[0]
  const before = sceneOf([['Harbour', -80]], { ...RANKED, scales: { x: { domain: [-100, 100] } } })
  const after = sceneOf([['Harbour', 80]], { ...RANKED, scales: { x: { domain: [-100, 100] } } })
  const start = labelOf(between(before, after, 'before')(0.001, 0.001))
  const was = labelOf(before)
  expect(labelOf(after).left).toBeGreaterThan(was.right)
  expect(Math.abs((start.left + start.right - was.left - was.right) / 2)).toBeLessThan(6)
})

test('a number on its way has the decimals of its ends, and one too large to be rounded is said as it is', () => {
  expect(roundedTo(1.2345, decimalsBetween(1, 1.5))).toBe(1.2)
  expect(roundedTo(1.5e308, decimalsBetween(0.5, 1.7e308))).toBe(1.5e308)
})
