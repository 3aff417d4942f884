import type { FarBucket } from '@dapplo/core/far'

/** The calendar parts that cycles are made of. */
export type CalendarPart = 'hour' | 'weekday' | 'day' | 'day of year' | 'month'

/** Where values of a question go: as parameters of a statement, or written out by an encoder that knows their type. */
export interface Writer {
  text(value: string): string
  number(value: number): string
  /** The parameters, in order. */
  readonly values: (string | number)[]
}

/** Gives an expression that is used several times a name. */
export type Named = (expression: string) => string

/** What an engine writes in its own way. All that is not named here is the same in every dialect. */
export interface Dialect {
  name: string
  writer(): Writer
  /** What keeps a planner from writing what has a name out again wherever it is used; empty where it does not. */
  fence: string
  /** What is not so. */
  no: string
  /** A name of a table or column, whatever letters it has. */
  quote(name: string): string
  /** A column as a double; NULL for what is no number, or larger than any scale can hold. */
  number(column: string, given: string): string
  /**
   * A column of numbers as it is stored, for what engines know without looking; a value that is no finite number shows in
   * what comes of it, or makes it fail, and then all is asked again with care.
   */
  trusted(column: string, given: string): string
  /** The same to be added up, where that is done in doubles whatever is stored. */
  summed(column: string, given: string): string
  /** A column as whole milliseconds since 1970; NULL for what is no date. Of clock times as if they were UTC. */
  time(column: string, given: string): string
  /** A column as text. */
  text(column: string, given: string): string
  /** A column of texts as numbers; NULL for those that are none. */
  numberIn(column: string): string
  /** A column of numbers as the texts that JavaScript writes them as, where they are whole. */
  textOf(column: string, given: string): string
  /** Whole numbers divided, rounded down. */
  floorDivide(number: string, by: number): string
  /** The number rounded down, as a double or whole number. */
  floor(number: string): string
  /** The power of ten that a number above zero is. */
  log10(number: string): string
  asNumber(expression: string): string
  /** The whole number of a day, ISO week, month, quarter or year since 1970, of milliseconds on a calendar. */
  bucket(milliseconds: string, unit: FarBucket, named: Named): string
  /** The same of a column as it is stored, where that is quicker; undefined where it cannot be told. */
  storedBucket?(column: string, given: string, unit: FarBucket): string | undefined
  /** The number rounded down as the smallest whole type that groups quickly. */
  cell(number: string): string
  part(milliseconds: string, part: CalendarPart, named: Named): string
  sum(number: string): string
  mean(number: string): string
  distinct(value: string): string
  quantile(number: string, share: number): string
  /** The value of the row that has the least or greatest `by`, among those that have both. */
  valueAt(which: 'least' | 'greatest', value: string, by: string): string
  /** Whether a text comes before another by code points: both sides as they are to be compared. */
  textOrder(text: string): string
  /** Whether several questions over the same rows are answered more quickly as one by GROUPING SETS. */
  groupingSets?: boolean
  /** What groups by the column of so many places. */
  groupBy(place: number): string
  /** The test of a sample: about every so manieth row. */
  everySo(place: string | undefined, every: string): string
  /** A time of a question, to be compared with a column as it is stored, where that lets an engine skip rows. */
  storedTime?(
    column: string,
    given: string,
    milliseconds: number,
    writer: Writer,
  ): { column: string; value: string } | undefined
}
