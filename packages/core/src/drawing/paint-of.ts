import type { MarkStyle, Marks } from '../describe/model.ts'
import type { Hatched } from '../scene/hatch.ts'

/** The colours of marks: by value where they are shaded, else by series, unless a constant is given. */
export function paintOf(
  marks: Marks,
  style: MarkStyle,
): { colors: readonly string[]; color: Uint16Array; hatched?: Hatched } {
  if (marks.shade && style.color === undefined) return { colors: marks.shade.colors, color: marks.shade.of }
  return {
    colors: marks.series.map(series => style.color ?? series.color),
    color: marks.seriesOf ?? allFirst(marks),
    hatched: hatchedOf(marks, style),
  }
}

const firsts = new WeakMap<Marks, Uint16Array>()

/** All of one colour, kept with the marks: among very many they would be written anew in each frame. */
function allFirst(marks: Marks): Uint16Array {
  let found = firsts.get(marks)
  if (found?.length !== marks.length) {
    found = new Uint16Array(marks.length)
    firsts.set(marks, found)
  }
  return found
}

/** The patterns of series whose colours alone do not tell them apart. */
export function hatchedOf({ series }: Marks, style: MarkStyle): Hatched | undefined {
  if (style.color !== undefined || !series.some(({ hatch }) => hatch)) return undefined
  return Object.fromEntries(series.flatMap(({ color, hatch }) => (hatch ? [[color, hatch]] : [])))
}

/** One transparency for all marks; nothing where they are solid. */
export const alphaOf = (opacity: number, count: number): Float32Array | undefined =>
  opacity === 1 ? undefined : new Float32Array(count).fill(opacity)
