import { numbersOf } from '../cells/cells.ts'
import type { TableColumn } from '../cells/column.ts'
import type { Encoded } from './encoded.ts'

/** At most this many bins where nobody said how wide they are. */
const MOST = 200
/** And at least about this many. */
const LEAST = 5
/** The quartiles are values of at most about this many rows, evenly spaced: taken by rank, which keeps small pages small. */
export const SAMPLE = 10_000

/**
 * Bin widths that people count in, no finer than the steps in which the values are given and holding as many of them in
 * each bin: else whole numbers in halves would stand like a comb.
 */
function neatWidth(rough: number, step: number): number {
  const least = Math.max(rough, step)
  const power = 10 ** Math.floor(Math.log10(least))
  const held = (lead: number) => Math.abs((lead * power) / step - Math.round((lead * power) / step)) < 1e-6
  return (
    ([1, 2, 2.5, 5].find(lead => lead * power >= least * (1 - 1e-9) && (step === 0 || held(lead))) ?? 10) *
    power
  )
}

/** The step in which values are given: 1, 0.1, 0.01 or 0.001, or 0 where they are finer. */
function stepOf(sample: Float64Array): number {
  const given = (digits: number) => sample.every(value => Number(value.toFixed(digits)) === value)
  const digits = [0, 1, 2, 3].find(given)
  return digits === undefined || sample.length === 0 ? 0 : 10 ** -digits
}

/**
 * How wide bins are without a wish: Rice's rule, the span over twice the cube root of the count, held between 5 and 50,
 * where the span is that of all but what lies outside of Tukey's fences (1.5 interquartile ranges beyond the quartiles),
 * so that a far value leaves the others their shape. With values on both sides of both fences it is the width of
 * D. Freedman and P. Diaconis, "On the histogram as a density estimator", 1981. No more than MOST bins in all.
 */
function widthOf(rows: number, sample: Float64Array, min: number, max: number): number {
  const number = Math.min(50, Math.max(LEAST, Math.round(2 * Math.cbrt(rows))))
  if (sample.length === 0) return (max - min) / number
  const [low, high] = [0.25, 0.75].map(share => sample[Math.floor(share * (sample.length - 1))])
  const beyond = 1.5 * (high - low)
  const usual = Math.min(max, high + beyond) - Math.max(min, low - beyond)
  return Math.max((beyond > 0 ? usual : max - min) / number, (max - min) / MOST)
}

/** What a person asked of bins. */
export interface BinsAsked {
  width?: number
  number?: number
  /** From there on all are in one open bin, drawn as wide as the others. */
  until?: number
}

/** Where bins lie: their width, and the numbers of the first and the last, counted from zero. */
export interface Layout {
  step: number
  least: number
  most: number
  /** 1 where an open bin follows the last. */
  open: number
}

/** Every so manieth of them, in order. */
function sampleOf(values: Float64Array): Float64Array {
  const every = Math.ceil(values.length / SAMPLE)
  return Float64Array.from({ length: Math.ceil(values.length / every) }, (_, i) => values[i * every])
    .filter(value => value === value)
    .sort()
}

/** The layout of bins over so many rows, of which some values are known, in order; undefined where there are none. */
export function layoutOver(
  rows: number,
  sampled: () => Float64Array,
  { min, max: greatest }: { min: number; max: number },
  { width, number, until }: BinsAsked,
): Layout | undefined {
  // What lies beyond is in one bin, and has no say in how wide they are.
  const max = until !== undefined && until > min ? Math.min(until, greatest) : greatest
  if (!(min <= max)) return undefined
  const sample = sampled()
  const given = stepOf(sample)
  const span = max - min || Math.abs(max) || 1
  const rough = number === undefined && max > min ? widthOf(rows, sample, min, max) : span / (number ?? LEAST)
  const wide = Math.max(width ?? neatWidth(rough, given), span / 1_000_000)
  // Numbers too close to each other to be told apart share a bin.
  const step = wide > Math.max(Math.abs(min), Math.abs(max)) * 1e-12 && wide > 1e-95 ? wide : 1
  const least = Math.floor(min / step + 1e-9)
  // The last bin takes its upper end too, so that the greatest value does not get a bin of its own, unless bins hold
  // only a value or two: one more would show.
  const open = max < greatest ? 1 : 0
  const last = !open && step < 2.5 * given ? Math.floor(max / step + 1e-9) : Math.ceil(max / step - 1e-9) - 1
  return { step, least, most: Math.max(least, last), open }
}

/** Numbers as intervals of one width, with edges that people count in. */
export function encodeBins(column: TableColumn, asked: BinsAsked): Encoded {
  const layoutNow = () => {
    const now = numbersOf(column.cells)
    return layoutOver(now.length, () => sampleOf(now), column.extent, asked)
  }
  const layout = layoutNow()
  const values = numbersOf(column.cells)
  const codes = new Int32Array(values.length)
  if (!layout) return { codes: codes.fill(-1), ...binCodes(undefined) }
  const codeOf = codeIn(layout)
  for (let i = 0; i < values.length; i++) codes[i] = codeOf(values[i])
  return {
    codes,
    codeOf,
    // Where the bins lie hangs on all values: what has come may ask for others.
    still: () => same(layout, layoutNow()),
    ...binCodes(layout),
  }
}

/** What the codes of bins stand for. */
export function binCodes(layout: Layout | undefined): Pick<Encoded, 'size' | 'cellsOf' | 'endOf'> {
  if (!layout)
    return {
      size: 0,
      cellsOf: picked => ({ type: 'number', values: new Float64Array(picked.length).fill(Number.NaN) }),
    }
  const { step, least, most, open } = layout
  const digits = Math.max(0, Math.min(100, 2 - Math.floor(Math.log10(step))))
  const edge = (code: number) => Number(((code + least) * step).toFixed(digits))
  return {
    size: most - least + 1 + open,
    cellsOf: picked => ({
      type: 'number',
      values: Float64Array.from(picked, code => (code < 0 ? Number.NaN : edge(code))),
    }),
    endOf: code => edge(code + 1),
  }
}

/** Apart from the rows that were encoded first, which would else be kept for as long as it is. */
const codeIn =
  ({ step, least, most, open }: Layout) =>
  (value: number): number =>
    value === value ? Math.min(most + open, Math.floor(value / step + 1e-9)) - least : -1

const same = (a: Layout, b: Layout | undefined): boolean =>
  b !== undefined && a.step === b.step && a.least === b.least && a.most === b.most && a.open === b.open
