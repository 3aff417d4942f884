/** What brings the news of a feed. */
export interface Source {
  close(): void
}

export interface SourceHost {
  url: string
  /** Milliseconds from one fetch to the next. */
  every: number
  /** News: a message, or, with `whole`, all there is. */
  apply(text: string, whole: boolean): void
  connected(connection: 'open' | 'waiting' | 'connecting', problem?: string): void
}

/** Milliseconds to wait before trying again: the first time, and at most. */
const FIRST_WAIT = 500
const LONGEST_WAIT = 30_000

/** Waits longer with every failure in a row, a little at random so that many pages do not all come back at once. */
class Patience {
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
export function openEvents({ url, apply, connected }: SourceHost): Source {
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
      if (event.lastEventId) last = event.lastEventId
      apply(event.data, false)
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

/** A WebSocket whose messages may carry an `id`; connecting again asks for what came after the last one. */
export function openSocket({ url, apply, connected }: SourceHost): Source {
  const patience = new Patience()
  let socket: WebSocket
  let last: string | undefined
  let closed = false
  const open = () => {
    connected('connecting')
    socket = new WebSocket(after(url, last).replace(/^http/i, 'ws'))
    socket.onopen = () => {
      patience.succeeded()
      connected('open')
    }
    socket.onmessage = event => {
      const text = String(event.data)
      const id = /^\s*\{\s*"id"\s*:\s*("?)([^",}]+)\1/.exec(text)?.[2]
      if (id !== undefined) last = id.trim()
      apply(text, false)
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
export function openFetching({ url, every, apply, connected }: SourceHost): Source {
  const patience = new Patience()
  const abort = new AbortController()
  let timer: ReturnType<typeof setTimeout> | undefined
  let tag: string | null = null
  const once = async () => {
    if (document.hidden) {
      document.addEventListener('visibilitychange', once, { once: true, signal: abort.signal })
      return
    }
    try {
      const response = await fetch(url, {
        cache: 'no-store',
        headers: tag === null ? {} : { 'If-None-Match': tag },
        signal: abort.signal,
      })
      if (response.status !== 304) {
        if (!response.ok) throw new Error(`${url} answers ${response.status}.`)
        tag = response.headers.get('ETag')
        apply(await response.text(), true)
      } else apply('', false)
      patience.succeeded()
      connected('open')
      timer = setTimeout(once, every)
    } catch (error) {
      if (abort.signal.aborted) return
      connected('waiting', error instanceof Error ? error.message : String(error))
      patience.retry(once)
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
