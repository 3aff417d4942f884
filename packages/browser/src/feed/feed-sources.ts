/** What brings the news of a feed. */
export interface Source {
  close(): void
}

export interface SourceHost {
  url: string
  /** Milliseconds from one fetch to the next. */
  every: number
  /** A message has come. Tells whether it could be applied, and what it calls itself. */
  message(text: string): { done: boolean; id: string | undefined }
  /** All there is has come; undefined: it is what it was. Tells whether it could be applied. */
  content(text: string | undefined, type: string | null): boolean
  connected(connection: 'open' | 'waiting' | 'connecting', problem?: string): void
}

/** Milliseconds to wait before trying again: the first time, and at most. */
const FIRST_WAIT = 500
const LONGEST_WAIT = 30_000

/** Milliseconds in which a fetched answer must have come whole. */
const FETCH_LIMIT = 30_000

/** Waits longer with every failure in a row, a little at random so that many pages do not all come back at once. */
export class Patience {
  private failures = 0
  private timer: ReturnType<typeof setTimeout> | undefined

  retry(act: () => void): void {
    clearTimeout(this.timer)
    const wait = Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** this.failures++)
    this.timer = setTimeout(act, wait * (0.8 + Math.random() * 0.4))
  }

  succeeded(): void {
    this.failures = 0
  }

  stop(): void {
    clearTimeout(this.timer)
  }
}

/** The address with the last message that has come, so that the server goes on after it. */
function after(url: string, id: string | undefined): string {
  const address = new URL(url, location.href)
  if (id !== undefined && id !== '') address.searchParams.set('after', id)
  return address.href
}

/** Server-Sent Events. The browser connects again by itself as long as it can, and tells the server `Last-Event-ID`. */
export function openEvents({ url, message, connected }: SourceHost): Source {
  const patience = new Patience()
  let source: EventSource
  let last: string | undefined
  const open = () => {
    connected('connecting')
    source = new EventSource(after(url, last))
    source.onopen = () => {
      patience.succeeded()
      connected('open')
    }
    source.onmessage = event => {
      // Only what has been applied counts as received.
      if (message(event.data).done && event.lastEventId) last = event.lastEventId
    }
    source.onerror = () => {
      connected('waiting', `The connection to ${url} is broken.`)
      if (source.readyState !== EventSource.CLOSED) return
      patience.retry(open)
    }
  }
  open()
  return {
    close() {
      patience.stop()
      source.close()
    },
  }
}

/**
 * A WebSocket whose messages may carry an `id`; connecting again asks for what came after the last one. One that cannot
 * be read, since it was cut short, say, is asked for once more; what still cannot be read then is passed over.
 */
export function openSocket({ url, message, connected }: SourceHost): Source {
  const patience = new Patience()
  let socket: WebSocket
  let last: string | undefined
  let askedAgain: string | undefined
  let closed = false
  const open = () => {
    connected('connecting')
    socket = new WebSocket(after(url, last).replace(/^http/i, 'ws'))
    socket.onopen = () => {
      patience.succeeded()
      connected('open')
    }
    socket.onmessage = event => {
      const { done, id } = message(String(event.data))
      if (done && id !== undefined) last = id
      else if (!done && last !== undefined && last !== askedAgain) {
        askedAgain = last
        socket.close()
      }
    }
    socket.onclose = () => {
      if (closed) return
      connected('waiting', `The connection to ${url} is broken.`)
      patience.retry(open)
    }
  }
  open()
  return {
    close() {
      closed = true
      patience.stop()
      socket.close()
    },
  }
}

/** Fetches every so often; what has not changed (by its ETag) is not sent again. A hidden page waits until it is seen. */
export function openFetching({ url, every, content, connected }: SourceHost): Source {
  const patience = new Patience()
  const abort = new AbortController()
  let timer: ReturnType<typeof setTimeout> | undefined
  let tag: string | null = null
  const once = async () => {
    if (document.hidden) {
      document.addEventListener('visibilitychange', once, { once: true, signal: abort.signal })
      return
    }
    // A body that only drips would keep the feed waiting without end.
    const limit = new AbortController()
    const giveUp = () => limit.abort()
    abort.signal.addEventListener('abort', giveUp, { once: true })
    const late = setTimeout(giveUp, FETCH_LIMIT)
    try {
      const response = await fetch(url, {
        cache: 'no-store',
        headers: tag === null ? {} : { 'If-None-Match': tag },
        signal: limit.signal,
      })
      if (response.status === 304) content(undefined, null)
      else {
        if (!response.ok) throw new Error(`${url} answers ${response.status}.`)
        const text = await response.text()
        // What could not be read must come again, though it be the same: only what was applied is known.
        tag = content(text, response.headers.get('Content-Type')) ? response.headers.get('ETag') : null
      }
      patience.succeeded()
      connected('open')
      timer = setTimeout(once, every)
    } catch (error) {
      if (abort.signal.aborted) return
      const reason = limit.signal.aborted
        ? `${url} has not sent all of its answer in ${FETCH_LIMIT / 1000} seconds.`
        : error instanceof Error
          ? error.message
          : String(error)
      connected('waiting', reason)
      patience.retry(once)
    } finally {
      clearTimeout(late)
      abort.signal.removeEventListener('abort', giveUp)
    }
  }
  connected('connecting')
  void once()
  return {
    close() {
      abort.abort()
      clearTimeout(timer)
      patience.stop()
    },
  }
}
