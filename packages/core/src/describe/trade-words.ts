import { nearest } from '../finding/nearest.ts'

/** What to write for what the trade at large calls a kind of drawing. */
export const KINDS = {
  column: 'Draw "bar": it stands upright where x holds the categories.',
  'horizontal bar': 'Draw "bar", and bind y to the categories: it lies then.',
  'stacked bar': 'Draw "bar" with arrange: "stack".',
  'stacked column': 'Draw "bar" with arrange: "stack".',
  'grouped bar': 'Draw "bar" with a color, and arrange: "side".',
  'stacked area': 'Draw "area" with arrange: "stack".',
  histogram: 'Draw "bar" with x: "bins of …" and y: "count".',
  donut: 'Draw "pie" with hollow: 0.6.',
  doughnut: 'Draw "pie" with hollow: 0.6.',
  ring: 'Draw "pie" with hollow: 0.6.',
  bubble: 'Draw "scatter" with a size.',
  point: 'Draw "scatter".',
  dot: 'Draw "scatter".',
  'heat map': 'Draw "heatmap".',
  spline: 'Draw "line" with between: "smooth".',
  curve: 'Draw "line" with between: "smooth".',
  step: 'Draw "line" with between: "hold".',
  timeseries: 'Draw "line" with a time on x.',
  'time series': 'Draw "line" with a time on x.',
  threshold: 'Draw "reference", which stands at a value or a level.',
  band: 'Draw "reference" with an extent, as in y: { from: 10, to: 20 }.',
  regression: 'Draw "trend".',
  trendline: 'Draw "trend".',
  annotation: 'Draw "text", or write notes.',
  label: 'Draw "text", or bind label in the drawing itself.',
} as const satisfies Readonly<Record<string, string>>
const MEANT_KINDS: Readonly<Record<string, string>> = KINDS

/** What is to be written for a kind as the trade calls it; undefined where nothing near is known. */
export function kindMeant(name: string, kinds: readonly string[]): string | undefined {
  const plain = plainKind(name)
  const near = plain === name ? undefined : nearest(plain, kinds)
  return MEANT_KINDS[plain] ?? MEANT_KINDS[plain.replace(/s$/, '')] ?? (near && `Did you mean "${near}"?`)
}

/** A kind's name without what the trade adds to it, as in `Bar chart`. */
const plainKind = (name: string): string =>
  name
    .slice(0, 100)
    .toLowerCase()
    .trim()
    .replace(/[-_]+/g, ' ')
    .replace(/ ?(chart|graph|plot|diagram)$/, '')

/** Values of options in the trade's other words, by the option. */
const VALUES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  arrange: {
    stacked: '"stack"',
    grouped: '"side"',
    clustered: '"side"',
    percent: '"share"',
    normalized: '"share"',
    '100%': '"share"',
    layered: '"overlap"',
    overlay: '"overlap"',
  },
  kind: {
    logarithmic: '"log"',
    sqrt: '"root"',
    'square root': '"root"',
    number: '"linear"',
    date: '"time"',
    datetime: '"time"',
    ordinal: '"category"',
    nominal: '"category"',
    categorical: '"category"',
    threshold: '"stepped"',
  },
  between: {
    step: '"hold"',
    steps: '"hold"',
    linear: '"direct"',
    straight: '"direct"',
    curve: '"smooth"',
    spline: '"smooth"',
  },
  order: {
    ascending: '"name", or "ranked" for the values, greatest first',
    descending: '"ranked"',
    asc: '"name", or "ranked" for the values, greatest first',
    desc: '"ranked"',
    value: '"ranked"',
    alphabetical: '"name"',
    none: '"given"',
  },
  legend: { none: 'false', hidden: 'false', off: 'false', no: 'false' },
  theme: { dark: '"night"', light: '"day"' },
}

/** What is to be written for a value of an option as the trade calls it. */
export const valueMeant = (option: string, value: string): string | undefined => {
  const words = Object.hasOwn(VALUES, option) ? VALUES[option] : {}
  const word = value.toLowerCase()
  return Object.hasOwn(words, word) ? words[word] : undefined
}

/** Options in the trade's other words. */
const OPTIONS: Readonly<Record<string, string>> = {
  type: 'kind',
  sort: 'order',
  sorting: 'order',
  filter: 'where',
  limit: 'top',
  group: 'color',
  facet: 'panes',
  fill: 'color',
  stroke: 'color',
  colours: 'colors',
  hover: 'tooltip',
  animation: 'motion',
  animate: 'motion',
  transition: 'motion',
  position: 'at',
  location: 'at',
  placement: 'at',
  min: 'domain',
  max: 'domain',
  range: 'domain',
  limits: 'domain',
  zero: 'include',
  inverted: 'reverse',
  reversed: 'reverse',
  label: 'title',
  caption: 'title',
  gridlines: 'grid',
  footnote: 'caption',
  annotations: 'notes',
  url: 'link',
  href: 'link',
  interpolation: 'between',
  interpolate: 'between',
  color: 'colors',
  palette: 'colors',
  fontFamily: 'font',
}
const WHOLE: Readonly<Record<string, string>> = {
  stacked: 'Write arrange: "stack".',
  stack: 'Write arrange: "stack".',
  grouped: 'Write arrange: "side".',
  horizontal: 'Bind y to the categories and x to the values: bars lie then.',
  orientation: 'Bind y to the categories and x to the values: bars lie then.',
  type: 'Write draw, such as draw: "line".',
  chart: 'Write draw, such as draw: "line".',
  kind: 'Write draw, such as draw: "line".',
  data: 'Hand the table to chart: chart(table(rows), { … }).',
  width:
    'The size is that of the place where the chart is shown, or of the frame: toPng(chart, { width, height }).',
  height:
    'The size is that of the place where the chart is shown, or of the frame: toPng(chart, { width, height }).',
  opacity: 'Write style: { opacity: 0.5 }.',
  theme: 'The theme is said where the chart is shown, as in mount(chart, place, { theme: "night" }).',
  locale: 'The language is said where the chart is shown, as in mount(chart, place, { locale: "de" }).',
}

/** The option that was meant by a word of the trade, among those that there are; or a sentence, for those of a whole chart. */
export function optionMeant(word: string, options: readonly string[]): string | undefined {
  const plain = word.toLowerCase()
  if (options.includes('draw') && Object.hasOwn(WHOLE, plain)) return WHOLE[plain]
  const found = Object.hasOwn(OPTIONS, word)
    ? OPTIONS[word]
    : Object.hasOwn(OPTIONS, plain)
      ? OPTIONS[plain]
      : undefined
  return found !== undefined && options.includes(found) ? `Write ${found}.` : undefined
}

/** Conditions on rows as they are written here, for a comparison such as "delay > 5"; an example for other texts. */
export function conditionsMeant(text: string): string {
  const [, column = '', sign = '', word = ''] = /^(.*?)(==?|!=|<>|>=|<=|>|<)(.*)$/.exec(text) ?? []
  const [name, said] = [column.trim(), word.trim()]
  if (name === '' || said === '') return 'Write it as in {"route": "Tern Point"}.'
  const bare = said.replace(/^(["'])(.*)\1$/, '$2')
  const value = bare === said && Number.isFinite(Number(said)) ? Number(said) : bare
  const bound = sign === '>' || sign === '<=' ? '; "from" is included, "until" is not' : ''
  return `Write ${JSON.stringify({ [name]: condition(sign, value) })}${bound}.`
}

function condition(sign: string, value: string | number): unknown {
  if (sign.startsWith('=')) return value
  if (sign === '!=' || sign === '<>') return { not: value }
  return sign.startsWith('>') ? { from: value } : { until: value }
}
