import { describe, expect, test } from 'vitest'
import { chart, type Description, table } from '../../index.ts'
import { View } from '../../internal.ts'
import { measureInter } from '../../theme/text-width.ts'

/** Each regret is told once, and its remedy, applied as it is written, makes it go away. */

const codes = (rows: object[], description: Description) =>
  new View(
    chart(table(rows as Record<string, unknown>[]), description),
    {},
    {
      width: 700,
      height: 420,
      measure: measureInter,
    },
  ).findings.map(({ code, path }) => [code, path])

const many = Array.from({ length: 30 }, (_, i) => ({
  pier: `Pier ${i + 1}`,
  year: 2020 + (i % 2),
  boarded: 40 + i,
}))
const piers = many.slice(0, 12)
const kiln = [4, 5, 3, 6, 5, 7, 900].map((load, hour) => ({ hour, load }))
const doubled = [1, 1, 2, 2, 3, 3].map((hour, i) => ({
  hour,
  route: i % 2 ? 'Harbour' : 'Tern Point',
  pier: i < 3 ? 'East' : 'West',
  boat: i < 2 ? 'Fulmar' : 'Dunlin',
  load: i * 7,
}))
/** As many colours as there are names. */
const HUES = Array.from({ length: 60 }, (_, i) => `hsl(${i * 6} 60% 45%)`)
const MANY = Array.from({ length: 9000 }, (_, hour) => ({ hour, load: (hour * 7919) % 1000 }))
const BARS: Description = { draw: 'bar', x: 'pier', y: 'boarded' }
const LINE: Description = { draw: 'line', x: 'hour', y: 'load' }

test.each<[string, object[], Description, [string, string], Description]>([
  [
    'an axis that is misspelt',
    piers,
    { ...BARS, axes: { rigth: { title: false } } },
    ['no-effect', 'axes.rigth'],
    BARS,
  ],
  [
    'a scale that nothing stands on',
    piers,
    { ...BARS, scales: { z: { include: 0 } } },
    ['no-effect', 'scales.z'],
    BARS,
  ],
  [
    'a size that is told and bound',
    kiln.slice(0, 6),
    { draw: 'scatter', x: 'hour', y: 'load', size: 'load', style: { size: 9 } },
    ['no-effect', 'style.size'],
    { draw: 'scatter', x: 'hour', y: 'load', size: 'load' },
  ],
  [
    'an alignment of what reads another scale',
    piers,
    { ...BARS, scales: { share: { percentOf: 500, alignTo: 'y' } } },
    ['no-effect', 'scales.share.alignTo'],
    { ...BARS, scales: { share: { percentOf: 500 } } },
  ],
  [
    'a scale that is misspelt',
    piers,
    { draw: ['bar', { as: 'line', y: 'year', against: 'rigth' }], x: 'pier', y: 'boarded' },
    ['misspelt-scale', 'draw[1].against'],
    { draw: ['bar', { as: 'line', y: 'year', against: 'right' }], x: 'pier', y: 'boarded' },
  ],
  [
    'a far value among bins',
    [...Array.from({ length: 40 }, (_, i) => ({ load: (i * 7) % 12 })), { load: 96 }],
    { draw: 'bar', x: 'bins of load', y: 'count' },
    ['far-value', 'x'],
    { draw: 'bar', x: { bins: 'load', until: 12 }, y: 'count' },
  ],
  [
    'one far value',
    kiln,
    LINE,
    ['far-value', 'scales.y'],
    { ...LINE, scales: { y: { kind: 'signed log' } } },
  ],
  ['several rows at one place', doubled, LINE, ['several-at-a-place', 'draw'], { ...LINE, color: 'route' }],
  [
    'several rows at one place, summed up',
    doubled,
    LINE,
    ['several-at-a-place', 'draw'],
    { ...LINE, y: 'mean of load' },
  ],
  [
    'bars in front of each other',
    doubled,
    { draw: 'bar', x: 'route', y: 'load' },
    ['several-at-a-place', 'draw'],
    { draw: 'bar', x: 'route', y: 'sum of load' },
  ],
  [
    'rows without a place',
    [...doubled, { pier: null, load: 4 }],
    { draw: 'scatter', x: 'pier', y: 'load' },
    ['without-place', 'x'],
    { draw: 'scatter', x: 'pier', y: 'load', where: { pier: { not: null } } },
  ],
  [
    'cells under each other',
    doubled,
    { draw: 'heatmap', x: 'pier', y: 'route', color: 'sum of load', series: 'boat' },
    ['several-at-a-place', 'draw'],
    { draw: 'heatmap', x: 'pier', y: 'route', color: 'sum of load' },
  ],
  [
    'words in which the rows of a bar differ',
    doubled,
    { draw: 'bar', x: 'route', y: 'sum of load', label: 'pier' },
    ['rows-disagree', 'label'],
    { draw: 'bar', x: 'route', y: 'sum of load', label: 'route' },
  ],
  [
    'an address in which the rows of a bar differ',
    doubled,
    { draw: 'bar', x: 'pier', y: 'sum of load', link: 'route' },
    ['rows-disagree', 'link'],
    { draw: 'bar', x: 'pier', y: 'sum of load', color: 'route', link: 'route' },
  ],
  [
    'a colour for a category that there is none of',
    doubled,
    { ...LINE, color: 'route', scales: { color: { colors: { Harbor: '#123456' } } } },
    ['unknown-category', 'scales.color.colors.Harbor'],
    { ...LINE, color: 'route', scales: { color: { colors: { Harbour: '#123456' } } } },
  ],
  [
    'a year along a ramp of colours',
    piers,
    { draw: 'scatter', x: 'pier', y: 'boarded', color: 'year' },
    ['name-as-quantity', 'color'],
    { draw: 'scatter', x: 'pier', y: 'boarded' },
  ],
  [
    'years that are added up',
    piers,
    { ...BARS, y: 'sum of year' },
    ['name-as-quantity', 'y'],
    { ...BARS, y: 'count' },
  ],
  [
    'the height of an identifier',
    piers.map((row, i) => ({ ...row, pier_id: 70 + i * 3 })),
    { ...BARS, y: 'pier_id' },
    ['name-as-quantity', 'y'],
    BARS,
  ],
  [
    'numbers with their unit in each cell',
    kiln.map(({ hour, load }) => ({ hour, load: `${load} kg` })),
    LINE,
    ['numbers-as-text', 'y'],
    { ...LINE, y: 'hour' },
  ],
  [
    'months by name that are not in order',
    ['Mar', 'Jan', 'Feb', 'Dec'].map((month, i) => ({ month, boarded: i * i })),
    { draw: 'line', x: 'month', y: 'boarded' },
    ['out-of-order', 'x'],
    {
      draw: 'line',
      x: 'month',
      y: 'boarded',
      scales: { x: { domain: ['Jan', 'Feb', 'Mar', 'Dec'] } },
    },
  ],
  [
    'a line of one point',
    [{ hour: 3, load: 4 }],
    LINE,
    ['lone-points', 'draw'],
    { ...LINE, draw: 'scatter' },
  ],
  [
    'a line in pieces of one point',
    Array.from({ length: 12 }, (_, i) => ({ at: `2024-03-${String(1 + 2 * i).padStart(2, '0')}`, load: i })),
    { draw: 'line', x: 'day of at', y: 'mean of load' },
    ['lone-points', 'draw'],
    { draw: 'line', x: 'week of at', y: 'mean of load' },
  ],
  [
    'points that lie under others',
    Array.from({ length: 60 }, (_, i) => ({ hour: i % 4, load: i % 3 })),
    { ...LINE, draw: 'scatter' },
    ['hidden-points', 'draw'],
    { ...LINE, draw: 'scatter', size: 'count' },
  ],
  [
    'bars that do not begin at zero',
    piers,
    { ...BARS, scales: { y: { domain: [30, 60] } } },
    ['zero-out-of-sight', 'scales.y.domain'],
    { ...BARS, scales: { y: { domain: [0, 60] } } },
  ],
  [
    'bars on a logarithmic scale',
    piers,
    { ...BARS, scales: { y: { kind: 'log' } } },
    ['zero-out-of-sight', 'scales.y.kind'],
    { ...BARS, scales: { y: { kind: 'root' } } },
  ],
  [
    'values beyond fixed ends',
    kiln.slice(0, 6),
    { ...LINE, scales: { y: { domain: [0, 5] } } },
    ['outside-domain', 'scales.y.domain'],
    { ...LINE, scales: { y: { domain: [0, null] } } },
  ],
  [
    'a category that the list of its scale does not have',
    doubled.slice(0, 2),
    { draw: 'bar', x: 'route', y: 'load', scales: { x: { domain: ['Harbour'] } } },
    ['not-in-domain', 'scales.x.domain'],
    { draw: 'bar', x: 'route', y: 'load', scales: { x: { domain: ['Harbour', 'Tern Point'] } } },
  ],
  [
    'zero on a logarithmic scale',
    [0, 10, 100].map((load, hour) => ({ hour, load })),
    { ...LINE, scales: { y: { kind: 'log' } } },
    ['not-on-log', 'scales.y.kind'],
    { ...LINE, scales: { y: { kind: 'signed log' } } },
  ],
  [
    'the points of a line of very many',
    MANY,
    { ...LINE, points: true },
    ['too-many-to-mark', 'points'],
    { ...LINE, points: true, where: { hour: { until: 40 } } },
  ],
  [
    'the labels of a line of very many',
    MANY,
    { ...LINE, label: true },
    ['too-many-to-mark', 'label'],
    { ...LINE, label: true, where: { hour: { until: 6 } } },
  ],
  [
    'the labels of very many points',
    Array.from({ length: 25_000 }, (_, hour) => ({ hour, load: (hour * 7919) % 10_007 })),
    { ...LINE, draw: 'scatter', label: true },
    ['too-many-to-mark', 'label'],
    { ...LINE, draw: 'scatter' },
  ],
  [
    'a negative slice',
    [4, 5, -1].map((load, i) => ({ load, pier: `Pier ${i}` })),
    { draw: 'pie', x: 'pier', y: 'load' },
    ['negative-slice', 'y'],
    { draw: 'bar', x: 'pier', y: 'load' },
  ],
  [
    'too many slices',
    piers,
    { draw: 'pie', x: 'pier', y: 'boarded', scales: { color: { colors: HUES } } },
    ['too-many-slices', 'draw'],
    { draw: 'bar', x: 'pier', y: 'boarded' },
  ],
  [
    'more categories than colours',
    many,
    { ...BARS, color: 'pier' },
    ['too-many-colors', 'color'],
    { ...BARS, color: 'pier', top: 6 },
  ],
  [
    'names without room on their axis',
    Array.from({ length: 90 }, (_, i) => ({ pier: `${i % 7}. pier ${i}`, boarded: i })),
    BARS,
    ['names-left-out', 'axes.x'],
    { ...BARS, top: 9 },
  ],
  [
    'names cut short on their axis',
    [...'abcdefgh'].map((letter, i) => ({ pier: `Landingstageatthe${letter}quay`, boarded: i })),
    BARS,
    ['names-shortened', 'axes.x'],
    { ...BARS, x: 'boarded', y: 'pier' },
  ],
  [
    'names without room in the legend',
    Array.from({ length: 60 }, (_, i) => ({ pier: `Pier ${i} of the north`, boarded: i })),
    { ...BARS, x: 'boarded', draw: 'scatter', color: 'pier', scales: { color: { colors: HUES } } },
    ['words-left-out', ''],
    {
      ...BARS,
      x: 'boarded',
      draw: 'scatter',
      color: 'pier',
      scales: { color: { colors: HUES } },
      legend: false,
    },
  ],
])('%s', (_, rows, description, found, mended) => {
  expect(codes(rows, description)).toEqual([found])
  expect(codes(rows, mended)).toEqual([])
})

describe('colours', () => {
  test('that repeat among what is seen are told, and one of its own mends it', () => {
    const few = {
      ...BARS,
      color: 'pier',
      where: { pier: ['Pier 1', 'Pier 2', 'Pier 25', 'Pier 27'] },
    } as Description
    const found = codes(many, few)
    const [, color] = [found, found.find(([code]) => code === 'colors-repeat')]
    expect(color).toEqual(['colors-repeat', 'color'])
    const view = new View(chart(table(many), few), {}, { width: 700, height: 420, measure: measureInter })
    const { message, remedy } = view.findings.find(({ code }) => code === 'colors-repeat')!
    expect(message).toMatch(/^"Pier \d+" and "Pier \d+" have the same colour$/)
    const name = /\{ "(Pier \d+)"/.exec(remedy)![1]
    expect(codes(many, { ...few, scales: { color: { colors: { [name]: '#888' } } } })).toEqual([])
  })

  test('and sizes of texts are none, which is told', () => {
    const rows = [
      { wind: 3, delay: 4, pier: 'Old Mole' },
      { wind: 5, delay: 1, pier: 'Kelp Quay' },
    ]
    const sized = { draw: 'scatter', x: 'wind', y: 'delay' } as const
    expect(codes(rows, { ...sized, size: 'pier' } as Description)).toContainEqual(['no-effect', 'size'])
    expect(codes(rows, { ...sized, size: 'delay' } as Description)).toEqual([])
  })

  test('of buckets are given by the names that people read', () => {
    const rows = ['2023-05-01', '2024-05-01'].map((done, i) => ({ done, load: i + 1 }))
    const description: Description = {
      draw: 'bar',
      x: 'load',
      y: 'load',
      color: 'year of done',
      scales: { color: { colors: { '2023': '#123456' } } },
    }
    expect(codes(rows, description)).toEqual([])
    const view = new View(
      chart(table(rows), description),
      {},
      { width: 700, height: 420, measure: measureInter },
    )
    const bars = view.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')!
    expect(bars.colors[bars.color[0]]).toBe('#123456')
  })
})
