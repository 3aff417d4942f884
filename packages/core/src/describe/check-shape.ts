import * as v from 'valibot'
import { DapploError } from '../finding/error.ts'
import { nearest, suggest } from '../finding/nearest.ts'
import type { Table } from '../table/live/table.ts'
import { answerTradeWords } from '../table/phrase/phrase.ts'
import { phraseMeant } from '../table/phrase/trade-words.ts'
import { step } from '../table/reshape/step-schema.ts'
import type { House } from '../theme/house.ts'
import { checkHouse } from '../theme/house-check.ts'
import { house } from '../theme/house-schema.ts'
import type { Theme } from '../theme/theme.ts'
import { checkColumns, checkLooks } from './check-looks.ts'
import type { Description } from './description.ts'
import { optionsAt, valuesAt } from './options-at.ts'
import { chartFile, description as drawnDescription, spreadFile } from './schema.ts'
import { conditionsMeant, kindMeant, optionMeant, valueMeant } from './trade-words.ts'

type Schema = v.GenericSchema<any, any>

/** Options that had other names before. */
const RENAMED = new Map([
  ['hole', { name: 'hollow', hint: 'Write hollow: 0.5.' }],
  ['emphasis', { name: 'strongAt', hint: 'Write strongAt: "month".' }],
  ['period', { name: 'stamp', hint: 'Write stamp: "…", or stamp: { words: "…" }.' }],
  ['summary', { name: 'stamp', hint: 'Write stamp: { note: "…" }.' }],
])
/** Words that had other names before. */
const RENAMED_WORDS = new Map([
  ['"highlight"', '"dim"'],
  ['"filter"', '"narrow"'],
])

const SCHEMAS = { description: drawnDescription, 'chart file': chartFile, house, steps: v.array(step) }

/** Checks data against the description's schema. Throws `bad-description` with the path and the nearest word. */
export function checkShape(
  data: unknown,
  what: 'description' | 'chart file' | 'house' | 'steps',
  at = '',
): void {
  const isSpread = what === 'chart file' && data !== null && typeof data === 'object' && 'spread' in data
  const schema: Schema = what === 'chart file' && isSpread ? spreadFile : SCHEMAS[what]
  const result = v.safeParse(schema, data)
  if (result.success) return
  const issue = deepest(result.issues)
  const place = (issue.path ?? []).map(item => item.key as string | number)
  const path = [at, ...(issue.path ?? []).map(item => String(item.key))]
    .filter(Boolean)
    .join('.')
    .replace(/\.(\d+)/g, '[$1]')
  const key = issue.path?.at(-1)?.key
  if (issue.type === 'strict_object' && issue.expected === 'never') {
    const renamed = RENAMED.get(String(key))
    if (renamed)
      throw new DapploError('renamed', `"${String(key)}" is called "${renamed.name}"`, path, renamed.hint)
    const options = optionsAt(schema, place.slice(0, -1))
    throw new DapploError(
      'unknown-option',
      `There is no option "${String(key)}"`,
      path,
      // A word of the trade is nearer to what is meant than one that is spelt alike.
      optionMeant(String(key), options) ?? suggest(String(key), options, 'Options', options.length),
    )
  }
  if (issue.type === 'strict_object' && issue.received === 'undefined') {
    throw new DapploError(
      'bad-description',
      `"${String(key)}" is missing`,
      path,
      key === 'draw' ? 'Say what to draw, such as "line".' : 'Add it.',
    )
  }
  const value: unknown = issue.path?.at(-1)?.value
  if (key === 'draw' && path !== 'draw' && typeof value === 'string') {
    throw new DapploError(
      'unknown-option',
      'A drawing in a list names its kind by "as"',
      path,
      `Write as: ${JSON.stringify(value)}.`,
    )
  }
  const word = key === 'respond' ? RENAMED_WORDS.get(issue.received) : undefined
  if (word)
    throw new DapploError('renamed', `${issue.received} is called ${word}`, path, `Write respond: ${word}.`)
  throw new DapploError(
    'bad-description',
    `${received(issue.received)} stands where ${expected(issue.expected)} belongs`,
    path,
    remedyFor(value, String(key), valuesAt(schema, place), optionsAt(schema, place)),
  )
}

/** What to write in place of a value that does not belong there. */
function remedyFor(value: unknown, key: string, values: unknown[], options: string[]): string {
  const meant = typeof value === 'string' ? valueMeant(key, value) : undefined
  // Options of one name take different words in different places.
  if (meant && (values.length === 0 || values.some(one => meant.includes(JSON.stringify(one)))))
    return `Write ${meant}.`
  if (key === 'where') return conditionsMeant(String(value))
  if (key === 'format')
    return 'Write what Intl takes, such as { style: "percent" } or { maximumFractionDigits: 1 }; in code a function will do.'
  const names = values.filter(name => typeof name === 'string')
  const near = typeof value === 'string' ? nearest(value, names) : undefined
  if (near !== undefined) return `Did you mean "${near}"?`
  const object = options.length > 0 ? [`an object with ${options.join(', ')}`] : []
  const choices = [...values.map(one => JSON.stringify(one)), ...object]
  return choices.length > 0
    ? `Write ${choices.slice(0, -1).join(', ')}${choices.length > 1 ? ' or ' : ''}${choices.at(-1)}.`
    : 'Correct it as the reference for chart descriptions says.'
}

const received = (text: string): string =>
  text === 'undefined' ? 'Nothing' : text === 'NaN' ? 'What is no number' : text

const expected = (text: string | null) =>
  [...new Set((text ?? 'something else').replace(/[()]/g, '').split(' | '))]
    .join(' or ')
    .replace(/\bObject\b/g, 'an object')
    .replace(/\bArray\b/g, 'a list')

/** In a union, the alternative that got furthest is what was meant. */
function deepest(
  issues: readonly v.BaseIssue<unknown>[],
  prefix: v.IssuePathItem[] = [],
): v.BaseIssue<unknown> {
  let best: v.BaseIssue<unknown> | undefined
  const depth = (issue: v.BaseIssue<unknown>) => issue.path?.length ?? 0
  for (const issue of issues) {
    const path = [...prefix, ...(issue.path ?? [])]
    const own = { ...issue, path } as unknown as v.BaseIssue<unknown>
    const candidate = issue.issues?.length ? deepest(issue.issues, path as v.IssuePathItem[]) : own
    const chosen = depth(candidate) > depth(own) ? candidate : own
    const deeper = best ? depth(chosen) - depth(best) : 1
    if (!best || deeper > 0 || (deeper === 0 && telling(chosen) > telling(best))) best = chosen
  }
  return best!
}

/** Among equals, a value of the wrong type says more than a word that is not known, and that more than one that is missing. */
const telling = (issue: v.BaseIssue<unknown>): number =>
  issue.received === 'undefined' ? 0 : issue.expected === 'never' ? 1 : 2

/** Checks that controls set something that there is. */
function checkControls({ controls = [] }: Description): void {
  const options = Object.keys(drawnDescription.entries)
  for (const [i, { set }] of controls.entries()) {
    const [first] = set.split(/[.[]/, 1)
    if (first === 'state' || options.includes(first)) continue
    throw new DapploError(
      'unknown-option',
      `There is no option "${first}" for a control to set`,
      `controls[${i}].set`,
      suggest(first, options, 'Options'),
    )
  }
}

/** Checks a description, and the options of the columns that its tables have. */
export function checkDescription(description: Description, tables: readonly Table[]): void {
  answerTradeWords({ phrase: phraseMeant, kind: kindMeant })
  checkShape(description, 'description')
  checkLooks(description)
  checkControls(description)
  for (const table of tables) checkColumns(table)
}

const houses = new WeakSet<House>()

/** Checks a house style and a theme: that nothing in them is unknown, and that what they say can be drawn. */
export function checkStyles(house: House | undefined, theme?: Theme): void {
  if (house && !houses.has(house)) checkShape(house, 'house', 'house')
  checkHouse(house, theme)
  if (house) houses.add(house)
}
