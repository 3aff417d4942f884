import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { MARKERS, traceMarker } from '../scene/marker.ts'
import type { Areas, Pixels, Wedges } from '../scene/scene.ts'
import { traceBands } from './bands.ts'
import { pixelRuns } from './pixels.ts'
import { snapped } from './snap.ts'
import { traceWedge } from './wedge.ts'

type Point = readonly [number, number]

/** Follows a path, curves in small steps; one list of points for each closed part. */
function follower() {
  const parts: Point[][] = []
  let now: Point[] = []
  const sink = {
    moveTo(x: number, y: number) {
      now = [[x, y]]
      parts.push(now)
    },
    lineTo(x: number, y: number) {
      now.push([x, y])
    },
    bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number) {
      const [x0, y0] = now[now.length - 1]
      for (let i = 1; i <= 40; i++) {
        const [t, s] = [i / 40, 1 - i / 40]
        const mix = (a: number, b: number, c: number, d: number) =>
          s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d
        now.push([mix(x0, x1, x2, x), mix(y0, y1, y2, y)])
      }
    },
    closePath() {},
  }
  return { sink, parts }
}
const area = (points: readonly Point[]) =>
  points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length]
    return sum + (x * ny - nx * y) / 2
  }, 0)

describe('a slice', () => {
  const wedge = (from: number, to: number, inner: number, outer: number): Wedges => ({
    kind: 'wedges',
    id: 'slices',
    part: 'data',
    clip: false,
    keys: [0],
    colors: ['#006569'],
    color: Uint16Array.of(0),
    x: Float32Array.of(100),
    y: Float32Array.of(80),
    from: Float32Array.of(from),
    to: Float32Array.of(to),
    inner: Float32Array.of(inner),
    outer: Float32Array.of(outer),
    ring: { color: '#ffffff', width: 1 },
  })
  const angle = fc.double({ min: 0, max: Math.PI * 2, noNaN: true })

  test('has the area of its angle, and stays between its rims', () => {
    fc.assert(
      fc.property(angle, angle, fc.integer({ min: 0, max: 60 }), (a, b, inner) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)]
        fc.pre(to - from > 0.01)
        const { sink, parts } = follower()
        traceWedge(wedge(from, to, inner, 70), 0, sink)
        const found = Math.abs(parts.reduce((sum, points) => sum + area(points), 0))
        expect(found).toBeCloseTo(((to - from) / 2) * (70 ** 2 - inner ** 2), -1)
        for (const [x, y] of parts.flat()) {
          const reach = Math.hypot(x - 100, y - 80)
          expect(reach).toBeLessThan(70.01)
          expect(inner === 0 || reach > inner - 0.01).toBe(true)
        }
      }),
    )
  })

  test('of the whole turn has no cut, and one without an angle is nothing', () => {
    const { sink, parts } = follower()
    traceWedge(wedge(0, Math.PI * 2, 30, 70), 0, sink)
    expect(parts).toHaveLength(2)
    for (const [i, rim] of [70, 30].entries())
      for (const [x, y] of parts[i]) expect(Math.hypot(x - 100, y - 80)).toBeCloseTo(rim, 1)
    const none = follower()
    traceWedge(wedge(1, 1, 0, 70), 0, none.sink)
    expect(none.parts).toHaveLength(0)
  })
})

test('a band encloses what lies between its edges, and missing vertices part it', () => {
  const edge = fc.option(fc.integer({ min: 0, max: 50 }), { nil: Number.NaN })
  fc.assert(
    fc.property(fc.array(edge, { minLength: 1, maxLength: 20 }), list => {
      const batch = {
        starts: Uint32Array.of(0, list.length),
        x: Float32Array.from(list, (_, i) => i * 10),
        top: Float32Array.from(list),
        base: new Float32Array(list.length).fill(60),
      } as Areas
      const { sink, parts } = follower()
      let closed = 0
      traceBands(batch, 0, sink, () => closed++)
      let expected = 0
      let runs = 0
      for (let i = 1; i < list.length; i++) {
        const [a, b] = [list[i - 1], list[i]]
        if (Number.isNaN(a) || Number.isNaN(b)) continue
        expected += (10 * (60 - a + 60 - b)) / 2
        if (i === 1 || Number.isNaN(list[i - 2])) runs++
      }
      expect(closed).toBe(runs)
      expect(parts).toHaveLength(runs)
      expect(Math.abs(parts.reduce((sum, points) => sum + area(points), 0))).toBeCloseTo(expected, 3)
    }),
  )
})

test('every form of a point covers about the area of the disc of its radius', () => {
  for (const form of MARKERS) {
    if (form === 'disc') continue
    const { sink, parts } = follower()
    traceMarker(form, 50, 40, 10, sink)
    const found = Math.abs(parts.reduce((sum, points) => sum + area(points), 0))
    expect(found / (Math.PI * 100), form).toBeGreaterThan(0.6)
    expect(found / (Math.PI * 100), form).toBeLessThan(1.3)
    const xs = parts.flat().map(([x]) => x)
    expect((Math.min(...xs) + Math.max(...xs)) / 2).toBeCloseTo(50, 1)
  }
})

test('a picture is put together again from its runs, within what an eye tells apart', () => {
  const part = fc.integer({ min: 0, max: 255 })
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 8 }),
      fc.array(
        fc.oneof(
          fc.constant([0, 0, 0, 0]),
          fc.constant([200, 30, 90, 255]),
          fc.tuple(part, part, part, part),
        ),
        {
          minLength: 8,
          maxLength: 64,
        },
      ),
      (columns, list) => {
        const rows = Math.floor(list.length / columns)
        fc.pre(rows > 0)
        const rgba = Uint8ClampedArray.from(list.slice(0, rows * columns).flat())
        const out = new Float64Array(rgba.length)
        for (const { color, opacity, runs } of pixelRuns({ columns, rgba } as Pixels)) {
          const rgb = [1, 3, 5].map(i => Number.parseInt(color.slice(i, i + 2), 16))
          for (const [column, row, length] of runs)
            for (let k = 0; k < length; k++) {
              const i = (row * columns + column + k) * 4
              expect(out[i + 3]).toBe(0)
              out.set([...rgb, opacity * 255], i)
            }
        }
        for (let i = 0; i < rgba.length; i += 4) {
          expect(out[i + 3] > 0).toBe(rgba[i + 3] > 0)
          if (rgba[i + 3] > 0)
            for (let k = 0; k < 4; k++) expect(Math.abs(out[i + k] - rgba[i + k])).toBeLessThanOrEqual(8)
        }
      },
    ),
  )
})

test('level and upright lines fill whole device pixels; slanting ones stay', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 800, noNaN: true }),
      fc.constantFrom(1, 1.5, 2, 3),
      fc.constantFrom(1, 2),
      (at, density, width) => {
        const [x1, y1, x2, y2] = snapped(at, 10.3, at, 99.7, width, density)
        expect(x1).toBe(x2)
        expect([y1, y2]).toEqual([10.3, 99.7])
        // Its edges, half a width to both sides, are edges of pixels.
        const edge = x1 * density - Math.round(width * density) / 2
        expect(Math.abs(edge - Math.round(edge))).toBeLessThan(1e-6)
        expect(Math.abs(x1 - at)).toBeLessThanOrEqual(1 / density)
      },
    ),
  )
  expect([...snapped(1.2, 3.4, 5.6, 7.8, 1, 2)]).toEqual([1.2, 3.4, 5.6, 7.8])
})
