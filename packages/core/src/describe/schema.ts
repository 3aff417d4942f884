import * as v from 'valibot'
import { SENTENCES } from '../words/sentences.ts'

/** The description as data, checked at run time: what TypeScript checks in code, this checks in JSON. */
const words = v.string()
const value = v.union([v.string(), v.number(), v.boolean(), v.date()])
const format = v.union([v.record(v.string(), v.unknown()), v.function()])
const span = v.record(
  v.picklist(['years', 'months', 'weeks', 'days', 'hours', 'minutes', 'seconds']),
  v.number(),
)
const long = v.record(v.string(), v.unknown())
const bind = v.nullable(v.union([v.string(), long]))
const place = v.nullable(v.union([v.string(), v.array(v.string()), long]))
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1))

export const style = v.strictObject({
  color: v.optional(v.string()),
  opacity: v.optional(share),
  width: v.optional(v.pipe(v.number(), v.minValue(0))),
  dash: v.optional(v.array(v.number())),
  size: v.optional(v.pipe(v.number(), v.minValue(0))),
  gap: v.optional(share),
  caps: v.optional(v.boolean()),
})

const roles = {
  x: v.optional(place),
  y: v.optional(place),
  color: v.optional(bind),
  series: v.optional(bind),
  size: v.optional(bind),
  shape: v.optional(bind),
  dash: v.optional(bind),
  link: v.optional(bind),
  label: v.optional(v.union([bind, v.boolean()])),
  hole: v.optional(share),
  fit: v.optional(
    v.union([
      v.picklist(['linear', 'log', 'exponential', 'local']),
      v.strictObject({ degree: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(10)) }),
    ]),
  ),
  band: v.optional(v.union([v.boolean(), share])),
  where: v.optional(v.record(v.string(), v.unknown())),
  arrange: v.optional(v.picklist(['side', 'stack', 'share', 'overlap'])),
  between: v.optional(v.picklist(['direct', 'smooth', 'hold', 'hold middle', 'hold next'])),
  points: v.optional(v.boolean()),
  top: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
  rest: v.optional(v.union([v.boolean(), v.string()])),
  order: v.optional(v.picklist(['given', 'name', 'ranked'])),
  style: v.optional(style),
}

/** A user's own kind is an object with a draw function; only TypeScript can hold one. */
const ownKind = v.looseObject({ name: v.string(), draw: v.function() })
export const drawing = v.strictObject({
  ...roles,
  as: v.union([v.string(), ownKind]),
  name: v.optional(words),
  table: v.optional(v.string()),
  against: v.optional(v.string()),
  level: v.optional(v.picklist(['mean', 'median', 'min', 'max'])),
  options: v.optional(v.looseObject({})),
})
const elsewhere = v.strictObject({ table: v.looseObject({ version: v.unknown() }), drawing })

export const scale = v.strictObject({
  kind: v.optional(
    v.picklist([
      'linear',
      'log',
      'root',
      'signed log',
      'time',
      'category',
      'sequential',
      'diverging',
      'stepped',
    ]),
  ),
  domain: v.optional(v.array(v.nullable(value))),
  include: v.optional(v.union([v.number(), v.array(v.number())])),
  pad: v.optional(v.pipe(v.number(), v.minValue(0))),
  roundEnds: v.optional(v.boolean()),
  reverse: v.optional(v.boolean()),
  fixed: v.optional(v.boolean()),
  alignTo: v.optional(v.string()),
  percentOf: v.optional(v.number()),
  order: v.optional(v.picklist(['given', 'name', 'ranked'])),
  each: v.optional(v.pipe(v.number(), v.minValue(1))),
  missing: v.optional(v.picklist(['bridge', 'hold'])),
  colors: v.optional(v.union([v.array(v.string()), v.record(v.string(), v.string())])),
})

export const axisOptions = v.strictObject({
  title: v.optional(v.union([words, v.literal(false)])),
  side: v.optional(v.picklist(['left', 'right', 'top', 'bottom'])),
  minor: v.optional(v.boolean()),
  stripes: v.optional(v.boolean()),
  emphasis: v.optional(v.picklist(['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year'])),
  tickLength: v.optional(v.pipe(v.number(), v.minValue(0))),
  images: v.optional(v.record(v.string(), v.string())),
  ticks: v.optional(
    v.union([v.number(), v.array(value), v.strictObject({ every: v.union([v.number(), span]) })]),
  ),
  grid: v.optional(
    v.union([
      v.boolean(),
      v.strictObject({ dash: v.optional(v.array(v.number())), color: v.optional(v.string()) }),
    ]),
  ),
  format: v.optional(format),
})

const axis = v.union([v.literal(false), axisOptions])

const legendPlace = v.picklist([
  'auto',
  'ends',
  'top',
  'right',
  'bottom',
  'left',
  'inside top left',
  'inside top right',
  'inside bottom left',
  'inside bottom right',
])
const oneLegend = v.union([
  v.literal(false),
  legendPlace,
  v.strictObject({
    at: v.optional(legendPlace),
    columns: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
    title: v.optional(words),
  }),
])
const legend = v.union([
  oneLegend,
  v.strictObject({
    color: v.optional(oneLegend),
    size: v.optional(oneLegend),
    shape: v.optional(oneLegend),
    dash: v.optional(oneLegend),
  }),
])
const background = v.union([
  v.string(),
  v.strictObject({ image: v.optional(v.string()), color: v.optional(v.string()), veil: v.optional(share) }),
])
const motion = v.union([
  v.literal(false),
  v.strictObject({
    duration: v.optional(v.number()),
    delay: v.optional(v.number()),
    easing: v.optional(v.string()),
    spring: v.optional(
      v.union([
        v.literal(true),
        v.strictObject({ stiffness: v.optional(v.number()), damping: v.optional(v.number()) }),
      ]),
    ),
    stagger: v.optional(v.pipe(v.number(), v.minValue(0))),
  }),
])

const gesture = v.picklist(['click', 'box', 'lasso'])
const control = v.strictObject({
  set: v.string(),
  to: v.pipe(v.array(v.unknown()), v.minLength(1)),
  as: v.optional(v.picklist(['menu', 'segments', 'slider', 'checks'])),
  label: v.optional(words),
  names: v.optional(v.array(words)),
})

const one = v.union([v.string(), ownKind, drawing, elsewhere])

export const description = v.strictObject({
  ...roles,
  id: v.optional(v.string()),
  title: v.optional(words),
  subtitle: v.optional(words),
  caption: v.optional(words),
  source: v.optional(words),
  scales: v.optional(v.record(v.string(), v.union([scale, v.string()]))),
  draw: v.union([one, v.array(one)]),
  axes: v.optional(v.record(v.string(), axis)),
  legend: v.optional(legend),
  background: v.optional(background),
  tooltip: v.optional(v.union([v.literal(false), v.array(v.string()), v.string(), v.function()])),
  through: v.optional(bind),
  period: v.optional(words),
  summary: v.optional(words),
  zoom: v.optional(v.union([v.literal(false), v.picklist(['x', 'y', 'xy'])])),
  select: v.optional(v.union([v.literal(false), gesture, v.array(gesture)])),
  respond: v.optional(v.picklist(['highlight', 'filter', 'ignore'])),
  detailOf: v.optional(v.string()),
  controls: v.optional(v.array(control)),
  motion: v.optional(motion),
})

export const column = v.strictObject({
  type: v.optional(v.picklist(['number', 'time', 'text'])),
  label: v.optional(words),
  unit: v.optional(v.string()),
  format: v.optional(format),
  order: v.optional(v.array(value)),
  colors: v.optional(v.record(v.string(), v.string())),
  images: v.optional(v.record(v.string(), v.string())),
  timeZone: v.optional(v.string()),
})

const step = v.union([
  v.strictObject({
    long: v.strictObject({ keep: v.array(v.string()), name: v.string(), value: v.string() }),
  }),
  v.strictObject({ wide: v.strictObject({ name: v.string(), value: v.string() }) }),
  v.strictObject({ where: v.record(v.string(), v.unknown()) }),
  v.strictObject({ lastOf: v.string() }),
  v.strictObject({ sort: v.string(), order: v.optional(v.picklist(['up', 'down'])) }),
  v.strictObject({ group: v.array(v.string()), values: v.array(v.string()) }),
])

export const source = v.strictObject({
  rows: v.optional(
    v.union([v.array(v.record(v.string(), v.unknown())), v.record(v.string(), v.array(v.unknown()))]),
  ),
  url: v.optional(v.string()),
  as: v.optional(v.picklist(['csv', 'json', 'lines', 'events', 'socket'])),
  every: v.optional(span),
  keep: v.optional(v.union([v.pipe(v.number(), v.integer(), v.minValue(0)), span])),
  at: v.optional(v.string()),
  stale: v.optional(span),
  key: v.optional(v.union([v.string(), v.array(v.string())])),
  columns: v.optional(v.record(v.string(), column)),
  shape: v.optional(v.array(step)),
})

/** A wrong sentence is found out, since it would never be said. */
const form = v.optional(v.string())
const said = v.union([
  v.string(),
  v.strictObject({ zero: form, one: form, two: form, few: form, many: form, other: v.string() }),
])
export const sentences = Object.fromEntries(
  SENTENCES.map(sentence => [sentence, v.optional(sentence.includes('{count}') ? said : v.string())]),
)
const tokens = v.looseObject({ sizes: v.optional(v.record(v.string(), v.number())) })
export const house = v.strictObject({
  font: v.optional(v.string()),
  palette: v.optional(v.array(v.string())),
  day: v.optional(tokens),
  night: v.optional(tokens),
  locale: v.optional(v.string()),
  timeZone: v.optional(v.string()),
  columns: v.optional(v.record(v.string(), column)),
  words: v.optional(v.strictObject(sentences)),
  motion: v.optional(motion),
})

const table = v.optional(v.string())
export const chartFile = v.strictObject({
  tables: v.record(v.string(), source),
  house: v.optional(v.union([v.string(), house])),
  table,
  ...description.entries,
})
export const spreadFile = v.strictObject({
  tables: v.record(v.string(), source),
  house: v.optional(v.union([v.string(), house])),
  id: v.optional(v.string()),
  title: v.optional(words),
  subtitle: v.optional(words),
  caption: v.optional(words),
  source: v.optional(words),
  background: v.optional(background),
  columns: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
  share: v.optional(v.array(v.string())),
  spread: v.pipe(v.array(v.strictObject({ ...description.entries, table })), v.minLength(1)),
})
