import type { Cycle, Unit } from '../cells/calendar.ts'
import type { Format, Value, Words } from '../cells/options.ts'

/** A percentile: `p90` is the value that 90 of 100 do not exceed. */
export type Percentile = `p${number}`
/** How the rows of a group become one value. */
export type How =
  | 'count'
  | 'distinct'
  | 'sum'
  | 'mean'
  | 'median'
  | Percentile
  | 'min'
  | 'max'
  | 'first'
  | 'last'

/** The share of values that a percentile's word names, above 0 and below 1; undefined for other words. */
export function shareOfPercentile(word: string): number | undefined {
  const share = /^p\d{1,2}(\.\d{1,4})?$/.test(word) ? Number(word.slice(1)) / 100 : 0
  return share > 0 ? share : undefined
}
/** What is worked out over groups, after grouping. */
export type WindowHow = 'share' | 'rank' | 'sum so far' | 'count so far'
export type BucketUnit = Exclude<Unit, 'millisecond' | 'second'>

/** What a phrase means, once its words are understood: the same from text, JSON and the long form. */
export type Meaning = MeaningOptions &
  (
    | { is: 'column'; column: string }
    | { is: 'bucket'; unit: BucketUnit; column: string }
    | { is: 'cycle'; cycle: Cycle; column: string }
    | { is: 'bins'; column: string; width?: number; number?: number; until?: number }
    | { is: 'summary'; how: How; column?: string }
    | { is: 'ratio'; column: string; to: string }
    | { is: 'window'; how: WindowHow; column?: string; within: Meaning[] }
    | { is: 'value'; value: Value }
  )

export interface MeaningOptions {
  label?: Words
  format?: Format
  /** Keeps this many groups, judged by `by` or the chart's measure. */
  top?: number
  /** Gathers what `top` leaves out into one group; a text names it. */
  rest?: boolean | Words
  by?: Meaning
}

/** Whether a meaning sums up rows, so that all else groups. */
export const isMeasure = (meaning: Meaning): boolean =>
  meaning.is === 'summary' || meaning.is === 'ratio' || meaning.is === 'window'

/** The phrase again, in plain words; two meanings with the same words mean the same. */
export function wordsOf(meaning: Meaning): string {
  switch (meaning.is) {
    case 'column':
      return meaning.column
    case 'bucket':
      return `${meaning.unit} of ${meaning.column}`
    case 'cycle':
      return `${meaning.cycle} of ${meaning.column}`
    case 'bins':
      return `bins of ${meaning.column}`
    case 'summary':
      if (meaning.column === undefined) return 'count'
      return meaning.how === 'distinct' ? `distinct ${meaning.column}` : `${meaning.how} of ${meaning.column}`
    case 'ratio':
      return `ratio of ${meaning.column} to ${meaning.to}`
    case 'window':
      if (meaning.how === 'count so far') return 'count so far'
      return `${meaning.how} of ${meaning.column ?? 'count'}`
    case 'value':
      return String(meaning.value)
  }
}

const functions = new WeakMap<object, number>()
let functionCount = 0

/** A number for a function: two that are written alike may still do different things. */
function numberOfFunction(item: object): number {
  let number = functions.get(item)
  if (number === undefined) {
    number = functionCount++
    functions.set(item, number)
  }
  return number
}

/** Everything in a value, in one order, as a text that no other value has. */
export function wholeKey(value: unknown): string {
  if (typeof value === 'function') return `function ${numberOfFunction(value)}`
  if (value instanceof Date) return `date ${value.getTime()}`
  if (value === null || typeof value !== 'object') return `${typeof value} ${JSON.stringify(value) ?? ''}`
  if (Array.isArray(value)) return `[${value.map(wholeKey).join()}]`
  const entries = Object.entries(value).filter(([, one]) => one !== undefined)
  return `{${entries
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([name, one]) => `${JSON.stringify(name)}:${wholeKey(one)}`)
    .join()}}`
}

/** The meaning of all its values, whichever of them a chart keeps. */
export function untopped({ top: _, rest: __, by: ___, ...meaning }: Meaning): Meaning {
  return meaning as Meaning
}

/**
 * What identifies a meaning: two with one key are the same values, group by group. How they are called and written
 * (`label`, `format`) is no part of it.
 */
export function meaningKey({ label: _, format: __, ...meaning }: Meaning): string {
  return wholeKey(meaning)
}
