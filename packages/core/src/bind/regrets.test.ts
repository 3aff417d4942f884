import { describe, expect, test } from 'vitest'
import { chart, type Description, table, View } from '../index.ts'
import { measureInter } from '../theme/text-width.ts'

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

const piers = Array.from({ length: 12 }, (_, i) => ({
  pier: `Pier ${i + 1}`,
  year: 2020 + (i % 2),
  boarded: 40 + i,
}))
const kiln = [4, 5, 3, 6, 5, 7, 900].map((load, hour) => ({ hour, load }))
const doubled = [1, 1, 2, 2, 3, 3].map((hour, i) => ({
  hour,
  route: i % 2 ? 'Harbour' : 'Tern Point',
  load: i * 7,
}))
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
    'a colour for a category that there is none of',
    doubled,
    { ...LINE, color: 'route', scales: { color: { colors: { Harbor: '#123456' } } } },
    ['unknown-category', 'scales.color.colors.Harbor'],
    { ...LINE, color: 'route', scales: { color: { colors: { Harbour: '#123456' } } } },
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
      where: { pier: ['Pier 1', 'Pier 2', 'Pier 9', 'Pier 11'] },
    } as Description
    const found = codes(piers, few)
    const [, color] = [found, found.find(([code]) => code === 'colors-repeat')]
    expect(color).toEqual(['colors-repeat', 'color'])
    const view = new View(chart(table(piers), few), {}, { width: 700, height: 420, measure: measureInter })
    const { message, remedy } = view.findings.find(({ code }) => code === 'colors-repeat')!
    expect(message).toMatch(/^"Pier \d+" and "Pier \d+" have the same colour$/)
    const name = /\{ "(Pier \d+)"/.exec(remedy)![1]
    expect(codes(piers, { ...few, scales: { color: { colors: { [name]: '#888' } } } })).toEqual([])
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
