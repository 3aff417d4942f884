import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, compose, type Description, type Scene, table } from '../index.ts'
import {
  appear,
  between,
  type Composition,
  momentBetween,
  Playback,
  paced,
  readAt,
  View,
} from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'
import { endsOf } from './shape-ends.ts'

/** At every moment a number beside a shape is the value at which the shape stands. */

const FRAME = { width: 640, height: 400, measure: measureInter }
const PIERS = ['Gannet Slip', 'Harbour', 'Kelp Quay', 'Old Mole', 'Tern Jetty', 'Weir Stage', 'Gull Isle']
type Row = { pier: string; boarded: number; year?: number }

const value = fc.oneof(
  fc.integer({ min: -500, max: 2000 }),
  fc.double({ min: 0.01, max: 90, noNaN: true }).map(number => Math.round(number * 100) / 100),
)
const rows = fc
  .uniqueArray(fc.tuple(fc.constantFrom(...PIERS), value), { minLength: 1, selector: ([pier]) => pier })
  .map(list => list.map(([pier, boarded]): Row => ({ pier, boarded })))
const FORMAT = { maximumFractionDigits: 2, useGrouping: false } as const
const tableOf = (list: Row[]) => table(list, { columns: { boarded: { format: FORMAT } } })

const STANDING: Description = { draw: 'bar', x: 'pier', y: 'sum of boarded', label: true }
const LYING: Description = { draw: 'bar', y: 'pier', x: 'sum of boarded', label: true }
const drawn = fc.constantFrom<Description>(
  STANDING,
  LYING,
  { ...LYING, order: 'ranked' },
  { ...STANDING, scales: { y: { include: 2500 } } },
  { ...STANDING, draw: 'line', points: true, order: 'name' },
  { ...LYING, draw: ['bar', { as: 'reference', level: 'mean' }] },
)

/** Every label, read as a number, beside the value that its shape has through the scales of the scene. */
function labelled(scene: Scene): { said: number; shown: number; slack: number }[] {
  return scene.batches.flatMap(batch => {
    if (batch.kind !== 'texts' || !batch.measuredOn || !batch.figures) return []
    const { scale: name, axis } = batch.measuredOn
    const scale = scene.scales.get(name)!
    const ends = endsOf(scene.batches.filter(other => other.id === batch.of && other.kind !== 'texts'))
    return batch.texts.flatMap((text, i) => {
      const end = ends.get(batch.keys[i])
      if (!end) return []
      const said = Number(/-?\d[\d.]*$/.exec(text.replace('−', '-'))![0])
      // Half a device pixel, what single precision rounds away, and half the last digit that is written.
      const pixel = Math.abs(scale.invert(end[axis] + 0.5) - scale.invert(end[axis]))
      const digits = text.startsWith('Mean') ? Math.abs(said) * 5e-4 : 0
      return [{ said, shown: scale.invert(end[axis]), slack: pixel + 0.0051 + digits }]
    })
  })
}

function expectTruth(scene: Scene): number {
  const all = labelled(scene)
  for (const { said, shown, slack } of all) expect(Math.abs(said - shown)).toBeLessThanOrEqual(slack)
  return all.length
}

const moment = fc.double({ min: 0, max: 1, noNaN: true })

/** What is pointed at says what its bar shows, to the digits that tooltips have; how many bars were read. */
function expectPointed(composition: Composition, lying: boolean): number {
  let pointed = 0
  const { scene } = composition
  for (const batch of scene.batches) {
    if (batch.kind !== 'rects' || batch.part !== 'data') continue
    const scale = scene.scales.get(lying ? 'x' : 'y')!
    for (const [key, end] of endsOf([batch])) {
      const reading = readAt(composition, end.x, end.y)
      const row = reading?.rows.find(one => one.key === key)
      if (!row) continue
      const shown = scale.invert(lying ? end.x : end.y)
      const pixel = Math.abs(scale.invert(end.x + 0.5) - scale.invert(end.x))
      const read = Number(row.text.replace('−', '-'))
      expect(Math.abs(read - shown)).toBeLessThanOrEqual(pixel + 0.0051 + Math.abs(read) * 5e-4)
      pointed++
    }
  }
  return pointed
}

describe('labels count with their shapes', () => {
  test('in a glide from any data to any other, also while the scale changes', () => {
    let seen = 0
    fc.assert(
      fc.property(rows, rows, drawn, moment, fc.boolean(), (before, after, description, at, staggered) => {
        const scenes = [before, after].map(list => compose(chart(tableOf(list), description), {}, FRAME))
        const each = (i: number, count: number) => Math.max(0, Math.min(1, at * 1.5 - (0.5 * i) / count))
        seen += expectTruth(between(scenes[0], scenes[1])(at, at * 0.999, staggered ? each : undefined))
      }),
      { numRuns: runs(300) },
    )
    expect(seen).toBeGreaterThan(runs(500))
  })

  test('and what is pointed at on the way says what its bar shows, also where one goes after the other', () => {
    let pointed = 0
    fc.assert(
      fc.property(rows, rows, drawn, moment, fc.boolean(), (before, after, description, at, staggered) => {
        const [from, to] = [before, after].map(list => new View(chart(tableOf(list), description), {}, FRAME))
        const pace = paced(between(from.scene, to.scene), {
          duration: 400,
          delay: 0,
          easing: 'ease-in-out',
          stagger: staggered ? 150 : 0,
        })!
        const passed = at * pace.total * 0.999
        const composition = momentBetween(
          from.composition.value,
          to.composition.value,
          pace.at(passed),
          pace.share(passed),
        )
        pointed += expectPointed(composition, description.y === 'pier')
      }),
      { numRuns: runs(150) },
    )
    expect(pointed).toBeGreaterThan(runs(200))
  })

  test('when a chart appears', () => {
    fc.assert(
      fc.property(rows, drawn, moment, (list, description, at) => {
        expectTruth(appear(compose(chart(tableOf(list), description), {}, FRAME))(at, at * 0.999))
      }),
    )
  })

  test('between the periods of playback, with the sums in the words around it, and what is pointed at', () => {
    let pointed = 0
    fc.assert(
      fc.property(fc.array(rows, { minLength: 2, maxLength: 4 }), drawn, moment, (years, description, at) => {
        const list = years.flatMap((own, i) => own.map(row => ({ ...row, year: 2010 + i })))
        const played = chart(tableOf(list), {
          ...description,
          title: 'Sum {sum of boarded}',
          subtitle: 'In {year}',
          through: 'year',
        })
        const playback = new Playback(played, {}, FRAME)
        const place = at * playback.length
        const scene = playback.sceneAt(place)!
        expectTruth(scene)
        const words = (id: string) =>
          scene.batches.flatMap(batch => (batch.kind === 'texts' && batch.id === id ? batch.texts : []))
        const sum = (year: number) => years[year].reduce((all, { boarded }) => all + boarded, 0)
        const reached = Math.floor(place + 1e-9)
        const next = Math.min(reached + 1, years.length - 1)
        const said = Number(words('title')[0].slice(4))
        const expected = sum(reached) + (sum(next) - sum(reached)) * (place - reached)
        expect(Math.abs(said - expected)).toBeLessThanOrEqual(0.006)
        expect(words('subtitle')).toEqual([`In ${2010 + reached}`])
        expect(words('stamp')).toEqual([String(2010 + reached)])
        pointed += expectPointed(playback.compositionAt(place)!, description.y === 'pier')
      }),
      { numRuns: runs(150) },
    )
    expect(pointed).toBeGreaterThan(runs(200))
  })
})
