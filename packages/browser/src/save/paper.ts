import { View } from '@dapplo/core/internal'
import type { Scene } from '@dapplo/core/small'

/**
 * The picture for paper: that of the day, also where a page is dark, since ink is dear and paper is white. A chart in
 * motion, and one whose theme is its own, is printed as it is shown.
 */
export function paperScene(view: View, shown: Scene, moves: boolean): Scene {
  const frame = view.frame.peek()
  const { theme } = view.composition.peek()
  if (moves || theme.name !== 'night' || typeof frame.theme === 'object') return shown
  const paper = new View(view.chart.peek(), view.state.peek(), { ...frame, theme: 'day' })
  paper.outer.value = view.outer.peek()
  paper.beside.value = view.beside.peek()
  paper.detail.value = view.detail.peek()
  return paper.scene
}
