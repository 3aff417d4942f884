import type { FarAnswer } from './model.ts'

/** An answer as plain data, that can travel and be written down: of numbers null where they are missing. */
export interface AnswerData {
  length: number
  columns: ({ numbers: (number | null)[] } | { texts: (string | null)[] })[]
  partial?: string
}

/** An answer as plain data. */
export const answerData = ({ columns, ...rest }: FarAnswer): AnswerData => ({
  ...rest,
  columns: columns.map(values =>
    Array.isArray(values)
      ? { texts: values }
      : { numbers: Array.from(values, value => (value === value ? value : null)) },
  ),
})

/** The answer that data hold. */
export const answerFrom = ({ columns, ...rest }: AnswerData): FarAnswer => ({
  ...rest,
  columns: columns.map(values =>
    'texts' in values
      ? values.texts
      : Float64Array.from(values.numbers, value => (value === null ? Number.NaN : value)),
  ),
})
