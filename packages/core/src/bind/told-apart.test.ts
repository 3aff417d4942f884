import {
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  lab,
  parse,
  rgb,
} from 'culori'
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { type Batch, chart, compose, type Description, paintSvg, table } from '../index.ts'
import { measureInter } from '../theme/text-width.ts'

/** No two things that are seen together look alike, unless they are alike. */

const difference = differenceCiede2000()
const grey = (color: string) => ({ mode: 'lab' as const, l: lab(parse(color)!)!.l, a: 0, b: 0 })
const EYES = {
  all: (color: string) => rgb(parse(color)!)!,
  'no red': (color: string) => filterDeficiencyProt(1)(rgb(parse(color)!)!),
  'no green': (color: string) => filterDeficiencyDeuter(1)(rgb(parse(color)!)!),
  'no blue': (color: string) => filterDeficiencyTrit(1)(rgb(parse(color)!)!),
}

/** What the shapes of a drawing look like: colour, and what else tells them apart. */
function looksOf(batches: readonly Batch[]): { color: string; mark: string }[] {
  const out = new Map<string, { color: string; mark: string }>()
  for (const batch of batches) {
    if (batch.part !== 'data' || batch.id.endsWith('/points') || batch.id.endsWith('/lone')) continue
    batch.color.forEach((index, i) => {
      const color = batch.colors[index]
      const dash = batch.kind === 'lines' ? batch.dash[i].join() : ''
      const mark = `${batch.kind} ${batch.hatched?.[color] ?? ''} ${dash}`
      out.set(`${color} ${mark}`, { color, mark })
    })
  }
  return [...out.values()]
}

/** The least difference between two that have one mark. */
function leastOf(
  looks: readonly { color: string; mark: string }[],
  eye: (color: string) => Parameters<typeof difference>[0],
) {
  let least = 100
  looks.forEach((a, i) => {
    for (const b of looks.slice(0, i))
      if (a.mark === b.mark) least = Math.min(least, difference(eye(a.color), eye(b.color)))
  })
  return least
}

const KINDS: Partial<Description>[] = [
  { draw: 'line' },
  { draw: 'bar' },
  { draw: 'bar', arrange: 'stack' },
  { draw: 'area' },
  { draw: 'pie', x: 'route', y: 'sum of passengers' },
]
const sceneOf = (count: number, kind: Partial<Description>, theme: 'day' | 'night', more = {}) => {
  const rows = Array.from({ length: count * 2 }, (_, i) => ({
    month: `2024-0${(i % 2) + 1}`,
    route: `Route ${i >> 1}`,
    passengers: 20 + i,
  }))
  const description = { x: 'month', y: 'passengers', color: 'route', ...kind, ...more } as Description
  return compose(
    chart(table(rows), description),
    {},
    { width: 900, height: 600, theme, measure: measureInter },
  )
}

test('up to two dozen categories are told apart by all eyes, in both themes', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 24 }),
      fc.constantFrom(...KINDS),
      fc.constantFrom('day' as const, 'night' as const),
      (count, kind, theme) => {
        const looks = looksOf(sceneOf(count, kind, theme).batches)
        expect(looks.length).toBeGreaterThanOrEqual(count)
        expect(leastOf(looks, EYES.all)).toBeGreaterThanOrEqual(15)
        for (const eye of Object.values(EYES)) expect(leastOf(looks, eye)).toBeGreaterThanOrEqual(11.9)
      },
    ),
    { numRuns: runs(60) },
  )
})

test('a dozen are told apart without colour where that is asked for', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 12 }),
      fc.constantFrom(...KINDS),
      fc.constantFrom('day' as const, 'night' as const),
      (count, kind, theme) => {
        const looks = looksOf(sceneOf(count, kind, theme, { scales: { color: { hatched: true } } }).batches)
        expect(leastOf(looks, grey)).toBeGreaterThanOrEqual(10)
      },
    ),
    { numRuns: runs(40) },
  )
})

test('the rest is grey, and what has a colour of its own keeps it plain', () => {
  const scene = sceneOf(20, { draw: 'bar', arrange: 'stack' }, 'day', {
    top: 12,
    rest: true,
    scales: { color: { colors: { 'Route 19': '#123456' } } },
  })
  const looks = looksOf(scene.batches)
  expect(looks.find(({ color }) => color === '#123456')!.mark.trim()).toBe('rects')
})

test('patterns are written once each, under names that say what they are', () => {
  const svg = paintSvg(sceneOf(14, { draw: 'bar', arrange: 'stack' }, 'day'))
  const names = [...svg.matchAll(/<pattern id="([^"]+)"/g)].map(([, name]) => name)
  expect(names.length).toBe(6)
  expect(new Set(names).size).toBe(6)
  for (const name of names) {
    expect(name).toMatch(/^dapplo-(rising|falling|upright|crossed)-[0-9a-f]{6}$/)
    expect(svg).toContain(`fill="url(&#35;${name})"`.replace('&#35;', '#'))
  }
})

test('a target, a ratio and points beside bars in colours are told apart from each other', () => {
  const rows = table(
    [1, 2, 3].flatMap(month =>
      ['Tern Point', 'Gannet Bay'].map(route => ({
        month,
        route,
        passengers: 10 * month,
        target: 12 * month,
      })),
    ),
  )
  for (const theme of ['day', 'night'] as const) {
    const scene = compose(
      chart(rows, {
        x: 'month',
        draw: [
          { as: 'bar', y: 'sum of passengers', color: 'route', arrange: 'stack' },
          { as: 'line', y: 'sum of target' },
          { as: 'line', y: 'mean of passengers', against: 'right' },
          { as: 'line', y: 'count', against: 'right' },
        ],
      }),
      {},
      { width: 640, height: 400, theme, measure: measureInter },
    )
    const lines = looksOf(scene.batches.filter(({ kind }) => kind === 'lines'))
    expect(lines).toHaveLength(3)
    expect(new Set(lines.map(({ mark }) => mark)).size).toBe(3)
  }
})

test('what is drawn twice, as an area with its line, has one colour and one entry in the legend', () => {
  const rows = table({ month: [1, 2, 3], passengers: [4, 9, 6], tonnes: [3, 2, 5] })
  const legendOf = (description: Description) => {
    const scene = compose(chart(rows, description), {}, { width: 640, height: 400, measure: measureInter })
    const names = scene.batches.find(({ id }) => /^(legend|ends)\/names$/.test(id))
    return {
      names: names?.kind === 'texts' ? [...names.texts] : [],
      colors: looksOf(scene.batches).map(({ color }) => color),
    }
  }
  const twice = legendOf({ x: 'month', y: 'passengers', draw: ['area', 'line', { as: 'line', y: 'tonnes' }] })
  expect(twice.names).toEqual(['Passengers', 'Tonnes'])
  expect(twice.colors[0]).toBe(twice.colors[1])
  expect(twice.colors[2]).not.toBe(twice.colors[0])
  // The same measure of other rows is another thing, and so is a line over bars.
  const others = legendOf({
    x: 'month',
    y: 'passengers',
    draw: ['line', { as: 'line', where: { month: [1, 2] }, name: 'Early' }],
  })
  expect(others.colors[0]).not.toBe(others.colors[1])
  const over = legendOf({ x: 'month', y: 'passengers', draw: ['bar', 'line'] })
  expect(over.colors[0]).not.toBe(over.colors[1])
})
