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
  // A small end beside a large one would have too many decimals in the unit of that.
  const apart = min !== 0 && Math.abs(min) < Math.abs(max) / APART
  const labels =
    values.cells.type === 'time'
      ? [min, max].map(time => momentText(time, unitOf(values), tongue.locale, values.zone))
      : tickTexts(
          edges ??
            [min, max].map(value => (apart ? Number(value.toPrecision(3)) : rounded(value, max - min))),
          {
            ...lookOf(values),
            locale: tongue.locale,
            each: apart,
          },
        )
  return {
    title: measureTitle(values, isCalendar(first) ? undefined : first.x, first.drawing.table, tongue),
    colors: colors.slice(0, -1),
    labels,
  }
}

/** A value to a hundredth of what it is read beside: so ends that differ are read as different. */
function rounded(value: number, span: number): number {
  const step = span > 0 ? 10 ** Math.floor(Math.log10(span / 100)) : 0
  return step > 0 && step < 1
    ? Number(value.toFixed(Math.min(20, -Math.log10(step))))
    : step > 0
      ? Math.round(value / step) * step
      : value
}

/** Whether cells stand for a part of the period along x, as the days of a week do. */
const isCalendar = ({ x, y }: BoundDrawing): boolean =>
  y.meaning.is === 'cycle' && x.meaning.is === 'bucket' && y.meaning.column === x.meaning.column

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
