import type { Scale } from '../describe/description.ts'
import { chooseTicks } from '../scale/ticks.ts'
import { extentOf } from '../table/cells/extent.ts'
import type { RoleValues } from '../table/group/shape.ts'
import { isRamp, rampColor } from '../theme/ramp.ts'
import type { Theme } from '../theme/theme.ts'

/** A colour for every number of a domain. */
export interface ColorScale {
  /** Colours from the least to the greatest value, then the one for missing values. */
  colors: readonly string[]
  min: number
  max: number
  /** Ends of the steps of a stepped scale, in data units; undefined for one that runs through. */
  edges: number[] | undefined
  /** Index into `colors`. */
  indexOf(value: number): number
}

/** Colours that a ramp is cut into: more than an eye can tell apart. */
const SHADES = 64

/** Whether a value is coloured by its size: numbers and measures, but not what rows are grouped by. */
export const isShaded = ({ cells, meaning }: RoleValues, options: Scale | undefined): boolean =>
  options?.kind !== 'category' &&
  cells.type !== 'text' &&
  meaning.is !== 'bucket' &&
  meaning.is !== 'bins' &&
  meaning.is !== 'value'

/** The colour scale of numbers: sequential unless told otherwise, diverging around zero, or in neat steps. */
export function colorScale(all: readonly RoleValues[], options: Scale | undefined, theme: Theme): ColorScale {
  let min = Number.POSITIVE_INFINITY
  let max = Number.NEGATIVE_INFINITY
  for (const { cells } of all) {
    if (cells.type === 'text') continue
    const extent = extentOf(cells)
    min = Math.min(min, extent.min)
    max = Math.max(max, extent.max)
  }
  const [low, high] = (options?.domain ?? []) as unknown[]
  if (typeof low === 'number') min = low
  if (typeof high === 'number') max = high
  if (!(min <= max)) [min, max] = [0, 1]
  const kind = options?.kind ?? 'sequential'
  if (kind === 'diverging') {
    const reach = Math.max(Math.abs(min), Math.abs(max)) || 1
    ;[min, max] = [-reach, reach]
  }
  const own = Array.isArray(options?.colors) && isRamp(options.colors) ? options.colors : undefined
  const stops = own ?? (kind === 'diverging' ? theme.diverging : theme.sequential)
  const ramp = options?.reverse ? [...stops].reverse() : stops
  let edges: number[] | undefined
  if (kind === 'stepped') {
    edges = chooseTicks({ min, max: max > min ? max : min + 1, wanted: 6, enclose: true })?.values ?? [
      min,
      max,
    ]
    min = edges[0]
    max = edges[edges.length - 1]
  }
  const count = edges ? edges.length - 1 : SHADES
  const colors = Array.from({ length: count }, (_, i) => rampColor(ramp, count === 1 ? 1 : i / (count - 1)))
  const missing = colors.push(theme.missing) - 1
  const span = max - min
  return {
    colors,
    min,
    max,
    edges,
    indexOf: value =>
      Number.isNaN(value)
        ? missing
        : Math.max(0, Math.min(count - 1, Math.floor(((value - min) / (span || 1)) * count))),
  }
}
