import { isSpread, tablesOf, type View } from '@dapplo/core/internal'
import type { Chart, Spread, State } from '@dapplo/core/small'
import { effect } from '@preact/signals-core'
import { guarded } from '../page/guarded.ts'

/** Tells a listener of every change of the state, until the returned function is called. */
export function watchState(view: View, listener: (state: State) => void): () => void {
  let before = view.state.peek()
  return effect(() => {
    const state = view.state.value
    if (state === before) return
    before = state
    guarded(() => listener(state))
  })
}

/** Calls when anything changes that the picture follows, without composing it; returns what ends that. */
export const followChanges = (view: View, changed: () => void): (() => void) =>
  effect(() => {
    for (const table of tablesOf(view.chart.value)) table.version.value
    view.state.value
    view.frame.value
    view.preview.value
    view.listedFrom.value
    view.detail.value
    view.outer.value
    view.beside.value
    view.followOthers()
    changed()
  })

/** Whether what is shown is one place along x in all of its panes. */
export const sharesPlaces = (shown: Chart | Spread): boolean =>
  isSpread(shown) && (shown.description.share?.includes('x') ?? false)
