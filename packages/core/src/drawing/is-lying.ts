import type { Marks } from '../describe/model.ts'

/** Whether shapes grow along x rather than y: when x is the measure, the extent, or the only number that is no place: a time is one. */
export function isLying({ x, y }: Marks): boolean {
  if (x.measured !== y.measured) return x.measured
  if ((x.spans ?? false) !== (y.spans ?? false)) return x.spans ?? false
  if ((x.timed ?? false) !== (y.timed ?? false)) return y.timed ?? false
  return y.from !== undefined && x.from === undefined
}
