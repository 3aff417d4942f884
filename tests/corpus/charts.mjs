// What is drawn of each table of the corpus: fifty charts, of which every one is drawn at each of six sizes.

export const SIZES = [
  [200, 130],
  [320, 240],
  [360, 640],
  [640, 400],
  [900, 300],
  [1280, 800],
]

const line = (x, y, more) => ({ draw: 'line', x, y, ...more })
const bar = (x, y, more) => ({ draw: 'bar', x, y, ...more })

/** Charts by the table that they draw. */
const CHARTS = {
  'twelve routes': [
    line('month', 'passengers', { color: 'route' }),
    { draw: 'area', x: 'month', y: 'passengers', color: 'route' },
    bar('route', 'sum of passengers', { label: true, order: 'ranked' }),
    { draw: 'heatmap', x: 'month', y: 'route', color: 'passengers' },
    { draw: 'pie', x: 'route', y: 'sum of passengers', top: 6, rest: true },
  ],
  'long names': [
    bar('pier', 'passengers', { label: true }),
    bar('passengers', 'pier', { label: true }),
    { draw: 'pie', x: 'pier', y: 'passengers' },
    { draw: 'scatter', x: 'tonnes', y: 'passengers', label: 'pier' },
  ],
  'one row': [
    line('day', 'passengers', { label: true }),
    bar('route', 'passengers', { label: true }),
    { draw: 'scatter', x: 'wind_knots', y: 'delay_minutes', size: 'passengers', color: 'route' },
  ],
  'no rows': [line('day', 'passengers', { color: 'route' }), bar('route', 'passengers')],
  'a far value': [
    bar('bins of delay_hours', 'count', {}),
    { draw: 'scatter', x: 'crossing', y: 'delay_hours' },
    { draw: 'bar', x: 'route', y: 'mean of delay_hours', label: true },
  ],
  'all equal': [
    line('day', 'passengers', { points: true }),
    bar('route', 'mean of passengers', { label: true }),
  ],
  'both sides of zero': [
    bar('month', 'result', { color: 'route' }),
    bar('result', 'month', { color: 'route', arrange: 'stack' }),
    line('month', 'result', { color: 'route', label: true }),
    {
      x: 'month',
      y: 'result',
      color: 'route',
      draw: ['bar', { as: 'scatter', arrange: 'side', style: { size: 2.5, color: '#333' } }],
    },
  ],
  'below zero alone': [
    bar('vessel', 'cost', { label: true }),
    { draw: 'scatter', x: 'crew', y: 'cost', size: 'crew', label: 'vessel' },
  ],
  tiny: [bar('sample', 'salt', { label: true }), { draw: 'scatter', x: 'depth', y: 'salt' }],
  huge: [
    bar('plankton', 'vessel', { label: true }),
    { draw: 'scatter', x: 'plankton', y: 'bytes', label: 'vessel' },
  ],
  gaps: [
    line('month', 'passengers', { color: 'route', points: true }),
    bar('month', 'passengers', { color: 'route', arrange: 'stack' }),
  ],
  years: [line('year', 'passengers', { color: 'pier' }), bar('year', 'sum of passengers', {})],
  weeks: [bar('week', 'passengers', { label: true }), line('week', 'late', {})],
  codes: [bar('berth', 'calls', { color: 'shelf' }), bar('calls', 'berth', { order: 'ranked' })],
  bubbles: [
    { draw: 'scatter', x: 'sold', y: 'kept', size: 'staff', color: 'office' },
    { draw: 'scatter', x: 'sold', y: 'kept', size: 'staff', label: 'office' },
  ],
  'many points': [
    {
      draw: ['scatter', { as: 'trend', band: true }],
      x: 'wind_knots',
      y: 'delay_minutes',
      color: 'route',
      shape: 'route',
    },
  ],
  'sixty piers': [bar('pier', 'calls', { label: true }), bar('island', 'sum of calls', { color: 'pier' })],
  shares: [
    { draw: 'pie', hollow: 0.6, x: 'kind', y: 'sum of sold' },
    bar('year', 'sold', { color: 'kind', arrange: 'share', label: true }),
  ],
  scripts: [
    bar('passengers', 'route', { label: true }),
    { draw: 'pie', x: 'route', y: 'passengers', label: true },
  ],
  'one script': [bar('route', 'passengers', { label: true })],
  'one script: chinese': [bar('route', 'passengers', { label: true })],
  'one script: arabic': [bar('passengers', 'route', { label: true })],
  'one script: hebrew': [bar('route', 'passengers', { label: true })],
  'one script: thai': [{ draw: 'pie', x: 'route', y: 'passengers' }],
  'one script: cyrillic': [bar('route', 'passengers', { label: true })],
}
const LOCALES = {
  'one script: chinese': 'zh',
  'one script: arabic': 'ar',
  'one script: hebrew': 'he',
  'one script': 'hi',
  'one script: thai': 'th',
  'one script: cyrillic': 'ru',
}

/** Every picture of the corpus: its table, description and frame. Themes take turns. */
export const PICTURES = Object.entries(CHARTS).flatMap(([table, charts]) =>
  charts.flatMap((description, c) =>
    SIZES.map(([width, height], s) => ({
      name: `${table} ${c + 1} ${width}x${height}`,
      table,
      description: { title: `The Skerry Line: ${table}`, ...description },
      frame: { width, height, theme: (c + s) % 2 === 0 ? 'day' : 'night', locale: LOCALES[table] ?? 'en' },
    })),
  ),
)
