import { measures } from '../bind/domain.ts'
import type { ScaleInput, ScaleUse } from '../bind/model.ts'
import { labelTexts } from '../bind/values.ts'
import type { Room } from '../guide/axis-parts.ts'
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
/** The same of names and times, whose ends are not rounded. */
const SPAN_AS_IT_IS = 0.6

/** The room beyond the least and the greatest value, in pixels, that labels at the ends of bars and large points take. */
export function roomBeyond(source: ScaleInput, context: PlanContext): Room | undefined {
  return mostRoom(
    source.uses.flatMap(use => [labelsBeyond(use, source, context), pointsBeyond(use, source, context)]),
  )
}

/** The room that is enough for all; undefined for none. */
export function mostRoom(all: readonly (Room | undefined)[]): Room | undefined {
  const min = Math.max(0, ...all.map(room => room?.min ?? 0))
  const max = Math.max(0, ...all.map(room => room?.max ?? 0))
  return min + max > 0 ? { min, max } : undefined
}

/** By shared scale: the room beyond its ends that is enough for all charts, which would not line up otherwise. */
export function sharedRoom(charts: readonly PlanContext[], share: readonly string[]): Map<string, Room> {
  const out = new Map<string, Room>()
  for (const name of share) {
    const room = mostRoom(
      charts.map(context => {
        const source = context.bound.scales.get(name)
        return source && roomBeyond(source, context)
      }),
    )
    if (room) out.set(name, room)
  }
  return out
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
  { description, domains, largest, box, zoom }: PlanContext,
): Room {
  const room: Room = { min: 0, max: 0 }
  const { size } = marks
  const domain = domains.get(name)
  if (!size || !domain || !(size.max > 0)) return room
  const { kind } = domain
  const [min, max] = [kind.forward(domain.min), kind.forward(domain.max)]
  const asIs = kind.name === 'category' || kind.name === 'time'
  const share = asIs ? SPAN_AS_IT_IS : SPAN_SHARE
  const pixels = ((role === 'x' ? box.width : box.height) * share) / (max - min || 1)
  for (let mark = 0; mark < at.length; mark++) {
    const radius = size.at[mark] > 0 ? largest * Math.sqrt(size.at[mark] / size.max) + 1 : 0
    if (radius === 0 || !kind.allows(at[mark])) continue
    const place = kind.forward(at[mark])
    room.min = Math.max(room.min, radius - (place - min) * pixels)
    room.max = Math.max(room.max, radius - (max - place) * pixels)
  }
  // Ends of numbers say themselves whether they may move.
  const [first, last] = kind.name === 'time' ? (description.scales?.[name]?.domain ?? []) : []
  if (asIs && (zoom?.[name] || (first ?? null) !== null)) room.min = 0
  if (asIs && (zoom?.[name] || (last ?? null) !== null)) room.max = 0
  return room
}
