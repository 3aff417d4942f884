import type { Zone } from './zone.ts'

/** How the texts of a column write numbers; a column has one way throughout. */
export interface NumberStyle {
  /** What separates the decimals. */
  decimal: '.' | ','
  /** Whether texts end in a percent sign: they are then divided by 100. */
  percent: boolean
  /** The currency sign or code found with the numbers, if any. */
  currency: string | undefined
}

/** How the texts of a column write dates; a column has one way throughout. */
export type DateStyle = 'iso' | 'day first' | 'month first'

/** How a column's raw values become cells; settled once, then used for every later row. */
export interface Reader {
  type: 'number' | 'time' | 'text'
  numbers: NumberStyle | undefined
  dates: DateStyle
  /** Every value so far is a date without a clock: kept at midnight UTC so that no zone can shift it. */
  dateOnly: boolean
  /** Some of those dates name a month without its day, as `2024-03` does. */
  monthly?: boolean
  zone: Zone
}
