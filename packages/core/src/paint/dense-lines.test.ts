import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { difference, painted, quick } from '../../../../tests/support/painted.ts'
import type { Lines, Scene } from '../scene/scene.ts'

const WIDTH = 400
const HEIGHT = 200

/** Lines through the given heights, from left to right. */
function scene(heights: readonly (readonly number[])[], own: Partial<Lines> = {}, part = 1): Scene {
  const flat = heights.flat()
  const counts = heights.map(line => line.length)
  const lines: Partial<Lines> = {
    kind: 'lines',
    id: 'drawing 0/line',
    part: 'data',
    clip: false,
    keys: flat.map((_, i) => i),
    colors: ['#057f5f', '#b04a00', '#3d6bd6'],
    color: Uint16Array.from(heights, (_, i) => i % 3),
    alpha: new Float32Array(heights.length).fill(part),
    starts: Uint32Array.from([0, ...counts.map((_, i) => counts.slice(0, i + 1).reduce((a, b) => a + b))]),
    x: Float32Array.from(heights.flatMap(line => line.map((_, i) => (i * WIDTH) / (line.length - 1)))),
    y: Float32Array.from(flat),
    width: new Float32Array(heights.length).fill(1.5),
    dash: heights.map(() => []),
    names: heights.map((_, i) => String(i)),
    ...own,
  }
  return { width: WIDTH, height: HEIGHT, background: '#fdfcf9', batches: [lines] } as unknown as Scene
}

/** The same picture with every line stroked by the canvas. */
const both = (one: Scene, density: number) => ({
  dense: painted(one, density, quick),
  stroked: painted(one, density, { ...quick, shapes: true }),
})

const zigzag = (from: number, count = 900) =>
  Array.from({ length: count }, (_, i) => from + 30 * Math.sin(i / 40) + ((i * 37) % 17))
/** A line that is missing here and there, and for single values between gaps. */
const broken = zigzag(60).map((height, i) => (i % 50 < 3 || i % 50 === 4 ? Number.NaN : height))

test.each([
  ['on a plain screen', scene([zigzag(40), zigzag(80), zigzag(120)]), 1],
  ['on a fine screen', scene([zigzag(40), zigzag(80)], { width: new Float32Array(2).fill(1) }), 2],
  ['on a screen of odd fineness', scene([zigzag(40), zigzag(80)]), 1.25],
  ['that show through', scene([zigzag(40), zigzag(60)], {}, 0.35), 1],
  ['that break off', scene([broken, zigzag(80)]), 1],
  ['that end flat', scene([broken, zigzag(80)], { flat: true }), 1],
  ['that are wide', scene([zigzag(40), zigzag(120)], { width: new Float32Array([2, 1.8]) }), 1],
  [
    'that are thinner than a pixel',
    scene([zigzag(40), zigzag(120)], { width: new Float32Array(2).fill(0.5) }),
    1,
  ],
  ['that leave the picture', scene([zigzag(-40), zigzag(190), zigzag(80).map(y => (y - 90) * 60)]), 1],
  ['of many vertices to a pixel', scene([zigzag(40, 4000)]), 1],
] as const)('lines of very many vertices %s look as they are stroked', (_, one, density) => {
  const { dense, stroked } = both(one, density)
  const { mean, far } = difference(dense, stroked)
  expect(difference(stroked, painted({ ...one, batches: [] }, density, {})).mean).toBeGreaterThan(1)
  // They are painted in another way, so never to the last byte alike.
  expect(mean).toBeGreaterThan(0)
  expect([mean, far]).toEqual([expect.toSatisfy(value => value < 2), expect.toSatisfy(value => value < 0.01)])
})

test('whatever way lines take, they are painted where they are stroked', () => {
  const step = fc.tuple(fc.double({ min: -20, max: 20, noNaN: true }), fc.integer({ min: 1, max: 60 }))
  const gap = fc.integer({ min: 0, max: 1600 })
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), gap, (steps, gap) => {
      let height = 100
      const heights = Array.from({ length: 1600 }, (_, i) => {
        const [by, every] = steps[i % steps.length]
        height = (((height + (i % every === 0 ? by : 0)) % 260) + 260) % 260
        return i === gap ? Number.NaN : height - 30
      })
      const { dense, stroked } = both(scene([heights]), 1)
      const { mean, far } = difference(dense, stroked)
      expect(mean).toBeLessThan(3)
      expect(far).toBeLessThan(0.02)
    }),
    { numRuns: runs(60) },
  )
})

test('few vertices, dashes, curves and colours that cannot be read are left to the canvas', () => {
  const lines = [zigzag(40), zigzag(80)]
  for (const one of [
    scene([zigzag(40, 600), zigzag(80, 600)]),
    scene(lines, { dash: [[4, 2], []] }),
    scene(lines, { smooth: true }),
    scene(lines, { colors: ['teal', 'rgba(0, 0, 0, 0.5)', '#000000'] }),
    scene(lines, { width: new Float32Array([1.5, 4]) }),
  ]) {
    const { dense, stroked } = both(one, 1)
    expect(difference(dense, stroked).mean).toBe(0)
  }
})
