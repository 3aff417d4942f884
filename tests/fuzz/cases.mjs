import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { chartCases } from './charts.mjs'
import { fromSchema } from './schema.mjs'

const schema = JSON.parse(readFileSync(new URL('../../docs/chart.schema.json', import.meta.url), 'utf8'))

const phrase = fc.constantFrom(
  'a',
  'b',
  't',
  'g',
  'sum of a',
  'mean of b',
  'count',
  'month of t',
  'bins of a',
  'share of a',
  'nothing',
)
const text = fc.oneof(
  phrase,
  fc.constantFrom('line', 'bar', 'x', 'y', '{count} rows', '', '#123456', 'data.csv'),
)
const value = fc.oneof(phrase, fc.integer({ min: -5, max: 50 }), fc.boolean(), fc.constant(null))

const ROWS = [
  { a: 1, b: 2, t: '2024-01-01', g: 'x' },
  { a: 3, b: -4, t: '2024-02-01', g: 'y' },
]

/** Chart files as the published schema has them, their texts being phrases as often as not. */
const fileCase = fc.record({
  file: fromSchema(schema, {
    text,
    value,
    key: fc.constantFrom('x', 'y', 'a', 'b', 't', 'g', 'data', 'sum', 'column', 'from', 'to'),
    table: fc.constantFrom('data', 'nothing'),
    url: fc.constantFrom('data.csv', 'data.json'),
    as: fc.constantFrom('line', 'bar', 'area', 'scatter', 'pie', 'heatmap', 'trend', 'csv'),
    draw: fc.constantFrom('line', 'bar', 'area', 'scatter', 'pie', 'heatmap', 'reference', 'trend', 'text'),
    x: phrase,
    y: phrase,
    color: fc.oneof(phrase, fc.constantFrom('#123456', 'teal')),
    background: fc.constant('#eee'),
    house: fc.constant(undefined),
    rows: fc.constant(ROWS),
  }).map(file => ({
    ...file,
    tables: {
      data: {
        rows: ROWS,
      },
      ...file?.tables,
    },
  })),
  state: fc.constant({}),
  frame: fc.constant({ width: 640, height: 400 }),
})

const usual = chartCases(false)
const odd = chartCases(true)

/** The arbitrary of a lot: of five, two are what people write, two have what nobody should among it, one is made from the schema. */
export const casesFor = lot => [usual, odd, usual, odd, fileCase][lot % 5]
