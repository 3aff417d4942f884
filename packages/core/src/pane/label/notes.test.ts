import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../../tests/support/extent.ts'
import { textBoxes, touching } from '../../../../../tests/support/text-boxes.ts'
import { type Batch, chart, type Description, table } from '../../index.ts'
import type { Rects, Segments, Texts } from '../../scene/scene.ts'
import { contrast } from '../../theme/contrast.ts'
import { measureInter } from '../../theme/text-width.ts'
import { View } from '../../view/view.ts'

const rows = Array.from({ length: 24 }, (_, i) => ({
  day: `2024-01-${String((i % 12) + 1).padStart(2, '0')}`,
  route: i < 12 ? 'North Sound' : 'Tern Point',
  passengers: 40 + ((i * 37) % 50) * (i < 12 ? 2 : 1),
}))
const sailings = table(rows, { name: 'sailings' })
const viewOf = (description: unknown, state = {}, width = 800) =>
  new View(chart(sailings, description as Description), state, { width, height: 500, measure: measureInter })
const batchesOf = <B extends Batch>(view: View, kind: B['kind'], id: RegExp) =>
  view.scene.batches.filter((batch): batch is B => batch.kind === kind && id.test(batch.id))
const notesOf = (view: View) =>
  batchesOf<Texts>(view, 'texts', /^notes\/words/).flatMap(batch => [...batch.texts])
const lines = { draw: 'line', x: 'day', y: 'passengers', color: 'route' }

describe('a note', () => {
  test('points at the datum of a series, and keeps with it while a person zooms', () => {
    const notes = [{ words: 'Storm', x: '2024-01-05', series: 'Tern Point' }]
    for (const state of [
      {},
      { zoom: { x: [Date.UTC(2024, 0, 3), Date.UTC(2024, 0, 8)] as [number, number] } },
    ]) {
      const view = viewOf({ ...lines, notes }, state)
      expect(notesOf(view)).toEqual(['Storm'])
      const [leads] = batchesOf<Segments>(view, 'segments', /^notes\/leads/)
      const at = {
        x: view.scene.scales.get('x')!.map(Date.UTC(2024, 0, 5)),
        y: view.scene.scales.get('y')!.map(rows[16].passengers),
      }
      expect(Math.hypot(leads.x2[0] - at.x, leads.y2[0] - at.y)).toBeLessThan(14)
    }
    const away = viewOf({ ...lines, notes }, { zoom: { x: [Date.UTC(2024, 0, 9), Date.UTC(2024, 0, 11)] } })
    expect(notesOf(away)).toEqual([])
    expect(away.findings.map(({ code }) => code)).not.toContain('note-without-place')
  })

  test('about a stretch has a bracket from its beginning to its end', () => {
    const view = viewOf({
      ...lines,
      notes: [{ words: 'Works', x: { from: '2024-01-03', until: '2024-01-06' } }],
    })
    const [leads] = batchesOf<Segments>(view, 'segments', /^notes\/leads/)
    const x = view.scene.scales.get('x')!
    expect(leads.x1[0]).toBeCloseTo(x.map(Date.UTC(2024, 0, 3)), 2)
    expect(leads.x2[0]).toBeCloseTo(x.map(Date.UTC(2024, 0, 6)), 2)
  })

  test('stands on no word, no line and no point, wherever it points', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 320, max: 1200 }),
        fc.boolean(),
        (day, width, bars) => {
          const description = {
            ...(bars
              ? { draw: 'bar', x: 'route', y: 'sum of passengers', label: true }
              : { ...lines, points: true }),
            notes: [
              {
                words: 'The lower stage was closed',
                x: bars ? 'Tern Point' : `2024-01-${String(day).padStart(2, '0')}`,
              },
            ],
          }
          const view = viewOf(description, {}, width)
          const boxes = textBoxes(view.scene)
          expect(touching(boxes)).toEqual([])
          const own = boxes.filter(({ text }) => notesOf(view).includes(text))
          for (const batch of batchesOf(view, 'discs', /points/) as { x?: Float32Array; y?: Float32Array }[])
            batch.x!.forEach((x, i) => {
              for (const box of own)
                expect(
                  x > box.left && x < box.right && batch.y![i] > box.top && batch.y![i] < box.bottom,
                ).toBe(false)
            })
          if (notesOf(view).length === 0)
            expect(view.findings.map(({ code }) => code)).toContain('labels-left-out')
        },
      ),
      { numRuns: runs(40) },
    )
  })

  test('at a bar points at its end', () => {
    const view = viewOf({
      draw: 'bar',
      y: 'route',
      x: 'sum of passengers',
      notes: [{ words: 'Half of all', y: 'Tern Point' }],
    })
    const [leads] = batchesOf<Segments>(view, 'segments', /^notes\/leads/)
    const [bars] = batchesOf<Rects>(view, 'rects', /bar$/)
    expect(Math.abs(leads.x2[0] - bars.x[1] - bars.width[1])).toBeLessThan(14)
    expect(leads.y2[0]).toBeGreaterThan(bars.y[1] - 14)
  })

  test('about nothing that is shown is told', () => {
    const view = viewOf({
      ...lines,
      notes: [
        { words: 'Lost', x: '2029-01-01', y: 4 },
        { words: 'Also', series: 'None' },
      ],
    })
    expect(view.findings.map(({ path }) => path)).toEqual(expect.arrayContaining(['notes[0]', 'notes[1]']))
    expect(notesOf(view)).toEqual([])
  })
})

test('a title names series in their colours, as inks that can be read', () => {
  const view = viewOf({
    ...lines,
    title: 'Tern Point, not Tern Pointers, beats North Sound',
    colorNames: true,
  })
  const [title] = batchesOf<Texts>(view, 'texts', /^title/)
  expect([...title.texts]).toEqual(['Tern Point', ', not Tern Pointers, beats ', 'North Sound'])
  const inks = Array.from(title.color, index => title.colors[index])
  expect(new Set(inks).size).toBe(3)
  for (const ink of inks) expect(contrast(ink, view.scene.background!)!).toBeGreaterThanOrEqual(4.5)
  const [, second] = title.x
  expect(second - title.x[0]).toBeCloseTo(measureInter('Tern Point', title), 3)
})
