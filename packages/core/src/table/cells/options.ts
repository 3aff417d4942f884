/** A datum. In JSON a time is an ISO 8601 string, read by its scale. */
export type Value = number | string | boolean | Date
/** Shown as text, never as markup; `{phrase}` is filled in from the rows it stands for, `{{` is a brace. */
export type Words = string
/** How values are written: `Intl` options, or in TypeScript a function. */
export type Format = Intl.NumberFormatOptions | Intl.DateTimeFormatOptions | ((value: any) => string)
/** A length of time. */
export type Span = {
  [unit in 'years' | 'months' | 'weeks' | 'days' | 'hours' | 'minutes' | 'seconds']?: number
}

/** What is known of a column beyond its cells. */
export interface Column {
  /** Overrides the guess. */
  type?: 'number' | 'time' | 'text'
  /** The name people read; default: the column's name, made readable. */
  label?: Words
  /** Shown once per axis, and in tooltips. */
  unit?: string
  format?: Format
  /** The order of its categories. */
  order?: Value[]
  /** Fixed colours by category, in CSS syntax. */
  colors?: Record<string, string>
  /** Pictures by category. */
  images?: Record<string, string>
  /** The IANA time zone in which times without an offset are read and in which days begin. */
  timeZone?: string
}
