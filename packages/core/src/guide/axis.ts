import { positionScale } from '../scale/scale.ts'
import type { Font, Measure } from '../theme/text-width.ts'
import { alignedAxis } from './aligned-axis.ts'
import type { AxisContext, AxisInput, AxisLayout } from './axis-parts.ts'
import { categoryAxis } from './category-axis.ts'
import { numberAxis } from './number-axis.ts'
import { timeAxis } from './time-axis.ts'

/** Chooses domain ends, ticks and labels for an axis whose plot spans `range` pixels. `base`: the layout it aligns to. */
export function layoutAxis(
  input: AxisInput,
  range: readonly [number, number],
  font: Font,
  measure: Measure,
  base?: AxisLayout,
): AxisLayout {
  const ends: readonly [number, number] = input.reverse ? [range[1], range[0]] : range
  const context: AxisContext = {
    input,
    length: Math.abs(range[1] - range[0]),
    level: input.side === 'bottom' || input.side === 'top',
    font,
    measure,
    make: (min, max) =>
      positionScale({
        name: input.name,
        kind: input.kind,
        domain: [min, max],
        range: ends,
        words: input.words,
        zone: input.zone,
      }),
  }
  if (input.kind.name === 'category') return categoryAxis(context)
  if (input.kind.name === 'time') return timeAxis(context)
  return (base && alignedAxis(context, base)) ?? numberAxis(context)
}
