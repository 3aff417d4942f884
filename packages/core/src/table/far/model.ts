import type { Finding } from '../../finding/error.ts'
import type { Cycle } from '../cells/calendar.ts'

/** How far the clocks of a zone are ahead of UTC, in milliseconds: until the first change, and from each change on. */
export interface FarOffsets {
  first: number
  changes: { at: number; offset: number }[]
}

/** A column of times; `clock`: that of its clock times, where they were written without a zone. */
export interface FarTimes {
  column: string
  clock?: FarOffsets
  /** What its values are read as, where that is something else than what they are stored as. */
  as?: 'number' | 'text'
}

/**
 * A value of each row, as an engine works it out: numbers as doubles, times as whole milliseconds since 1970 in UTC,
 * buckets and steps as whole numbers of them. It names columns and holds numbers and texts; it is never SQL.
 */
export type FarValue =
  | ({ is: 'column' } & FarTimes)
  /** Where a row stands in the order of the table. */
  | { is: 'place' }
  /** Days, ISO weeks, months, quarters or years since 1970, on the calendar of a zone. */
  | ({ is: 'bucket'; unit: FarBucket; offsets: FarOffsets } & FarTimes)
  /** floor((value + shift) / step): clock units in time that passes. */
  | ({ is: 'step'; step: number; shift: number } & FarTimes)
  | ({ is: 'cycle'; cycle: Cycle; offsets: FarOffsets } & FarTimes)
  /** floor(value / step + 1e-9), and `most` for all beyond it. */
  | ({ is: 'bin'; step: number; most: number } & FarTimes)
  /**
   * floor((value − from) · perUnit): a pixel column, or a cell. `log10`: of the power of ten that a value is, which only what
   * is above zero has.
   */
  | ({ is: 'cell'; from: number; perUnit: number; log10?: true } & FarTimes)
  /** Some of the values of `of`; others become `rest`, a text. */
  | { is: 'kept'; of: FarValue; values: (string | number)[]; rest: string }

/** Intervals of the calendar. */
export type FarBucket = 'day' | 'week' | 'month' | 'quarter' | 'year'

/** What a row must meet. A comparison with a missing value is not met, and its opposite is. */
export type FarTest =
  | { is: 'all' | 'any'; tests: FarTest[] }
  | { is: 'not'; test: FarTest }
  | { is: 'missing'; value: FarValue }
  | { is: 'among'; value: FarValue; values: (string | number)[] }
  /** From a value on, and up to but without another. Texts are compared by their code points. */
  | {
      is: 'between'
      value: FarValue
      from?: string | number
      until?: string | number
      last?: string | number
    }
  /** Within an outline in the units of two columns, by the rule of even and odd crossings. */
  | { is: 'within'; x: FarValue; y: FarValue; outline: [x: number, y: number][] }

/** What the rows of a group come to. Missing values are passed over; a group without any is missing, its count 0. */
export type FarMeasure =
  | { how: 'count' }
  | { how: 'present' | 'distinct' | 'sum' | 'mean' | 'first' | 'last'; of: FarValue }
  /** The sum of squared distances from a number. */
  | { how: 'squares'; of: FarValue; around: number }
  /** `with`: only of rows that have this as well. */
  | { how: 'min' | 'max'; of: FarValue; with?: FarValue }
  /** The value below which a share of them lies, between two in proportion: Hyndman and Fan (1996), definition 7. */
  | { how: 'quantile'; of: FarValue; share: number }
  /** The value in the row that has the least or greatest `by`. */
  | { how: 'at least' | 'at greatest'; of: FarValue; by: FarValue }

/** A question to an engine: plain data, that can travel, and that is checked again where it arrives. */
export type FarQuestion =
  /** Rows in groups that agree in all of `by`; answered by the columns of `by`, then those of `measures`. */
  | {
      ask: 'groups'
      table: string
      where?: FarTest
      by: FarValue[]
      measures: FarMeasure[]
      /** Answers with more groups are refused. */
      most: number
      /** Only so many groups: those with the greatest first measure. */
      largest?: number
    }
  /** Rows as they are, in the order of the table; answered by the columns of `values`. */
  | {
      ask: 'rows'
      table: string
      where?: FarTest
      values: FarValue[]
      most: number
      /** Passes over so many rows. */
      after?: number
      /** Whether more rows than `most` are refused; else the first ones are given. */
      whole?: boolean
      /** Only every so manieth row, as a sample. */
      every?: number
    }

/** Columns of numbers, NaN where missing, or of texts, null where missing. */
export interface FarAnswer {
  length: number
  columns: (Float64Array | (string | null)[])[]
  /** Parts of the table that could not be asked: the answer is of the others. */
  partial?: string
}

/** What an engine knows of a column before any question. */
export interface FarColumnFacts {
  name: string
  /** Undefined for what cannot be drawn, such as lists. */
  type: 'number' | 'time' | 'text' | undefined
  /** Dates without a clock. */
  dateOnly?: boolean
  /** Times without a zone: what clocks showed where they were written down. */
  clockTimes?: boolean
  /** Its type in the engine's own words. */
  given: string
}

/** What an engine knows of a table before any question. */
export interface FarTableFacts {
  /** What the engine calls the table, where it is known. */
  name?: string
  /** What went wrong when the rows were read in. */
  findings?: Finding[]
  columns: FarColumnFacts[]
  rows: number
  /** Whether its rows have an order that stays. */
  ordered: boolean
}

/** A question on its way. */
export interface FarAsking {
  answer: Promise<FarAnswer>
  /** Nobody waits for the answer any more: what works on it may stop. */
  cancel(): void
}

/** What answers questions about tables whose rows are elsewhere. */
export interface FarEngine {
  describe(table: string): Promise<FarTableFacts>
  ask(question: FarQuestion): FarAsking
  /** Whether it only gives again what it once answered: what is in view is not asked for more finely then. */
  frozen?: boolean
  /** Calls back when a table has changed, where the engine can tell; returns what ends that. */
  watch?(table: string, changed: () => void): () => void
  close?(): Promise<void>
}
