import { DapploError, keepRecent, type Table } from '@dapplo/core'
import {
  type Followed,
  hasManyRecords,
  mediaFormat,
  namedFormat,
  readRecords,
  spanLength,
  type TextFormat,
} from '@dapplo/core/internal-files'
import { signal } from '@preact/signals-core'
import { guarded } from '../page/guarded.ts'
import { openEvents, openFetching, openSocket, type Source } from './feed-sources.ts'
import type { FeedState } from './feed-state.ts'
import { feedStates } from './feed-states.ts'

/**
 * What a table follows, as in a chart file: how news come, how often they are fetched (default every 10 seconds), what is
 * kept, and when they count as stale.
 */
export type FeedOptions = Omit<Followed, 'table'>

/** A table that follows an address, until it is closed. */
export interface Feed {
  readonly state: FeedState
  /** Tells of every change of the state, until the returned function is called. */
  watch(listener: (state: FeedState) => void): () => void
  /** Ends the feed; what has come stays in the table. */
  close(): void
}

/** How often staleness is looked at, in milliseconds. */
const LOOK = 250

/**
 * Lets a table follow an address: rows with a key are put, others appended; what is fetched in intervals replaces all
 * rows. Connections that break are retried at growing intervals, and go on where they were when the server can.
 * What cannot be read is told of in the state, and leaves the table as it was.
 */
export function feed(table: Table<any>, options: FeedOptions): Feed {
  const as = options.as ?? (/^wss?:/i.test(options.url) ? 'socket' : namedFormat(options.url))
  const state = signal<FeedState>({
    connection: 'connecting',
    stale: false,
    received: 0,
    last: undefined,
    problem: undefined,
  })
  const set = (changes: Partial<FeedState>) => {
    state.value = { ...state.peek(), ...changes }
  }
  const started = Date.now()
  const take = (rows: readonly object[], whole: boolean) => {
    if (whole) table.replace(rows)
    else if (rows.length > 0) table.key.length > 0 ? table.put(rows) : table.append(rows)
    if (options.keep !== undefined) keepRecent(table, options.keep, options.at)
    set({
      last: Date.now(),
      stale: false,
      received: state.peek().received + rows.length,
      problem: undefined,
    })
  }
  /** Applies news, and says whether they could be: what could not leaves the table as it was. */
  const applied = (act: () => void): boolean => {
    try {
      act()
      return true
    } catch (error) {
      set({ problem: error instanceof DapploError ? error.sentence : String(error) })
      return false
    }
  }
  const connected = (connection: FeedState['connection'], problem?: string) =>
    set(problem === undefined ? { connection } : { connection, problem })
  const host = {
    url: options.url,
    every: options.every ? spanLength(options.every) : 10_000,
    message(text: string) {
      let id: string | undefined
      const done = applied(() => {
        const message = readMessage(text)
        id = message.id
        take(message.rows, false)
      })
      return { done, id }
    },
    content: (text: string | undefined, type: string | null) =>
      applied(() =>
        text === undefined
          ? take([], false)
          : take(
              readRecords(text, (as as TextFormat | undefined) ?? mediaFormat(type) ?? 'csv', options.url),
              true,
            ),
      ),
    connected,
  }
  const source: Source =
    as === 'events' ? openEvents(host) : as === 'socket' ? openSocket(host) : openFetching(host)
  const patience = options.stale ? spanLength(options.stale) : Number.POSITIVE_INFINITY
  const timer = setInterval(() => {
    const stale = Date.now() - (state.peek().last ?? started) > patience
    if (stale !== state.peek().stale) set({ stale })
  }, LOOK)
  const forget = feedStates.add(table, state)
  let closed = false
  return {
    get state() {
      return state.value
    },
    watch(listener) {
      return state.subscribe(now => guarded(() => listener(now)))
    },
    close() {
      if (closed) return
      closed = true
      clearInterval(timer)
      source.close()
      forget()
      set({ connection: 'closed', stale: false })
    },
  }
}

/**
 * A message: a JSON object that is a row, a list of rows, `{ rows: [...], id }`, or one row a line. An `id` beside the
 * rows, or in a row of its own, names the message, so that what came after it can be asked for.
 */
function readMessage(text: string): { rows: object[]; id: string | undefined } {
  const read = (json: string): unknown => {
    try {
      return JSON.parse(json)
    } catch {
      throw new DapploError(
        'bad-message',
        `The feed sent something that is no JSON: ${JSON.stringify(text.slice(0, 40))}`,
        'feed',
        'It must send rows as JSON objects.',
      )
    }
  }
  // No news is news too: nothing has changed.
  if (text === '') return { rows: [], id: undefined }
  const whole =
    /^\s*[[{]/.test(text) && !hasManyRecords(text)
      ? read(text)
      : text
          .split('\n')
          .filter(line => line.trim())
          .map(read)
  const wrapped = whole !== null && typeof whole === 'object' && 'rows' in whole
  const inner = wrapped ? (whole as { rows: unknown }).rows : whole
  const rows = Array.isArray(inner) ? inner : [inner]
  if (!rows.every(row => row !== null && typeof row === 'object' && !Array.isArray(row)))
    throw new DapploError(
      'bad-message',
      'The feed sent something that is no row',
      'feed',
      'It must send rows as JSON objects.',
    )
  const named: unknown = Array.isArray(whole) ? undefined : (whole as { id?: unknown }).id
  const id = typeof named === 'string' || typeof named === 'number' ? String(named) : undefined
  return { rows, id }
}
