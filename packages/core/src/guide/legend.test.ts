import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Batch, Texts } from '../scene/scene.ts'
import { measureInter } from '../theme/text-width.ts'
import { day } from '../theme/theme.ts'
import { type GuideBlock, type LegendEntry, legend } from './legend.ts'
import { rampLegend } from './ramp-legend.ts'
import { sizeLegend } from './size-legend.ts'

const X = 40
const Y = 20
const name = fc.oneof(
  fc.string({ minLength: 1, maxLength: 40 }),
  fc.constant('A name as long as a whole sentence, and then some more of it'),
)
const width = fc.integer({ min: 60, max: 900 })
const entryOf = (name: string, i: number, swatch: LegendEntry['swatch']): LegendEntry => ({
  key: `${i}`,
  name,
  color: '#006569',
  dash: [],
  hidden: i % 5 === 4,
  swatch,
})

interface Box {
  text: string
  left: number
  right: number
  top: number
  bottom: number
}
const boxesOf = (batches: readonly Batch[]): Box[] =>
  batches
    .filter((batch): batch is Texts => batch.kind === 'texts')
    .flatMap(batch =>
      batch.texts.map((text, i) => {
        const wide = measureInter(text, batch)
        const left = batch.x[i] - { start: 0, middle: wide / 2, end: wide }[batch.anchor]
        return { text, left, right: left + wide, top: batch.y[i] - batch.size * 0.75, bottom: batch.y[i] + 3 }
      }),
    )

/** All words within the room, none on another. */
function expectTidy({ batches, width, height }: GuideBlock, room: number): Box[] {
  const boxes = boxesOf(batches)
  boxes.forEach((box, i) => {
    expect(box.left, box.text).toBeGreaterThanOrEqual(X - 0.5)
    expect(box.right, box.text).toBeLessThanOrEqual(X + Math.max(width, 0) + 0.5)
    expect(box.bottom, box.text).toBeLessThanOrEqual(Y + height + 0.5)
    expect(box.top).toBeGreaterThanOrEqual(Y - 0.5)
    for (const other of boxes.slice(0, i)) {
      const apart =
        box.right <= other.left + 0.5 ||
        other.right <= box.left + 0.5 ||
        box.bottom <= other.top + 0.5 ||
        other.bottom <= box.top + 0.5
      expect(apart, `${box.text} on ${other.text}`).toBe(true)
    }
  })
  expect(width).toBeLessThanOrEqual(room + 0.5)
  return boxes
}

describe('a legend of names', () => {
  test('stays in its room, and tells of every series or of how many more there are', () => {
    fc.assert(
      fc.property(
        fc.array(name, { minLength: 1, maxLength: 40 }),
        fc.constantFrom('line' as const, 'rect' as const, 'disc' as const),
        width,
        fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }),
        fc.option(fc.constant('Route'), { nil: undefined }),
        fc.integer({ min: 60, max: 400 }),
        (names, swatch, room, columns, title, height) => {
          const entries = names.map((name, i) => entryOf(name, i, swatch))
          const list = { id: 'legend', entries, title, columns, more: (n: number) => `+${n}` }
          const block = legend(list, X, Y, room, height, day, measureInter)
          expectTidy(block, room)
          const words = block.batches.filter(batch => batch.kind === 'texts')
          const keys = words.flatMap(batch => Array.from(batch.keys, String))
          const shown = keys.filter(key => key !== 'title' && key !== 'rest')
          expect(new Set(shown).size).toBe(shown.length)
          const more = words.flatMap(batch => batch.texts).find(text => /^\+\d+$/.test(text))
          expect(shown.length + (more && keys.includes('rest') ? Number(more) : 0)).toBe(names.length)
        },
      ),
    )
  })
})

describe('a legend of colours', () => {
  test('stays in its room, its ends named', () => {
    fc.assert(
      fc.property(
        name,
        fc.array(fc.constantFrom('0', '1,000', '−12.5 knots', '99%'), { minLength: 2, maxLength: 9 }),
        fc.integer({ min: 160, max: 900 }),
        (title, labels, room) => {
          const colors = Array.from({ length: Math.max(1, labels.length - 1) }, () => '#006569')
          const block = rampLegend({ title, colors, labels }, X, Y, room, day, measureInter)
          const boxes = expectTidy(block, room)
          const texts = boxes.map(box => box.text)
          expect(texts.at(-1)).toBe(labels.at(-1))
          if (room > 320) expect(texts[1]).toBe(labels[0])
        },
      ),
    )
  })
})

describe('a legend of sizes', () => {
  test('stays in its room, from the least to the greatest', () => {
    fc.assert(
      fc.property(name, fc.integer({ min: 2, max: 20 }), width, (title, largest, room) => {
        const steps = [
          { text: '10', share: 0.4 },
          { text: '100', share: 0.7 },
          { text: '1,000', share: 1 },
        ]
        const block = sizeLegend({ title, steps }, largest, X, Y, room, day, measureInter)
        expectTidy(block, room)
        const discs = block.batches.find(batch => batch.kind === 'discs')
        if (discs?.kind !== 'discs') throw new Error('There are no discs')
        for (let i = 1; i < discs.x.length; i++) {
          expect(discs.x[i] - discs.radius[i]).toBeGreaterThan(discs.x[i - 1] + discs.radius[i - 1])
          expect(discs.radius[i]).toBeGreaterThan(discs.radius[i - 1])
        }
      }),
    )
  })
})

test('a long list is leafed through: every entry comes in turn, and none twice before all were', () => {
  const names = Array.from({ length: 23 }, (_, i) => `Route ${i}`)
  const entries = names.map((name, i) => entryOf(name, i, 'line'))
  const more = (count: number) => `and ${count} more`
  const seen: string[] = []
  for (let from = 0; from < entries.length; ) {
    const list = { id: 'legend', entries, title: undefined, columns: undefined, from, more }
    const block = legend(list, X, Y, 300, 80, day, measureInter)
    const shown = expectTidy(block, 300).filter(({ text }) => text.startsWith('Route'))
    expect(shown.length).toBeGreaterThan(0)
    expect(boxesOf(block.batches).map(({ text }) => text)).toContain(more(entries.length - shown.length))
    seen.push(...shown.map(({ text }) => text))
    from += shown.length
  }
  expect(seen).toEqual(names)
})

test('lines whose points are marked have a point in their swatch, and a shortened name keeps the whole', () => {
  const entries = [
    { ...entryOf('Fulmar', 0, 'line'), pointed: true },
    entryOf('A name as long as a whole sentence, and then some more of it', 1, 'line'),
  ]
  const { batches } = legend(
    { id: 'legend', entries, title: undefined, columns: 1, more: count => `and ${count} more` },
    X,
    Y,
    120,
    200,
    day,
    measureInter,
  )
  const points = batches.find(({ id }) => id === 'legend/points')
  expect(points?.kind === 'discs' && [...points.x]).toEqual([X + 10])
  const names = batches.find(({ id }) => id === 'legend/names') as Texts
  expect(names.texts[1]).toMatch(/…$/)
  expect(names.whole).toEqual([undefined, entries[1].name])
})
