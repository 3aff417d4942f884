import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { bar, chart, type Description, kind, paintSvg, reshape, spread, type Table, table } from '../index.ts'
import { between, Playback, readAt, View } from '../internal.ts'
import { minorBetween } from '../scale/ticks.ts'
import { meaningKey } from '../table/phrase/meaning.ts'
import { readPhrase } from '../table/phrase/phrase.ts'
import { measureInter } from '../theme/text-width.ts'
import { day } from '../theme/theme.ts'

/** Small promises that a picture keeps, each of which was once broken without a test that noticed. */

const frame = { width: 640, height: 420, measure: measureInter }
const viewOf = (rows: Table, description: object, more = {}) =>
  new View(chart(rows, description as Description), {}, { ...frame, ...more })
const batchOf = (view: View, id: string | RegExp) =>
  view.scene.batches.find(batch => (typeof id === 'string' ? batch.id === id : id.test(batch.id)))
const textsOf = (view: View, id: string | RegExp) => {
  const batch = batchOf(view, id)
  return batch?.kind === 'texts' ? batch.texts : []
}
const piers = ['Old Mole', 'Kelp Quay', 'Tern Jetty', 'Gannet Slip']
const rows = table(
  piers.flatMap((pier, p) =>
    [2023, 2024, 2025].map((year, y) => ({ pier, year: `${year}`, n: 10 + p * 7 + y * 3 })),
  ),
  { columns: { year: { type: 'text' } } },
)

test('what must be in view is in view, on every scale', () => {
  fc.assert(
    fc.property(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 }), (a, b) => {
      const points = table([
        { x: 1, y: 2 },
        { x: 9, y: 8 },
      ])
      const view = viewOf(points, {
        draw: 'scatter',
        x: 'x',
        y: 'y',
        scales: { x: { include: a }, y: { include: [a, b] } },
      })
      const within = (name: string, value: number) => {
        const [low, high] = view.composition.value.panes[0].scales.get(name)!.domain
        expect(low).toBeLessThanOrEqual(value)
        expect(high).toBeGreaterThanOrEqual(value)
      }
      within('x', a)
      within('y', a)
      within('y', b)
    }),
    { numRuns: runs(40) },
  )
})

test('room that is asked for at the ends of a scale is left, on both sides and no more', () => {
  const points = table([
    { x: 10, y: 1 },
    { x: 20, y: 2 },
  ])
  const ends = (pad: number) =>
    viewOf(points, {
      draw: 'line',
      x: 'x',
      y: 'y',
      scales: { x: { pad, roundEnds: false } },
    }).composition.value.panes[0].scales.get('x')!.domain
  expect(ends(0)).toEqual([10, 20])
  expect(ends(0.1)).toEqual([9, 21])
  expect(ends(1)).toEqual([0, 30])
})

test('the rest comes last, however large it is, in every order', () => {
  const counts = table(
    [5, 4, 3, 2, 2, 2].flatMap((count, i) => Array.from({ length: count }, () => ({ pier: `P${i}` }))),
  )
  for (const order of ['ranked', 'name', 'given'])
    expect(
      textsOf(
        viewOf(counts, { draw: 'bar', x: 'pier', y: 'count', top: 2, rest: 'Others', order }),
        'axis x/labels',
      ).map(text => text.replace('\u2060', '')),
    ).toEqual(['P0', 'P1', 'Others'])
})

test('what is read is nearest to the pointer, on either side of it', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.integer({ min: 0, max: 1000 }), { minLength: 2, maxLength: 12 }),
      fc.double({ min: 0.01, max: 0.99, noNaN: true }),
      (places, share) => {
        const view = viewOf(table(places.map(x => ({ x, y: x % 7 }))), { draw: 'line', x: 'x', y: 'y' })
        const { plot, scales } = view.composition.value.panes[0]
        const pointer = plot.x + plot.width * share
        const map = scales.get('x')!.map
        const least = Math.min(...places.map(x => Math.abs(map(x) - pointer)))
        const reading = readAt(view.composition.value, pointer, plot.y + plot.height / 2)
        expect(Math.abs(reading!.x - pointer)).toBeCloseTo(least, 6)
      },
    ),
    { numRuns: runs(60) },
  )
})

test('days and hours are those of the zone', () => {
  const late = table([{ at: '2024-01-01T03:30:00Z', n: 1 }], {
    columns: { at: { type: 'time', timeZone: 'America/New_York' } },
  })
  const names = (phrase: string) =>
    textsOf(viewOf(late, { draw: 'bar', x: phrase, y: 'count' }), 'axis x/labels')
  expect(names('weekday of at')).toEqual(['Sun'])
  expect(names('hour of day of at')).toEqual(['22:00'])
  expect(names('day of month of at')).toEqual(['31'])
  expect(names('month of year of at')).toEqual(['Dec'])
})

test('the label of a bar stands beyond its end, or inside it, never beside or below it', () => {
  const values = table(piers.map((pier, i) => ({ pier, n: [5, -3, 8, -9][i] })))
  const view = viewOf(values, { draw: 'bar', x: 'pier', y: 'n', label: true })
  const bars = view.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
  const labels = view.scene.batches.filter(batch => batch.id.startsWith('drawing 0/labels'))
  if (bars?.kind !== 'rects') throw new Error('There are no bars')
  const seen = labels.flatMap(batch =>
    batch.kind === 'texts' ? batch.texts.map((text, i) => ({ text, x: batch.x[i], y: batch.y[i] })) : [],
  )
  expect(seen.map(one => one.text).sort()).toEqual(['-3', '-9', '5', '8'])
  for (const { text, x, y } of seen) {
    const i = [5, -3, 8, -9].indexOf(Number(text))
    expect(x).toBeGreaterThan(bars.x[i])
    expect(x).toBeLessThan(bars.x[i] + bars.width[i])
    const inside = y > bars.y[i] && y < bars.y[i] + bars.height[i]
    // Upright text stands on its baseline: above a bar that grows up, below one that grows down.
    if (!inside) expect(Number(text) > 0 ? y <= bars.y[i] : y > bars.y[i] + bars.height[i]).toBe(true)
  }
})

describe('a legend', () => {
  const entries = (more: object) =>
    textsOf(viewOf(rows, { draw: 'bar', y: 'sum of n', ...more }), 'legend/names')
  test('is left out where it would repeat an axis, or where there is one series, and only there', () => {
    expect(entries({ x: 'pier', color: 'pier' })).toEqual([])
    expect(entries({ x: 'pier' })).toEqual([])
    expect(entries({ x: 'year', color: 'pier' })).toEqual(piers)
  })

  test('names colours in the order of the palette', () => {
    const view = viewOf(rows, { draw: 'bar', x: 'year', y: 'sum of n', color: 'pier' })
    const { drawings } = view.composition.value.panes[0].bound
    expect(drawings[0].marks.series.map(one => one.color)).toEqual(day.colors.slice(0, 4))
  })
})

test('what leaves fades out, and what comes fades in', () => {
  const scene = (count: number) =>
    viewOf(
      table(
        Array.from({ length: count }, (_, i) => ({ id: i, x: i, y: i })),
        { key: 'id' },
      ),
      {
        draw: 'scatter',
        x: 'x',
        y: 'y',
        scales: { x: { domain: [0, 10] }, y: { domain: [0, 10] } },
      },
    ).scene
  const alphas = (from: number, to: number, time: number) => {
    const moving = between(scene(from), scene(to))(time, time)
    const discs = moving.batches.filter(batch => batch.kind === 'discs')
    return discs.flatMap(batch => Array.from(batch.x, (_, i) => batch.alpha?.[i] ?? 1))
  }
  const leaving = [0.05, 0.2, 0.4].map(time => Math.min(...alphas(6, 3, time)))
  expect(leaving[0]).toBeGreaterThan(leaving[1])
  expect(leaving[1]).toBeGreaterThan(leaving[2])
  expect(alphas(6, 3, 0.6)).toEqual([1, 1, 1])
  const coming = [0.05, 0.2, 0.4].map(time => Math.min(...alphas(3, 6, time)))
  expect(coming[0]).toBeLessThan(coming[1])
  expect(coming[1]).toBeLessThan(coming[2])
})

test('half-way, shapes are half-way', () => {
  const scene = (n: number) =>
    viewOf(table([{ id: 1, x: n, y: 10 - n }], { key: 'id' }), {
      draw: 'scatter',
      x: 'x',
      y: 'y',
      scales: { x: { domain: [0, 10] }, y: { domain: [0, 10] } },
    }).scene
  const at = (moment: ReturnType<typeof scene>) => {
    const discs = moment.batches.find(batch => batch.kind === 'discs')
    return discs?.kind === 'discs' ? [discs.x[0], discs.y[0]] : []
  }
  const [from, to] = [scene(2), scene(8)]
  const moving = between(from, to)
  for (const share of [0.25, 0.5, 0.75])
    at(moving(share, share)).forEach((pixel, i) => {
      expect(pixel).toBeCloseTo(at(from)[i] + (at(to)[i] - at(from)[i]) * share, 2)
    })
})

test('smaller divisions are quarters of twos, and fifths of ones and fives', () => {
  expect(minorBetween([0, 2], 2, 0, 2)).toEqual([0.5, 1, 1.5])
  expect(minorBetween([0, 20], 20, 0, 20)).toEqual([5, 10, 15])
  expect(minorBetween([0, 5], 5, 0, 5)).toEqual([1, 2, 3, 4])
  expect(minorBetween([0, 1], 1, 0, 1)).toEqual([0.2, 0.4, 0.6, 0.8])
})

test('of a stack the outermost end is round, and no other', () => {
  const view = viewOf(rows, { draw: 'bar', x: 'year', y: 'sum of n', color: 'pier', arrange: 'stack' })
  const bars = batchOf(view, /bar$/)
  if (bars?.kind !== 'rects') throw new Error('There are no bars')
  for (let i = 0; i < bars.x.length; i++) {
    const higher = Array.from(bars.y).some((y, k) => k !== i && bars.x[k] === bars.x[i] && y < bars.y[i])
    expect(bars.round[i] === 0).toBe(higher)
  }
})

test('what marks mean in XML is written out', () => {
  const odd = `A & B < C > D "E" 'F'`
  const svg = paintSvg(viewOf(rows, { draw: 'bar', x: 'pier', y: 'count', title: odd }).scene)
  expect(svg).not.toMatch(/&(?!#\d+;)/)
  expect(svg.replace(/&#(\d+);/g, (_, code) => String.fromCharCode(Number(code)))).toContain(odd)
})

describe('the identity of a meaning', () => {
  test('is all of it: widths of bins, what is kept, units; not how it is called', () => {
    const numbers = table([{ a: 1, t: new Date(0) }])
    const key = (phrase: unknown) => meaningKey(readPhrase(phrase, numbers, ''))
    const different = [
      'a',
      'bins of a',
      { bins: 'a', width: 10 },
      { bins: 'a', width: 2 },
      { bins: 'a', number: 2 },
      'month of t',
      'year of t',
      { column: 'a', top: 3 },
      { column: 'a', top: 3, rest: true },
      { value: 1 },
      { value: '1' },
    ]
    expect(new Set(different.map(key)).size).toBe(different.length)
    expect(key({ column: 'a', label: 'A' })).toBe(key('a'))
  })

  test('so that bins of two widths in one chart are two', () => {
    const view = viewOf(table(Array.from({ length: 40 }, (_, a) => ({ a }))), {
      draw: 'bar',
      x: { bins: 'a', width: 10 },
      y: 'count',
      series: { bins: 'a', width: 2 },
    })
    expect(view.composition.value.panes[0].bound.drawings[0].marks.series).toHaveLength(20)
  })

  test('and two lines with formats of their own keep them', () => {
    const numbers = table([{ x: 1, n: 5 }])
    const y = (mark: string) => ({ column: 'n', format: (value: number) => `${mark}${value}` })
    const view = viewOf(numbers, {
      draw: [
        { as: 'text', y: y('a'), label: true },
        { as: 'text', y: y('b'), against: 'right', label: true },
      ],
      x: 'x',
    })
    const texts = view.scene.batches.flatMap(batch =>
      /labels/.test(batch.id) && batch.drawing === undefined && batch.kind === 'texts' ? batch.texts : [],
    )
    expect(texts).toEqual(expect.arrayContaining(['a5', 'b5']))
  })
})

describe('findings', () => {
  const description = {
    draw: [{ as: 'bar', label: true }, 'line'],
    x: 'pier',
    y: 'sum of n',
    color: 'year',
    title: '{nothing}',
    scales: { y: { domain: [0, 30] } },
    axes: { y: { ticks: 500 } },
  }
  const said = (view: View) => view.findings.map(finding => `${finding.path}: ${finding.message}`)

  test('after any history are those of a fresh chart, each told once', () => {
    const size = fc.tuple(fc.constantFrom(200, 420, 900), fc.constantFrom(200, 500))
    const step = fc.oneof(
      size.map(([width, height]) => ({ frame: { ...frame, width, height } })),
      fc.constantFrom({}, { hidden: ['2023'] }, { selected: [1] }).map(state => ({ state })),
    )
    fc.assert(
      fc.property(fc.array(step, { maxLength: 6 }), steps => {
        const shown = chart(rows, description as Description)
        const view = new View(shown, {}, frame)
        void view.findings
        for (const one of steps) {
          if ('frame' in one) view.frame.value = one.frame
          else view.state.value = one.state
          void view.findings
        }
        const fresh = new View(shown, view.state.peek(), view.frame.peek())
        expect(said(view)).toEqual(said(fresh))
        expect(new Set(said(view)).size).toBe(said(view).length)
      }),
      { numRuns: runs(25) },
    )
  })

  test('of a spread are told once for each chart', () => {
    const one = chart(rows, description as Description)
    const single = said(new View(one, {}, { ...frame, width: 700, height: 400 }))
    const both = said(new View(spread([one, one]), {}, { ...frame, width: 700, height: 900 }))
    for (const words of new Set(single))
      expect(both.filter(told => told === words).length).toBeLessThanOrEqual(2)
  })
})

test('a pane is drawn once, also beside others', () => {
  let drawn = 0
  const counting = kind({
    ...bar,
    name: 'counted',
    draw: input => {
      drawn++
      return bar.draw(input)
    },
  })
  const one = chart(rows, { draw: counting, x: 'pier', y: 'sum of n' })
  void new View(spread([one, one, one], { columns: 2, share: ['y'] }), {}, { ...frame, height: 900 }).scene
  expect(drawn).toBe(3)
})

describe('a history of updates', () => {
  const row = fc.record({
    id: fc.integer({ min: 0, max: 9 }),
    pier: fc.constantFrom(...piers),
    n: fc.option(fc.integer({ min: -20, max: 50 }), { nil: null }),
  })
  const act = fc.oneof(
    fc.record({ put: fc.array(row, { maxLength: 4 }) }),
    fc.record({ remove: fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 3 }) }),
    fc.record({ keep: fc.integer({ min: 1, max: 6 }) }),
  )
  const charts = [
    { draw: 'bar', x: 'pier', y: 'sum of n', color: 'pier', label: true },
    { draw: 'line', x: 'id', y: 'n', color: 'pier', points: true },
    { draw: 'pie', x: 'pier', y: 'count' },
  ]
  const first = piers.map((pier, id) => ({ id, pier, n: id * 5 }))

  test('ends in the picture of a fresh table that remembers the order of colours; undone, in the first', () => {
    fc.assert(
      fc.property(fc.constantFrom(...charts), fc.array(act, { maxLength: 6 }), (description, acts) => {
        const live = table<any>(first, { key: 'id', columns: { n: { type: 'number' } } })
        const view = viewOf(live, description)
        const before = paintSvg(view.scene)
        for (const one of acts) {
          if ('put' in one) live.put(one.put)
          else if ('remove' in one) live.remove(one.remove)
          else live.keepRows(at => at >= live.length - one.keep)
          void view.scene
        }
        expect(paintSvg(view.scene)).toBe(paintSvg(viewOf(reshape(live, []), description).scene))
        live.replace(first)
        expect(paintSvg(view.scene)).toBe(before)
      }),
      { numRuns: runs(60) },
    )
  })
})

test('what is played follows a change in another table, too', () => {
  const targets = table<any>([{ y: 20 }])
  const shown = chart(
    rows,
    {
      draw: ['bar', { as: 'reference', table: 'targets', x: null, y: 'y' }],
      x: 'pier',
      y: 'sum of n',
      through: 'year',
    } as never,
    { targets },
  )
  const playback = new Playback(shown, {}, frame)
  const lineAt = (place: number) => {
    const line = playback
      .sceneAt(place)!
      .batches.find(batch => batch.kind === 'segments' && batch.part === 'data')
    return line?.kind === 'segments' ? line.y1[0] : Number.NaN
  }
  const before = lineAt(0.5)
  targets.replace([{ y: 5 }])
  expect(lineAt(0.5)).toBeGreaterThan(before + 20)
  expect(lineAt(0.5)).toBeCloseTo(lineAt(1), 0)
})
