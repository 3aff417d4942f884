import type { Table } from '@dapplo/core/small'
import { type ReadonlySignal, type Signal, signal } from '@preact/signals-core'
import type { FeedState } from './feed-state.ts'

const states = new WeakMap<Table, Signal<readonly ReadonlySignal<FeedState>[]>>()

function listOf(table: Table): Signal<readonly ReadonlySignal<FeedState>[]> {
  let list = states.get(table)
  if (!list) {
    list = signal([])
    states.set(table, list)
  }
  return list
}

/** The feeds that tables follow, so that charts can say when one is stale. */
export const feedStates = {
  /** Notes a feed; the returned function forgets it. */
  add(table: Table, state: ReadonlySignal<FeedState>): () => void {
    const list = listOf(table)
    list.value = [...list.peek(), state]
    return () => {
      list.value = list.peek().filter(other => other !== state)
    }
  },
  /** The states of a table's feeds. Reading them makes an effect follow them. */
  of(table: Table): FeedState[] {
    return listOf(table).value.map(state => state.value)
  },
}
