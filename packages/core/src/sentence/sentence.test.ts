import fc from 'fast-check'
import { expect, test } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { chart, spread, table } from '../index.ts'
import { wholeKey } from '../table/phrase/meaning.ts'
import { readWords } from '../words/holes.ts'
import { describe } from './describe.ts'
import { germanSentences } from './german.ts'
import type { AnyDescription, AnySpread } from './model.ts'
import { descriptionOf, sentenceOf } from './sentence.ts'
import { SENTENCE_WORDS } from './sentence-words.ts'

const german = { words: germanSentences, locale: 'de' }

test.each([
  [
    {
      x: 'month of departed',
      y: 'sum of passengers',
      color: 'route',
      draw: ['bar', { as: 'reference', level: 'mean', style: { dash: [4, 3] } }],
      arrange: 'stack',
      where: { vessel: ['Fulmar', 'Dunlin'] },
      title: 'Passengers',
    },
    'Draw bars of sum of passengers for each month of departed, one colour per route, stacked, only where vessel is Fulmar or Dunlin; and a reference at the mean, dashed by 4 3. The title is “Passengers”.',
    'Zeichne je Monat von departed Balken für Summe von passengers, je route eine Farbe, gestapelt, nur wo vessel Fulmar oder Dunlin ist; dazu eine Bezugslinie auf dem Mittel, gestrichelt mit 4 3. Der Titel ist „Passengers“.',
  ],
  [
    { draw: { as: 'bar', top: 10 }, x: 'count', y: 'vessel', order: 'ranked', rest: 'Others', label: true },
    'Draw lying bars of count for each vessel, only the 10 greatest, the rest as “Others”, the greatest first, with values.',
    'Zeichne je vessel liegende Balken für Anzahl, nur die 10 größten, der Rest als „Others“, das Größte zuerst, mit Werten.',
  ],
  [
    {
      draw: 'line',
      x: { month: 'departed', label: 'When' },
      y: ['fuel', 'revenue'],
      scales: { y: { kind: 'log' } },
    },
    'Draw a line of fuel and revenue over month of departed. The scale y is logarithmic. And settings of its own.',
    'Zeichne über Monat von departed eine Linie für fuel und revenue. Die Skala y ist logarithmisch. Dazu eigene Einstellungen.',
  ],
] as const)('%j is said in two languages', (description, english, deutsch) => {
  expect([
    sentenceOf(description as AnyDescription).text,
    sentenceOf(description as AnyDescription, german).text,
  ]).toEqual([english, deutsch])
})

test('a translation has all words, with the holes of each', () => {
  expect(Object.keys(germanSentences).sort()).toEqual([...new Set(SENTENCE_WORDS)].sort())
  for (const [words, own] of Object.entries(germanSentences))
    expect([...readWords(own).holes].sort(), words).toEqual([...readWords(words).holes].sort())
})

const phrase = fc.constantFrom(
  'route',
  'vessel',
  'count',
  'sum of passengers',
  'month of departed',
  'mean of delay',
  'p90 of delay',
  'sum of x',
)
const bind = fc.oneof(
  phrase,
  fc.record({ sum: fc.constant('passengers'), label: fc.string() }, { requiredKeys: ['sum'] }),
  fc.record({ value: fc.oneof(fc.integer(), fc.string()) }),
  fc.constant({ ratio: 'revenue', to: 'passengers', format: { unit: 'kr' } }),
  fc.constant(null),
)
const condition = fc.oneof(
  fc.string(),
  fc.integer(),
  fc.constant(null),
  fc.array(fc.string(), { maxLength: 3 }),
  fc.record({ from: fc.integer(), until: fc.integer() }, { requiredKeys: [] }),
  fc.record({ not: fc.string() }),
)
const looks = {
  x: bind,
  y: fc.oneof(bind, fc.array(phrase, { maxLength: 3 }), fc.record({ from: phrase, to: phrase })),
  color: bind,
  size: bind,
  label: fc.oneof(phrase, fc.boolean(), fc.record({ words: fc.string(), top: fc.integer() })),
  arrange: fc.constantFrom('side', 'stack', 'share', 'overlap'),
  between: fc.constantFrom('direct', 'smooth', 'hold next'),
  points: fc.boolean(),
  top: fc.integer({ min: 1, max: 20 }),
  rest: fc.oneof(fc.boolean(), fc.string()),
  order: fc.constantFrom('ranked', 'name', 'given'),
  fit: fc.oneof(fc.constant('log'), fc.record({ degree: fc.integer() })),
  where: fc.dictionary(phrase, condition, { maxKeys: 2 }),
  style: fc.record(
    { color: fc.string(), width: fc.nat(), dash: fc.array(fc.nat(), { maxLength: 3 }), caps: fc.boolean() },
    { requiredKeys: [] },
  ),
}
const own = {
  ...looks,
  name: fc.string(),
  against: fc.string(),
  level: fc.constantFrom('mean', 'p90'),
  listed: fc.boolean(),
}
const kind = fc.constantFrom('line', 'area', 'bar', 'scatter', 'pie', 'heatmap', 'reference', 'trend', 'text')
const drawing = fc.oneof(
  kind,
  fc.tuple(kind, fc.record(own, { requiredKeys: [] })).map(([as, more]) => ({ as, ...more })),
)
const description = fc
  .tuple(
    fc.oneof(drawing, fc.array(drawing, { minLength: 1, maxLength: 3 })),
    fc.record(
      {
        ...looks,
        title: fc.string(),
        legend: fc.oneof(fc.constantFrom(false, 'right' as const), fc.record({ at: fc.constant('top') })),
        tooltip: fc.oneof(fc.constant(false), fc.string(), fc.array(phrase, { maxLength: 2 })),
        through: bind,
        panes: fc.oneof(phrase, fc.record({ by: bind, columns: fc.nat() }, { requiredKeys: ['by'] })),
        zoom: fc.constantFrom(false, 'x', 'xy'),
        select: fc.oneof(fc.constant('click'), fc.array(fc.constant('box'), { maxLength: 2 })),
        axes: fc.dictionary(
          fc.constantFrom('x', 'y'),
          fc.oneof(
            fc.constant(false),
            fc.record({ title: fc.string(), stripes: fc.boolean() }, { requiredKeys: [] }),
          ),
        ),
        scales: fc.dictionary(
          fc.constantFrom('x', 'y', 'color', '__proto__'),
          fc.oneof(
            fc.string(),
            fc.record(
              {
                kind: fc.constantFrom('log', 'time'),
                domain: fc.array(fc.oneof(fc.integer(), fc.constant(null)), { maxLength: 3 }),
                include: fc.oneof(fc.integer(), fc.array(fc.integer(), { maxLength: 2 })),
                reverse: fc.boolean(),
                colors: fc.oneof(
                  fc.array(fc.string(), { maxLength: 2 }),
                  fc.dictionary(fc.string(), fc.string(), { maxKeys: 2 }),
                ),
              },
              { requiredKeys: [] },
            ),
          ),
        ),
        notes: fc.array(
          fc.record(
            {
              words: fc.string(),
              x: fc.oneof(fc.string(), fc.integer(), fc.record({ from: fc.string(), until: fc.string() })),
              y: fc.integer(),
              series: fc.string(),
              against: fc.constant('right'),
            },
            { requiredKeys: ['words'] },
          ),
          { maxLength: 2 },
        ),
        controls: fc.array(
          fc.record(
            {
              set: fc.string(),
              to: fc.array(fc.oneof(phrase, fc.integer()), { maxLength: 2 }),
              as: fc.constant('menu'),
            },
            { requiredKeys: ['set'] },
          ),
          { maxLength: 2 },
        ),
      },
      { requiredKeys: [] },
    ),
  )
  .map(([draw, more]) => ({ draw, ...more }) as unknown as AnyDescription)

test('every description can be read as a sentence, which leads back to it, in any language', () => {
  fc.assert(
    fc.property(description, description => {
      const before = JSON.stringify(description)
      const english = sentenceOf(description)
      expect(descriptionOf(english)).toEqual(description)
      expect(descriptionOf(sentenceOf(description, german))).toEqual(description)
      expect(JSON.stringify(description)).toBe(before)
      // Each choice is about what stands at its place.
      const known = [...english.said, ...english.unsaid]
      for (const piece of english.pieces)
        if (typeof piece !== 'string')
          expect(known.some(({ path }) => path.join().startsWith(piece.path.join()))).toBe(true)
      expect(english.text.endsWith(' And settings of its own.')).toBe(english.unsaid.length > 0)
    }),
    { numRuns: runs(400) },
  )
})

const together = fc.record(
  {
    spread: fc.array(description, { minLength: 1, maxLength: 3 }),
    title: fc.string(),
    caption: fc.string(),
    columns: fc.integer({ min: 1, max: 3 }),
    share: fc.array(fc.constantFrom('x', 'y'), { maxLength: 2 }),
    background: fc.string(),
  },
  { requiredKeys: ['spread'] },
)

test('several charts in one picture have a sentence each, which together lead back to them', () => {
  fc.assert(
    fc.property(together, drawn => {
      for (const options of [{}, german]) {
        const sentence = sentenceOf(drawn as AnySpread, options)
        expect(descriptionOf<AnySpread>(sentence)).toEqual(drawn)
        const charts = sentence.lines.map(({ chart }) => chart).filter(chart => chart !== undefined)
        expect(charts).toEqual(drawn.spread.map((_, i) => i))
        for (const { chart, pieces } of sentence.lines)
          for (const piece of pieces)
            if (typeof piece !== 'string' && chart !== undefined)
              expect(piece.path.slice(0, 2)).toEqual(['spread', chart])
      }
    }),
    { numRuns: runs(200) },
  )
  const two: AnySpread = {
    title: 'One boat, two measures',
    share: ['x'],
    spread: [
      { draw: 'bar', x: 'month of departed', y: 'sum of passengers' },
      { draw: 'line', x: 'month of departed', y: 'mean of delay' },
    ],
  }
  expect(sentenceOf(two).text).toBe(
    'Draw bars of sum of passengers for each month of departed. Below it: Draw a line of mean of delay over month of departed. All have the scale x in common. The title is “One boat, two measures”.',
  )
  expect(sentenceOf({ ...two, columns: 2 }, german).text).toContain(
    'Daneben: Zeichne über Monat von departed',
  )
})

test('a chart says itself, by the columns of its table, and so do several', () => {
  const piers = table([{ pier: 'Old Mole', boats: 3, count: 'a' }])
  const bars = chart(piers, { draw: 'bar', x: 'boats', y: 'pier' })
  expect(describe(bars)).toBe('Draw lying bars of boats for each pier.')
  expect(describe(bars, german)).toBe('Zeichne je pier liegende Balken für boats.')
  expect(describe(spread([bars, bars.with({ draw: 'scatter' })], { title: 'Two' }))).toBe(
    'Draw lying bars of boats for each pier. Below it: Draw points at boats and pier. The title is “Two”.',
  )
})

test('descriptions that are said in full and differ are said differently', () => {
  const { arrange, between, points, top, order } = looks
  const plain = fc
    .record(
      {
        draw: fc.oneof(kind, fc.array(kind, { minLength: 1, maxLength: 2 })),
        x: phrase,
        y: fc.oneof(phrase, fc.array(phrase, { minLength: 1, maxLength: 2 })),
        ...{
          color: phrase,
          size: phrase,
          arrange,
          between,
          points,
          top,
          order,
          title: fc.constantFrom('A', 'B'),
        },
        where: fc.dictionary(phrase, fc.constantFrom('a', ['a', 'b'], null, { not: 'a' }), {
          minKeys: 1,
          maxKeys: 2,
        }),
        zoom: fc.constantFrom(false, 'x'),
        scales: fc.constant({ y: { kind: 'log', include: 0 } }),
      },
      { requiredKeys: ['draw', 'x', 'y'] },
    )
    .map(one => one as unknown as AnyDescription)
  const said = new Map<string, string>()
  for (const one of fc.sample(plain, { numRuns: runs(3000), seed: 7 })) {
    const { text, unsaid } = sentenceOf(one)
    expect(unsaid).toEqual([])
    // A list of one is said as what it holds.
    const alone = (value: unknown) => (Array.isArray(value) && value.length === 1 ? value[0] : value)
    const sorted = wholeKey({ ...one, draw: alone(one.draw), y: alone(one.y) })
    expect(said.get(text) ?? sorted, text).toBe(sorted)
    said.set(text, sorted)
  }
  expect(said.size).toBeGreaterThan(runs(2000))
})

test('a table, a kind of one’s own and a function stay what they are', () => {
  const described = {
    draw: { name: 'own', draw: () => [] },
    tooltip: () => 'x',
    x: 'route',
  } as unknown as AnyDescription
  const back = descriptionOf(sentenceOf(described))
  expect(back.draw).toBe(described.draw)
  expect(back.tooltip).toBe(described.tooltip)
})
