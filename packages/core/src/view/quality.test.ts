import { expect, test } from 'vitest'
import { everything } from '../../../../tests/support/extent.ts'
import { textBoxes, touching } from '../../../../tests/support/text-boxes.ts'
import {
  chart,
  compose,
  DapploError,
  type Description,
  type Scene,
  type Table,
  type Texts,
  table,
} from '../index.ts'
import type { Batch, Rects } from '../scene/scene.ts'
import { contrast } from '../theme/contrast.ts'
import { measureInter } from '../theme/text-width.ts'

/** Any kind over any data at any size, in any theme and language, gives a picture that can be read. */

const COUNT = 120
const long = 'The very long name of a route that calls at every single pier of the outer islands '.repeat(3)
const rows = (route: (i: number) => string, n: (i: number) => number, count = COUNT) =>
  table({
    departed: Array.from({ length: count }, (_, i) => new Date(Date.UTC(2024, 0, 1 + ((i * 3) % 360), 8))),
    route: Array.from({ length: count }, (_, i) => route(i)),
    n: Array.from({ length: count }, (_, i) => n(i)),
    wind: Array.from({ length: count }, (_, i) => ((i * 17) % 43) / 2),
  })
const usual = (i: number) => ['North Sound', 'Gannet Bay', 'Tern Point', 'Kelp Narrows'][i % 4]
const some = (i: number) => 50 + ((i * 37) % 90)

const TABLES: Record<string, Table> = {
  'ordinary rows': rows(usual, some),
  'values on both sides of zero': rows(usual, i => ((i * 37) % 90) - 40),
  'one row': rows(usual, some, 1),
  'no rows': rows(usual, some, 0),
  'equal values': rows(usual, () => 7),
  'nothing but zeros': rows(usual, () => 0),
  'one category': rows(() => 'North Sound', some),
  'five hundred categories': rows(i => `Pier ${i}`, some, 500),
  'sixty series': rows(i => `Route ${i % 60}`, some, 600),
  'long names': rows(i => `${i % 4} ${long}`, some),
  'names in many scripts': rows(
    i => ['👩‍👩‍👧 семья', 'مسار الشمال', 'e\u0301\u0323tude', '\u202eabc'][i % 4],
    some,
  ),
  'names like markup': rows(i => ['<b>a</b>', '"><script>1</script>', '&amp; {n}', '__proto__'][i % 4], some),
  'missing values': rows(
    i => (i % 5 === 0 ? '' : usual(i)),
    i => (i % 3 === 0 ? Number.NaN : some(i)),
  ),
  'huge values': rows(usual, i => some(i) * 1e12),
}

const monthly = { x: 'month of departed', y: 'sum of n' } as const
const KINDS: Record<string, Partial<Description>> = {
  line: { draw: 'line', ...monthly },
  'lines with points': { draw: 'line', ...monthly, color: 'route', dash: 'route', points: true },
  'smooth lines': { draw: 'line', between: 'smooth', ...monthly, color: 'route', legend: 'inside top left' },
  'held line': { draw: 'line', between: 'hold', ...monthly },
  'stacked area': { draw: 'area', ...monthly, color: 'route', legend: 'right' },
  'overlapping areas': { draw: 'area', arrange: 'overlap', ...monthly, color: 'route', legend: 'bottom' },
  bar: { draw: 'bar', x: 'route', y: 'sum of n', label: true },
  'lying bars': { draw: 'bar', y: 'route', x: 'sum of n', order: 'ranked', label: true },
  'bars side by side': { draw: 'bar', ...monthly, color: 'route' },
  'stacked bars': { draw: 'bar', arrange: 'stack', ...monthly, color: 'route', label: true },
  'bars to the whole': { draw: 'bar', arrange: 'share', ...monthly, color: 'route' },
  'top three': { draw: 'bar', x: 'route', y: 'sum of n', top: 3, rest: true },
  'extents as bars': { draw: 'bar', x: 'route', y: { from: 'min of n', to: 'max of n' } },
  scatter: { draw: 'scatter', x: 'wind', y: 'n', color: 'route', shape: 'route' },
  'named points of many sizes': { draw: 'scatter', x: 'wind', y: 'n', size: 'wind', label: 'route' },
  'shaded points': { draw: 'scatter', x: 'departed', y: 'n', color: 'wind' },
  pie: { draw: 'pie', x: 'route', y: 'sum of n' },
  ring: { draw: 'pie', hollow: 0.6, x: 'route', y: 'sum of n', label: 'sum of n' },
  heatmap: {
    draw: 'heatmap',
    x: 'month of departed',
    y: 'weekday of departed',
    color: 'mean of n',
    label: true,
  },
  'bars with references': {
    draw: [
      'bar',
      { as: 'reference', level: 'mean' },
      { as: 'reference', y: { from: { value: 10 }, to: { value: 90 } }, name: 'Usual' },
      { as: 'reference', x: 'route', y: { from: 'min of n', to: 'max of n' } },
    ],
    x: 'route',
    y: 'mean of n',
  },
  'points with a trend': { draw: ['scatter', { as: 'trend', band: true }], x: 'wind', y: 'n' },
  'a curve for each': { draw: ['scatter', { as: 'trend', fit: 'local' }], x: 'wind', y: 'n', color: 'route' },
  words: { draw: ['scatter', { as: 'text', label: 'route' }], x: 'wind', y: 'n' },
}
const SIZES = [
  [130, 80],
  [200, 150],
  [360, 640],
  [640, 400],
  [1280, 800],
  [1600, 900],
] as const
const LOCALES = ['en', 'de', 'ar', 'ja']
const GROUNDS = [undefined, '#12345a', '#ffe08a', { image: 'pier.png', veil: 0.7 }]

const TURNS = everything ? [0, 1, 2, 3, 4, 5] : [0, 3]

/** Every kind over every table; size, theme, language and background turn with them. */
const CASES = Object.keys(KINDS).flatMap((kind, k) =>
  Object.keys(TABLES).flatMap((rows, t) =>
    TURNS.map(turn => {
      const i = k * 7 + t * 3 + turn
      return {
        kind,
        rows,
        size: SIZES[i % SIZES.length],
        locale: LOCALES[(k + t + turn) % LOCALES.length],
        theme: ((k + t + turn) % 2 === 0 ? 'day' : 'night') as 'day' | 'night',
        background: GROUNDS[(k + t * 2 + turn) % 7],
      }
    }),
  ),
)

for (const rows of Object.keys(TABLES))
  test(`${rows}: whatever is drawn can be read`, () => {
    const bad = CASES.filter(one => one.rows === rows).flatMap(one =>
      faultsOf(one).map(text => `${name(one)}: ${text}`),
    )
    expect(bad).toEqual([])
  })

type Case = (typeof CASES)[number]
const name = ({ kind, size, theme, locale, background }: Case) =>
  `${kind} ${size.join('×')} ${theme} ${locale} ${JSON.stringify(background ?? '')}`

function faultsOf({ kind, rows, size: [width, height], locale, theme, background }: Case): string[] {
  const description = {
    title: 'Passengers by route, and how the wind delays them all year round',
    subtitle: 'Every sailing of the line',
    source: 'Source: logbooks',
    background,
    ...KINDS[kind],
  } as Description
  let scene: Scene
  try {
    scene = compose(
      chart(TABLES[rows], description),
      {},
      { width, height, theme, locale, measure: measureInter },
    )
  } catch (error) {
    return error instanceof DapploError && error.hint !== '' ? [] : [String(error)]
  }
  return [...wordFaults(scene), ...shapeFaults(scene)]
}

function wordFaults(scene: Scene): string[] {
  const boxes = textBoxes(scene)
  const out = boxes
    .filter(
      ({ left, right, top, bottom }) =>
        left < -0.5 || top < -0.5 || right > scene.width + 0.5 || bottom > scene.height + 0.5,
    )
    .map(({ text }) => `"${text}" is cut`)
  return [...out, ...touching(boxes), ...scene.batches.flatMap(batch => faintWords(batch, scene))]
}

/** Words that stand out too little: from the ground, or from the shape that they stand on. */
function faintWords(batch: Batch, scene: Scene): string[] {
  if (batch.kind !== 'texts' || scene.background === undefined) return []
  const shapes = scene.batches.filter((one): one is Rects => one.kind === 'rects' && one.part === 'data')
  return batch.texts.flatMap((text, i) => {
    const under = batch.halo ? undefined : shapeUnder(batch, i, shapes)
    const found = contrast(batch.colors[batch.color[i]], under ?? scene.background!)
    // Names of hidden series and shares within slices are checked where they are made.
    if (batch.id.endsWith('/shares')) return []
    return found !== undefined && found < 4.45 ? [`"${text}" has a contrast of ${found.toFixed(1)}`] : []
  })
}

function shapeUnder(batch: Texts, i: number, shapes: readonly Rects[]): string | undefined {
  const width = measureInter(batch.texts[i], batch)
  const x =
    batch.anchor === 'middle'
      ? batch.x[i]
      : batch.anchor === 'start'
        ? batch.x[i] + width / 2
        : batch.x[i] - width / 2
  const y = batch.y[i] - batch.size * 0.36
  for (const shape of [...shapes].reverse())
    for (let k = 0; k < shape.x.length; k++)
      if (
        (shape.alpha?.[k] ?? 1) > 0.8 &&
        x > shape.x[k] &&
        x < shape.x[k] + shape.width[k] &&
        y > shape.y[k] &&
        y < shape.y[k] + shape.height[k]
      )
        return shape.colors[shape.color[k]]
  return undefined
}

function shapeFaults(scene: Scene): string[] {
  const out: string[] = []
  for (const batch of scene.batches) {
    for (const [name, values] of Object.entries(batch))
      if (values instanceof Float32Array && values.includes(Number.POSITIVE_INFINITY))
        out.push(`${batch.id} ${name} has no end`)
    if (batch.kind === 'rects')
      for (let i = 0; i < batch.x.length; i++)
        if (batch.width[i] < 0 || batch.height[i] < 0) out.push(`${batch.id} has a negative side`)
    if (batch.part !== 'data' || batch.kind === 'pixels') continue
    // Shapes that carry meaning stand out from the ground; faint ones are many, or have an edge.
    for (const color of new Set(batch.color)) {
      const found = scene.background && contrast(batch.colors[color], scene.background)
      const carries = batch.kind === 'lines' || batch.kind === 'wedges' || batch.id.endsWith('/bar')
      if (carries && found && found < 2.95 && scene.background!.length === 7 && plain(scene))
        out.push(`${batch.id} has a contrast of ${found.toFixed(1)}`)
    }
    if (batch.kind === 'rects' && batch.id.endsWith('/bar')) out.push(...barFaults(batch, scene))
  }
  return out
}

/** Whether the ground is the theme's own: for others, the palette is the author's to choose. */
const plain = (scene: Scene) => ['#fdfcf9', '#15191c'].includes(scene.background ?? '')

/** Bars stand on the baseline, or on the bar before them. */
function barFaults(batch: Rects, scene: Scene): string[] {
  const lying = batch.round.some(side => side === 2 || side === 4)
  const scale = scene.scales.get(lying ? 'x' : 'y')
  if (!scale || !(scale.domain[0] <= 0 && scale.domain[1] >= 0)) return []
  const zero = scale.map(0)
  const places = new Map<string, [number, number][]>()
  for (let i = 0; i < batch.x.length; i++) {
    if (Number.isNaN(batch.x[i]) || batch.round[i] === 0) continue
    const start = lying ? batch.x[i] : batch.y[i]
    const length = lying ? batch.width[i] : batch.height[i]
    const across = lying ? batch.y[i] : batch.x[i]
    const key = across.toFixed(1)
    places.set(key, [...(places.get(key) ?? []), [start, start + length]])
  }
  const stacked = batch.round.includes(0)
  return [...places].flatMap(([place, ends]) =>
    stacked || ends.every(([a, b]) => Math.abs(a - zero) < 0.6 || Math.abs(b - zero) < 0.6)
      ? []
      : [`a bar at ${place} does not stand on the baseline`],
  )
}
