import { describe, expect, test } from 'vitest'
import { chart, type Description, type Rects, type Scene, table } from '../index.ts'
import { csvText, dataTables, readAt, tellMore, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

type Rows = Record<string, unknown>[]
const drawn = (rows: Rows, description: Description, columns = {}) =>
  new View(
    chart(table(rows, { columns }), description),
    {},
    { width: 640, height: 400, measure: measureInter },
  )
const textsOf = ({ batches }: Scene, id: RegExp) =>
  batches.flatMap(batch => (batch.kind === 'texts' && id.test(batch.id) ? [...batch.texts] : []))
const barsOf = ({ batches }: Scene) =>
  batches.flatMap(batch => (batch.kind === 'rects' && batch.part === 'data' ? [batch as Rects] : []))

describe('figures in a picture say what they stand for', () => {
  const ramp = (values: number[]) =>
    textsOf(
      drawn(
        values.map((load, i) => ({ at: i, load })),
        { draw: 'scatter', x: 'at', y: 'load', color: 'load' },
      ).scene,
      /ramp labels/,
    )

  test.each([
    [
      [1000.1, 1000.4, 1000.9],
      ['1,000.1', '1,000.9'],
    ],
    [
      [12_345, 12_500, 12_690],
      ['12,345', '12,690'],
    ],
    [
      [0, 50_000, 98_765],
      ['0', '98,800'],
    ],
    [
      [3, 3, 3],
      ['3', '3'],
    ],
  ])('the ends of a ramp over %j are read as %j', (values, words) => {
    expect(ramp(values)).toEqual(words)
  })

  const euros = { fare: { format: { style: 'currency', currency: 'EUR' } } }
  const yen = { fare: { format: { style: 'currency', currency: 'JPY' } } }
  test.each([
    [[12.95, 2.5, 1], euros, ['€12.95', '€2.50', '€1.00']],
    [[12, 2, 1], euros, ['€12', '€2', '€1']],
    [[1200.5, 2.5, 1], euros, ['€1,201', '€3', '€1']],
    [[12.4, 2, 1], yen, ['¥12', '¥2', '¥1']],
  ])('fares of %j have all of their minor units or none', (fares, columns, words) => {
    const rows = fares.map((fare, i) => ({ pier: `Pier ${i}`, fare }))
    const { scene } = drawn(rows, { draw: 'bar', x: 'pier', y: 'fare', label: true }, columns)
    expect(textsOf(scene, /labels (middle|start)/).filter(text => /[€¥]/.test(text))).toEqual(words)
  })

  const boats = ['Fulmar', 'Dunlin', 'Fulmar', 'Petrel', 'Fulmar', 'Dunlin'].map((boat, i) => ({
    boat,
    pier: i < 4 ? 'East' : 'West',
  }))

  test('counts stretched to the whole are shares, with shares between the ends of their axis', () => {
    const { scene } = drawn(boats, { draw: 'bar', x: 'pier', y: 'count', color: 'boat', arrange: 'share' })
    const ticks = textsOf(scene, /axis y.labels/)
    expect(ticks.length).toBeGreaterThan(3)
    expect(ticks.every(text => text.endsWith('%'))).toBe(true)
  })

  test('a logarithmic axis of counts names whole numbers only', () => {
    const { scene } = drawn(boats, { draw: 'scatter', x: 'boat', y: 'count', scales: { y: { kind: 'log' } } })
    const ticks = textsOf(scene, /axis y.labels/)
    expect(new Set(ticks).size).toBe(ticks.length)
    expect(ticks.every(text => Number(text) >= 1)).toBe(true)
  })

  test.each(['root', 'signed log', 'log'] as const)(
    'a %s axis of numbers near to each other has ticks to read by',
    kind => {
      const near = [1.0004, 1.0012, 1.0019].map((load, i) => ({ load, at: i }))
      const { scene } = drawn(near, { draw: 'scatter', x: 'at', y: 'load', scales: { y: { kind } } })
      const ticks = textsOf(scene, /axis y.labels/)
      expect(ticks.length).toBeGreaterThan(2)
      expect(new Set(ticks).size).toBe(ticks.length)
    },
  )

  test('cells of a calendar are days, and their legend does not speak of weeks', () => {
    const rows = Array.from({ length: 40 }, (_, i) => ({ day: new Date(Date.UTC(2024, 0, 1 + i)), load: i }))
    const calendar = { draw: 'heatmap', x: 'week of day', y: 'weekday of day', color: 'sum of load' } as const
    expect(textsOf(drawn(rows, calendar).scene, /ramp title/)).toEqual(['Load'])
    const routes = drawn(
      rows.map(row => ({ ...row, route: 'Tern Point' })),
      { ...calendar, y: 'route' },
    )
    expect(textsOf(routes.scene, /ramp title/)).toEqual(['Load per week'])
  })

  test('what is small beside what is large is not lost in totals, means and running totals', () => {
    const rows = [1e16, 1, -1e16].map((load, i) => ({ load, hour: i, pier: 'East' }))
    const at = (description: Description) =>
      drawn(rows, description).composition.value.panes[0].bound.drawings.at(-1)!.marks.y.at
    expect([...at({ draw: 'bar', x: 'pier', y: 'sum of load' })]).toEqual([1])
    const tenths = Array.from({ length: 10 }, (_, hour) => ({ hour, load: 0.1 }))
    const total = drawn(tenths, { draw: 'line', x: 'hour', y: 'sum so far of load' })
    expect(total.composition.value.panes[0].bound.drawings[0].marks.y.at.at(-1)).toBe(1)
    const mean = at({
      draw: ['scatter', { as: 'reference', level: 'mean' }],
      x: 'hour',
      y: 'load',
    })
    expect(mean[0]).toBe(1 / 3)
  })
})

describe('bars', () => {
  test('of which each month has one are as wide as those of one colour', () => {
    const rows = ['01', '02', '03', '04'].map((month, i) => ({
      month: `2024-${month}`,
      load: i + 2,
      pier: i % 2 ? 'East' : 'West',
    }))
    const widths = (color?: string) =>
      barsOf(drawn(rows, { draw: 'bar', x: 'month of month', y: 'sum of load', color }).scene).flatMap(
        ({ width, height }) => [...width].filter((_, i) => height[i] > 0),
      )
    expect(widths('pier')).toEqual(widths())
    // A value of nothing is a value, and has a place beside the others.
    const nothing = [...rows, { month: '2024-01', load: 0, pier: 'East' }]
    const { scene } = drawn(nothing, { draw: 'bar', x: 'month of month', y: 'sum of load', color: 'pier' })
    expect(Math.max(...barsOf(scene)[0].width)).toBeLessThan(widths()[0] * 0.6)
  })

  test('that go on beyond the plot have their words in what is seen, and the others theirs at their ends', () => {
    const rows = [3, 40, 7].map((load, i) => ({ pier: `Pier ${i}`, load }))
    const { scene, findings } = drawn(rows, {
      draw: 'bar',
      x: 'pier',
      y: 'load',
      label: true,
      scales: { y: { domain: [0, 10] } },
    })
    expect(textsOf(scene, /drawing 0.labels/).sort()).toEqual(['3', '40', '7'])
    expect(findings.map(({ code }) => code)).not.toContain('labels-left-out')
    const [plot] = scene.plots
    for (const batch of scene.batches)
      if (batch.kind === 'texts' && /drawing 0.labels/.test(batch.id))
        for (const y of batch.y) expect(y > plot.y && y <= plot.y + plot.height).toBe(true)
  })
})

describe('the data table', () => {
  const csv = (rows: Rows, description: Description) =>
    csvText(dataTables(drawn(rows, description).composition.value, 100, 'plain'))
      .trim()
      .split('\r\n')

  test('keeps each of several rows at one place', () => {
    const rows = [3, 4, 7].map((load, i) => ({ pier: i < 2 ? 'East' : 'West', load }))
    expect(csv(rows, { draw: 'bar', x: 'pier', y: 'load' })).toEqual([
      'Pier,Load',
      'East,3',
      'East,4',
      'West,7',
    ])
    expect(csv(rows, { draw: 'scatter', x: 'pier', y: 'load' })).toHaveLength(4)
  })

  test('has what colour and size say beside the places of marks', () => {
    const rows = [3, 4, 7].map((load, i) => ({ pier: `Pier ${i}`, load, wind: i * 2 }))
    expect(csv(rows, { draw: 'bar', x: 'pier', y: 'sum of load', color: 'mean of wind' })[2]).toBe(
      'Pier 1,4,2',
    )
    expect(csv(rows, { draw: 'scatter', x: 'pier', y: 'load', size: 'wind' })[3]).toBe('Pier 2,7,4')
  })
})

describe('words and addresses part no groups', () => {
  const rows = [
    { pier: 'East', boat: 'Fulmar', load: 10, page: '/east' },
    { pier: 'East', boat: 'Dunlin', load: 20, page: '/east' },
    { pier: 'West', boat: 'Petrel', load: 5, page: '/west' },
  ]
  const bars = { draw: 'bar', x: 'pier', y: 'sum of load' } as const
  const sums = (description: Description) => [
    ...drawn(rows, description).composition.value.panes[0].bound.drawings[0].marks.y.at,
  ]

  test.each([
    { label: 'boat' },
    { link: 'page' },
    { label: { words: '{boat}: {count}' } },
    { label: 'pier', link: 'boat' },
  ])('%j', more => {
    expect(sums({ ...bars, ...more })).toEqual([30, 5])
  })

  test('what rows agree in is said, what they differ in is not', () => {
    const labels = (label: Description['label']) =>
      textsOf(drawn(rows, { ...bars, label }).scene, /drawing 0.labels/)
    expect(labels('boat')).toEqual(['Petrel'])
    expect(labels({ words: '{page} {count}' })).toEqual(['/east 2', '/west 1'])
    const { links } = drawn(rows, { ...bars, link: 'page' }).composition.value.panes[0].bound.drawings[0]
    expect([links!(0), links!(1)]).toEqual(['/east', '/west'])
  })

  test('a count at marks that are rows does not gather them', () => {
    const twice = [...rows, rows[0]]
    const { composition } = drawn(twice, {
      draw: 'bar',
      x: 'boat',
      y: 'load',
      label: { words: '{count} × {load}' },
    })
    expect(composition.value.panes[0].bound.drawings[0].marks.length).toBe(4)
  })
})

test('a line and its points say each value once, lying measures are called by what they measure', () => {
  const rows = [1, 2, 3].flatMap(hour =>
    ['East', 'West'].map((pier, i) => ({ hour, pier, load: hour * (i + 2), wind: hour })),
  )
  const of = (description: Description) => drawn(rows, description)
  const { scene, composition } = of({
    draw: ['line', 'scatter'],
    x: 'hour',
    y: 'load',
    color: 'pier',
    size: 'wind',
  })
  const [plot] = scene.plots
  const reading = readAt(composition.value, plot.x + plot.width / 2, plot.y + plot.height / 2)!
  expect(reading.rows.filter(row => row.series).map(({ name, text }) => [name, text])).toEqual([
    ['East', '4'],
    ['West', '6'],
  ])
  // What only the points say is said all the same.
  expect(reading.rows.some(({ name, text }) => name === 'Wind' && text === '2')).toBe(true)
  const lying = of({
    y: 'pier',
    draw: [
      { as: 'bar', x: 'load' },
      { as: 'scatter', x: 'wind', against: 'top' },
    ],
  })
  expect(lying.composition.value.panes[0].bound.legend.map(({ name }) => name)).toEqual([
    'Load',
    'Wind (top)',
  ])
})

test('what is not so is not told: of rows to come, of other choices of a control, of a formula that stands there', () => {
  const codes = (rows: Rows, description: Description) =>
    drawn(rows, description).findings.map(({ code, path }) => `${code} ${path}`)
  const sized = {
    draw: 'scatter',
    x: 'hour',
    y: 'load',
    size: 'load',
    scales: { size: { radius: 9 } },
  } as const
  const columns = { hour: { type: 'number' }, load: { type: 'number' } } as const
  const empty = chart(table({ hour: [], load: [] }, { columns }), sized)
  const frame = { width: 640, height: 400, measure: measureInter }
  expect(new View(empty, {}, frame).findings.map(({ code }) => code)).toEqual(['no-rows'])
  const rows = [1, 2, 3, 4, 5].map(hour => ({
    hour,
    load: hour * 2 + ((hour * 7) % 3),
    pier: `Pier ${hour}`,
  }))
  const chosen = {
    draw: 'bar',
    x: 'pier',
    y: 'load',
    scales: { color: { colors: { 'Pier 1': '#123456' } } },
  } as const
  expect(codes(rows, chosen)).toEqual(['no-effect scales.color'])
  expect(codes(rows, { ...chosen, controls: [{ set: 'color', to: [null, 'pier'] }] })).toEqual([])
  expect(codes(rows, { draw: ['scatter', { as: 'trend', label: true }], x: 'hour', y: 'load' })).toEqual([])
})

test('a list of what a tooltip says may hold words with holes', () => {
  const rows = [
    { pier: 'East', load: 3, '{load} in all': 'odd' },
    { pier: 'East', load: 5, '{load} in all': 'even' },
  ]
  const of = (tooltip: string[]) => {
    const made = chart(table(rows as Rows), { draw: 'bar', x: 'pier', y: 'sum of load', tooltip })
    const { composition, first } = new View(made, {}, { width: 640, height: 400, measure: measureInter })
    const [plot] = composition.value.panes.map(pane => pane.plot)
    const [row] = readAt(composition.value, plot.x + plot.width / 2, plot.y + plot.height / 2)!.rows
    return tellMore(first.description.tooltip, row, composition.value.tongue).map(({ name, text }) => [
      name,
      text,
    ])
  }
  expect(of(['{count} crates, {max of load} at most', 'load'])).toEqual([
    ['', '2 crates, 5 at most'],
    ['Load', '3, 5'],
  ])
  // The exact name of a column goes before.
  expect(of(['{load} in all'])[0][1]).toBe('odd, even')
  expect(() => of(['{lode} crates'])).toThrow('There is no column "lode"')
})

test('what a house says of its lines holds on every ground', () => {
  const house = { day: { stripe: '#ffe0e0', strong: '#aa0000' }, night: { stripe: '#402020' } }
  const rows = [1, 2, 3].map(hour => ({ hour, load: hour }))
  const stripes = (background: Description['background']) => {
    const described = {
      draw: 'line',
      x: 'hour',
      y: 'load',
      background,
      axes: { y: { stripes: true } },
    } as const
    const frame = { width: 640, height: 400, measure: measureInter, house }
    const { scene } = new View(chart(table(rows), described), {}, frame)
    return scene.batches.flatMap(({ id, colors }) => (/stripes/.test(id) ? colors : []))
  }
  expect(stripes(undefined)).toEqual(['#ffe0e0'])
  expect(stripes('#ffffff')).toEqual(['#ffe0e0'])
  expect(stripes('#101820')).toEqual(['#402020'])
  expect(stripes({ image: 'pier.png' })).toEqual(['#ffe0e0'])
})

test('a scale of numbers has two ends', () => {
  const rows = [{ pier: 'East', load: 3 }]
  const of = (domain: number[]) => () =>
    drawn(rows, { draw: 'bar', x: 'pier', y: 'load', scales: { y: { domain } } }).scene
  expect(of([0, 1800, 4000])).toThrow('has 3 values, and a scale of numbers has two ends')
  expect(of([0])).toThrow('has one end')
  expect(of([0, 4000])).not.toThrow()
})
