// What charts may differ in, written down once: factors, and the levels of each.
import type { Raw } from './oracle/marks.ts'

/** Numbers between 0 and 1 that are the same every time. */
function chances(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}

const ROUTES = ['North Sound', 'Gannet Bay', 'Tern Point', 'Kelp Narrows']
const TYPES = {
  day: 'time',
  route: 'text',
  vessel: 'text',
  passengers: 'number',
  delay: 'number',
  wind: 'number',
  capacity: 'number',
} as const

function sailings(change: (row: Raw['rows'][number], i: number) => void = () => {}): Raw {
  const next = chances(11)
  const rows = Array.from({ length: 72 }, (_, i) => {
    const row: Raw['rows'][number] = {
      day: Date.UTC(2024, 0, 3 + i * 3),
      route: ROUTES[(i * 7 + Math.floor(i / 5)) % 4],
      vessel: ['Fulmar', 'Dunlin', 'Petrel'][i % 3],
      passengers: 40 + Math.floor(next() * 160),
      delay: Math.round(next() * 240) / 10,
      wind: Math.round((3 + next() * 30) * 10) / 10,
      capacity: 220 + 30 * (i % 3),
    }
    change(row, i)
    return row
  })
  return { types: { ...TYPES }, rows }
}

/** Tables, by what is unusual in them. */
export const TABLES: Record<string, Raw> = {
  plain: sailings(),
  gaps: sailings((row, i) => {
    if (i % 9 === 4) row.passengers = null
    if (i % 11 === 5) row.delay = null
    if (i % 17 === 3) row.route = null
  }),
  'both signs': sailings((row, i) => {
    row.passengers = Number(row.passengers) - 110
    row.delay = Number(row.delay) - (i % 2 ? 20 : 0)
  }),
  'a far value': sailings((row, i) => {
    if (i === 40) Object.assign(row, { passengers: 24_000, delay: 900 })
  }),
  thousandths: sailings(row => {
    row.passengers = 1 + Number(row.passengers) / 1e5
    row.delay = Number(row.delay) / 1e4
  }),
  'one row': { ...sailings(), rows: sailings().rows.slice(0, 1) },
}

type Part = Record<string, unknown>
const level = (...parts: Part[]) => parts
const scale = (name: string, ...options: (Part | undefined)[]) =>
  options.map(one => (one ? { scales: { [name]: one } } : {}))

/** By factor, what each of its levels adds to a description; `frame` and `table` are kept apart. */
export const FACTORS: Record<string, readonly Part[]> = {
  table: Object.keys(TABLES).map(table => ({ table })),
  draw: level(
    { draw: 'bar' },
    { draw: 'line' },
    { draw: 'scatter' },
    { draw: 'area' },
    { draw: 'heatmap' },
    { draw: 'pie' },
    { draw: { as: 'line', points: true } },
  ),
  x: level(
    { x: 'route' },
    { x: 'vessel' },
    { x: 'month of day' },
    { x: 'week of day' },
    { x: 'quarter of day' },
    { x: 'weekday of day' },
    { x: 'month of year of day' },
    { x: { bins: 'wind', width: 5 } },
    { x: 'day' },
    { x: 'wind' },
  ),
  y: level(
    { y: 'sum of passengers' },
    { y: 'mean of delay' },
    { y: 'count' },
    { y: 'p90 of passengers' },
    { y: 'max of passengers' },
    { y: 'distinct vessel' },
    { y: 'share of passengers' },
    { y: 'rank of passengers' },
    { y: 'sum so far of passengers' },
    { y: 'count so far' },
    { y: { ratio: 'passengers', to: 'capacity' } },
    { y: 'passengers' },
    { y: 'share of count' },
  ),
  color: level({}, { color: 'route' }, { color: 'vessel' }, { color: 'mean of wind' }),
  arrange: level({}, { arrange: 'stack' }, { arrange: 'share' }, { arrange: 'overlap' }),
  order: level({}, { order: 'name' }, { order: 'ranked' }),
  top: level({}, { top: 2 }, { top: 2, rest: true }),
  where: level(
    {},
    { where: { vessel: 'Fulmar' } },
    { where: { wind: { from: 10 } } },
    { where: { vessel: { not: 'Dunlin' } } },
    { where: { passengers: null } },
  ),
  label: level({}, { label: true }, { label: 'vessel' }, { label: { words: '{count} in all' } }),
  link: level({}, { link: 'vessel' }),
  'scales.y': scale(
    'y',
    undefined,
    { include: 0 },
    { include: [-50, 400] },
    { pad: 0.2 },
    { roundEnds: true },
    { reverse: true },
    { domain: [0, 60] },
    { kind: 'root' },
    { kind: 'log' },
  ),
  'axes.y': level(
    {},
    { axes: { y: { ticks: 3 } } },
    { axes: { y: { grid: false } } },
    { axes: { y: { side: 'right' } } },
    { axes: { y: { title: false, minor: true } } },
    { axes: { y: { ticks: { every: 20 }, format: { maximumFractionDigits: 1 } } } },
  ),
  legend: level(
    {},
    { legend: 'top' },
    { legend: 'right' },
    { legend: 'bottom' },
    { legend: 'ends' },
    { legend: false },
    { legend: { at: 'top', columns: 2, title: 'Told' } },
    { legend: 'inside top right' },
    { legend: { at: 'top', align: 'end' } },
    {
      legend: {
        color: { at: 'right', columns: 1, title: 'Hue', align: 'start' },
        size: { at: 'bottom', columns: 1, title: 'Area', align: 'middle' },
        shape: { at: 'top', columns: 2, title: 'Form', align: 'end' },
        dash: { at: 'top', columns: 2, title: 'Dash', align: 'end' },
      },
    },
  ),
  heading: level(
    {},
    { title: '{sum of passengers} in {count} sailings', subtitle: 'At most {max of delay}' },
  ),
  colors: level(
    {},
    { scales: { color: { hatched: true } } },
    { scales: { color: { colors: ['#84003f', '#004a28', '#5e82ec', '#989900'] } } },
  ),
  series: level({}, { series: 'vessel' }),
  form: level({}, { shape: 'vessel' }, { dash: 'route' }),
  pie: level({}, { hollow: 0.5 }, { values: 'inside' }),
  notes: level(
    {},
    { notes: [{ words: 'A second boat', y: 50 }] },
    {
      notes: [
        { words: 'Storms', y: { from: 20, until: 60 }, against: 'y' },
        { words: 'Here', x: { from: 5, until: 9 }, series: 'Tern Point' },
      ],
    },
  ),
  size: level(
    {},
    { size: 'sum of wind' },
    { size: 'sum of wind', scales: { size: { radius: 12, steps: [50, 200] } } },
  ),
  style: level(
    {},
    { style: { opacity: 0.5 } },
    { style: { width: 4, dash: [4, 2] } },
    { style: { size: 9 } },
    { style: { gap: 0.6, caps: false } },
    { style: { color: '#5e82ec' } },
  ),
  between: level(
    {},
    { between: 'smooth' },
    { between: 'hold' },
    { between: 'hold middle' },
    { breakAfter: 5 },
  ),
  points: level({}, { points: true }),
  'axes.x': level(
    {},
    { axes: { x: { grid: { dash: [2, 2], color: '#888' }, tickLength: 5 } } },
    { axes: { x: { stripes: true, strongAt: 'month' } } },
    { axes: { x: { side: 'top', title: 'Along' } } },
    { axes: { x: false } },
  ),
  'scales.x': scale('x', undefined, { reverse: true }, { order: 'name' }, { pad: 0.1, fixed: true }),
  ground: level(
    {},
    { background: '#ffffff' },
    { background: { color: '#1d2b36', veil: 0.9 } },
    { plot: { background: '#eef2f5' } },
  ),
  around: level(
    {},
    { caption: 'By the harbour office', source: 'Sailings' },
    { stamp: { words: '{count} in all', note: '{max of delay} at most', at: 'title' } },
  ),
  hands: level(
    {},
    { zoom: 'xy', select: ['click', 'box'], respond: 'narrow', id: 'one' },
    { motion: { duration: 100, easing: 'linear', delay: 20, stagger: 5 }, colorNames: true },
    { motion: { spring: { stiffness: 120, damping: 14 } } },
  ),
  tooltip: level({}, { tooltip: ['vessel', 'count'] }),
  frame: level(
    { frame: { width: 640, height: 400 } },
    { frame: { width: 360, height: 300 } },
    { frame: { width: 1100, height: 640, theme: 'night' } },
  ),
  locale: level({}, { frame: { locale: 'de' } }, { frame: { locale: 'ar' } }, { frame: { locale: 'fr' } }),
}

function merged(a: Part, b: Part): Part {
  const out = { ...a }
  for (const [key, value] of Object.entries(b))
    out[key] = isPlain(value) && isPlain(out[key]) ? merged(out[key], value) : value
  return out
}
const isPlain = (value: unknown): value is Part =>
  value !== null && typeof value === 'object' && !Array.isArray(value)

export interface Chart {
  table: string
  frame: { width: number; height: number; locale?: string; theme?: string }
  description: Part
}

/** The chart that a choice of levels describes. */
export function chartOf(choice: Record<string, number>): Chart {
  const { table, frame, ...description } = Object.entries(choice).reduce<Part>(
    (all, [factor, at]) => merged(all, FACTORS[factor][at]),
    {},
  )
  return { table: table as string, frame: frame as Chart['frame'], description }
}
