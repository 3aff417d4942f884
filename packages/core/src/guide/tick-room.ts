import type { PositionScale } from '../scale/scale.ts'
import { APART, type AxisContext } from './axis-parts.ts'
import { LINE } from './text.ts'

/** Whether any two neighbouring labels come too close. */
export function collide(
  positions: number[],
  texts: () => string[],
  { level, font, measure }: AxisContext,
): boolean {
  // Upright, every label is as high as any: nothing has to be written to find out.
  const widths = level ? texts().map(text => measure(text, font) + APART) : []
  const extent = (i: number) => (level ? widths[i] : font.size * LINE)
  for (let i = 1; i < positions.length; i++) {
    if ((extent(i) + extent(i - 1)) / 2 > Math.abs(positions[i] - positions[i - 1])) return true
  }
  return false
}

/** The indexes of ticks that stay when those whose labels would touch the one before are left out. */
export function keptApart(
  ticks: number[],
  scale: PositionScale,
  texts: string[],
  context: AxisContext,
): number[] {
  const kept: number[] = []
  ticks.forEach((_, i) => {
    const last = kept.at(-1)
    if (
      last === undefined ||
      !collide([scale.map(ticks[last]), scale.map(ticks[i])], () => [texts[last], texts[i]], context)
    )
      kept.push(i)
  })
  return kept
}

/** The ends of a scale of names or times, moved so far that large points at the first and the last are whole. */
export function endsWithRoom({ input: { min, max, beyond }, length }: AxisContext): [number, number] {
  if (!beyond) return [min, max]
  const low = Math.min(beyond.min, length / 4)
  const high = Math.min(beyond.max, length / 4)
  const pixel = (max - min) / Math.max(1, length - low - high)
  return [min - low * pixel, max + high * pixel]
}
