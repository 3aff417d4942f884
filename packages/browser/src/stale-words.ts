import { rootOf, tablesOf, type View } from '@dapplo/core/small'
import { feedStates } from './feed-states.ts'

/** What people must know of the feeds behind a view: that the news have stopped. */
export function staleWords(view: View): string {
  for (const table of tablesOf(view.chart.value)) {
    for (const { stale, last, problem } of feedStates.of(rootOf(table))) {
      if (!stale) continue
      const since =
        last === undefined ? '' : ` since ${new Date(last).toLocaleTimeString(view.frame.value.locale)}`
      return `No news${since}${problem ? ', the connection is broken' : ''}`
    }
  }
  return ''
}
