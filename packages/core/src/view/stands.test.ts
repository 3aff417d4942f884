import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, type Description, type Scene, table } from '../index.ts'
import { dataTables, readAt, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

/** A mark stands for a datum, a label where its datum stands, and a guide measures what it stands beside. */

const viewOf = (rows: object[], description: Description, width = 700) =>
  new View(
    chart(table(rows as Record<string, unknown>[]), description),
    {},
    {
      width,
      height: 420,
      measure: measureInter,
    },
  )
const textsOf = (scene: Scene, id: string) =>
  scene.batches.flatMap(batch =>
    batch.kind === 'texts' && batch.id === id
      ? batch.texts.map((text, i) => ({ text, x: batch.x[i], y: batch.y[i] }))
      : [],
  )
const discsOf = (scene: Scene) =>
  scene.batches.flatMap(batch =>
    batch.kind === 'discs' ? Array.from(batch.x, (x, i) => [x, batch.y[i]]) : [],
  )

describe('dates that are places', () => {
  test.each([
    ['days', [1, 2, 3, 4, 5].map(day => `2024-05-0${day}`), ['1', '2', '3', '4', '5']],
    [
      'months',
      Array.from({ length: 12 }, (_, i) => `2024-${String(i + 1).padStart(2, '0')}`),
      ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'],
    ],
  ])('%s have their labels under their points, the last as well', (_, dates, names) => {
    const rows = dates.map((at, i) => ({ at, boats: i * 2 }))
    const { scene } = viewOf(rows, { draw: 'line', x: 'at', y: 'boats', points: true })
    const labels = textsOf(scene, 'axis x/labels')
    expect(labels.map(({ text }) => text)).toEqual(names)
    for (const [i, [x]] of discsOf(scene).entries()) expect(labels[i].x).toBeCloseTo(x, 0)
  })

  test('months without a day are read as months, and have no smaller divisions', () => {
    const rows = ['2025-05', '2025-06', '2025-08'].map((month, i) => ({ month, boats: i }))
    const months: Description = { draw: 'line', x: 'month', y: 'boats' }
    const view = viewOf(rows, months)
    expect(textsOf(view.scene, 'axis x/labels').map(({ text }) => text)).toEqual([
      'May',
      'June',
      'July',
      'August',
    ])
    expect(view.scene.description).toContain('From May 2025 to August 2025. Values from 0 (May 2025)')
    const written = (style: 'read' | 'plain') =>
      dataTables(view.composition.value, 9, style)[0].rows.map(([month]) => month)
    expect(written('read')).toEqual(['May 2025', 'June 2025', 'August 2025'])
    expect(written('plain')).toEqual(['2025-05', '2025-06', '2025-08'])
    const pane = view.composition.value.panes[0]
    expect(readAt(view.composition.value, pane.plot.x, pane.plot.y)?.heading).toBe('May 2025')
    // A day among them makes them days.
    const days = viewOf([...rows, { month: '2025-08-14', boats: 4 }], months)
    expect(days.scene.description).toContain('to Thu, Aug 14, 2025')
  })

  test('buckets keep theirs in the middle of their interval', () => {
    const rows = ['2024-05-01', '2024-05-02'].map(at => ({ at, boats: 1 }))
    const { scene } = viewOf(rows, { draw: 'bar', x: 'day of at', y: 'sum of boats' })
    const bars = scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
    const labels = textsOf(scene, 'axis x/labels')
    if (bars?.kind !== 'rects') throw new Error('There are no bars.')
    expect(labels).toHaveLength(2)
    for (const [i, { x }] of labels.entries()) expect(x).toBeCloseTo(bars.x[i] + bars.width[i] / 2, 0)
  })
})

test('whole numbers have whole ticks', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 6 }),
      fc.constantFrom<'line' | 'scatter' | 'bar'>('line', 'scatter', 'bar'),
      fc.integer({ min: 250, max: 1400 }),
      (weeks, draw, width) => {
        const rows = weeks.map((week, i) => ({ week, trips: i % 3 }))
        const { scene } = viewOf(rows, { draw, x: 'week', y: 'trips' }, width)
        const labels = [...textsOf(scene, 'axis x/labels'), ...textsOf(scene, 'axis y/labels')]
        expect(labels.length).toBeGreaterThan(0)
        for (const { text } of labels) expect(text).toMatch(/^-?\d+$/)
      },
    ),
  )
})

test.each(['sum of load', 'load'])('shares of the whole of %s are read in percent, at neat ones', y => {
  const rows = ['Harbour', 'Tern Point'].flatMap((pier, i) =>
    [1, 2].map(at => ({ at, pier, load: 3 + i * at })),
  )
  const { scene } = viewOf(rows, { draw: 'bar', x: 'at', y, color: 'pier', arrange: 'share' } as Description)
  expect(textsOf(scene, 'axis y/labels').map(({ text }) => text)).toEqual([
    '0%',
    '20%',
    '40%',
    '60%',
    '80%',
    '100%',
  ])
})

describe('a second scale', () => {
  const rows = [2023, 2024, 2025].map((year, i) => ({
    year,
    passengers: 1200 + i * 377,
    share: 0.31 + i * 0.07,
  }))
  const both: Description = {
    draw: ['bar', { as: 'line', y: 'share', against: 'right' }],
    x: 'year',
    y: 'passengers',
  }

  test('keeps to the gridlines of the first, and says neat numbers there', () => {
    const { scene } = viewOf(rows, both)
    const [left, right] = [textsOf(scene, 'axis y/labels'), textsOf(scene, 'axis right/labels')]
    expect(right.map(({ y }) => y)).toEqual(left.map(({ y }) => y))
    expect(right.map(({ text }) => text)).toEqual(['0.30', '0.35', '0.40', '0.45', '0.50'])
  })

  test('is free where it is told so', () => {
    const { scene } = viewOf(rows, { ...both, scales: { right: { alignTo: null, include: 0.9 } } })
    const [left, right] = [textsOf(scene, 'axis y/labels'), textsOf(scene, 'axis right/labels')]
    expect(right.map(({ y }) => y)).not.toEqual(left.map(({ y }) => y))
  })
})

test('what lies beyond fixed ends leaves a mark at that edge, or at that corner', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 })), {
        minLength: 1,
        maxLength: 8,
        selector: String,
      }),
      places => {
        const rows = places.map(([at, load]) => ({ at, load }))
        const { scene } = viewOf(rows, {
          draw: 'scatter',
          x: 'at',
          y: 'load',
          scales: { x: { domain: [3, 6] }, y: { domain: [2, 8] } },
        })
        const [plot] = scene.plots
        const within = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value))
        const [x, y] = ['x', 'y'].map(name => scene.scales.get(name)!)
        const expected = places
          .filter(([at, load]) => at < 3 || at > 6 || load < 2 || load > 8)
          .map(([at, load]) => [
            within(x.map(at), plot.x, plot.x + plot.width),
            within(y.map(load), plot.y, plot.y + plot.height),
          ])
        const tips = scene.batches.flatMap(batch =>
          batch.kind === 'segments' && batch.id.endsWith('/beyond')
            ? Array.from(batch.x2, (tip, i) => [tip, batch.y2[i]]).filter((_, i) => i % 2 === 0)
            : [],
        )
        const rounded = (list: number[][]) => list.map(place => place.map(Math.round)).sort()
        expect(rounded(tips)).toEqual(rounded(expected))
      },
    ),
  )
})

test.each(['hold', 'hold middle', 'hold next'] as const)(
  'a line that may %s marks its data, not its corners',
  between => {
    const rows = [1, 2, 4].map((at, i) => ({ at, load: [3, 5, 1][i] }))
    const { scene } = viewOf(rows, { draw: 'line', x: 'at', y: 'load', between, points: true })
    const [x, y] = ['x', 'y'].map(name => scene.scales.get(name)!)
    const expected = rows.map(({ at, load }) => [x.map(at), y.map(load)])
    const found = discsOf(scene)
    expect(found).toHaveLength(3)
    found.forEach(([px, py], i) => {
      expect(px).toBeCloseTo(expected[i][0], 2)
      expect(py).toBeCloseTo(expected[i][1], 2)
    })
  },
)

test.each(['overlap', 'stack'] as const)('a value of areas between gaps is a point (%s)', arrange => {
  const rows = ['Harbour', 'Tern Point'].flatMap((pier, i) =>
    [1, 2, 3].map(at => ({ at, pier, load: at === 2 ? 4 + i : null })),
  )
  const { scene } = viewOf(rows, { draw: 'area', x: 'at', y: 'load', color: 'pier', arrange })
  const y = scene.scales.get('y')!
  const heights = discsOf(scene).map(([, pixel]) => Math.round(y.invert(pixel)))
  expect(heights).toEqual(arrange === 'stack' ? [4, 9] : [4, 5])
  expect(discsOf(viewOf([{ at: 1, load: 4 }], { draw: 'area', x: 'at', y: 'load' }).scene)).toHaveLength(1)
})

test('an axis at the top has its title over its labels', () => {
  const { scene } = viewOf([{ at: 1, load: 4 }], {
    draw: 'scatter',
    x: 'at',
    y: 'load',
    axes: { x: { side: 'top', title: 'Hours' } },
  })
  const [title] = textsOf(scene, 'axis title x')
  const [label] = textsOf(scene, 'axis x/labels')
  expect(title.text).toBe('Hours')
  expect(title.y).toBeLessThan(label.y - 10)
  expect(title.y).toBeGreaterThan(8)
})

test('room that is asked for is that much room, and none between fixed ends is told', () => {
  const rows = [0.3, 5, 11.3].map((load, at) => ({ at, load }))
  const view = viewOf(rows, { draw: 'scatter', x: 'at', y: 'load', scales: { y: { pad: 0.1 } } })
  const { domain } = view.scene.scales.get('y')!
  expect(domain[0]).toBeCloseTo(-0.8, 9)
  expect(domain[1]).toBeCloseTo(12.4, 9)
  const fixed = viewOf(rows, {
    draw: 'scatter',
    x: 'at',
    y: 'load',
    scales: { y: { pad: 0.1, domain: [0, 12] } },
  })
  expect(fixed.findings.map(({ code, path }) => [code, path])).toEqual([['no-effect', 'scales.y.pad']])
})

test('labels of bars stand all beyond them, and the scale makes room; lying bars over plain numbers have ends and gridlines', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -900, max: 900_000 }), { minLength: 1, maxLength: 9 }),
      fc.boolean(),
      fc.boolean(),
      (values, lying, summed) => {
        const rows = values.map((boarded, i) => ({ pier: `Pier ${i + 1}`, boarded }))
        const measure = summed ? 'sum of boarded' : 'boarded'
        const bars: Description = lying
          ? { draw: 'bar', y: 'pier', x: measure, label: true }
          : { draw: 'bar', x: 'pier', y: measure, label: true }
        const { scene, findings } = viewOf(rows, bars)
        expect(findings.map(({ code }) => code)).not.toContain('labels-left-out')
        const rects = scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
        if (rects?.kind !== 'rects') throw new Error('There are no bars.')
        const [plot] = scene.plots
        const labels = scene.batches.filter(batch => batch.kind === 'texts' && batch.of === rects.id)
        let placed = 0
        for (const batch of labels) {
          if (batch.kind !== 'texts') continue
          expect(batch.halo).toBeDefined()
          for (let i = 0; i < batch.texts.length; i++, placed++) {
            const width = measureInter(batch.texts[i], { size: batch.size, weight: 400 })
            const left = batch.x[i] - { start: 0, middle: 0.5, end: 1 }[batch.anchor] * width
            expect(left).toBeGreaterThan(plot.x - 2)
            expect(left + width).toBeLessThan(plot.x + plot.width + 2)
          }
        }
        expect(placed).toBe(values.length)
        expect(scene.batches.some(batch => batch.id === `grid ${lying ? 'x' : 'y'}`)).toBe(true)
      },
    ),
    { numRuns: runs(60) },
  )
})
