import { View } from '@dapplo/core/internal'
import type { Scene } from '@dapplo/core/small'

/**
 * The chart as paper shows it: by day, also where a page is dark, since ink is dear and paper is white. A chart in motion,
 * and one whose theme is its own, is printed as it is shown.
 */
export function paperView(view: View, moves: boolean): View {
  const frame = view.frame.peek()
  const { theme } = view.composition.peek()
  if (moves || theme.name !== 'night' || typeof frame.theme === 'object') return view
  const paper = new View(view.chart.peek(), view.state.peek(), { ...frame, theme: 'day' })
  paper.outer.value = view.outer.peek()
  paper.beside.value = view.beside.peek()
  paper.detail.value = view.detail.peek()
  paper.standLike(view)
  return paper
}

/** The picture for paper. */
export function paperScene(view: View, shown: Scene, moves: boolean): Scene {
  const paper = paperView(view, moves)
  return paper === view ? shown : paper.scene
}
