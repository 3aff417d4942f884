import type { MarkStyle, Marks } from '../describe/model.ts'

/** The colours of marks: by value where they are shaded, else by series, unless a constant is given. */
export function paintOf(marks: Marks, style: MarkStyle): { colors: readonly string[]; color: Uint16Array } {
  if (marks.shade && style.color === undefined) return { colors: marks.shade.colors, color: marks.shade.of }
  return {
    colors: marks.series.map(series => style.color ?? series.color),
    color: marks.seriesOf ?? new Uint16Array(marks.length),
  }
}

/** One transparency for all marks; nothing where they are solid. */
export const alphaOf = (opacity: number, count: number): Float32Array | undefined =>
  opacity === 1 ? undefined : new Float32Array(count).fill(opacity)
