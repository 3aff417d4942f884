import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, type Description, type Reading, type Scene, table } from '../index.ts'
import { type Composition, dataTables, readAt, View } from '../internal.ts'
import { measureInter } from '../theme/text-width.ts'

/**
 * Every text that speaks of a shape says what the shape shows: each shape is decoded through its scale and compared with
 * ticks, labels, tooltip, data table, spoken words, legend and heading.
 */

const FRAME = { width: 900, height: 520, measure: measureInter }
const ROUTES = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries']
const PIERS = ['Old Mole', 'Kelp Quay', 'Harbour', 'Weir Stage', 'Gull Isle']
const PLAIN = { maximumFractionDigits: 2, useGrouping: false } as const

const amount = fc.oneof(
  fc.integer({ min: 1, max: 900 }),
  fc.double({ min: 0.5, max: 60, noNaN: true }).map(number => Math.round(number * 100) / 100),
)
const rows = fc.array(
  fc.record({
    route: fc.constantFrom(...ROUTES),
    pier: fc.constantFrom(...PIERS),
    day: fc.integer({ min: 1, max: 28 }).map(day => `2025-03-${String(day).padStart(2, '0')}`),
    wind: fc.integer({ min: 1, max: 60 }),
    boarded: amount,
    litres: amount,
  }),
  { minLength: 2, maxLength: 24 },
)
const tableOf = (list: object[]) =>
  table(list as Record<string, unknown>[], {
    columns: { boarded: { format: PLAIN }, litres: { format: PLAIN, unit: 'L' } },
  })

const SUM = 'sum of boarded'
const scales = fc.constantFrom<Description['scales']>(
  undefined,
  { y: { kind: 'root' } },
  { y: { reverse: true } },
  { y: { include: 2000 } },
)
const BARS: Record<string, Description> = {
  'standing bars': { draw: 'bar', x: 'pier', y: SUM, label: true },
  'lying bars': { draw: 'bar', y: 'pier', x: SUM, label: true, order: 'ranked' },
  'bars side by side': { draw: 'bar', x: 'pier', y: SUM, color: 'route' },
  'the best bars': { draw: 'bar', x: 'pier', y: SUM, top: 2 },
  'bars of some rows': { draw: 'bar', x: 'day of day', y: SUM, where: { wind: { from: 20 } } },
  'bars and the rest': { draw: 'bar', y: 'pier', x: SUM, top: 1, rest: 'All others' },
}
const STACKS: Record<string, Description> = {
  stacks: { draw: 'bar', x: 'pier', y: SUM, color: 'route', arrange: 'stack' },
  'lying stacks': { draw: 'bar', y: 'pier', x: SUM, color: 'route', arrange: 'stack' },
}
const LINES: Record<string, Description> = {
  lines: { draw: 'line', x: 'day of day', y: SUM, color: 'route', points: true },
  'a line of means': { draw: 'line', x: 'day', y: 'mean of boarded', points: true },
}

const numberIn = (text: string): number => Number(text.replace('−', '-').replace(/[^\d.-]/g, ''))
/** What half a pixel is worth, what single precision rounds away, and half the last digit that is written. */
const slackOf = (scale: { invert(pixel: number): number }, pixel: number, said: number): number =>
  Math.abs(scale.invert(pixel + 0.51) - scale.invert(pixel)) + 0.0051 + Math.abs(said) * 1e-3

interface Shown {
  key: string | number
  /** Where it is pointed at. */
  x: number
  y: number
  /** The value that it shows. */
  value: number
  /** Where that value stands, on its scale. */
  pixel: number
  color: string
}

/** The bars of a scene, each with the value that it shows: its end, or in a stack its length. */
function barsOf(scene: Scene, lying: boolean, stacked: boolean): Shown[] {
  const scale = scene.scales.get(lying ? 'x' : 'y')!
  return scene.batches.flatMap(batch => {
    if (batch.kind !== 'rects' || batch.part !== 'data') return []
    return Array.from(batch.x, (x, i) => {
      const [low, high] = lying ? [x, x + batch.width[i]] : [batch.y[i], batch.y[i] + batch.height[i]]
      const ends = [scale.invert(low), scale.invert(high)]
      const base = stacked ? undefined : scale.map(0)
      const end = base === undefined || Math.abs(low - base) > Math.abs(high - base) ? low : high
      return {
        key: batch.keys[i],
        x: x + batch.width[i] / 2,
        y: batch.y[i] + batch.height[i] / 2,
        value: stacked ? Math.abs(ends[1] - ends[0]) : scale.invert(end),
        pixel: end,
        color: batch.colors[batch.color[i]],
      }
    })
  })
}

function pointsOf(scene: Scene): Shown[] {
  const scale = scene.scales.get('y')!
  return scene.batches.flatMap(batch =>
    batch.kind === 'discs' && batch.part === 'data'
      ? Array.from(batch.x, (x, i) => ({
          key: batch.keys[i],
          x,
          y: batch.y[i],
          value: scale.invert(batch.y[i]),
          pixel: batch.y[i],
          color: batch.colors[batch.color[i]],
        }))
      : [],
  )
}

const textsOf = (scene: Scene, id: string) =>
  scene.batches.flatMap(batch =>
    batch.kind === 'texts' && batch.id === id
      ? batch.texts.map((text, i) => ({ text, x: batch.x[i], y: batch.y[i], key: batch.keys[i] }))
      : [],
  )

/** Ticks stand where their numbers are, and categories where their bars are. */
function expectTicks(scene: Scene): void {
  for (const [name, scale] of scene.scales) {
    if (scale.kind.name === 'category' || scale.kind.name === 'time') continue
    const axis = name === 'x' ? 'x' : 'y'
    for (const { text, x, y } of textsOf(scene, `axis ${name}/labels`)) {
      const pixel = axis === 'x' ? x : y
      // Words beside an upright axis stand with their middle at the tick.
      expect(Math.abs(scale.map(numberIn(text)) - pixel)).toBeLessThan(axis === 'x' ? 1 : 5)
    }
  }
}

/** What is read at a shape, in the tooltip, says the shape's value; the data table says the same words at the same place. */
function expectRead(
  composition: Composition,
  shown: readonly Shown[],
  lying: boolean,
): Map<string, string[]> {
  const { scene } = composition
  const scale = scene.scales.get(lying ? 'x' : 'y')!
  const read = new Map<string, string[]>()
  for (const { key, x, y, value, pixel, color } of shown) {
    const reading = readAt(composition, x, y)
    const row = reading?.rows.find(row => row.key === key)
    if (!reading || !row) continue
    expect(Math.abs(numberIn(row.text) - value)).toBeLessThanOrEqual(2 * slackOf(scale, pixel, value))
    if (row.series) expect(row.series.color).toBe(color)
    read.set(reading.heading, [...(read.get(reading.heading) ?? []), row.text])
  }
  const [{ rows: listed }] = dataTables(composition)
  for (const [heading, texts] of read) {
    const own = listed.filter(cells => cells.includes(heading)).flat()
    for (const text of texts) expect(own).toContain(text)
  }
  return read
}

/** The least and the greatest value that the spoken words name are those of the shapes, at the places where they stand. */
function expectSpoken(scene: Scene, shown: readonly Shown[], read: Map<string, string[]>): void {
  const said = /Values from ([\d.]+)[^(]*\(([^)]*)\) to ([\d.]+)[^(]*\(([^)]*)\)/.exec(scene.description)
  if (!said || shown.length === 0) return
  const values = shown.map(({ value }) => value)
  const near = (text: string, value: number) =>
    expect(Math.abs(Number(text) - value)).toBeLessThanOrEqual(Math.abs(value) * 0.02 + 3)
  near(said[1], Math.min(...values))
  near(said[3], Math.max(...values))
  expect(
    [...read].some(
      ([heading, texts]) =>
        said[2].startsWith(heading) && texts.some(text => Number.parseFloat(text) === Number(said[1])),
    ),
  ).toBe(true)
  expect(
    [...read].some(
      ([heading, texts]) =>
        said[4].startsWith(heading) && texts.some(text => Number.parseFloat(text) === Number(said[3])),
    ),
  ).toBe(true)
}

/** Every name of a legend has the colour of the shapes that are read under that name. */
function expectLegend({ scene }: Composition, readings: readonly (Reading | undefined)[]): void {
  const swatches = new Map<string | number, string>()
  for (const batch of scene.batches) {
    if (!/^(legend|ends)\/(bars|strokes|discs)$/.test(batch.id)) continue
    const keys = 'names' in batch ? batch.names : Array.from(batch.keys)
    for (const [i, key] of keys.entries()) swatches.set(key, batch.colors[batch.color[i]])
  }
  for (const row of readings.flatMap(reading => reading?.rows ?? []))
    if (row.series && swatches.has(row.series.key))
      expect(row.series.color).toBe(swatches.get(row.series.key))
}

const viewOf = (list: object[], description: Description) =>
  new View(chart(tableOf(list), description), {}, FRAME)

describe('shapes, and the words about them', () => {
  let met = 0
  test.each(Object.entries({ ...BARS, ...STACKS }))('%s', (name, description) => {
    const stacked = name in STACKS
    fc.assert(
      fc.property(rows, scales, (list, scales) => {
        const lying = description.y === 'pier'
        // In a stack lengths are compared, which only an even scale shows.
        const own = stacked || lying || !scales ? {} : { scales }
        const view = viewOf(list, { ...description, ...own, title: `{${SUM}}` })
        const composition = view.composition.value
        const { scene } = composition
        const shown = barsOf(scene, lying, stacked)
        if (shown.length === 0) return
        met += shown.length
        expectTicks(scene)
        const read = expectRead(composition, shown, lying)
        if (!stacked) expectSpoken(scene, shown, read)
        expectLegend(
          composition,
          shown.map(({ x, y }) => readAt(composition, x, y)),
        )
        const total = shown.reduce((sum, { value }) => sum + value, 0)
        expect(Math.abs(Number(scene.title) - total)).toBeLessThanOrEqual(total * 0.02 + 3)
        for (const { text, key } of textsOf(scene, 'drawing 0/labels')) {
          const bar = shown.find(bar => bar.key === key)!
          expect(Math.abs(numberIn(text) - bar.value)).toBeLessThanOrEqual(bar.value * 0.01 + 2)
        }
      }),
      { numRuns: runs(60) },
    )
    expect(met).toBeGreaterThan(runs(60))
  })

  test.each(Object.entries(LINES))('%s', (_, description) => {
    fc.assert(
      fc.property(rows, scales, (list, scales) => {
        const composition = viewOf(list, { ...description, scales }).composition.value
        const shown = pointsOf(composition.scene)
        expectTicks(composition.scene)
        const read = expectRead(composition, shown, false)
        if (!description.color) expectSpoken(composition.scene, shown, read)
        expectLegend(
          composition,
          shown.map(({ x, y }) => readAt(composition, x, y)),
        )
      }),
      { numRuns: runs(60) },
    )
  })

  test('points say their place, size and colour, also in the table', () => {
    fc.assert(
      fc.property(rows, fc.boolean(), (list, numeric) => {
        const composition = viewOf(list, {
          draw: 'scatter',
          x: 'wind',
          y: 'boarded',
          size: 'litres',
          color: numeric ? 'boarded' : 'route',
        }).composition.value
        const { scene } = composition
        expectTicks(scene)
        const [{ head, rows: listed }] = dataTables(composition)
        const discs = scene.batches.filter(batch => batch.kind === 'discs' && batch.part === 'data')
        for (const batch of discs) {
          if (batch.kind !== 'discs') continue
          const largest = Math.max(...batch.radius)
          const most = Math.max(...list.map(({ litres }) => litres))
          for (let i = 0; i < batch.x.length; i++) {
            const reading = readAt(composition, batch.x[i], batch.y[i])!
            const said = new Map(reading.rows.map(({ name, text }) => [name, text]))
            if (reading.rows[0].key !== batch.keys[i]) continue
            for (const [label, axis] of [
              ['Wind', 'x'],
              ['Boarded', 'y'],
            ] as const) {
              const scale = scene.scales.get(axis)!
              const pixel = batch[axis][i]
              const number = numberIn(said.get(label)!)
              expect(Math.abs(number - scale.invert(pixel))).toBeLessThanOrEqual(
                slackOf(scale, pixel, number),
              )
            }
            // Areas are in proportion to what they stand for.
            const litres = numberIn(said.get('Litres')!)
            expect((batch.radius[i] / largest) ** 2).toBeCloseTo(litres / most, 1)
            expect(head).toContain('Litres')
            const row = listed.find(cells => [...said.values()].every(text => cells.includes(text)))
            expect(row, `${[...said.values()]} in ${JSON.stringify(listed)}`).toBeDefined()
            if (!numeric) expect(row).toContain(reading.heading)
          }
        }
      }),
      { numRuns: runs(60) },
    )
  })

  test('slices say their value and their share', () => {
    fc.assert(
      fc.property(rows, list => {
        const composition = viewOf(list, { draw: 'pie', x: 'route', y: SUM, title: `{${SUM}}` }).composition
          .value
        const { scene } = composition
        const total = Number(scene.title)
        const [{ rows: listed }] = dataTables(composition)
        for (const batch of scene.batches) {
          if (batch.kind !== 'wedges') continue
          let parts = 0
          for (let i = 0; i < batch.keys.length; i++) {
            const turn = batch.to[i] - batch.from[i]
            const middle = batch.from[i] + turn / 2
            const reach = (batch.inner[i] + batch.outer[i]) / 2
            const at = [batch.x[i] + Math.sin(middle) * reach, batch.y[i] - Math.cos(middle) * reach] as const
            const [value, share] = readAt(composition, ...at)!.rows
            const part = turn / (Math.PI * 2)
            expect(Math.abs(numberIn(value.text) - part * total)).toBeLessThanOrEqual(total * 1e-3 + 0.02)
            expect(Math.abs(numberIn(share.text) / 100 - part)).toBeLessThanOrEqual(0.01)
            parts += share.text.startsWith('<') ? 0 : numberIn(share.text)
            expect(value.series!.color).toBe(batch.colors[batch.color[i]])
            expect(listed).toContainEqual([value.name, value.text])
          }
          if (batch.keys.length > 0) expect(parts).toBe(100)
        }
      }),
      { numRuns: runs(60) },
    )
  })

  test('cells of one colour say one value, and darker ones more', () => {
    fc.assert(
      fc.property(rows, list => {
        const composition = viewOf(list, { draw: 'heatmap', x: 'route', y: 'pier', color: SUM }).composition
          .value
        const { bound } = composition.panes[0]
        const cells = composition.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
        if (cells?.kind !== 'rects') return
        const [{ rows: listed }] = dataTables(composition)
        const said = Array.from(cells.x, (x, i) => {
          const [px, py] = [x + cells.width[i] / 2, cells.y[i] + cells.height[i] / 2]
          const { heading, rows } = readAt(composition, px, py)!
          expect(listed).toContainEqual([...heading.split(', '), rows[0].text])
          return {
            value: numberIn(rows[0].text),
            shade: bound.drawings[0].marks.shade!.of[i],
            at: cells.color[i],
          }
        })
        said.sort((a, b) => a.value - b.value)
        for (let i = 1; i < said.length; i++) expect(said[i].shade).toBeGreaterThanOrEqual(said[i - 1].shade)
        for (const { shade, at } of said) expect(at).toBe(shade)
      }),
      { numRuns: runs(60) },
    )
  })
})
