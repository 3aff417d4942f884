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

/** What is known of no codes at all. */
const NONE: Extent = {
  min: Number.POSITIVE_INFINITY,
  max: Number.NEGATIVE_INFINITY,
  sorted: false,
  missing: 0,
}

/** Extremes of codes; `before`: those of the codes up to `from`. */
export function extentOfCodes(codes: Int32Array, from = 0, before = NONE): Extent {
  let { min, max, missing } = before
  for (let i = from; i < codes.length; i++) {
    const code = codes[i]
    if (code < 0) missing++
    else {
      if (code < min) min = code
      if (code > max) max = code
    }
  }
  return { min, max, sorted: false, missing }
}
