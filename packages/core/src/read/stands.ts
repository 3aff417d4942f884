import type { BoundDrawing } from '../bind/model.ts'
import { slotShift } from '../drawing/slots.ts'
import type { PositionScale } from '../scale/scale.ts'

/** Where the marks of a drawing stand in pixels; NaN for those that stand nowhere. */
export interface Stands {
  x(mark: number): number
  y(mark: number): number
}

/** Where marks stand as they are drawn: at their values, or in their slots beside others. */
export function standsOf(
  { scales }: { scales: ReadonlyMap<string, PositionScale> },
  { marks, slots, xScale, yScale }: BoundDrawing,
): Stands {
  const stand = (role: 'x' | 'y', name: string): Stands['x'] => {
    const scale = scales.get(name)
    if (!scale) return () => Number.NaN
    const pixel = pixelsOf(scale)
    const values = marks[role].at
    if (slots?.along !== role) return mark => pixel(values[mark])
    const shift = slotShift(slots, marks, scale.map)
    return mark => pixel(values[mark]) + shift(mark)
  }
  return { x: stand('x', xScale), y: stand('y', yScale) }
}

/** Where values stand, NaN for those that stand nowhere. */
function pixelsOf({ kind, factor, offset, map }: PositionScale): (value: number) => number {
  if (kind.straight) return value => value * factor + offset
  return value => (kind.allows(value) ? map(value) : Number.NaN)
}
