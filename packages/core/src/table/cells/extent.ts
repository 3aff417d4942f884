import type { Cells } from './cells.ts'
import { buildPyramid, extremes, type Pyramid } from './pyramid.ts'

/** What a million comparisons are saved by knowing. Missing values are passed over. */
export interface Extent {
  min: number
  max: number
  /** Whether values never fall from row to row; false when one is missing. */
  sorted: boolean
  missing: number
}

export function extentOf(cells: Cells): Extent {
  if (cells.type === 'text') return extentOfCodes(cells.codes)
  const { values } = cells
  return values.length > 0 && fallOf(values) === undefined
    ? { min: values[0], max: values[values.length - 1], sorted: true, missing: 0 }
    : pyramidExtent(buildPyramid(values))
}

/** The first row whose value is less than the one before it, or missing; undefined where values are sorted. */
export function fallOf(values: Float64Array): number | undefined {
  if (Number.isNaN(values[0])) return 0
  for (let i = 1; i < values.length; i++) if (!(values[i] >= values[i - 1])) return i
  return undefined
}

export function pyramidExtent(pyramid: Pyramid): Extent {
  const { values, missing } = pyramid
  const { min, max } = extremes(pyramid, 0, values.length)
  return { min, max, sorted: values.length === 0, missing }
}

/** What is known of codes: how many are missing. */
export const lacking = (missing: number): Extent => ({
  min: Number.POSITIVE_INFINITY,
  max: Number.NEGATIVE_INFINITY,
  sorted: false,
  missing,
})

/** What is known of codes; `before`: how many are missing up to `from`. */
export function extentOfCodes(codes: Int32Array, from = 0, before = 0): Extent {
  let missing = before
  for (let i = from; i < codes.length; i++) if (codes[i] < 0) missing++
  return lacking(missing)
}
