import type { Marks } from '../describe/model.ts'

/** Whether shapes grow along x rather than y: when x is the measure, the extent, or the only plain number. */
export function isLying({ x, y }: Marks): boolean {
  if (x.measured !== y.measured) return x.measured
  if ((x.spans ?? false) !== (y.spans ?? false)) return x.spans ?? false
  return y.from !== undefined && x.from === undefined
}
