import { measures } from '../bind/domain.ts'
import type { ScaleInput, ScaleUse } from '../bind/model.ts'
import { labelTexts } from '../bind/values.ts'
import type { AxisInput } from '../guide/axis-parts.ts'
import { labelFont } from '../guide/place-labels.ts'
import { clean } from '../guide/text.ts'
import { arrangeOf } from '../resolve/looks.ts'
import type { PlanContext } from './model.ts'

/** Bars beyond which not every label is placed, and those that are find their place. */
const MOST_LABELLED = 200
/** Pixels between a bar and its label, and between that and the edge. */
const AROUND = 8
/**
 * The share of a chart's width or height that the span of the values has at least, as a rule: the plot is smaller than the
 * chart, and rounded ends lie beyond the values.
 */
const SPAN_SHARE = 0.3

type Room = NonNullable<AxisInput['beyond']>

/** The room beyond the least and the greatest value, in pixels, that labels at the ends of bars and large points take. */
export function roomBeyond(source: ScaleInput, context: PlanContext): AxisInput['beyond'] {
  const room: Room = { min: 0, max: 0 }
  for (const use of source.uses)
    for (const taken of [labelsBeyond(use, source, context), pointsBeyond(use, source, context)]) {
      room.min = Math.max(room.min, taken.min)
      room.max = Math.max(room.max, taken.max)
    }
  return room.min + room.max > 0 ? room : undefined
}

function labelsBeyond(
  use: ScaleUse,
  source: ScaleInput,
  { theme, measure, bound, formOf }: PlanContext,
): Room {
  const room: Room = { min: 0, max: 0 }
  const { positions } = use
  const { drawing, marks } = use.bound
  const stacked = ['stack', 'share'].includes(arrangeOf(drawing)) && marks.series.length > 1
  const bars = drawing.kind.fromZero && drawing.kind.broad && !drawing.kind.parts
  if (!bars || stacked || marks.y.spans || marks.x.spans || !measures(use, source)) return room
  if (marks.length > MOST_LABELLED) return room
  const labels = labelTexts(use.bound, bound.tongue.locale, formOf)
  if (!labels) return room
  const font = labelFont(theme)
  for (let mark = 0; mark < marks.length; mark++) {
    const text = labels(mark)
    if (text === '') continue
    const taken = (source.role === 'x' ? measure(clean(text), font) : font.size) + AROUND
    const side = positions.at[mark] < 0 ? 'min' : 'max'
    room[side] = Math.max(room[side], taken)
  }
  return room
}

/** Large points stay whole at the ends of their scales. */
function pointsBeyond(
  { bound: { marks }, positions: { at } }: ScaleUse,
  { role, name }: ScaleInput,
  { domains, largest, box }: PlanContext,
): Room {
  const room: Room = { min: 0, max: 0 }
  const { size } = marks
  const domain = domains.get(name)
  if (!size || !domain || !(size.max > 0)) return room
  const { kind } = domain
  const [min, max] = [kind.forward(domain.min), kind.forward(domain.max)]
  const pixels = ((role === 'x' ? box.width : box.height) * SPAN_SHARE) / (max - min || 1)
  for (let mark = 0; mark < at.length; mark++) {
    const radius = size.at[mark] > 0 ? largest * Math.sqrt(size.at[mark] / size.max) + 1 : 0
    if (radius === 0 || !kind.allows(at[mark])) continue
    const place = kind.forward(at[mark])
    room.min = Math.max(room.min, radius - (place - min) * pixels)
    room.max = Math.max(room.max, radius - (max - place) * pixels)
  }
  return room
}
