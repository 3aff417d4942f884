import type { RampEntry } from '../guide/ramp-legend.ts'
import type { SizeEntry } from '../guide/size-legend.ts'
import type { ResolvedDrawing } from '../resolve/model.ts'
import { tickTexts } from '../scale/number-format.ts'
import { chooseTicks } from '../scale/ticks.ts'
import { momentText } from '../scale/time-format.ts'
import { extentOf } from '../table/cells/extent.ts'
import type { RoleValues } from '../table/group/shape.ts'
import type { Tongue } from '../words/tongue.ts'
import type { ColorScale } from './color-scale.ts'
import type { BoundDrawing } from './model.ts'
import { lookOf, measureTitle, unitOf } from './naming.ts'

/** Ends of a ramp that differ by more than this factor are each written in a unit of its own. */
const APART = 50

/** What a legend says of the colours of numbers. */
export function rampEntry(
  values: RoleValues,
  { colors, edges, min, max }: ColorScale,
  first: BoundDrawing,
  tongue: Tongue,
): RampEntry {
  const labels =
    values.cells.type === 'time'
      ? [min, max].map(time => momentText(time, unitOf(values), tongue.locale, values.zone))
      : tickTexts(edges ?? [min, max].map(value => Number(value.toPrecision(3))), {
          ...lookOf(values),
          locale: tongue.locale,
          // A small end beside a large one would have too many decimals in the unit of that.
          each: min !== 0 && Math.abs(min) < Math.abs(max) / APART,
        })
  return {
    title: measureTitle(values, first.x, first.drawing.table, tongue),
    colors: colors.slice(0, -1),
    labels,
  }
}

/** What a legend says of the areas of numbers: a large neat value and a small one. */
export function sizeEntry(
  values: RoleValues,
  { table }: ResolvedDrawing,
  tongue: Tongue,
  wished?: readonly number[],
): SizeEntry | undefined {
  const { max } = extentOf(values.cells)
  if (!(max > 0)) return undefined
  const ticks = (chooseTicks({ min: 0, max, wanted: 5, enclose: false })?.values ?? [max]).filter(
    value => value > 0,
  )
  const told = wished?.filter(value => value > 0)
  const chosen = told?.length
    ? told
    : ticks.length > 2
      ? [ticks[0], ticks[Math.floor(ticks.length / 2)], ticks[ticks.length - 1]]
      : ticks
  const texts = tickTexts(chosen, { ...lookOf(values), locale: tongue.locale })
  return {
    title: measureTitle(values, undefined, table, tongue),
    steps: chosen.map((value, i) => ({ text: texts[i], share: Math.sqrt(value / max) })),
  }
}
