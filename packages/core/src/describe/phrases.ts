/**
 * Phrases as types, so that the compiler knows which words a table understands.
 * A phrase names one column, so the unions grow linearly with the number of columns.
 */
import type { Format, Value, Words } from '../table/cells/options.ts'

export type Name<R> = keyof R & string
type Having<R, T> = { [K in Name<R>]: [Extract<R[K], T>] extends [never] ? never : K }[Name<R>]
type Num<R> = Having<R, number>
/** Dates, and plain strings, since those may be times. */
type Time<R> = Having<R, Date> | { [K in Name<R>]: string extends R[K] ? K : never }[Name<R>]
export type Unit = 'minute' | 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year'
export type Cycle = 'hour of day' | 'weekday' | 'day of month' | 'day of year' | 'month of year'
export type End = 'min' | 'max' | 'first' | 'last'
type Bucket<R> = `${Unit | Cycle} of ${Time<R>}` | `bins of ${Num<R>}`
export type Summary<R> =
  | 'count'
  | `distinct ${Name<R>}`
  | `${'sum' | 'mean' | 'median' | `p${number}` | End} of ${Num<R>}`
  | `${End} of ${Time<R>}`
  | 'count so far'
  | `sum so far of ${Num<R>}`
  | `${'share' | 'rank'} of ${Num<R> | 'count'}`
/** A value named in plain words: a column, a bucket of one, or a summary. */
export type Phrase<R> = Name<R> | Bucket<R> | Summary<R>

type Key<K extends string, V> = { [P in K]: { [Q in P]: V } }[K]
/** The long form: for options and for anything that names two columns. */
export type Long<R> = {
  label?: Words
  format?: Format
  top?: number
  rest?: boolean | Words
  by?: Summary<R>
  within?: Phrase<R> | Phrase<R>[]
} & (
  | Key<'column' | 'distinct', Name<R>>
  | Key<'count' | 'count so far', true>
  | Key<End, Num<R> | Time<R>>
  | Key<Unit | Cycle, Time<R>>
  | Key<'sum' | 'mean' | 'median' | 'sum so far', Num<R>>
  | { [percentile: `p${number}`]: Num<R> }
  | Key<'share' | 'rank', Num<R> | 'count' | { count: true }>
  | { bins: Num<R>; width?: number; number?: number; until?: number }
  | { ratio: Num<R>; to: Num<R> }
)
/** What a role is bound to: a phrase, a datum through the scale, or null for "not inherited". */
export type Bind<R> = Phrase<R> | Long<R> | { value: Value } | null
/** A position may also be several columns of a wide table, or an extent from one value to another. */
export type Place<R> = Bind<R> | Phrase<R>[] | { from: Bind<R>; to: Bind<R> }
/** Conditions by column or bucket: a value, a list of them, a span, or what they are not; null for what is missing. */
export type Where<R> = {
  [P in Name<R> | Bucket<R>]?:
    | Value
    | Value[]
    | { from?: Value; until?: Value }
    | { not: Value | Value[] | null }
    | null
}
