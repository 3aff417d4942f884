import type { Marks, Positions, Slots } from '../describe/model.ts'
import { remember } from '../describe/remember.ts'
import type { PositionScale } from '../scale/scale.ts'

/** Narrower bars than this, in pixels, stand without a gap between them, or the gaps would flicker. */
const LEAST_GAPPED = 3
/** The room of a bar that stands alone, in pixels. */
const LONE = 96

/** The room of a place that marks share, in pixels from `low` on, less the gap to the next place. */
export function roomAt(
  { at, from, to }: Positions,
  mark: number,
  map: (value: number) => number,
  gap: number,
  least: number,
): { low: number; whole: number; open: number } {
  const a = from ? map(from[mark]) : map(at[mark]) - least / 2
  const b = to ? map(to[mark]) : map(at[mark]) + least / 2
  const whole = Math.abs(b - a)
  return { low: Math.min(a, b), whole, open: whole * (whole * (1 - gap) < LEAST_GAPPED ? 0 : gap) }
}

/** Where marks stand at plain numbers, the room of each is the least distance between two of them. */
export function leastRoom(places: Positions, map: (value: number) => number): number {
  if (places.from) return 0
  const distinct = [...new Set(places.at)].filter(value => value === value).sort((a, b) => a - b)
  let least = Number.POSITIVE_INFINITY
  for (let i = 1; i < distinct.length; i++)
    least = Math.min(least, Math.abs(map(distinct[i]) - map(distinct[i - 1])))
  return Number.isFinite(least) ? least : LONE
}

/** Whether no two marks share a place: then each has all of its room, as when colour repeats the axis. */
export function standAlone(memory: Map<string, unknown>, marks: Marks, places: Positions): boolean {
  return remember(memory, 'stand alone', () => {
    if (marks.series.length < 2) return false
    const { at: values } = places === marks.x ? marks.y : marks.x
    const taken = new Set<number>()
    for (let mark = 0; mark < marks.length; mark++) {
      const place = places.at[mark]
      // A period that only fills a series up, and has no rows, stands in nobody's way.
      if (Number.isNaN(place) || (values[mark] === 0 && marks.rowsOf(mark).length === 0)) continue
      if (taken.has(place)) return false
      taken.add(place)
    }
    return true
  })
}

/** Moves shapes from the middles of their places to their slots there. */
export function moveToSlots(
  slots: Slots,
  marks: Marks,
  scales: Record<'x' | 'y', Pick<PositionScale, 'map'>>,
  shapes: Record<'x' | 'y', Float32Array>,
  markOf: (shape: number) => number = shape => shape,
): void {
  const shift = slotShift(slots, marks, scales[slots.along].map)
  const pixels = shapes[slots.along]
  for (let i = 0; i < pixels.length; i++) {
    const mark = markOf(i)
    if (mark >= 0) pixels[i] += shift(mark)
  }
}

/** By mark: pixels from the middle of its place to the middle of its slot there. */
export function slotShift(
  slots: Slots,
  { seriesOf, ...marks }: Pick<Marks, 'x' | 'y' | 'seriesOf'>,
  map: (value: number) => number,
): (mark: number) => number {
  const { along, of, count, gap } = slots
  const places = marks[along]
  const least = leastRoom(places, map)
  return mark => {
    const { whole, open } = roomAt(places, mark, map, gap, least)
    return ((of[seriesOf?.[mark] ?? 0] + 0.5) / count - 0.5) * (whole - open)
  }
}
