import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, type Description, type Frame, type Scene, table } from '../index.ts'
import { appear, between, carrying, readEasing } from '../internal.ts'
import { paintSvg } from '../paint/svg.ts'
import { shapeCount } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { spring } from './spring.ts'

const frame: Frame = { width: 600, height: 400, measure: measureInter }
type Row = { id: string; at: number; n: number; g: string }
const tableOf = (rows: Row[]) => table(rows, { key: 'id' })
const sceneOf = (
  rows: Row[],
  draw: 'line' | 'area' | 'bar' | 'scatter',
  more: Partial<Description<Row>> = {},
) =>
  compose(chart(tableOf(rows), { draw, x: 'at', y: 'n', color: 'g', ...more } as Description<Row>), {}, frame)
const data = (scene: Scene) => scene.batches.filter(batch => batch.part === 'data')

const rowsOf = fc
  .uniqueArray(
    fc.record({
      at: fc.integer({ min: 0, max: 40 }),
      n: fc.integer({ min: -50, max: 100 }),
      g: fc.constantFrom('p', 'q'),
    }),
    { minLength: 1, maxLength: 20, selector: row => `${row.at}${row.g}` },
  )
  .map(rows => rows.map(row => ({ ...row, id: `${row.at}${row.g}` })))

/** Where each key of a kind stands. */
function standing(scene: Scene) {
  const places = new Map<string, [number, number]>()
  for (const batch of data(scene)) {
    for (let i = 0; i < batch.keys.length; i++) {
      if (batch.kind === 'discs') places.set(`${batch.keys[i]}`, [batch.x[i], batch.y[i]])
      if (batch.kind === 'rects') places.set(`${batch.keys[i]}`, [batch.x[i], batch.y[i]])
    }
  }
  return places
}

describe('a glide', () => {
  test('begins where shapes stand, ends in the second scene itself, and is finite on the way', () => {
    fc.assert(
      fc.property(
        rowsOf,
        rowsOf,
        fc.constantFrom('line' as const, 'area' as const, 'bar' as const, 'scatter' as const),
        fc.constantFrom('line' as const, 'area' as const, 'bar' as const, 'scatter' as const),
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        (before, after, kindA, kindB, t) => {
          const from = sceneOf(before, kindA)
          const to = sceneOf(after, kindB)
          const motion = between(from, to)
          expect(motion(1, 1)).toBe(to)
          for (const batch of motion(t, t).batches) {
            if (batch.kind === 'lines' || batch.kind === 'texts' || batch.kind === 'areas') continue
            const arrays =
              batch.kind === 'segments'
                ? [batch.x1, batch.y1, batch.x2, batch.y2]
                : batch.kind === 'rects'
                  ? [batch.x, batch.y, batch.width, batch.height]
                  : [batch.x, batch.y]
            for (const array of arrays) for (const value of array) expect(Number.isFinite(value)).toBe(true)
          }
          if (kindA !== kindB || kindA === 'line') return
          const start = standing(motion(0, 0))
          for (const [key, place] of standing(from)) {
            const now = start.get(key)
            if (!now || !standing(to).has(key)) continue
            expect(now[0]).toBeCloseTo(place[0], 3)
            expect(now[1]).toBeCloseTo(place[1], 3)
          }
        },
      ),
      { numRuns: runs(120) },
    )
  })

  test('interrupted again and again, between charts of any kind, is a picture all the time', () => {
    const looks = fc.constantFrom<Partial<Description<Row>>>(
      {},
      { label: true },
      { draw: 'scatter', shape: 'g', size: 'n' } as never,
      { draw: 'scatter', color: 'n' },
      { draw: 'bar', arrange: 'stack', legend: 'right' },
      { draw: 'area', arrange: 'overlap', title: 'A title' },
      { draw: 'heatmap', x: 'at', y: 'g', color: 'sum of n' },
      { draw: 'pie', x: 'g', y: 'count' },
      { draw: 'line', dash: 'g', points: true, scales: { y: { kind: 'signed log' } } } as never,
      { draw: 'bar', x: 'sum of n', y: 'g', order: 'ranked' },
    )
    const part = fc.double({ min: 0, max: 0.999, noNaN: true })
    fc.assert(
      fc.property(fc.array(fc.tuple(rowsOf, looks, part), { minLength: 2, maxLength: 5 }), steps => {
        let shown = sceneOf(steps[0][0], 'scatter', steps[0][1])
        for (const [rows, look, t] of steps) {
          const next = sceneOf(rows, 'scatter', look)
          const motion = between(shown, next)
          expect(motion(1, 1)).toBe(next)
          shown = motion(t, t)
          for (const batch of shown.batches) {
            const count = shapeCount(batch)
            expect(batch.color.length).toBeGreaterThanOrEqual(count)
            if (batch.alpha) expect(batch.alpha.length).toBeGreaterThanOrEqual(count)
          }
          expect(paintSvg(shown)).not.toMatch(/NaN|undefined|Infinity/)
        }
      }),
      { numRuns: runs(100) },
    )
  })

  test('interrupted, goes on from what is on screen', () => {
    fc.assert(
      fc.property(rowsOf, rowsOf, rowsOf, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (a, b, c, t) => {
        const midway = between(sceneOf(a, 'scatter'), sceneOf(b, 'scatter'))(t, t)
        const shown = standing(midway)
        const start = standing(between(midway, sceneOf(c, 'scatter'))(0, 0))
        const last = standing(sceneOf(c, 'scatter'))
        for (const [key, place] of start) {
          if (!shown.has(key) || !last.has(key)) continue
          expect(place[0]).toBeCloseTo(shown.get(key)![0], 2)
          expect(place[1]).toBeCloseTo(shown.get(key)![1], 2)
        }
      }),
      { numRuns: runs(60) },
    )
  })

  test('of a line that grows at its end moves old points only as the scales do', () => {
    const rows = Array.from({ length: 20 }, (_, i) => ({ id: `${i}`, at: i, n: (i * 7) % 11, g: 'p' }))
    const from = sceneOf(rows, 'line', { color: null, axes: { x: false } })
    const to = sceneOf([...rows, { id: '20', at: 20, n: 5, g: 'p' }], 'line', {
      color: null,
      axes: { x: false },
    })
    const line = between(from, to)(0.5, 0.5).batches.find(batch => batch.kind === 'lines')
    if (line?.kind !== 'lines') throw new Error('There is no line')
    for (let i = 0; i < 20; i++) {
      const half = (from.scales.get('x')!.map(i) + to.scales.get('x')!.map(i)) / 2
      expect(line.x[i]).toBeCloseTo(half, 2)
    }
    expect(line.x.length).toBe(21)
  })

  test('of a point set into a line starts on the line', () => {
    const rows = [0, 10].map(at => ({ id: `${at}`, at, n: at, g: 'p' }))
    const from = sceneOf(rows, 'line', { color: null })
    const to = sceneOf([...rows, { id: 'm', at: 5, n: 0, g: 'p' }], 'line', { color: null })
    const line = between(from, to)(0, 0).batches.find(batch => batch.id === 'drawing 0/line')
    if (line?.kind !== 'lines') throw new Error('There is no line')
    expect(line.y[1]).toBeCloseTo((line.y[0] + line.y[2]) / 2, 3)
  })

  test('carries values across a change of kind', () => {
    const rows = [0, 1, 2].map(at => ({ id: `${at}`, at, n: at + 1, g: 'p' }))
    const live = tableOf(rows)
    const bars = chart(live, { draw: 'bar', x: 'at', y: 'n' })
    const from = compose(bars, {}, frame)
    const to = compose(bars.with({ draw: 'scatter' }), {}, frame)
    const start = between(from, to)(0, 0).batches.find(batch => batch.kind === 'discs')
    const bar = data(from)[0]
    if (start?.kind !== 'discs' || bar.kind !== 'rects') throw new Error('There are no shapes')
    expect(start.y[2]).toBeCloseTo(bar.y[2], 3)
    expect(start.x[2]).toBeCloseTo(bar.x[2] + bar.width[2] / 2, 3)
  })

  test('of a first appearance grows bars from the baseline', () => {
    const to = sceneOf([{ id: 'a', at: 1, n: 5, g: 'p' }], 'bar')
    const bars = appear(to)(0, 0).batches.find(batch => batch.id === 'drawing 0/bar')
    if (bars?.kind !== 'rects') throw new Error('There are no bars')
    expect(bars.height[0]).toBe(0)
    expect(bars.y[0]).toBeCloseTo(to.scales.get('y')!.map(0), 3)
  })
})

describe('a spring', () => {
  test('goes from where things are to where they belong, and rests there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 900, noNaN: true }),
        fc.double({ min: 2, max: 80, noNaN: true }),
        (stiffness, damping) => {
          const pull = spring({ stiffness, damping })
          expect(pull.progress(0)).toBeCloseTo(0, 9)
          expect(pull.carry(0)).toBeCloseTo(0, 9)
          expect(pull.progress(pull.duration)).toBe(1)
          if (pull.duration < 10_000) expect(pull.progress(pull.duration - 1e-6)).toBeCloseTo(1, 1)
          // It starts at rest, and what it is given as speed it has.
          expect(pull.progress(0.01) / 0.01).toBeLessThan(0.02)
          expect(pull.carry(0.01) / 0.01).toBeCloseTo(1, 2)
        },
      ),
    )
  })

  test('that is interrupted jumps neither in place nor in speed', () => {
    fc.assert(
      fc.property(
        rowsOf,
        rowsOf,
        rowsOf,
        fc.double({ min: 20, max: 300, noNaN: true }),
        (a, b, c, moment) => {
          const pull = spring(true)
          const first = between(sceneOf(a, 'scatter'), sceneOf(b, 'scatter'))
          const shown = (time: number) => first(pull.progress(time), 0.5)
          const soon = standing(shown(moment + 8))
          const kept = standing(shown(moment))
          const speed = new Map(
            [...kept].map(([key, [x, y]]) => [
              key,
              [(soon.get(key)![0] - x) / 8, (soon.get(key)![1] - y) / 8],
            ]),
          )
          const goal = sceneOf(c, 'scatter')
          const carry = carrying(shown, moment, 8)
          const second = between(shown(moment), goal)
          const at = (time: number) => standing(carry(second(pull.progress(time), 0.5), pull.carry(time)))
          const last = standing(goal)
          const start = at(0)
          const next = at(1)
          for (const [key, place] of start) {
            const before = kept.get(key)
            if (!before || !last.has(key)) continue
            for (const axis of [0, 1]) {
              expect(Math.abs(place[axis] - before[axis])).toBeLessThan(0.01)
              const pace = next.get(key)![axis] - place[axis]
              const pulled = Math.abs(last.get(key)![axis] - before[axis]) * pull.progress(1)
              expect(Math.abs(pace - speed.get(key)![axis])).toBeLessThan(
                0.05 + pulled + Math.abs(pace) * 0.06,
              )
            }
          }
        },
      ),
      { numRuns: runs(40) },
    )
  })
})

test('ticks that come or go never cross what stands around the plot', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.001, max: 1000, noNaN: true }),
      fc.double({ min: 0.01, max: 1 }),
      (times, time) => {
        const rows = [1, 2, 3, 4].map(n => ({ id: `${n}`, at: n, n: n * 10, g: 'a' }))
        const from = sceneOf(rows, 'bar', { title: 'Passengers' })
        const to = sceneOf(
          rows.map(row => ({ ...row, n: row.n * times })),
          'bar',
          { title: 'Passengers' },
        )
        const tops = [from, to].map(scene => scene.plots[0].y)
        for (const batch of between(from, to)(time, time).batches) {
          if ((batch.kind !== 'texts' && batch.kind !== 'segments') || !batch.along?.y || !batch.at) continue
          const places = batch.kind === 'texts' ? batch.y.map(y => y - batch.size * 0.36) : batch.y1
          places.forEach((place, i) => {
            if ((batch.alpha?.[i] ?? 1) > 0) expect(place).toBeGreaterThanOrEqual(Math.min(...tops) - 2)
          })
        }
      },
    ),
    { numRuns: runs(60) },
  )
})

test('shapes start one after the other where they are told to', () => {
  const rows = [0, 1, 2, 3].map(at => ({ id: `${at}`, at, n: 1, g: 'p' }))
  const motion = between(
    sceneOf(rows, 'bar', { color: null }),
    sceneOf(
      rows.map(row => ({ ...row, n: 1 + row.at * 10 })),
      'bar',
      { color: null },
    ),
  )
  const bars = motion(0.5, 0.5, i => (i === 0 ? 1 : 0)).batches.find(batch => batch.id === 'drawing 0/bar')
  const start = motion(0, 0.01).batches.find(batch => batch.id === 'drawing 0/bar')
  if (bars?.kind !== 'rects' || start?.kind !== 'rects') throw new Error('There are no bars')
  expect(bars.height[3]).toBeCloseTo(start.height[3], 3)
})

test('colours are blended on the way', () => {
  const rows = [{ id: 'a', at: 1, n: 5, g: 'p' }]
  const from = sceneOf(rows, 'bar', { style: { color: '#000000' } })
  const to = sceneOf(rows, 'bar', { style: { color: '#ffffff' } })
  const bars = between(from, to)(0.5, 0.5).batches.find(batch => batch.id === 'drawing 0/bar')!
  expect(bars.colors[bars.color[0]]).toBe('#808080')
})

test('easing speaks CSS', () => {
  expect(readEasing('linear(0, 0.25 75%, 1)')(0.75)).toBeCloseTo(0.25, 9)
  expect(readEasing('linear(0, 0.5, 1)')(0.25)).toBeCloseTo(0.25, 9)
  expect(readEasing('linear(0, 1.2 40% 60%, 1)')(0.5)).toBeCloseTo(1.2, 9)
  expect(() => readEasing('linear(1)')).toThrow(expect.objectContaining({ code: 'bad-option' }))
  for (const easing of ['linear', 'ease', 'ease-in-out', 'cubic-bezier(0.2, 0.8, 0.2, 1)', 'steps(4)']) {
    expect(readEasing(easing)(0)).toBe(0)
    expect(readEasing(easing)(1)).toBe(1)
  }
  expect(readEasing('ease-in-out')(0.5)).toBeCloseTo(0.5, 6)
  expect(readEasing('ease')(0.25)).toBeCloseTo(0.4085, 3)
  expect(readEasing('steps(4, start)')(0.1)).toBe(0.25)
  expect(() => readEasing('bouncy')).toThrow(expect.objectContaining({ code: 'bad-option' }))
})

test('the strokes under names stay as others come, and a label that changes its look is never unseen', () => {
  const rows = [
    { at: 1, pier: 'Old Mole', boarded: 90 },
    { at: 2, pier: 'Old Mole', boarded: 40 },
    { at: 1, pier: 'Kelp Quay', boarded: 300 },
    { at: 2, pier: 'Kelp Quay', boarded: 310 },
  ]
  const frame = { width: 700, height: 400, measure: measureInter }
  const sceneOf = (list: object[], description: Description) =>
    compose(chart(table(list as Record<string, unknown>[]), description), {}, frame)
  const lines: Description = { draw: 'line', x: 'at', y: 'boarded', color: 'pier' }
  const motion = between(
    sceneOf(rows, lines),
    sceneOf([...rows, { at: 3, pier: 'Old Mole', boarded: 9 }], lines),
  )
  for (const at of [0, 0.3, 0.7]) {
    const strokes = motion(at, at).batches.filter(batch => batch.id === 'ends/strokes')
    expect(strokes.flatMap(({ alpha }) => Array.from(alpha ?? [1, 1]))).toEqual([1, 1])
  }
  const bars: Description = { draw: 'bar', y: 'pier', x: 'sum of boarded', label: true }
  const turned = rows.map(row => ({ ...row, boarded: row.pier === 'Old Mole' ? 900 : row.boarded }))
  const glide = between(sceneOf(rows, bars), sceneOf(turned, bars))
  for (let at = 0; at <= 1; at += 0.05) {
    const seen = new Map<string | number, number>()
    for (const batch of glide(at, at * 0.999).batches)
      if (batch.kind === 'texts' && batch.of === 'drawing 0/bar')
        batch.texts.forEach((_, i) => {
          seen.set(batch.keys[i], (seen.get(batch.keys[i]) ?? 0) + (batch.alpha?.[i] ?? 1))
        })
    for (const pier of ['Old Mole', 'Kelp Quay']) expect(seen.get(pier)).toBeGreaterThan(0.9)
  }
})
