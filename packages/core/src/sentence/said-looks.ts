/**
 * What looks and options are called in sentences, by their values: what a person may choose among is what stands here.
 * Values are written as texts.
 */
export const LOOK_WORDS = {
  arrange: {
    side: 'side by side',
    stack: 'stacked',
    share: 'stacked to the whole',
    overlap: 'over each other',
  },
  between: {
    direct: 'straight from point to point',
    smooth: 'smooth',
    hold: 'in steps',
    'hold middle': 'in steps at the middle',
    'hold next': 'in steps beforehand',
  },
  points: { true: 'with points', false: 'without points' },
  order: { ranked: 'the greatest first', name: 'by name', given: 'as given' },
  values: { beside: 'shares beside the names', inside: 'shares inside' },
  label: { true: 'with values', false: 'without labels' },
  rest: { true: 'with the rest as one', false: 'without the rest' },
  fit: {
    linear: 'straight',
    log: 'logarithmic',
    exponential: 'exponential',
    power: 'as a power',
    local: 'close to the points',
  },
  band: { true: 'with a band', false: 'without a band' },
  against: { right: 'read on the right', top: 'read above' },
  listed: { true: 'in the legend', false: 'not in the legend' },
} as const satisfies Record<string, Record<string, string>>

/** What looks are called where any value may stand. */
export const FREE_LOOK_WORDS = {
  top: 'only the {value} greatest',
  rest: 'the rest as “{value}”',
  hollow: 'hollow by {value}',
  band: 'with a band of {value}',
  breakAfter: 'broken after {value}',
  name: 'called “{value}”',
  against: 'on the scale {value}',
  table: 'from the table {value}',
  'style color': 'in {value}',
  'style width': '{value} px thick',
  'style opacity': 'with an opacity of {value}',
  'style size': 'with points of {value} px',
  'style gap': 'with gaps of {value}',
} as const

/** What is bound beside positions. */
export const ROLE_WORDS = {
  color: 'one colour per {phrase}',
  shade: 'coloured by {phrase}',
  series: 'one for each {phrase}',
  dash: 'one dash per {phrase}',
  shape: 'one form per {phrase}',
  size: 'sized by {phrase}',
  label: 'labelled with {phrase}',
  link: 'linked to {phrase}',
} as const

/** What kinds are called in sentences. */
export const KIND_WORDS = {
  line: 'a line',
  area: 'an area',
  bar: 'bars',
  scatter: 'points',
  pie: 'slices',
  heatmap: 'cells',
  reference: 'a reference',
  trend: 'a trend',
  text: 'words',
} as const

/** What levels of a reference are called in sentences. */
export const LEVEL_WORDS = {
  mean: 'the mean',
  median: 'the median',
  min: 'the least',
  max: 'the greatest',
} as const

/** What a chart says of itself as a whole, by the value. */
export const WHOLE_WORDS = {
  legend: {
    false: 'No legend.',
    auto: 'The legend stands where there is room.',
    ends: 'Names stand at the ends of lines.',
    top: 'The legend stands above.',
    right: 'The legend stands on the right.',
    bottom: 'The legend stands below.',
    left: 'The legend stands on the left.',
    'inside top left': 'The legend stands inside, at the top left.',
    'inside top right': 'The legend stands inside, at the top right.',
    'inside bottom left': 'The legend stands inside, at the bottom left.',
    'inside bottom right': 'The legend stands inside, at the bottom right.',
  },
  zoom: {
    x: 'People zoom along.',
    y: 'People zoom up and down.',
    xy: 'People zoom in both directions.',
    false: 'Nobody zooms.',
  },
  select: {
    click: 'A click selects.',
    box: 'A box selects.',
    lasso: 'An outline selects.',
    false: 'Nothing is selected here.',
  },
  respond: {
    dim: 'What is not selected elsewhere is dimmed.',
    narrow: 'It shows only what is selected elsewhere.',
    ignore: 'It pays no heed to what is selected elsewhere.',
  },
  tooltip: { false: 'No tooltip.' },
  stamp: { false: 'No stamp.' },
  colorNames: {
    true: 'Titles name series in their colours.',
    false: 'Titles name series without their colours.',
  },
} as const satisfies Record<string, Record<string, string>>

/** The same where any words may stand. */
export const FREE_WHOLE_WORDS = {
  title: 'The title is “{value}”.',
  subtitle: 'The subtitle is “{value}”.',
  caption: 'The caption is “{value}”.',
  source: 'The source is “{value}”.',
  stamp: 'The stamp says “{value}”.',
  tooltip: 'The tooltip says “{value}”.',
  id: 'It is known as “{value}”.',
  detailOf: 'It explains what is selected in “{value}”.',
  background: 'The background is {value}.',
} as const

/** What kinds of scales are said as, by the scale. */
export const SCALE_KIND_WORDS = {
  linear: 'The scale {scale} is linear.',
  log: 'The scale {scale} is logarithmic.',
  root: 'The scale {scale} is by square roots.',
  'signed log': 'The scale {scale} is logarithmic on both sides of zero.',
  time: 'The scale {scale} is one of time.',
  category: 'The scale {scale} is one of names.',
  sequential: 'The scale {scale} goes from light to dark.',
  diverging: 'The scale {scale} has two sides.',
  stepped: 'The scale {scale} goes in steps.',
} as const

/** What scales do or do not, by the scale. */
export const SCALE_FLAG_WORDS = {
  reverse: { true: 'The scale {scale} is turned round.', false: 'The scale {scale} is not turned round.' },
  roundEnds: { true: 'The scale {scale} has neat ends.', false: 'The scale {scale} ends where values end.' },
  fixed: { true: 'The scale {scale} keeps its ends.', false: 'The scale {scale} follows the values.' },
  keeps: { true: 'The scale {scale} keeps what was.', false: 'The scale {scale} shows one period alone.' },
} as const satisfies Record<string, Record<string, string>>

/** What of a scale may have any value. */
export const FREE_SCALE_WORDS = {
  include: 'The scale {scale} includes {value}.',
  pad: 'The scale {scale} has room of {value} at its ends.',
  percentOf: 'The scale {scale} is read as a percentage of {value}.',
  each: 'Each step of the scale {scale} takes {value} ms.',
  radius: 'The scale {scale} reaches a radius of {value} px.',
} as const

/** How notes are said, by what they are about. */
export const NOTE_WORDS: Readonly<Record<string, string>> = {
  x: 'A note at {x} says “{value}”.',
  y: 'A note at the height of {y} says “{value}”.',
  'x y': 'A note at {x} and {y} says “{value}”.',
  'from until': 'A note from {from} to before {until} says “{value}”.',
  'x series': 'A note at {x} of {series} says “{value}”.',
  'y series': 'A note at the height of {y} of {series} says “{value}”.',
  'x y series': 'A note at {x} and {y} of {series} says “{value}”.',
  'from until series': 'A note from {from} to before {until} of {series} says “{value}”.',
}
