import { rootOf, tablesOf, type View } from '@dapplo/core/internal'
import { feedStates } from './feed-states.ts'

/** What people must know of the feeds behind a view: that updates have stopped. */
export function staleWords(view: View): string {
  for (const table of tablesOf(view.chart.value)) {
    for (const { stale, last, problem } of feedStates.of(rootOf(table))) {
      if (!stale) continue
      const { say, locale } = view.tongue.value
      if (last === undefined) return say(problem ? 'Disconnected' : 'No updates')
      const time = new Date(last).toLocaleTimeString(locale)
      return problem
        ? say('Disconnected. Last update {time}', { time })
        : say('No updates since {time}', { time })
    }
  }
  return ''
}
