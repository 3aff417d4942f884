import { describe, expect, test } from 'vitest'
import { chart, DapploError, type Description } from '../../index.ts'
import { table } from '../open/read.ts'
import { answerTradeWords, readPhrase } from './phrase.ts'
import { phraseMeant } from './trade-words.ts'

answerTradeWords({ phrase: phraseMeant, kind: () => undefined })

const sailings = table([
  { departed: '2024-03-01T08:00', passengers: 3, route: 'Tern Point', 'fuel litres': 4, 'cost (EUR)': 7 },
  { departed: '2024-03-02T09:00', passengers: 4, route: 'Gannet Bay', 'fuel litres': 5, 'cost (EUR)': 9 },
])
const errorOf = (make: () => unknown): DapploError => {
  try {
    make()
  } catch (error) {
    if (error instanceof DapploError) return error
    throw error
  }
  throw new Error('It is accepted')
}

describe('what the trade calls otherwise is answered with what to write, which is then understood', () => {
  test.each([
    ['average of passengers', 'mean of passengers'],
    ['avg passengers', 'mean of passengers'],
    ['AVG(passengers)', 'mean of passengers'],
    ['Sum of passengers', 'sum of passengers'],
    ['sum(fuel litres)', 'sum of fuel litres'],
    ['total fuel litre', 'sum of fuel litres'],
    ['maximum of passengers', 'max of passengers'],
    ['lowest passengers', 'min of passengers'],
    ['running total of passengers', 'sum so far of passengers'],
    ['percentage of passengers', 'share of passengers'],
    ['95th percentile of passengers', 'p95 of passengers'],
    ['percentile 5 passengers', 'p5 of passengers'],
    ['unique route', 'distinct route'],
    ['number of rows', 'count'],
    ['count(*)', 'count'],
    ['number of passengers', 'count'],
    ['monthly departed', 'month of departed'],
    ['by week of departed', 'week of departed'],
    ['day of the week of departed', 'weekday of departed'],
    ['histogram of passengers', 'bins of passengers'],
    ['departed by month', 'month of departed'],
    ['departed, per week', 'week of departed'],
    ['average fuel', 'mean of fuel litres'],
    ['total cost (EUR)', 'sum of cost (EUR)'],
    ['SUM(cost (EUR))', 'sum of cost (EUR)'],
    ['share of rows', 'share of count'],
    ['percent of total', 'share of count'],
    ['mena of passengers', 'mean of passengers'],
    ['Summe von passengers', 'sum of passengers'],
  ])('%s', (text, phrase) => {
    const { hint } = errorOf(() => readPhrase(text, sailings, 'y'))
    expect(/"([^"]*)"/.exec(hint)?.[1]).toBe(phrase)
    expect(() => readPhrase(phrase, sailings, 'y')).not.toThrow()
  })

  test.each([
    ['cost (EUR) > 5', { 'cost (EUR)': { from: 5 } }],
    ['passengers<-1.5', { passengers: { until: -1.5 } }],
    ['route = "Tern Point"', { route: 'Tern Point' }],
    ['passengers != 7', { passengers: { not: 7 } }],
    ['"late"', { route: 'Tern Point' }],
  ])('conditions such as %s are answered with what to write', (text, where) => {
    const drawn = { draw: 'bar', x: 'route', y: 'count' }
    const { hint } = errorOf(() => chart(sailings, { ...drawn, where: text } as unknown as Description))
    const written = JSON.parse(/{.*}/.exec(hint)![0])
    expect(written).toEqual(where)
    expect(() => chart(sailings, { ...drawn, where: written } as Description)).not.toThrow()
  })

  test('what is no word of anybody gets the whole list, summaries first', () => {
    const { hint } = errorOf(() => readPhrase('stddev of passengers', sailings, 'y'))
    expect(hint).toMatch(/^A summary begins with sum, mean, median/)
    expect(hint).not.toContain('more')
  })

  test('a column of that name goes before', () => {
    const named = table([{ 'average of passengers': 3 }])
    expect(readPhrase('average of passengers', named, 'y')).toMatchObject({ is: 'column' })
  })

  test.each([
    [{ draw: 'column' }, 'bar'],
    [{ draw: 'Donut chart' }, 'pie'],
    [{ draw: 'area chart' }, 'area'],
    [{ draw: 'bar', arrange: 'stacked' }, 'stack'],
    [{ draw: 'bar', arrange: 'staked' }, 'stack'],
    [{ draw: 'bar', scales: { y: { kind: 'logarithmic' } } }, 'log'],
    [{ draw: 'line', between: 'step' }, 'hold'],
    [{ draw: 'bar', order: 'desc' }, 'ranked'],
  ] as [object, string][])('%j', (part, word) => {
    const { hint } = errorOf(() => chart(sailings, { x: 'route', y: 'count', ...part } as Description))
    expect(hint).toContain(`"${word}"`)
  })

  test.each([
    [{ sort: 'ranked' }, 'Write order.'],
    [{ stacked: true }, 'Write arrange: "stack".'],
    [{ scales: { y: { type: 'log' } } }, 'Write kind.'],
    [{ scales: { y: { min: 0 } } }, 'Write domain.'],
    [{ axes: { y: { label: 'People' } } }, 'Write title.'],
    [{ legend: { position: 'top' } }, 'Write at.'],
    [{ legend: { foo: 1 } }, 'Options: at, columns, title, align, color, size, shape, dash.'],
    [{ legend: { size: { foo: 1 } } }, 'Options: at, columns, title, align.'],
    [{ background: { foo: 1 } }, 'Options: image, color, veil.'],
    [{ notes: [{ words: 'x', foo: 1 }] }, 'Options: words, x, y, series, against.'],
    [{ legend: 'none' }, 'Write false.'],
    [{ axes: { y: { format: '%' } } }, 'Write what Intl takes'],
  ] as [object, string][])('%j', (part, hint) => {
    const error = errorOf(() =>
      chart(sailings, { draw: 'bar', x: 'route', y: 'count', ...part } as Description),
    )
    expect(error.hint).toContain(hint)
  })
})
