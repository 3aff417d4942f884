import type { Description } from '../describe/description.ts'
import { voiceOf } from '../sentence/voice.ts'
import { LENGTH } from '../table/cells/calendar.ts'
import type { Table } from '../table/live/table.ts'
import type { TableLook } from '../table/reshape/look.ts'
import { type ColumnFacts, factsOf } from './facts.ts'
import type { ReasonWords } from './reason-words.ts'

const english = voiceOf({})

/** A chart that is worth seeing for a table. */
export interface Suggestion {
  description: Description
  /** Why, in a few words of English. */
  reason: string
  /** The same as words with holes, for other languages. */
  why: { words: string; holes: Readonly<Record<string, string>> }
  /** 0 to 1: the greater, the more is seen at a glance. */
  worth: number
}

/**
 * How truly people read a value off a shape, after W. S. Cleveland and R. McGill, Graphical Perception (1984): best by
 * position along one scale, then by length, by angle and area, and least by shade.
 */
const READ = { position: 1, length: 0.92, angle: 0.6, shade: 0.5 }

/** Steps of time; the finest is taken that makes a line of some dozens of points. */
const STEPS = ['hour', 'day', 'week', 'month', 'quarter', 'year'] as const
/** More points than these on a line say no more at a glance. */
const POINTS = 60
/** Names that colours tell apart without a search in the legend. */
const COLORS = 6
/** Bars that can be named and compared. */
const BARS = 15

/**
 * Charts worth seeing, best first, by what the columns of a table are: times and numbers, names and numbers, two numbers,
 * columns side by side. Each shows something else; none is given for a table without values. `look`: what is in the columns,
 * where that is known already, as of a table that is elsewhere.
 */
export function suggestCharts(
  table: Table,
  { most = 3, look }: { most?: number; look?: TableLook } = {},
): Suggestion[] {
  const facts = factsOf(table, look)
  const of = (is: ColumnFacts['is']) => facts.filter(column => column.is === is)
  const columns: Columns = {
    rows: table.length,
    times: of('time'),
    // What differs most by its own size is worth most; amounts before levels.
    measures: latestFirst(of('measure').sort((a, b) => Number(b.adds) - Number(a.adds))),
    // Few names first, as they leave most room for each.
    categories: of('category').sort((a, b) => fitness(b) - fitness(a)),
    named: of('identifier').filter(({ longest }) => longest > 0),
    plain: facts.filter(({ distinct }) => distinct > 0),
  }
  const found = RULES.flatMap(rule => rule(columns) ?? [])
  const all = (found.length > 0 ? found : [plainest(columns) ?? []].flat()).sort((a, b) => b.worth - a.worth)
  const seen = new Set<string>()
  return all
    .filter(({ description }) => {
      const shows = JSON.stringify([description.draw, description.x, description.y])
      return !seen.has(shows) && seen.add(shows)
    })
    .slice(0, most)
    .map(({ description, why, worth }) => ({
      description,
      why,
      worth,
      reason: english.text(why.words, why.holes),
    }))
}

interface Columns {
  rows: number
  times: readonly ColumnFacts[]
  measures: readonly ColumnFacts[]
  categories: readonly ColumnFacts[]
  /** Names that tell each row from the others. */
  named: readonly ColumnFacts[]
  /** All that hold a value. */
  plain: readonly ColumnFacts[]
}

/** Columns that are called as years are one measure at several times: the latest says most. */
const latestFirst = (measures: ColumnFacts[]): ColumnFacts[] =>
  measures.every(({ name }) => /^\d{4}$/.test(name))
    ? measures.sort((a, b) => Number(b.name) - Number(a.name))
    : measures

/** Rows are meant where there is no measure. */
const because = (words: ReasonWords, holes: Record<string, string | undefined> = {}): Suggestion['why'] => ({
  words: words.includes('{what}') && holes.what === undefined ? words.replace('{what}', 'rows') : words,
  holes: holes as Record<string, string>,
})

/** How well names can be shown: a handful is best, hundreds are none. */
const fitness = ({ distinct }: ColumnFacts): number =>
  distinct <= BARS ? 1 - Math.abs(distinct - 5) / 40 : 5 / distinct

const summed = ({ name, adds }: ColumnFacts): string => `${adds ? 'sum' : 'mean'} of ${name}`
const stepFor = ({ min, max }: ColumnFacts): string =>
  STEPS.find(step => (max - min) / LENGTH[step] <= POINTS) ?? 'year'

/** A suggestion before its reason is put into words. */
type Found = Omit<Suggestion, 'reason'>
type Rule = (columns: Columns) => Found | undefined

/** A line over time: rows as they are where there is one for each time, else summed up by a step that can be read. */
const overTime: Rule = ({ rows, times: [time], measures, categories }) => {
  if (!time) return undefined
  const plain = time.distinct >= rows * 0.95
  const colour = categories.find(({ distinct }) => distinct <= COLORS)
  const [measure] = measures
  // Times that are few already are steps of their own.
  const x = plain || time.distinct <= POINTS ? time.name : `${stepFor(time)} of ${time.name}`
  if (plain && measures.length > 1 && alike(measures))
    return {
      description: { draw: 'line', x, y: measures.slice(0, COLORS).map(({ name }) => name) },
      why: because('numbers of one size side by side, over {time}', { time: time.name }),
      worth: READ.position,
    }
  const y = measure ? (plain ? measure.name : summed(measure)) : 'count'
  const color = !plain && colour ? { color: colour.name } : {}
  return {
    description: { draw: 'line', x, y, ...color },
    why: color.color
      ? because('{what} over time, one line for each {group}', { what: measure?.name, group: color.color })
      : because('{what} over time', { what: measure?.name }),
    worth: READ.position,
  }
}

/** Whether numbers are of one size, so that one scale serves them all. */
const alike = (measures: readonly ColumnFacts[]): boolean => {
  const sizes = measures.map(({ min, max }) => Math.max(Math.abs(min), Math.abs(max)))
  const ofOneKind = measures.every(({ adds }) => adds === measures[0].adds)
  return ofOneKind && Math.max(...sizes) < 10 * Math.min(...sizes)
}

/** Bars by name, the greatest first; lying where names are many or long. */
const byName: Rule = ({ rows, categories, named, measures: [measure] }) => {
  const category = categories[0] ?? (measure && named[0])
  if (!category) return undefined
  const lying = category.distinct > 6 || category.longest > 12
  const many = category.distinct > BARS
  // What is gathered as the rest must be summed up.
  const plain = category.distinct >= rows && !many
  const value = measure ? (plain ? measure.name : summed(measure)) : 'count'
  return {
    description: {
      draw: 'bar',
      ...(lying ? { x: value, y: category.name } : { x: category.name, y: value }),
      ...(category.ordered ? {} : { order: 'ranked' as const }),
      ...(many ? { top: BARS - 3, rest: true } : {}),
      label: true,
    },
    why: because(category.ordered ? '{what} by {group}' : '{what} by {group}, the greatest first', {
      what: measure?.name,
      group: category.name,
    }),
    worth: READ.length * (0.86 + fitness(category) / 8),
  }
}

/** How two numbers go together; crowds are counted. */
const together: Rule = ({ rows, measures, categories }) => {
  const [y, x] = [measures[0], measures[1]]
  if (!x || !y || rows < 8) return undefined
  const colour = categories.find(({ distinct }) => distinct <= COLORS)
  return {
    description: {
      draw: 'scatter',
      x: x.name,
      y: y.name,
      ...(colour ? { color: colour.name } : {}),
    },
    why: because('how {one} and {other} go together', { one: y.name, other: x.name }),
    worth: READ.position * 0.9,
  }
}

/** How often values of each size occur. */
const spread: Rule = ({ rows, measures }) => {
  const measure = measures.find(({ distinct }) => distinct > 12)
  if (!measure || rows < 20) return undefined
  return {
    description: { draw: 'bar', x: `bins of ${measure.name}`, y: 'count' },
    why: because('how {what} is spread', { what: measure.name }),
    worth: READ.length * 0.85,
  }
}

/** Two sets of names crossed. */
const crossed: Rule = ({ rows, categories, measures: [measure] }) => {
  const [one, other] = categories.filter(({ distinct }) => distinct <= 30)
  if (!one || !other || rows < one.distinct * 2) return undefined
  const [x, y] = one.distinct < other.distinct ? [one, other] : [other, one]
  return {
    description: { draw: 'heatmap', x: x.name, y: y.name, color: measure ? summed(measure) : 'count' },
    why: because('{what} by {group} and {other}', { what: measure?.name, group: x.name, other: y.name }),
    worth: READ.shade + 0.2,
  }
}

/** When in the week or the day things happen. */
const rhythm: Rule = ({ rows, times: [time], measures: [measure] }) => {
  if (!time || rows < 100 || time.distinct < 100) return undefined
  const clock = time.min % LENGTH.day !== 0 || time.max % LENGTH.day !== 0
  const value = measure ? summed(measure) : 'count'
  return {
    description: clock
      ? { draw: 'heatmap', x: `hour of day of ${time.name}`, y: `weekday of ${time.name}`, color: value }
      : { draw: 'bar', x: `weekday of ${time.name}`, y: value },
    why: because(clock ? 'when in the week and the day' : 'which days of the week'),
    worth: clock ? READ.shade + 0.25 : READ.length * 0.8,
  }
}

/** Parts of a whole, where they are few. */
const parts: Rule = ({ categories, measures }) => {
  const category = categories.find(({ distinct }) => distinct <= 5)
  const measure = measures.find(({ adds }) => adds)
  if (!category || !measure) return undefined
  return {
    description: { draw: 'pie', y: `sum of ${measure.name}`, color: category.name, hollow: 0.6 },
    why: because('what each {group} has of all {what}', { group: category.name, what: measure.name }),
    worth: READ.angle,
  }
}

/** What can be shown of values that do not differ, or of a single row. */
const plainest = ({ plain, rows }: Columns): Found | undefined => {
  const number = plain.find(({ type }) => type === 'number')
  const name = plain.find(({ type }) => type === 'text')
  if (rows === 0 || !(number || name)) return undefined
  return {
    description: {
      draw: 'bar',
      x: (name ?? number)!.name,
      y: name && number ? `sum of ${number.name}` : 'count',
      label: true,
    },
    why: because(rows === 1 ? 'the only row' : 'all values are alike'),
    worth: 0.1,
  }
}

const RULES: readonly Rule[] = [overTime, byName, together, spread, crossed, rhythm, parts]
