import { expect, test } from 'vitest'
import { difference, painted, quick } from '../../../../tests/support/painted.ts'
import type { Discs, Scene } from '../scene/scene.ts'

function cloud(colors: string[], alpha: number): Scene {
  const count = 2000
  const discs: Discs = {
    kind: 'discs',
    id: 'drawing 0/scatter',
    part: 'data',
    clip: false,
    keys: Array.from({ length: count }, (_, i) => i),
    colors,
    color: Uint16Array.from({ length: count }, (_, i) => i % colors.length),
    alpha: new Float32Array(count).fill(alpha),
    x: Float32Array.from({ length: count }, (_, i) => ((i * 7919) % 2003) / 10 - 1),
    y: Float32Array.from({ length: count }, (_, i) => ((i * 104_729) % 1511) / 10 - 1),
    radius: Float32Array.from({ length: count }, (_, i) => 2 + (i % 3)),
  }
  return { width: 200, height: 150, background: '#fdfcf9', batches: [discs] } as unknown as Scene
}

test.each([
  ['of one colour', ['#8b3a9b'], 0.3, 1],
  ['of several colours', ['#8b3a9b', '#9d8b22', '#0e7c5f'], 0.6, 1],
  ['on a fine screen', ['#8b3a9b', '#9d8b22'], 0.4, 2],
  ['that are solid', ['#8b3a9b', '#9d8b22'], 1, 1],
] as const)('points %s look stamped as they look painted one by one', (_, colors, alpha, density) => {
  const scene = cloud([...colors], alpha)
  const stamped = painted(scene, density, quick)
  const drawn = painted(scene, density, {})
  const { mean, far } = difference(stamped, drawn)
  expect(stamped).not.toEqual(drawn)
  expect(drawn.some((value, i) => i % 4 === 0 && value < 200)).toBe(true)
  // Edges are blended a little differently, by quarters of a pixel.
  expect(mean).toBeLessThan(5)
  expect(far).toBeLessThan(0.02)
})
