import { commonHouse, selectionsOf } from '@dapplo/core/internal'
import { effect } from '@preact/signals-core'
import { staleWords } from '../feed/stale-words.ts'
import { followPage } from '../page/page-changes.ts'
import { followRoom } from '../page/rooms.ts'
import type { PageMember } from './member.ts'
import type { PartHost } from './model.ts'
import { followChanges } from './state.ts'

/** Everything that follows from a change, of data, neighbours and page. Returns what ends each of it. */
export function followAll(
  host: PartHost,
  member: PageMember,
  { schedule, fontsLoaded }: { schedule(): void; fontsLoaded(): void },
): (() => void)[] {
  const { view, stage, live } = host
  let onPaper = false
  let house = commonHouse.peek()
  return [
    followChanges(view, schedule),
    effect(() => selectionsOf(view.root).set(view, view.state.value.selected)),
    ...member.join(),
    effect(() => stage.notice(staleWords(view))),
    effect(() => {
      // The first picture has taken the house that the page had by then.
      if (commonHouse.value === house) return
      house = commonHouse.value
      host.refresh()
    }),
    followRoom(live.element, {
      // What paper makes of the page's room is nothing that the picture on it follows.
      letGo: () => onPaper || stage.letGo(),
      look: () => onPaper || stage.look(),
      knows: entry => onPaper || stage.knows(entry),
      resized: () => onPaper || host.refresh(),
    }),
    followPage({
      changed: () => onPaper || host.refresh(),
      fontsLoaded,
      // Paper gets lines and letters rather than pixels.
      printing: prints => {
        onPaper = prints
        host.can.print?.(prints)
        if (!prints) host.refresh()
      },
    }),
  ]
}
