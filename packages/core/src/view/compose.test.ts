import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { textBoxes, touching } from '../../../../tests/support/text-boxes.ts'
import {
  chart,
  compose,
  type Description,
  type Frame,
  type Scene,
  spread,
  type Texts,
  table,
} from '../index.ts'
import { readAt, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

const frame = (more: Partial<Frame> = {}): Frame => ({
  width: 800,
  height: 500,
  measure: measureInter,
  ...more,
})
const sailings = table({
  departed: Array.from({ length: 120 }, (_, i) => new Date(Date.UTC(2024, 0, 1 + i * 3, 8))),
  route: Array.from({ length: 120 }, (_, i) => ['North Sound', 'Gannet Bay', 'Tern Point'][i % 3]),
  passengers: Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)),
  delay: Array.from({ length: 120 }, (_, i) => ((i * 13) % 40) - 8),
})
const make = (description: Partial<Description>) =>
  chart(sailings, {
    draw: 'line',
    x: 'month of departed',
    y: 'sum of passengers',
    ...description,
  } as Description)
const texts = (scene: Scene, id?: string) =>
  scene.batches
    .filter((batch): batch is Texts => batch.kind === 'texts' && (id === undefined || batch.id === id))
    .flatMap(batch => [...batch.texts])

describe('a composed chart', () => {
  test('reads its axes back to the person', () => {
    const scene = compose(make({ color: 'route', title: 'By route', legend: 'top' }), {}, frame())
    expect(texts(scene, 'title')).toEqual(['By route'])
    expect(texts(scene, 'axis titles')).toEqual(['Passengers per month'])
    expect(texts(scene, 'legend/names')).toEqual(['North Sound', 'Gannet Bay', 'Tern Point'])
    expect(texts(scene, 'axis y/labels')[0]).toBe('0')
    expect(texts(scene, 'axis x/larger')).toEqual(['2024'])
    expect(scene.description).toContain('3 series: North Sound, Gannet Bay, Tern Point.')
  })

  test('writes shares in percent and counts whole', () => {
    expect(
      texts(
        compose(make({ x: 'route', draw: 'bar', y: 'share of passengers' }), {}, frame()),
        'axis y/labels',
      ).every(text => text.endsWith('%')),
    ).toBe(true)
    const few = chart(table({ k: ['a', 'b', 'b'] }), { draw: 'bar', x: 'k', y: 'count' })
    expect(texts(compose(few, {}, frame()), 'axis y/labels')).toEqual(['0', '1', '2'])
  })

  test('no two texts touch and none leaves the frame, whatever the size and kind', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 1600 }),
        fc.integer({ min: 150, max: 900 }),
        fc.constantFrom('line' as const, 'area' as const, 'bar' as const, 'scatter' as const),
        fc.constantFrom('month of departed', 'departed', 'route', 'weekday of departed', 'bins of delay'),
        fc.constantFrom('sum of passengers', 'mean of delay', 'count'),
        fc.constantFrom('en', 'de', 'ar', 'ja'),
        fc.boolean(),
        (width, height, draw, x, y, locale, split) => {
          const scene = compose(
            make({
              draw,
              x,
              y,
              color: split ? 'route' : null,
              title: 'Passengers, by route and month, of the whole line',
              source: 'Source: sailings',
            }),
            {},
            frame({ width, height, locale }),
          )
          const boxes = textBoxes(scene)
          expect(touching(boxes), `${width}x${height} with ${draw}, ${x}, ${y}, ${locale}`).toEqual([])
          for (const { text, left, right, bottom } of boxes) {
            expect(left, `${text} at ${width}x${height}`).toBeGreaterThanOrEqual(-1)
            expect(right, `${text} at ${width}x${height}`).toBeLessThanOrEqual(width + 1)
            expect(bottom, `${text} at ${width}x${height}`).toBeLessThanOrEqual(height + 1)
          }
          for (const batch of scene.batches) {
            if (batch.kind === 'rects')
              for (const value of batch.height) expect(value).toBeGreaterThanOrEqual(0)
          }
        },
      ),
      { numRuns: runs(250) },
    )
  })

  test('bars stand on the baseline and stacks sum up', () => {
    const scene = compose(make({ draw: 'bar', color: 'route', arrange: 'stack' }), {}, frame())
    const bars = scene.batches.find(batch => batch.id === 'drawing 0/bar')
    if (bars?.kind !== 'rects') throw new Error('There are no bars')
    const zero = scene.scales.get('y')!.map(0)
    const bottoms = new Map<number, number>()
    bars.x.forEach((x, i) => {
      bottoms.set(x, Math.max(bottoms.get(x) ?? 0, bars.y[i] + bars.height[i]))
    })
    for (const bottom of bottoms.values()) expect(bottom).toBeCloseTo(zero, 3)
    const perUnit = Math.abs(scene.scales.get('y')!.factor)
    const total = bars.height.reduce((sum, height) => sum + height, 0) / perUnit
    expect(total).toBeCloseTo(
      Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)).reduce((a, b) => a + b),
      0,
    )
  })

  test.each(['bar', 'area'] as const)('%s stretched to the whole fills it, and the axis says so', draw => {
    const scene = compose(make({ draw, color: 'route', arrange: 'share' }), {}, frame())
    expect(texts(scene, 'axis y/labels').at(-1)).toBe('100%')
    expect(texts(scene, 'axis titles')).toEqual(['Share of passengers per month'])
    const { plots, batches } = scene
    const shapes = batches.find(batch => batch.id === `drawing 0/${draw}`)
    const tops = shapes?.kind === 'rects' ? shapes.y : shapes?.kind === 'areas' ? shapes.top : undefined
    expect(Math.min(...tops!)).toBeCloseTo(plots[0].y, 3)
  })

  test('names stand at the ends of lines where there is room, in the order of the ends', () => {
    const scene = compose(make({ color: 'route' }), {}, frame())
    const names = scene.batches.find(batch => batch.id === 'ends/names')
    const lines = scene.batches.find(batch => batch.id === 'drawing 0/line')
    if (names?.kind !== 'texts' || lines?.kind !== 'lines') throw new Error('There are no names')
    expect(texts(scene, 'legend/names')).toEqual([])
    const ends = lines.names
      .map((name, i) => ({ name, y: lines.y[lines.starts[i + 1] - 1] }))
      .sort((a, b) => a.y - b.y)
    expect([...names.texts]).toEqual(ends.map(end => end.name))
    expect(Math.min(...names.x)).toBeGreaterThan(scene.plots[0].x + scene.plots[0].width)
    expect(texts(compose(make({ color: 'route' }), {}, frame({ width: 400 })), 'legend/names').length).toBe(3)
  })

  test('a heatmap has a cell for each crossing, and reads the value of the one pointed at', () => {
    const view = new View(
      make({ draw: 'heatmap', x: 'month of departed', y: 'route', color: 'mean of delay' }),
      {},
      frame(),
    )
    const cells = view.scene.batches.find(batch => batch.id === 'drawing 0/heatmap')
    if (cells?.kind !== 'rects') throw new Error('There are no cells')
    expect(cells.x.length).toBe(12 * 3)
    const { plot } = view.composition.value.panes[0]
    const covered = cells.width.reduce((sum, width, i) => sum + (width + 1) * (cells.height[i] + 1), 0)
    expect(covered / (plot.width * plot.height)).toBeGreaterThan(0.97)
    expect(covered / (plot.width * plot.height)).toBeLessThan(1.03)
    const read = readAt(view.composition.value, cells.x[0] + 2, cells.y[0] + 2)
    expect(read).toMatchObject({ heading: 'January 2024, North Sound', rows: [{ name: 'Mean delay' }] })
    const rows = Array.from(read!.rows[0].rows)
    const mean = rows.reduce((sum, row) => sum + (((row * 13) % 40) - 8), 0) / rows.length
    expect(Number(read!.rows[0].text)).toBeCloseTo(mean, 2)
    expect(view.scene.description).toMatch(
      /^Heatmap chart of mean delay by departed and route\. From January 2024 to December 2024\. Values from -6\.5 \(\w+ 2024, [\w ]+\) to 30 \(\w+ 2024, [\w ]+\)\.$/,
    )
  })

  test('stacked areas stand on each other', () => {
    const areas = compose(make({ draw: 'area', color: 'route' }), {}, frame()).batches.find(
      batch => batch.kind === 'areas',
    )
    if (areas?.kind !== 'areas') throw new Error('There are no areas')
    const count = areas.starts[1]
    for (let i = 0; i < count; i++) expect(areas.base[count + i]).toBeCloseTo(areas.top[i], 3)
  })

  test('a held line is level over every bucket', () => {
    const line = compose(make({ between: 'hold' }), {}, frame()).batches.find(batch => batch.kind === 'lines')
    if (line?.kind !== 'lines') throw new Error('There is no line')
    for (let i = 0; i < line.x.length; i += 2) {
      expect(line.y[i]).toBe(line.y[i + 1])
      if (i > 0) expect(line.x[i]).toBeCloseTo(line.x[i - 1], 3)
    }
  })

  test('a category keeps its colour when others are hidden or filtered away', () => {
    const colorOf = (scene: Scene, name: string) => {
      const lines = scene.batches.find(batch => batch.id === 'drawing 0/line')
      if (lines?.kind !== 'lines') throw new Error('There are no lines')
      return lines.colors[lines.color[lines.names.indexOf(name)]]
    }
    const all = colorOf(compose(make({ color: 'route' }), {}, frame()), 'Tern Point')
    expect(
      colorOf(
        compose(make({ color: 'route', where: { route: ['Tern Point', 'Gannet Bay'] } }), {}, frame()),
        'Tern Point',
      ),
    ).toBe(all)
    expect(
      colorOf(compose(make({ color: 'route' }), { hidden: ['North Sound'] }, frame()), 'Tern Point'),
    ).toBe(all)
  })

  test.each([
    ['no rows', { where: { passengers: -1 } }, 'None of the 120 rows'],
    ['one row', { where: { passengers: 87 }, x: 'departed', y: 'passengers' }, undefined],
    ['a zero-width domain', { scales: { y: { domain: [5, 5] } } }, undefined],
    ['a reversed domain', { scales: { y: { domain: [500, 0] } } }, undefined],
    ['a log scale over zero', { y: 'delay', x: 'departed', scales: { y: { kind: 'log' } } }, undefined],
  ])('%s still reads', (_, change, words) => {
    const scene = compose(make(change as Partial<Description>), {}, frame())
    if (words) expect(texts(scene, 'nothing').join(' ')).toContain(words)
    else expect(texts(scene, 'axis y/labels').length).toBeGreaterThan(1)
  })

  test('values outside fixed ends are a finding', () => {
    const { findings } = new View(make({ scales: { y: { domain: [0, 10] } } }), {}, frame())
    expect(findings.map(finding => finding.code)).toContain('outside-domain')
  })

  test.each([
    [{ x: 'dpearted' }, 'unknown-column', 'Did you mean "departed"?'],
    [{ draw: 'lien' }, 'unknown-kind', 'Did you mean "line"?'],
    [{ titel: 'x' }, 'unknown-option', 'Did you mean "title"?'],
    [{ style: { opacity: 3 } }, 'bad-description', 'opacity'],
    [{ scales: { y: { rond: true } } }, 'unknown-option', 'There is no option "rond"'],
    [{ draw: [{ as: 'line', colour: 'route' }] }, 'unknown-option', 'Did you mean "color"?'],
    [{ y: null }, 'missing-role', 'A line needs y'],
  ])('%o is refused', (change, code, sentence) => {
    try {
      make(change as Partial<Description>)
    } catch (error) {
      expect(error).toMatchObject({ name: 'DapploError', code })
      expect((error as { sentence: string }).sentence).toContain(sentence)
      return
    }
    throw new Error('It was accepted')
  })

  test('values beyond fixed ends leave a mark at the edge', () => {
    const scene = compose(
      make({ x: 'departed', y: 'passengers', scales: { y: { domain: [0, 100] } } }),
      {},
      frame(),
    )
    const marks = scene.batches.find(batch => batch.id === 'drawing 0/beyond')
    if (marks?.kind !== 'segments') throw new Error('There are no marks')
    const over = Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)).filter(
      value => value > 100,
    ).length
    expect(marks.x1.length).toBe(over * 2)
    for (const y of marks.y2) expect(y).toBeCloseTo(scene.plots[0].y, 3)
  })

  test('a fixed scale keeps its first fit', () => {
    const live = table(
      [
        { id: 1, at: 1, n: 10 },
        { id: 2, at: 2, n: 40 },
      ],
      { key: 'id' },
    )
    const view = new View(
      chart(live, { draw: 'line', x: 'at', y: 'n', scales: { y: { fixed: true } } }),
      {},
      frame(),
    )
    const before = view.scene.scales.get('y')!.domain
    live.put({ id: 3, at: 3, n: 900 })
    expect(view.scene.scales.get('y')!.domain).toEqual(before)
    expect(view.scene.scales.get('x')!.domain[1]).toBe(3)
    expect(view.findings.map(finding => finding.code)).toContain('outside-domain')
  })

  test('numbers are coloured along a ramp, and sizes are areas', () => {
    const scene = compose(
      make({ draw: 'scatter', x: 'departed', y: 'delay', color: 'passengers', size: 'passengers' } as never),
      {},
      frame(),
    )
    const discs = scene.batches.find(batch => batch.kind === 'discs' && batch.part === 'data')
    if (discs?.kind !== 'discs') throw new Error('There are no points')
    // Large discs are drawn first, so points are found by the row that they stand for.
    const row = (value: number) => Array.from({ length: 120 }, (_, i) => 50 + ((i * 37) % 90)).indexOf(value)
    const at = (value: number) => Array.from(discs.x, (_, i) => discs.rows!(i)[0]).indexOf(row(value))
    expect(discs.color[at(50)]).toBe(0)
    expect(discs.color[at(139)]).toBe(63)
    expect((discs.radius[at(50)] / discs.radius[at(100)]) ** 2).toBeCloseTo(0.5, 3)
    expect(texts(scene, 'legend/ramp labels')).toEqual(['50', '139'])
  })

  test.each([
    ['columns that are all missing', table({ at: [null, null], n: [null, null] })],
    ['infinities and NaN', table({ at: [1, 2, 3], n: [Number.NaN, Number.POSITIVE_INFINITY, 5] })],
    ['the years 1 and 9999', table({ at: ['0001-01-01', '9999-12-31'], n: [1, 2] })],
    ['mixed types', table({ at: [1, 'two', new Date(0)], n: [1, 2, 3] })],
    ['equal values', table({ at: [4, 4, 4], n: [7, 7, 7] })],
    ['tiny and huge', table({ at: [1e-300, 1e300], n: [-1e300, 1e-300] })],
    [
      'ten thousand categories',
      table({
        at: Array.from({ length: 10_000 }, (_, i) => `pier ${i}`),
        n: Array.from({ length: 10_000 }, (_, i) => i),
      }),
    ],
  ])('%s give a chart that still reads', (_, data) => {
    for (const draw of ['line', 'bar', 'scatter'] as const) {
      for (const kind of [undefined, 'root', 'signed log'] as const) {
        const scene = compose(
          chart(data as never, { draw, x: 'at', y: 'n', scales: { y: { kind } } } as never),
          {},
          frame(),
        )
        expect(scene.batches.length).toBeGreaterThan(1)
        for (const batch of scene.batches) {
          if (batch.kind !== 'texts') continue
          for (const value of [...batch.x, ...batch.y]) expect(Number.isFinite(value)).toBe(true)
          expect(batch.texts.join()).not.toMatch(/NaN|Infinity|undefined|Invalid/)
        }
      }
    }
  })

  test('a spread lines its panes up and shares what it is told to', () => {
    const both = spread(
      [
        make({ where: { route: 'Tern Point' } }),
        make({ draw: 'bar', y: 'mean of delay', where: { route: ['Gannet Bay'] } }),
      ],
      { share: ['x', 'y'], title: 'Both' },
    )
    const scene = compose(both, {}, frame({ height: 700 }))
    expect(scene.plots.length).toBe(2)
    expect(scene.scales.get('0/y')!.domain).toEqual(scene.scales.get('1/y')!.domain)
    expect(scene.plots[0].y + scene.plots[0].height).toBeLessThan(scene.plots[1].y)
    expect(scene.title).toBe('Both')
    expect(JSON.parse(JSON.stringify(both)).spread.length).toBe(2)
  })

  test('with merges objects, replaces lists, and null removes', () => {
    const first = make({ style: { width: 3, opacity: 0.5 }, title: 'A', scales: { y: { pad: 0.1 } } })
    const second = first.with({ style: { width: 4 }, title: null, scales: { y: { include: 0 } } })
    expect(second.description).toMatchObject({
      style: { width: 4, opacity: 0.5 },
      scales: { y: { pad: 0.1, include: 0 } },
    })
    expect('title' in second.description).toBe(false)
    expect(first.description.title).toBe('A')
    expect(JSON.parse(JSON.stringify(second))).toEqual(second.description)
    expect(() => JSON.stringify(make({ axes: { y: { format: () => '' } } }))).toThrow(
      expect.objectContaining({ code: 'not-json', path: 'axes.y.format' }),
    )
  })
})

test.each<[object, string]>([
  [{ hole: 0.5 }, '"hole" is called "hollow" (at hole). Write hollow: 0.5.'],
  [
    { axes: { x: { emphasis: 'month' } } },
    '"emphasis" is called "strongAt" (at axes.x.emphasis). Write strongAt: "month".',
  ],
  [
    { period: '{year}' },
    '"period" is called "stamp" (at period). Write stamp: "…", or stamp: { words: "…" }.',
  ],
  [{ summary: '{count}' }, '"summary" is called "stamp" (at summary). Write stamp: { note: "…" }.'],
  [{ respond: 'highlight' }, '"highlight" is called "dim" (at respond). Write respond: "dim".'],
  [{ respond: 'filter' }, '"filter" is called "narrow" (at respond). Write respond: "narrow".'],
])('what was called otherwise is answered by its new name: %o', (more, sentence) => {
  const rows = table([{ year: 2024, n: 1 }])
  expect(() => chart(rows, { draw: 'line', x: 'year', y: 'n', ...more } as never)).toThrow(
    expect.objectContaining({ code: 'renamed', sentence }),
  )
})
