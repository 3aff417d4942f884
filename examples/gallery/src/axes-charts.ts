import { type Chart, chart, readCsv, reshape, type Spread, spread, table } from 'dapplo'

/** One entry of the page: what to look at, and the chart that shows it. */
export interface AxisExample {
  name: string
  chart: Chart<any> | Spread
  locale?: string
  /** Pixels; default 380 by 240. */
  width?: number
  height?: number
  rightToLeft?: boolean
}

const DAY = 86_400_000
const boat = (color: string) =>
  `data:image/svg+xml,${encodeURIComponent(`<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><path d="M4 24h32l-6 10H10z" fill="${color}"/><path d="M18 4v18h14z" fill="${color}" opacity=".6"/></svg>`)}`

/** A smooth, repeatable wave with a little unrest: values for axes that need no story. */
const wave = (count: number, low: number, high: number) =>
  Array.from(
    { length: count },
    (_, i) => low + (high - low) * (0.5 + 0.38 * Math.sin(i / 2.7) + 0.12 * Math.sin(i * 2.1)),
  )

/** Times from `from`, `step` milliseconds apart, with wind speeds. */
const winds = (from: string, step: number, count: number, timeZone?: string) =>
  table(
    {
      at: Array.from({ length: count }, (_, i) => new Date(Date.parse(from) + i * step)),
      wind: wave(count, 4, 38),
    },
    { columns: { at: { timeZone }, wind: { label: 'Wind', unit: 'knots' } } },
  )

const windLine = (from: string, step: number, count: number, title: string, timeZone?: string) =>
  chart(winds(from, step, count, timeZone), { draw: 'line', title, x: 'at', y: 'wind' })

/** Twenty axes over the tables of the Skerry Line: numbers, money, shares, times from hours to centuries, languages, zones. */
export function axisExamples(sailingsText: string, piersText: string, vesselsText: string): AxisExample[] {
  const sailings = readCsv(sailingsText, {
    name: 'sailings',
    rowsAre: 'Sailings',
    key: 'id',
    columns: {
      revenue: { format: { style: 'currency', currency: 'EUR' } },
      delay_minutes: { label: 'Delay', unit: 'minutes' },
    },
  })
  const piers = reshape(readCsv(piersText, { name: 'piers' }), [
    { long: { keep: ['pier'], name: 'year', value: 'passengers' } },
  ])
  const vessels = readCsv(vesselsText, { name: 'vessels' })
  const small = table({ at: [1, 2, 3, 4], drift: [5.000000001, 5.000000004, 5.000000002, 5.000000005] })
  const huge = table({ at: [1, 2, 3, 4], litres: [1.2e15, 3.1e15, 2.4e15, 4.6e15] })
  const spring = { departed: { from: '2024-03-01', until: '2024-04-01' } }
  return [
    {
      name: 'Numbers',
      chart: chart(sailings, {
        draw: 'scatter',
        title: 'Numbers',
        x: 'wind_knots',
        y: 'delay_minutes',
        where: { route: 'Tern Point' },
      }),
    },
    {
      name: 'Counts',
      chart: chart(sailings, { draw: 'bar', title: 'Counts', x: 'bins of delay_minutes', y: 'count' }),
    },
    {
      name: 'Money',
      chart: chart(sailings, { draw: 'line', title: 'Money', x: 'month of departed', y: 'sum of revenue' }),
    },
    {
      name: 'Shares',
      chart: chart(sailings, { draw: 'bar', title: 'Shares', x: 'route', y: 'share of passengers' }),
    },
    {
      name: 'A billionth apart',
      chart: chart(small, { draw: 'line', title: 'A billionth apart', x: 'at', y: 'drift' }),
    },
    {
      name: 'Very large',
      chart: chart(huge, {
        draw: 'line',
        title: 'Very large',
        x: 'at',
        y: 'litres',
        scales: { y: { include: 0 } },
      }),
    },
    { name: 'Twelve hours', chart: windLine('2024-03-04T06:00Z', 10 * 60_000, 72, 'Twelve hours') },
    {
      name: 'Three weeks',
      chart: chart(sailings, {
        draw: 'line',
        title: 'Three weeks',
        x: 'day of departed',
        y: 'sum of passengers',
        where: { departed: { from: '2024-03-04', until: '2024-03-25' } },
      }),
    },
    {
      name: 'Quarters',
      chart: chart(sailings, {
        draw: 'bar',
        title: 'Quarters',
        x: 'quarter of departed',
        y: 'sum of passengers',
      }),
    },
    {
      name: 'Three years, narrow',
      width: 200,
      chart: chart(sailings, {
        draw: 'line',
        title: 'Three years, narrow',
        x: 'month of departed',
        y: 'sum of passengers',
      }),
    },
    { name: 'Centuries', chart: windLine('1400-01-01T00:00Z', 5 * 365.2425 * DAY, 130, 'Centuries') },
    {
      name: 'German',
      locale: 'de',
      chart: chart(sailings, { draw: 'line', title: 'Deutsch', x: 'month of departed', y: 'sum of revenue' }),
    },
    {
      name: 'Arabic, right to left',
      locale: 'ar-EG',
      rightToLeft: true,
      chart: chart(sailings, {
        draw: 'line',
        title: 'العربية',
        x: 'month of departed',
        y: 'sum of passengers',
      }),
    },
    {
      name: 'Japanese',
      locale: 'ja',
      chart: chart(sailings, {
        draw: 'bar',
        title: '日本語',
        x: 'weekday of departed',
        y: 'mean of passengers',
      }),
    },
    {
      name: 'Summer time, Lisbon',
      chart: windLine('2024-03-30T18:00Z', 30 * 60_000, 36, 'Summer time begins, Lisbon', 'Europe/Lisbon'),
    },
    {
      name: 'Winter time, St. John’s',
      chart: windLine(
        '2024-11-02T20:00-02:30',
        30 * 60_000,
        36,
        'Winter time begins, St. John’s',
        'America/St_Johns',
      ),
    },
    {
      name: 'Two scales, one grid',
      width: 780,
      chart: chart(sailings, {
        title: 'Two scales, one grid',
        x: 'month of departed',
        draw: [
          { as: 'bar', y: 'sum of passengers' },
          { as: 'line', y: 'mean of delay_minutes', against: 'right' },
        ],
        scales: { right: { alignTo: 'y', include: 0 } },
      }),
    },
    {
      name: 'Percentage of a total',
      chart: chart(sailings, {
        draw: 'bar',
        title: 'Percentage of all passengers',
        x: 'route',
        y: 'sum of passengers',
        scales: { right: { percentOf: 1_493_029 } },
      }),
    },
    {
      name: 'Logarithms',
      chart: chart(piers, {
        draw: 'scatter',
        title: 'Logarithms, with minor lines',
        x: 'year',
        y: 'passengers',
        scales: { x: { kind: 'category' }, y: { kind: 'log' } },
      }),
    },
    {
      name: 'Signed logarithm',
      chart: chart(table({ at: [1, 2, 3, 4, 5, 6], change: [-5200, -40, 3, 60, 900, 12_000] }), {
        draw: 'bar',
        title: 'Signed logarithm',
        x: 'at',
        y: 'change',
        scales: { y: { kind: 'signed log' } },
      }),
    },
    {
      name: 'Pictures',
      chart: chart(vessels, {
        draw: 'bar',
        title: 'Pictures',
        x: 'vessel',
        y: 'capacity',
        axes: {
          x: {
            images: {
              Guillemot: boat('#8d3a9d'),
              Fulmar: boat('#a08d22'),
              Sandpiper: boat('#107b5c'),
              Dunlin: boat('#ac4b06'),
              'Great Skua': boat('#4f8ef5'),
            },
          },
        },
      }),
    },
    {
      name: 'Stripes and strong lines',
      chart: chart(sailings, {
        draw: 'line',
        title: 'Stripes, strong lines, ticks, both outer sides',
        x: 'day of departed',
        y: 'sum of passengers',
        where: { departed: { from: '2024-01-01', until: '2024-05-01' } },
        axes: {
          x: { stripes: true, strongAt: 'month', side: 'top', tickLength: 5 },
          y: { grid: { dash: [2, 3] }, side: 'right' },
        },
      }),
    },
    {
      name: 'Panes',
      width: 780,
      height: 420,
      chart: spread(
        [
          chart(sailings, {
            draw: 'line',
            x: 'day of departed',
            y: 'sum of passengers',
            color: 'route',
            where: spring,
          }),
          chart(sailings, { draw: 'bar', x: 'day of departed', y: 'sum of revenue', where: spring }),
          chart(sailings, { draw: 'line', x: 'day of departed', y: 'max of wind_knots', where: spring }),
        ],
        { title: 'Panes: three measures of one spring', share: ['x'] },
      ),
    },
  ]
}
