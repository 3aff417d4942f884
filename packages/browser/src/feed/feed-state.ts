/** What is known of a feed. */
export interface FeedState {
  connection: 'connecting' | 'open' | 'waiting' | 'closed'
  /** Whether there has been no news for longer than `stale`. */
  stale: boolean
  /** How many rows have come. */
  received: number
  /** When the last news came, in milliseconds since 1970. */
  last: number | undefined
  /** What went wrong last, in one sentence; undefined once things go well again. */
  problem: string | undefined
}
