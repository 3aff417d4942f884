// Random charts: tables, descriptions, states and frames as people might write them, and as nobody should.
import fc from 'fast-check'

const some = (...values) => fc.constantFrom(...values)

/** A value from a thunk each time, so that no two charts share an object. */
const made = (...makers) => some(...makers).map(make => make())

const deep = depth => {
  let out = { a: 1 }
  for (let i = 0; i < depth; i++) out = i % 2 ? [out] : { a: out }
  return out
}

/** What nobody should write anywhere. */
const NASTY = made(
  () => null,
  () => undefined,
  () => Number.NaN,
  () => Number.POSITIVE_INFINITY,
  () => 1e308,
  () => -1e308,
  () => 5e-324,
  () => -1,
  () => 0,
  () => 1e9,
  () => '',
  () => ' ',
  () => '__proto__',
  () => 'x'.repeat(5000),
  () => `1${' '.repeat(5000)}x`,
  () => 'url(https://far.example/a.svg#x)',
  () => 'var(--x, url(//far.example))',
  () => '\u001b]0;title\u0007',
  () => [],
  () => [[]],
  () => ({}),
  () => Object.create(null),
  () => JSON.parse('{"__proto__":{"a":1}}'),
  () => deep(30),
  () => deep(5000),
  () => true,
  () => false,
  () => new Date(Number.NaN),
  () => new Date(8.64e15),
  () => () => 'told',
  () => Symbol('s'),
  () => 10n,
)

/** The arbitrary of whole cases. `odd`: with what nobody should write among the rest. */
export function chartCases(odd) {
  const nasty = odd ? NASTY : fc.constant(undefined)
  const rare = (usual, strange, weight = 12) =>
    fc.oneof({ arbitrary: usual, weight }, { arbitrary: strange, weight: odd ? 1 : 0 })
  const wildly = odd ? 1 : 0
  const wild = some(
    0,
    -0,
    5e-324,
    1e-310,
    1e-12,
    1,
    1e6,
    1e15,
    2 ** 53 + 2,
    1e100,
    1e299,
    1e305,
    Number.MAX_VALUE,
    -Number.MAX_VALUE,
    Number.NaN,
    Number.POSITIVE_INFINITY,
  )
  const number = fc.oneof(
    { arbitrary: fc.integer({ min: -50, max: 500 }), weight: 6 },
    { arbitrary: fc.double({ min: -1e4, max: 1e4, noNaN: true }), weight: 4 },
    { arbitrary: wild, weight: wildly },
    { arbitrary: fc.constant(null), weight: 1 },
  )
  const day = fc.integer({ min: 0, max: 4000 }).map(n => new Date(Date.UTC(2015, 0, 1 + n)))
  const time = rare(
    fc.oneof(
      day,
      fc.integer({ min: 0, max: 5e8 }).map(n => new Date(1.6e12 + n)),
    ),
    some(8.64e15, -8.64e15, Number.NaN, 0, -6e13).map(at => new Date(at)),
  )
  const words = [
    'North Sound',
    'Gannet Bay',
    'Tern Point',
    'Kelp Narrows',
    'Outer Skerries and all that lies beyond them in the north-west',
    '',
    '__proto__',
    'constructor',
    'مرسى',
    '東の港',
    '👩‍👩‍👧 pier',
    '<b>&"\'',
    '{count}',
    'a\u0000b\u202ec',
    '1e3',
    '2024-03-01',
    'Other\u2060',
    'x'.repeat(300),
  ]
  const text = some(...words)

  const column = fc.oneof(
    { arbitrary: fc.constant({ of: number, type: 'number' }), weight: 5 },
    { arbitrary: fc.constant({ of: fc.integer({ min: 0, max: 30 }), type: 'number' }), weight: 2 },
    { arbitrary: fc.constant({ of: time, type: 'time' }), weight: 3 },
    { arbitrary: fc.constant({ of: day.map(date => date.toISOString().slice(0, 10)) }), weight: 2 },
    { arbitrary: fc.constant({ of: text, type: 'text' }), weight: 4 },
    { arbitrary: fc.constant({ of: fc.string({ maxLength: 12 }) }), weight: 1 },
    { arbitrary: number.map(n => ({ of: fc.constant(n) })), weight: 1 },
    { arbitrary: fc.constant({ of: nasty }), weight: wildly },
  )
  const NAMES = [
    'a',
    'b',
    't',
    'g',
    'route name',
    'sum of a',
    '__proto__',
    'count',
    'x'.repeat(200),
    'a.b[0]',
  ]

  const table = fc
    .record({
      columns: fc.array(column, { minLength: 1, maxLength: 5 }),
      names: fc.shuffledSubarray(NAMES, { minLength: 5 }),
      length: some(0, 1, 1, 2, 3, 7, 20, 20, 60, 60, 400),
      typed: fc.boolean(),
    })
    .chain(({ columns, names, length, typed }) =>
      fc
        .tuple(...columns.map(one => fc.array(one.of, { minLength: length, maxLength: length, size: 'max' })))
        .map(cells => {
          const out = Object.create(null)
          const told = Object.create(null)
          cells.forEach((list, i) => {
            out[names[i]] = list
            if (typed && columns[i].type) told[names[i]] = { type: columns[i].type }
          })
          const own = names.slice(0, cells.length)
          return {
            columns: out,
            options: { columns: told, name: 'random' },
            names: own,
            times: own.filter((_, i) => columns[i].type === 'time'),
            numbers: own.filter((_, i) => columns[i].type === 'number'),
          }
        }),
    )

  const OF_NUMBERS = [
    'sum of',
    'mean of',
    'median of',
    'min of',
    'max of',
    'first of',
    'share of',
    'rank of',
    'sum so far of',
    'bins of',
  ]
  const OF_TIMES = [
    'minute of',
    'hour of',
    'day of',
    'week of',
    'month of',
    'quarter of',
    'year of',
    'weekday of',
    'hour of day of',
    'day of month of',
    'day of year of',
    'month of year of',
    'last of',
  ]

  /** Phrases over a table's columns: mostly right ones. */
  const phraseOver = ({ names, times, numbers }) =>
    fc.oneof(
      { arbitrary: some(...names), weight: 6 },
      {
        arbitrary:
          numbers.length > 0
            ? fc.tuple(some(...OF_NUMBERS), some(...numbers)).map(parts => parts.join(' '))
            : some('count'),
        weight: 6,
      },
      {
        arbitrary:
          times.length > 0
            ? fc.tuple(some(...OF_TIMES), some(...times)).map(parts => parts.join(' '))
            : some('count'),
        weight: 4,
      },
      {
        arbitrary: fc
          .tuple(some(...OF_NUMBERS, ...OF_TIMES, 'distinct'), some(...names))
          .map(parts => parts.join(' ')),
        weight: wildly,
      },
      { arbitrary: some('count', 'count so far', 'share of count'), weight: 3 },
      {
        arbitrary: fc
          .tuple(some('sum', 'mean', 'bins', 'share', 'month'), some(...names))
          .map(([key, name]) => ({
            [key]: name,
            label: 'Told',
          })),
        weight: 1,
      },
      {
        arbitrary: fc
          .tuple(some(...names), some(0.001, 1, 10, 1e-9), some(2, 7, 1e6))
          .map(([name, width, count]) => (width < 1 ? { bins: name, width } : { bins: name, number: count })),
        weight: 1,
      },
      { arbitrary: fc.record({ from: some(...names), to: some(...names) }), weight: 1 },
      { arbitrary: fc.array(some(...names), { minLength: 1, maxLength: 3 }), weight: 1 },
      { arbitrary: fc.record({ value: number }), weight: 1 },
      { arbitrary: nasty, weight: wildly },
    )

  const color = rare(
    some('#5e82ec', 'teal', 'rgb(10 20 30)', 'rgba(1,2,3,.5)', 'hsl(120deg 50% 50%)', '#abc'),
    nasty,
  )
  const optional = (arbitrary, weight = 3) =>
    fc.oneof({ arbitrary: fc.constant(undefined), weight }, { arbitrary, weight: 1 })
  const record = (shape, weight) =>
    fc
      .record(
        Object.fromEntries(
          Object.entries(shape).map(([key, arbitrary]) => [key, optional(arbitrary, weight)]),
        ),
      )
      .map(all => Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)))

  const style = record({
    color,
    opacity: some(0, 0.3, 1),
    width: some(0, 0.5, 2, 40, 1e308),
    dash: some([], [1], [4, 2], [0, 0], [1e300]),
    size: some(0, 1, 8, 200, 1e308),
    gap: some(0, 0.5, 1),
    caps: fc.boolean(),
  })
  const scaleOver = ({ names }) =>
    record({
      kind: some(
        'linear',
        'log',
        'root',
        'signed log',
        'time',
        'category',
        'sequential',
        'diverging',
        'stepped',
      ),
      domain: fc.oneof(
        fc.tuple(fc.oneof(number, fc.constant(null)), fc.oneof(number, fc.constant(null))),
        fc.array(text, { maxLength: 4 }),
        some(['2020-01-01', '2021-01-01'], [null, '2020-01-01'], [1, 1], [10, 0]),
      ),
      include: fc.oneof(number, fc.array(number, { maxLength: 3 })),
      pad: some(0, 0.1, 5, 1e10, 1e308),
      roundEnds: fc.boolean(),
      reverse: fc.boolean(),
      fixed: fc.boolean(),
      alignTo: some('y', 'right', 'x', 'nothing'),
      percentOf: some(0, 1, 1e-300, 1e300, -5),
      order: some('given', 'name', 'ranked'),
      colors: fc.oneof(
        fc.array(color, { maxLength: 3 }),
        fc.dictionary(some(...names, ...words.slice(0, 4)), color),
      ),
      each: some(1, 900, 1e9),
      missing: some('bridge', 'hold'),
    })
  const axis = fc.oneof(
    fc.constant(false),
    record({
      title: some('Told', false, '{count} of them'),
      side: some('left', 'right', 'top', 'bottom'),
      ticks: fc.oneof(
        some(0, 1, 5, 50, 100, 1e9, -3, 0.5),
        fc.array(number, { maxLength: 6 }),
        some(
          { every: 1 },
          { every: 1e-9 },
          { every: { seconds: 1 } },
          { every: { months: 3 } },
          { every: { days: 0.1 } },
          { every: -1 },
        ),
      ),
      minor: fc.boolean(),
      grid: fc.oneof(fc.boolean(), record({ dash: some([2, 2], [0]), color })),
      stripes: fc.boolean(),
      strongAt: some('minute', 'hour', 'day', 'week', 'month', 'quarter', 'year'),
      tickLength: some(0, 6, 1000, 1e308),
      format: some(
        { style: 'percent' },
        { style: 'currency' },
        { style: 'currency', currency: 'EUR' },
        { maximumFractionDigits: 200 },
        { month: 'long' },
        { notation: 'compact' },
      ),
    }),
  )
  const legend = fc.oneof(
    some(false, 'auto', 'ends', 'top', 'right', 'bottom', 'left', 'inside top left', 'inside bottom right'),
    record({ at: some('top', 'right'), columns: some(1, 3, 1000), title: text }),
    record({ color: some(false, 'right'), size: some('bottom'), shape: some(false) }),
    nasty,
  )
  const KINDS = ['line', 'area', 'bar', 'scatter', 'pie', 'heatmap', 'reference', 'trend', 'text']

  const rolesOver = data => ({
    color: phraseOver(data),
    series: phraseOver(data),
    size: phraseOver(data),
    shape: phraseOver(data),
    dash: phraseOver(data),
    link: phraseOver(data),
    label: fc.oneof(fc.boolean(), phraseOver(data), some({ words: '{count} of {a}' }, { words: '{{' })),
    where: fc.oneof(
      fc.dictionary(
        some(...data.names),
        fc.oneof(
          text,
          number,
          fc.array(text, { maxLength: 3 }),
          record({ from: number, until: number }),
          some({ not: 'x' }),
        ),
        { maxKeys: 2 },
      ),
      nasty,
    ),
    top: some(1, 3, 50),
    rest: some(true, 'The others', false),
    order: some('given', 'name', 'ranked'),
    arrange: some('side', 'stack', 'share', 'overlap'),
    between: some('direct', 'smooth', 'hold', 'hold middle', 'hold next'),
    points: fc.boolean(),
    hollow: some(0, 0.5, 1),
    fit: some('linear', 'log', 'exponential', 'local', { degree: 2 }, { degree: 10 }),
    band: some(true, 0.5, 0.999999, 0),
    style,
  })

  const descriptionOver = data => {
    const drawing = fc
      .tuple(
        some(...KINDS),
        record(
          {
            x: phraseOver(data),
            y: phraseOver(data),
            against: some('y', 'right', 'z'),
            level: some('mean', 'median', 'min', 'max'),
            name: text,
            ...rolesOver(data),
          },
          5,
        ),
      )
      .map(([as, rest]) => ({ as, ...rest }))
    return fc
      .tuple(
        fc.oneof(
          { arbitrary: some(...KINDS), weight: 8 },
          {
            arbitrary: fc.array(fc.oneof(some(...KINDS), drawing), { minLength: 1, maxLength: 3 }),
            weight: 4,
          },
          { arbitrary: drawing, weight: 2 },
          { arbitrary: nasty, weight: wildly },
        ),
        phraseOver(data),
        phraseOver(data),
        record(
          {
            ...rolesOver(data),
            title: fc.oneof(text, some('{count} rows', '{sum of a} in {b}', 'x'.repeat(2000), '\n\n')),
            subtitle: text,
            caption: text,
            source: text,
            background: fc.oneof(
              color,
              record({
                color,
                image: some('data:image/png;base64,', 'javascript:1', 'a.png'),
                veil: some(0, 1),
              }),
            ),
            scales: fc.dictionary(
              some('x', 'y', 'right', 'color', 'through', 'size'),
              fc.oneof(scaleOver(data), text),
              { maxKeys: 3 },
            ),
            axes: fc.dictionary(some('x', 'y', 'right'), axis, { maxKeys: 3 }),
            legend,
            tooltip: fc.oneof(fc.constant(false), fc.array(phraseOver(data), { maxLength: 2 }), text),
            through: phraseOver(data),
            stamp: fc.oneof(
              text,
              record({
                words: text,
                note: some('{count} rows', '{sum of a}'),
                at: some('title', 'inside bottom right', 'inside top left'),
              }),
            ),
            zoom: some(false, 'x', 'y', 'xy'),
            select: some('click', ['box', 'lasso'], false),
            respond: some('dim', 'narrow', 'ignore'),
            controls: fc.array(
              record({ set: some('draw', 'where.g'), to: fc.array(text, { maxLength: 2 }) }),
              { maxLength: 1 },
            ),
            motion: some(
              false,
              { duration: 100 },
              { spring: true },
              { easing: 'steps(3, end)' },
              { easing: 'nonsense' },
            ),
          },
          6,
        ),
      )
      .map(([draw, x, y, rest]) => ({ draw, x, y, ...rest }))
  }

  const state = rare(
    record(
      {
        zoom: fc.dictionary(
          some('x', 'y', 'right', 'nothing'),
          fc.oneof(fc.tuple(number, number), some([0, 1e-30], [1e300, -1e300], [1.5e12, 1.6e12], [5, 5])),
          { maxKeys: 2 },
        ),
        hidden: fc.array(text, { maxLength: 3 }),
        selected: fc.array(fc.integer({ min: 0, max: 80 }), { maxLength: 5 }),
        at: some(0, 0.5, 3, 1e9),
      },
      4,
    ),
    fc.oneof(nasty, record({ zoom: nasty, hidden: nasty, selected: nasty, at: nasty })),
    20,
  )
  const side = some(1, 20, 90, 150, 220, 360, 640, 640, 960, 1280)
  const frame = fc
    .tuple(
      rare(side, some(0, -5, 3840, 20_000, 1e6, Number.NaN, 1e308), 25),
      rare(side, some(0, -5, 2160, 20_000, 1e6, Number.NaN), 25),
      record(
        {
          density: rare(some(1, 2, 3), some(0, 100, Number.NaN)),
          theme: some('day', 'night'),
          locale: some('en', 'de', 'ar', 'ja', 'hi', 'en_US', 'nonsense-locale-xx-yy'),
          house: record({
            palette: fc.array(color, { maxLength: 3 }),
            font: some('Inter', 'x"y;}'),
            day: record({ background: color, text: color, sizes: some({ title: 30 }, { text: 0 }) }),
            columns: some({ a: { format: { style: 'currency' } } }, { a: { label: 'A' } }),
          }),
        },
        6,
      ),
    )
    .map(([width, height, rest]) => ({ width, height, ...rest }))

  /** A whole case: what `runCase` draws. */
  return table.chain(data =>
    fc.record({ data: fc.constant(data), description: descriptionOver(data), state, frame }),
  )
}
