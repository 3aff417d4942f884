import { isLying } from '../../drawing/is-lying.ts'
import type { Finding } from '../../finding/error.ts'
import { partPath } from '../../finding/part-path.ts'
import { quoted } from '../../finding/plain-text.ts'
import { arrangeOf } from '../../resolve/looks.ts'
import { timeFormat } from '../../scale/time-format.ts'
import { DAY } from '../../table/cells/calendar.ts'
import { namedBy } from '../../table/cells/names-as-numbers.ts'
import type { RoleValues } from '../../table/group/shape.ts'
import { shareOfPercentile } from '../../table/phrase/meaning.ts'
import type { BoundDrawing } from '../model.ts'

/** Kinds whose marks are joined. */
const JOINED = ['line', 'area']

/** What a person would regret of the values that a drawing draws. */
export const doubtfulValues = (drawn: BoundDrawing, locale: string): Finding[] =>
  drawn.drawing.kind.aside
    ? []
    : [
        ...withoutPlace(drawn),
        ...zigzags(drawn),
        ...hiddenBars(drawn),
        ...hiddenCells(drawn),
        ...lonePoints(drawn),
        ...hiddenPoints(drawn),
        ...namesAsQuantities(drawn),
        ...sizesOfNoNumber(drawn),
        ...(['x', 'y'] as const).flatMap(role => [
          ...numbersAsText(drawn, role),
          ...unorderedNames(drawn, role, locale),
        ]),
      ]

const pathOf = ({ drawing: { path } }: BoundDrawing, part: string) => partPath(path, part)

/** Lines of one point each, and lines that gaps take apart into points. */
function lonePoints(drawn: BoundDrawing): Finding[] {
  const { drawing, marks } = drawn
  const { length, series } = marks
  if (!JOINED.includes(drawing.kind.name) || length === 0) return []
  if (length > series.length) return betweenGaps(drawn)
  return [
    {
      code: 'lone-points',
      message:
        length === 1
          ? 'There is one value, and a line has nothing to join it to'
          : 'Each series has one value, and a line has nothing to join it to',
      remedy: 'Draw "scatter" or "bar".',
      path: drawing.path || 'draw',
    },
  ]
}

/** Values that nothing joins, since the places beside them have none: a line of them is no line. */
function betweenGaps({ drawing, marks }: BoundDrawing): Finding[] {
  const { length, x, y, seriesOf, series } = marks
  if (length > CROWDED || series.length > length / 3) return []
  const order = Array.from({ length }, (_, mark) => mark)
  if (!x.sorted) order.sort((a, b) => x.at[a] - x.at[b])
  /** By series: how many values stand beside each other up to here. */
  const run = new Uint32Array(series.length)
  let valued = 0
  let lone = 0
  for (const mark of order) {
    const own = seriesOf ? seriesOf[mark] : 0
    if (Number.isNaN(y.at[mark])) {
      run[own] = 0
      continue
    }
    valued++
    if (run[own] === 0) lone++
    if (run[own] === 1) lone--
    run[own]++
  }
  if (lone * 2 <= valued) return []
  return [
    {
      code: 'lone-points',
      message: `${lone} of ${valued} values stand between gaps, and a line has nothing to join them to`,
      remedy: x.from
        ? 'Use longer intervals, so that each has rows, or draw "scatter".'
        : 'Leave out the rows without a value by "where", or draw "scatter".',
      path: drawing.path || 'draw',
    },
  ]
}

/** Of fewer points, or more, each is seen or their crowd is drawn. */
const [FEW_POINTS, CROWDED] = [20, 20_000]

/** Points that cover each other wholly. */
function hiddenPoints({ drawing, marks }: BoundDrawing): Finding[] {
  const { length, size, x, y } = marks
  if (drawing.kind.reads !== 'point' || size || length < FEW_POINTS || length > CROWDED) return []
  const places = new Map<number, Set<number>>()
  let seen = 0
  for (let mark = 0; mark < length; mark++) {
    const column = places.get(x.at[mark]) ?? new Set()
    places.set(x.at[mark], column)
    if (column.has(y.at[mark])) continue
    column.add(y.at[mark])
    seen++
  }
  return seen * 2 > length
    ? []
    : [
        {
          code: 'hidden-points',
          message: `${length - seen} of ${length} points lie exactly under others`,
          remedy: 'Bind size to "count", so that a point is as large as it stands for rows.',
          path: drawing.path || 'draw',
        },
      ]
}

/** Summaries that treat their column as a quantity. */
const ADDING = ['sum', 'mean', 'median']

/** Years and identifiers that are added up, or read by size or along a ramp of colours. */
function namesAsQuantities(drawn: BoundDrawing): Finding[] {
  const { marks, shade, size } = drawn
  const measure = isLying(marks) ? 'x' : 'y'
  const bound: [string, RoleValues | undefined][] = [
    ['color', marks.shade && shade],
    ['size', marks.size && size],
    [measure, drawn[measure]],
  ]
  return bound.flatMap(([role, values]) => {
    const { column, meaning } = values ?? {}
    const named = column && namedBy(column)
    if (!column || !named || !meaning) return []
    const added =
      meaning.is === 'summary'
        ? ADDING.includes(meaning.how) || shareOfPercentile(meaning.how) !== undefined
        : meaning.is !== 'column'
    const placed = role === measure && !added
    // Years stand well on an axis, and points may stand anywhere.
    if (placed && (named === 'years' || drawn.drawing.kind.scattered || meaning.is !== 'column')) return []
    return [
      {
        code: 'name-as-quantity',
        message: `The ${named} of ${quoted(column.name)} are drawn as a quantity`,
        remedy:
          role === 'color'
            ? `Give the column the type "text", as in columns: { ${quoted(column.name)}: { type: "text" } }.`
            : `Bind ${role} to what is measured, or to "count".`,
        path: pathOf(drawn, role),
      },
    ]
  })
}

/** Sizes that are bound to what has none. */
function sizesOfNoNumber(drawn: BoundDrawing): Finding[] {
  const type = drawn.size?.cells.type
  if (type === undefined || type === 'number') return []
  return [
    {
      code: 'no-effect',
      message: `"size" is bound to ${type}s, which have no size, so all points are equally large`,
      remedy: 'Bind size to a number, such as "count", and texts to color or shape.',
      path: pathOf(drawn, 'size'),
    },
  ]
}

/** A number with a unit after it. */
const MEASURED = /^[-+−]?[\d.,\s]*\d(?:\s+|(?=[%°\p{Ll}]))(%|°|[\p{L}/²³]{1,6})$/u

/** Numbers that their texts keep from being numbers. */
function numbersAsText(drawn: BoundDrawing, role: 'x' | 'y'): Finding[] {
  const { cells, column, meaning } = drawn[role]
  if (cells.type !== 'text' || !column || meaning.is !== 'column') return []
  const words = cells.words.slice(0, 200)
  const units = words.map(word => MEASURED.exec(word.trim())?.[1])
  const unit = units.find(unit => unit !== undefined)
  const alike = units.filter(own => own === unit).length
  const plain = words.filter(word => /^[-+−]?[\d.,]*\d$/.test(word.trim())).length
  if (unit === undefined || words.length < 3 || alike + plain < words.length * 0.8) return []
  return [
    {
      code: 'numbers-as-text',
      message: `The values of ${quoted(column.name)} are texts such as ${quoted(words[units.indexOf(unit)])}, so they stand side by side like names`,
      remedy: `Write the numbers alone, and give the column its unit: columns: { ${quoted(column.name)}: { unit: ${quoted(unit)} } }.`,
      path: pathOf(drawn, role),
    },
  ]
}

/** English names, written down, since the first use of `Intl` takes longer than a small chart. */
const ENGLISH = [
  'january february march april may june july august september october november december',
  'monday tuesday wednesday thursday friday saturday sunday',
].flatMap(names => [names.split(' '), names.split(' ').map(name => name.slice(0, 3))])

/** The names of months and of weekdays in a language, long and short, in the order of the calendar. */
function calendarNames(locale: string): string[][] {
  const names = (length: 'long' | 'short') => {
    const write = (options: Intl.DateTimeFormatOptions) => timeFormat(locale, 'UTC', options)
    const month = write({ month: length })
    const weekday = write({ weekday: length })
    return [
      Array.from({ length: 12 }, (_, i) => month.format(Date.UTC(2024, i, 1))),
      // A Monday comes first.
      Array.from({ length: 7 }, (_, i) => weekday.format(Date.UTC(2024, 0, 1) + i * DAY)),
    ]
  }
  return [...names('long'), ...names('short')].map(list => list.map(plain))
}

const plain = (name: string) => name.trim().toLowerCase().replace(/\.$/, '')

/** Months and weekdays by name that come in another order than in the calendar. */
function unorderedNames(drawn: BoundDrawing, role: 'x' | 'y', locale: string): Finding[] {
  const { drawing, marks } = drawn
  const { cells, column, meaning } = drawn[role]
  if (cells.type !== 'text' || !column || meaning.is !== 'column' || drawing.order) return []
  const met = new Map<string, number>()
  for (let mark = 0; mark < marks.length && met.size <= 12; mark++)
    if (cells.codes[mark] >= 0) met.set(cells.words[cells.codes[mark]], marks[role].at[mark])
  if (met.size < 3 || met.size > 12) return []
  const named = (list: readonly string[]) => [...met.keys()].every(word => list.includes(plain(word)))
  const list = ENGLISH.find(named) ?? (/^en\b/.test(locale) ? undefined : calendarNames(locale).find(named))
  if (!list) return []
  const shown = [...met.keys()].sort((a, b) => met.get(a)! - met.get(b)!)
  const places = shown.map(word => list.indexOf(plain(word)))
  // A year may begin in any month, and a week on any day.
  const falls = places.filter((place, i) => place < places[(i || places.length) - 1]).length
  if (falls <= 1) return []
  const sorted = [...shown].sort((a, b) => list.indexOf(plain(a)) - list.indexOf(plain(b)))
  return [
    {
      code: 'out-of-order',
      message: `The names of ${quoted(column.name)} come as ${shown.slice(0, 3).map(quoted).join(', ')} …, and not as in the calendar`,
      remedy: `List them in order: scales.${role}.domain: [${sorted.map(quoted).join(', ')}].`,
      path: pathOf(drawn, role),
    },
  ]
}

/** Lines that go back and forth, since several rows of one series stand at one place. */
function zigzags({ drawing, marks }: BoundDrawing): Finding[] {
  if (drawing.kind.name !== 'line' || marks.length < 3 || marks.x.spans) return []
  const twice = repeatedPlaces(marks)
  // Where lines rise at once now and then, that is meant.
  if (twice * 4 < marks.length) return []
  return [
    {
      code: 'several-at-a-place',
      message: `Several rows of a line stand at one place, so it goes up and down there`,
      remedy: 'Bind color to what tells them apart, or sum them up, as in y: "mean of …".',
      path: drawing.path || 'draw',
    },
  ]
}

/** Rows that stand nowhere, since they have no value along the axis of places. */
function withoutPlace(drawn: BoundDrawing): Finding[] {
  const { drawing, marks } = drawn
  if (drawing.kind.parts || marks.crowd || marks.x.unbound || marks.y.unbound) return []
  const lying = isLying(marks)
  const role = lying ? 'y' : 'x'
  const { column, cells } = drawn[role]
  const name = column?.name
  // Values that their scale does not list are told of there.
  const lacks = (mark: number) =>
    cells.type === 'text' ? cells.codes[mark] < 0 : Number.isNaN(cells.values[mark])
  const { at: values } = lying ? marks.x : marks.y
  let count = 0
  for (let mark = 0; mark < marks.length; mark++) if (lacks(mark) && !Number.isNaN(values[mark])) count++
  if (count === 0 || name === undefined) return []
  return [
    {
      code: 'without-place',
      message: `${count === 1 ? 'One row has' : `${count.toLocaleString('en')} rows have`} no ${quoted(name)}, so ${count === 1 ? 'it is' : 'they are'} not in the picture`,
      remedy: `Fill ${quoted(name)} in, or leave those rows out on purpose: where: { ${quoted(name)}: { not: null } }.`,
      path: pathOf(drawn, role),
    },
  ]
}

/** Bars that stand in front of each other, since several rows of one series have one place. */
function hiddenBars({ drawing, marks }: BoundDrawing): Finding[] {
  const { kind } = drawing
  if (!kind.fromZero || !kind.broad || kind.parts || ['stack', 'share'].includes(arrangeOf(drawing)))
    return []
  const lying = isLying(marks)
  if ((lying ? marks.y : marks.x).spans || (lying ? marks.x : marks.y).spans) return []
  const hidden = repeatedPlaces(lying ? { ...marks, x: marks.y, y: marks.x } : marks)
  if (hidden === 0) return []
  return [
    {
      code: 'several-at-a-place',
      message: `Several rows stand at one place, so ${hidden === 1 ? 'a bar stands' : `${hidden} bars stand`} in front of another`,
      remedy: `Sum them up, as in ${lying ? 'x' : 'y'}: "sum of …", or bind color to what tells them apart.`,
      path: drawing.path || 'draw',
    },
  ]
}

/** Cells that lie under others, since what tells them apart is neither along x nor along y. */
function hiddenCells({ drawing, marks }: BoundDrawing): Finding[] {
  if (!drawing.kind.cells) return []
  const { length, x, y } = marks
  const taken = new Map<number, Set<number>>()
  let hidden = 0
  for (let mark = 0; mark < length; mark++) {
    if (Number.isNaN(x.at[mark] + y.at[mark])) continue
    const column = taken.get(x.at[mark]) ?? new Set()
    taken.set(x.at[mark], column)
    if (column.has(y.at[mark])) hidden++
    column.add(y.at[mark])
  }
  if (hidden === 0) return []
  return [
    {
      code: 'several-at-a-place',
      message: `Several cells stand at one place, so ${hidden === 1 ? 'one lies' : `${hidden} lie`} under another`,
      remedy: 'Sum them up, as in color: "sum of …", or leave out what tells them apart.',
      path: drawing.path || 'draw',
    },
  ]
}

/** How many values stand where another one of their series stands already. */
function repeatedPlaces({
  length,
  x,
  y,
  seriesOf,
  series,
}: Pick<BoundDrawing['marks'], 'length' | 'x' | 'y' | 'seriesOf' | 'series'>): number {
  let twice = 0
  if (x.sorted) {
    // In order, those at one place follow each other.
    const last = new Float64Array(Math.max(1, series.length)).fill(Number.NaN)
    for (let mark = 0; mark < length; mark++) {
      if (Number.isNaN(y.at[mark])) continue
      const own = seriesOf ? seriesOf[mark] : 0
      if (last[own] === x.at[mark]) twice++
      last[own] = x.at[mark]
    }
    return twice
  }
  const counts = new Uint32Array(Math.max(1, series.length))
  for (let mark = 0; mark < length; mark++) counts[seriesOf ? seriesOf[mark] : 0]++
  const places = Array.from(counts, count => new Float64Array(count))
  counts.fill(0)
  for (let mark = 0; mark < length; mark++) {
    const own = seriesOf ? seriesOf[mark] : 0
    if (!Number.isNaN(x.at[mark]) && !Number.isNaN(y.at[mark])) places[own][counts[own]++] = x.at[mark]
  }
  for (const [own, all] of places.entries()) {
    // Sorting numbers takes less time than to look for each among a million.
    const sorted = all.subarray(0, counts[own]).sort()
    for (let i = 1; i < sorted.length; i++) if (sorted[i] === sorted[i - 1]) twice++
  }
  return twice
}
