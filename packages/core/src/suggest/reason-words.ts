/** Why charts are suggested; where there is no measure, rows are counted. */
export const REASON_WORDS = [
  'numbers of one size side by side, over {time}',
  '{what} over time, one line for each {group}',
  '{what} over time',
  '{what} by {group}',
  '{what} by {group}, the greatest first',
  'how {one} and {other} go together',
  'how {what} is spread',
  '{what} by {group} and {other}',
  'when in the week and the day',
  'which days of the week',
  'what each {group} has of all {what}',
  'the only row',
  'all values are alike',
  'rows over time, one line for each {group}',
  'rows over time',
  'rows by {group}',
  'rows by {group}, the greatest first',
  'rows by {group} and {other}',
] as const

export type ReasonWords = (typeof REASON_WORDS)[number]
