import { DapploError } from '../../finding/error.ts'
import { nearest, suggest } from '../../finding/nearest.ts'
import { quoted } from '../../finding/plain-text.ts'
import type { Cycle } from '../cells/calendar.ts'
import type { Table } from '../live/table.ts'
import {
  type BucketUnit,
  type How,
  type Meaning,
  type MeaningOptions,
  type Percentile,
  shareOfPercentile,
  type WindowHow,
} from './meaning.ts'

/** Finds the phrase that words of the trade mean; undefined where they mean none. */
/** What to write for words of the trade; undefined where that is not known. */
interface TradeWords {
  phrase(text: string, columns: readonly string[], openings: Iterable<string>): string | undefined
  kind(name: string, kinds: readonly string[]): string | undefined
}

let meant: TradeWords = { phrase: () => undefined, kind: () => undefined }

/** Has words of the trade, such as `average of`, answered with what to write: pages that check nothing go without. */
export function answerTradeWords(words: TradeWords): void {
  meant = words
}

/** What to write for a drawing kind that is not known. */
export const kindInstead = (name: string, kinds: readonly string[]): string =>
  meant.kind(name, kinds) ?? suggest(name, kinds, 'Kinds', 20)

const UNITS: readonly BucketUnit[] = ['minute', 'hour', 'day', 'week', 'month', 'quarter', 'year']
const CYCLES: readonly Cycle[] = ['hour of day', 'weekday', 'day of month', 'day of year', 'month of year']
const ENDS: readonly How[] = ['min', 'max', 'first', 'last']
const SUMS: readonly How[] = ['sum', 'mean', 'median']
const WINDOWS: readonly WindowHow[] = ['share', 'rank', 'sum so far']

/** What a word before "of" needs to stand on. */
type Needs = 'number' | 'time' | 'number or time' | 'any'
type Opening = [string, { needs: Needs; mean: (column: string) => Meaning }]
const opening = (word: string, needs: Needs, mean: (column: string) => Meaning): Opening => [
  word,
  { needs, mean },
]
const OPENINGS = new Map<string, Opening[1]>([
  ...UNITS.map(unit => opening(unit, 'time', column => ({ is: 'bucket', unit, column }))),
  ...CYCLES.map(cycle => opening(cycle, 'time', column => ({ is: 'cycle', cycle, column }))),
  opening('bins', 'number', column => ({ is: 'bins', column })),
  ...SUMS.map(how => opening(how, 'number', column => ({ is: 'summary', how, column }))),
  ...ENDS.map(how => opening(how, 'number or time', column => ({ is: 'summary', how, column }))),
  ...WINDOWS.map(how => opening(how, 'number', column => ({ is: 'window', how, column, within: [] }))),
])

/** What begins with a word before "of"; percentiles are as many as there are numbers. */
function openingOf(word: string): Opening[1] | undefined {
  if (shareOfPercentile(word) === undefined) return OPENINGS.get(word)
  return { needs: 'number', mean: column => ({ is: 'summary', how: word as Percentile, column }) }
}

/** Words that begin phrases over a column, before "of". */
export const phraseOpenings: readonly string[] = [...OPENINGS.keys()]

/** A way in which a text can be taken as words before "of" and the column after it. */
interface Beginning {
  opening: string
  column: string
  needs: Needs
  meaning: Meaning
}

/** All ways to take a text apart into words that begin phrases and a column, whichever columns there are. */
function beginningsOf(text: string): Beginning[] {
  return [...new Set([...OPENINGS.keys(), text.split(' ', 1)[0]])].flatMap(opening => {
    const begins = text.startsWith(`${opening} of `) ? openingOf(opening) : undefined
    if (!begins) return []
    const column = text.slice(opening.length + 4)
    return [{ opening, column, needs: begins.needs, meaning: begins.mean(column) }]
  })
}

const longestOf = (begun: readonly Beginning[]): Beginning =>
  begun.reduce((a, b) => (b.opening.length > a.opening.length ? b : a))

/** How a text begins, as a phrase over whatever column; undefined where it begins as none. */
export function beginningOf(text: string): Pick<Beginning, 'opening' | 'column' | 'meaning'> | undefined {
  const begun = beginningsOf(text)
  return begun.length > 0 ? longestOf(begun) : undefined
}

/**
 * Understands a phrase over a table, in short or long form. An exact column name wins; two readings are an error.
 * Throws `unknown-column`, `unknown-phrase`, `two-readings` or `wrong-type`, each with the nearest thing that would do.
 */
export function readPhrase(phrase: unknown, table: Table, path: string): Meaning {
  if (typeof phrase === 'string') return readShort(phrase, table, path)
  if (phrase !== null && typeof phrase === 'object' && !Array.isArray(phrase))
    return readLong(phrase as Record<string, unknown>, table, path)
  throw new DapploError(
    'unknown-phrase',
    `${quoted(phrase)} is not a phrase`,
    path,
    'Write a column name, or words such as "sum of passengers".',
  )
}

function readShort(phrase: string, table: Table, path: string): Meaning {
  const text = phrase.trim().replace(/\s+/g, ' ')
  if (table.column(phrase)) return { is: 'column', column: phrase }
  if (table.column(text)) return { is: 'column', column: text }
  if (text === 'count') return { is: 'summary', how: 'count' }
  if (text === 'count so far') return { is: 'window', how: 'count so far', within: [] }
  if (text === 'share of count' && !table.column('count')) return { is: 'window', how: 'share', within: [] }
  if (text === 'rank of count' && !table.column('count')) return { is: 'window', how: 'rank', within: [] }
  if (text.startsWith('distinct ') && table.column(text.slice(9)))
    return { is: 'summary', how: 'distinct', column: text.slice(9) }

  const begun = beginningsOf(text)
  const readings = begun.filter(({ column }) => table.column(column))
  if (readings.length > 1) {
    throw new DapploError(
      'two-readings',
      `"${text}" can be read in two ways: ${readings.map(r => `${r.opening} of the column "${r.column}"`).join(', or ')}`,
      path,
      `Use the long form, such as { "${readings[0].opening}": "${readings[0].column}" }.`,
    )
  }
  if (readings.length === 1) {
    const [{ meaning, opening, column, needs }] = readings
    needType(table, column, needs, opening, path)
    return meaning
  }
  throw unknown(text, begun, table, path)
}

/** What begins phrases, as people read it: summaries first, then what is for times. */
const BEGINNINGS = `A summary begins with ${[...SUMS, ...ENDS, 'p90', ...WINDOWS].join(', ')} or bins, and "of"; a step of time with ${[...UNITS, ...CYCLES].join(', ')}, and "of"; or write count, or distinct before a column.`

function unknown(text: string, begun: readonly Beginning[], table: Table, path: string): DapploError {
  const instead = meant.phrase(text, table.names, OPENINGS.keys())
  if (begun.length > 0) {
    // The longest opening is the reading that was instead: "hour of day of x" rather than "hour of" a column "day of x".
    const { opening, column } = longestOf(begun)
    const near = nearest(column, table.names)
    return new DapploError(
      'unknown-column',
      `There is no column "${column}" in ${table.title}`,
      path,
      near ? `Did you mean "${opening} of ${near}"?` : (instead ?? suggest(column, table.names, 'Columns')),
    )
  }
  const of = text.lastIndexOf(' of ')
  if (of > 0) {
    const opening = text.slice(0, of)
    const near = nearest(opening, OPENINGS.keys())
    const about = text.slice(of + 4)
    const column = table.column(about) ? about : (nearest(about, table.names) ?? '…')
    return new DapploError(
      'unknown-phrase',
      `"${opening} of" begins no phrase`,
      path,
      instead ?? (near ? `Did you mean "${near} of ${column}"?` : BEGINNINGS),
    )
  }
  if (instead) return new DapploError('unknown-phrase', `"${text}" is no phrase`, path, instead)
  return new DapploError(
    'unknown-column',
    `There is no column "${text}" in ${table.title}`,
    path,
    phrasesOver(text, table) ?? suggest(text, [...table.names, 'count'], 'Columns'),
  )
}

/** Phrases over the column with whose name a text ends, for words in another language. */
function phrasesOver(text: string, table: Table): string | undefined {
  const name = table.names.find(name => text.endsWith(` ${name}`))
  if (name === undefined) return undefined
  const words = { number: ['sum of', 'mean of'], time: ['day of', 'month of'], text: ['distinct'] }
  const phrases = words[table.column(name)!.type].map(word => `"${word} ${name}"`)
  return `Write a phrase over the column, such as ${phrases.join(' or ')}.`
}

function needType(table: Table, name: string, needs: Needs, opening: string, path: string): void {
  const type = table.needColumn(name, path).type
  if (needs === 'any' || type === needs || (needs === 'number or time' && type !== 'text')) return
  // A column without a single value has no type of its own yet.
  if (table.column(name)?.extent.missing === table.length) return
  const hint =
    needs === 'time'
      ? `Name a time column, or tell the table that "${name}" is one: columns: { "${name}": { type: "time" } }.`
      : `Name a ${needs} column, or count instead: "count" or "distinct ${name}".`
  throw new DapploError(
    'wrong-type',
    `"${opening} of ${name}" needs a ${needs} column, and "${name}" is ${type}`,
    path,
    hint,
  )
}

/** What the long form may say beside what it is over. */
export const PHRASE_OPTIONS: ReadonlySet<string> = new Set([
  'label',
  'format',
  'top',
  'rest',
  'by',
  'within',
  'width',
  'number',
  'until',
  'to',
])

function readLong(phrase: Record<string, unknown>, table: Table, path: string): Meaning {
  if (Object.hasOwn(phrase, 'value')) return { is: 'value', value: phrase.value as string }
  const keys = Object.keys(phrase).filter(
    key => !PHRASE_OPTIONS.has(key) || (key === 'number' && Object.keys(phrase).length === 1),
  )
  if (keys.length !== 1) {
    throw new DapploError(
      'unknown-phrase',
      keys.length === 0
        ? 'The long form names no column'
        : `The long form says two things at once: ${keys.join(' and ')}`,
      path,
      'Write one of them, as in { "sum": "passengers", "label": "People" }.',
    )
  }
  const key = keys[0]
  const named = phrase[key]
  const options: MeaningOptions = {}
  if (phrase.label !== undefined) options.label = String(phrase.label)
  if (phrase.format !== undefined) options.format = phrase.format as MeaningOptions['format']
  if (phrase.top !== undefined) options.top = phrase.top as number
  if (phrase.rest !== undefined) options.rest = phrase.rest as boolean | string
  if (phrase.by !== undefined) options.by = readPhrase(phrase.by, table, `${path}.by`)

  const counting =
    (named === 'count' && !table.column('count')) ||
    (named !== null && typeof named === 'object' && (named as Record<string, unknown>).count === true)
  const column = () => {
    if (typeof named !== 'string')
      throw new DapploError(
        'unknown-phrase',
        `"${key}" names no column`,
        `${path}.${key}`,
        `Write the column's name: { "${key}": "${table.names[0] ?? 'passengers'}" }.`,
      )
    table.needColumn(named, `${path}.${key}`)
    return named
  }
  const within = () =>
    [phrase.within ?? []].flat().map((inner, i) => readPhrase(inner, table, `${path}.within[${i}]`))
  if (key === 'column') return { ...options, is: 'column', column: column() }
  if (key === 'count') return { ...options, is: 'summary', how: 'count' }
  if (key === 'count so far') return { ...options, is: 'window', how: 'count so far', within: within() }
  if (key === 'distinct') return { ...options, is: 'summary', how: 'distinct', column: column() }
  if (key === 'ratio') {
    const to = String(phrase.to ?? '')
    needType(table, column(), 'number', 'ratio', `${path}.ratio`)
    table.needColumn(to, `${path}.to`)
    needType(table, to, 'number', 'ratio', `${path}.to`)
    return { ...options, is: 'ratio', column: column(), to }
  }
  if ((key === 'share' || key === 'rank') && counting)
    return { ...options, is: 'window', how: key, within: within() }
  const opening = openingOf(key)
  if (!opening)
    throw new DapploError(
      'unknown-phrase',
      `"${key}" is no word of the long form`,
      `${path}.${key}`,
      suggest(key, ['column', 'count', 'distinct', 'ratio', ...OPENINGS.keys()], 'It begins with'),
    )
  needType(table, column(), opening.needs, key, `${path}.${key}`)
  const meaning = { ...options, ...opening.mean(column()) } as Meaning
  if (meaning.is === 'bins') {
    if (phrase.width !== undefined) meaning.width = positive(phrase.width, `${path}.width`)
    if (phrase.until !== undefined) meaning.until = finite(phrase.until, `${path}.until`)
    if (phrase.number !== undefined) meaning.number = Math.round(positive(phrase.number, `${path}.number`))
  }
  if (meaning.is === 'window') meaning.within = within()
  return meaning
}

function finite(value: unknown, path: string): number {
  if (typeof value === 'number' && Number.isFinite(value)) return value
  throw new DapploError(
    'bad-option',
    `${quoted(value)} is no number at which bins could end`,
    path,
    'Give a number.',
  )
}

function positive(value: unknown, path: string): number {
  if (typeof value === 'number' && value > 0 && Number.isFinite(value)) return value
  throw new DapploError(
    'bad-option',
    `${quoted(value)} is not a number above 0`,
    path,
    'Give a positive number.',
  )
}
