import type { Marks } from './kind.ts'

/** Whether shapes grow along x rather than y: when x is the measure, or the only plain number. */
export function lies(marks: Marks): boolean {
  if (marks.x.measured !== marks.y.measured) return marks.x.measured
  return marks.y.from !== undefined && marks.x.from === undefined
}
