import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { compose, type Scene, type Texts } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { describe, expect, test } from 'vitest'
import { axisExamples } from '../examples/gallery/src/axes-charts.ts'
import { textBoxes, touching } from './support/text-boxes.ts'

const data = (name: string) => readFileSync(join(import.meta.dirname, '../demo-data', `${name}.csv`), 'utf8')
const examples = axisExamples(data('sailings'), data('piers'), data('vessels'))

/** The scene of an example, in the frame that the gallery gives it. */
function sceneOf(name: string): Scene {
  const example = examples.find(one => one.name === name)
  if (!example) throw new Error(`There is no example "${name}"`)
  return compose(
    example.chart,
    {},
    {
      width: example.width ?? 380,
      height: example.height ?? 240,
      locale: example.locale,
      measure: measureInter,
    },
  )
}

/** Labels of an axis from left to right or bottom to top; `larger` gives the units above them. */
function labels(scene: Scene, axis: string, part = 'labels'): string[] {
  return scene.batches
    .filter(
      (batch): batch is Texts =>
        batch.kind === 'texts' && batch.id === axis.replace(/(\w+)$/, `axis $1/${part}`),
    )
    .flatMap(batch =>
      batch.texts.map((text, i) => ({
        text: text.replace(/[\u00a0\u202f]/g, ' '),
        at: axis.endsWith('x') ? batch.x[i] : -batch.y[i],
      })),
    )
    .sort((a, b) => a.at - b.at)
    .map(one => one.text)
}

describe('labels that come out', () => {
  test.each([
    ['Numbers', 'y', ['-10', '0', '10', '20', '30', '40']],
    ['Numbers', 'x', ['0', '20', '40', '60']],
    ['Counts', 'y', ['0', '500', '1,000', '1,500', '2,000', '2,500']],
    ['Money', 'y', ['€0', '€0.5M', '€1.0M']],
    ['Shares', 'y', ['0%', '25%', '50%']],
    ['A billionth apart', 'y', ['5.000000001', '5.000000002', '5.000000003', '5.000000004', '5.000000005']],
    ['Very large', 'y', ['0', '2.5×10¹⁵', '5.0×10¹⁵']],
    ['Twelve hours', 'x', ['06:00', '08:00', '10:00', '12:00', '14:00', '16:00']],
    ['Three weeks', 'x', ['4', '11', '18']],
    ['Quarters', 'x', ['Q1', 'Q3', 'Q1', 'Q3', 'Q1', 'Q3']],
    ['Centuries', 'x', ['1400', '1500', '1600', '1700', '1800', '1900', '2000']],
    ['German', 'y', ['0 €', '0,5 Mio. €', '1,0 Mio. €']],
    // Told from left to right; it begins at the right.
    ['Arabic, right to left', 'x', ['يوليو', 'يناير', 'يوليو', 'يناير', 'يوليو', 'يناير']],
    ['Japanese', 'x', ['月', '火', '水', '木', '金', '土', '日']],
    ['Summer time, Lisbon', 'x', ['18:00', '00:00', '06:00', '12:00']],
    ['Two scales, one grid', 'y', ['0', '50,000', '100,000']],
    ['Two scales, one grid', 'right', ['0', '5', '10']],
    ['Percentage of a total', 'right', ['0%', '20%', '40%']],
    ['Signed logarithm', 'y', ['-10,000', '-100', '0', '100', '10,000']],
  ])('%s, %s', (name, axis, expected) => {
    expect(labels(sceneOf(name), axis)).toEqual(expected)
  })

  test('name the larger unit where it changes', () => {
    expect(labels(sceneOf('Money'), 'x', 'larger')).toEqual(['2023', '2024', '2025'])
    expect(labels(sceneOf('Summer time, Lisbon'), 'x', 'larger')).toEqual(['Sun, Mar 31, 2024'])
    expect(labels(sceneOf('Arabic, right to left'), 'x', 'larger')).toEqual(['٢٠٢٥', '٢٠٢٤', '٢٠٢٣'])
  })
})

describe('axes', () => {
  test('a second scale has its ticks on the gridlines of the first, to the pixel', () => {
    const scene = sceneOf('Two scales, one grid')
    const heights = (axis: string) =>
      scene.batches.flatMap(batch =>
        batch.kind === 'texts' && batch.id === `axis ${axis}/labels` ? [...batch.y] : [],
      )
    expect(heights('right').length).toBeGreaterThan(2)
    expect(heights('right')).toEqual(heights('y'))
  })

  test('a percentage of a total says what it is worth on the first scale', () => {
    const { scales } = sceneOf('Percentage of a total')
    expect(scales.get('right')!.map(0.25)).toBeCloseTo(scales.get('y')!.map(0.25 * 1_493_029), 6)
  })

  test('an hour that summer time skips takes no room', () => {
    const { scales } = sceneOf('Summer time, Lisbon')
    const x = scales.get('x')!
    const six = x.map(Date.parse('2024-03-31T05:00Z')) - x.map(Date.parse('2024-03-31T00:00Z'))
    const usual = x.map(Date.parse('2024-03-31T11:00Z')) - x.map(Date.parse('2024-03-31T05:00Z'))
    expect(six / usual).toBeCloseTo(5 / 6, 6)
  })

  test('panes line up to the pixel and name their shared axis once', () => {
    const scene = sceneOf('Panes')
    expect(scene.plots.length).toBe(3)
    for (const plot of scene.plots) {
      expect(plot.x).toBe(scene.plots[0].x)
      expect(plot.width).toBe(scene.plots[0].width)
    }
    expect(labels(scene, '0/x')).toEqual([])
    expect(labels(scene, '2/x')[0]).toBe('1')
    expect(scene.scales.get('0/x')!.domain).toEqual(scene.scales.get('2/x')!.domain)
  })

  test('logarithms have minor lines, stripes and emphasis their shapes, pictures their places', () => {
    const ids = (name: string) => new Set(sceneOf(name).batches.map(batch => batch.id))
    expect(ids('Logarithms').has('grid y/minor')).toBe(true)
    for (const id of ['stripes x', 'grid x/strong', 'axis x/ticks'])
      expect(ids('Stripes and strong lines').has(id)).toBe(true)
    const pictures = sceneOf('Pictures').batches.find(batch => batch.kind === 'images')
    expect(pictures?.kind === 'images' && pictures.words).toEqual([
      'Guillemot',
      'Fulmar',
      'Sandpiper',
      'Dunlin',
      'Great Skua',
    ])
  })

  test.each(examples.map(one => one.name))('%s: no two labels touch', name => {
    expect(touching(textBoxes(sceneOf(name)))).toEqual([])
  })
})
