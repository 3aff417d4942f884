import { DAY } from '../cells/calendar.ts'
import { utc, type Zone } from '../cells/zone.ts'
import type { FarOffsets } from './model.ts'

/** Clocks are looked at so often: none change twice within it and back. */
const LOOK = 7 * DAY
/** Changes beyond so many are no calendar; times that far apart are counted in UTC years anyway. */
const MOST = 4000

/** The changes of a zone's clocks between two times: found here, so that every engine has the same zones. */
export function offsetsOf(zone: Zone, from: number, until: number): FarOffsets {
  if (zone === utc || !(from <= until)) return { first: zone === utc ? 0 : zone.offsetAt(from), changes: [] }
  const first = zone.offsetAt(from)
  const changes: FarOffsets['changes'] = []
  let offset = first
  const step = Math.max(LOOK, (until - from) / (MOST * 16))
  for (let at = from; at < until && changes.length < MOST; at += step) {
    const next = Math.min(until, at + step)
    const then = zone.offsetAt(next)
    if (then === offset) continue
    changes.push({ at: changeWithin(zone, at, next), offset: then })
    offset = then
  }
  return { first, changes }
}

/**
 * The same for times that are written as clocks showed them: what is to be subtracted from each. Times that clocks showed
 * twice are the first, and those that they passed over move on.
 */
export function clockOffsets(zone: Zone, from: number, until: number): FarOffsets {
  const { first, changes } = offsetsOf(zone, from - 2 * DAY, until + 2 * DAY)
  let before = first
  return {
    first,
    changes: changes.map(({ at, offset }) => {
      const local = at + Math.max(before, offset)
      before = offset
      return { at: local, offset }
    }),
  }
}

/** The first millisecond at which the offset is no longer that of `from`. */
function changeWithin(zone: Zone, from: number, until: number): number {
  const before = zone.offsetAt(from)
  let [low, high] = [Math.floor(from), Math.ceil(until)]
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (zone.offsetAt(middle) === before) low = middle
    else high = middle
  }
  return high
}
