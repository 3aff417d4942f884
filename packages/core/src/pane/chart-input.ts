import type { Insets, PaneInput, PictureInput } from './model.ts'
import { mostRoom } from './room-beyond.ts'

/** What one chart of a picture is laid out from, but for its place. */
export function chartInput(input: PictureInput, i: number): Omit<PaneInput, 'box' | 'pane' | 'prefix'> {
  const { frame, theme, measure, zoom, preview, listedFrom } = input
  return { ...input.charts[i], frame, theme, measure, zoom, preview, listedFrom }
}

/** The room that is enough for all. */
export const mostOf = (all: readonly Insets[]): Insets => ({
  left: Math.max(...all.map(({ left }) => left)),
  right: Math.max(...all.map(({ right }) => right)),
  beyond: mostRoom(all.map(({ beyond }) => beyond)),
})
