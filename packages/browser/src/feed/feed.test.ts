import { readCsv, table } from '@dapplo/core'
import fc from 'fast-check'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { runs } from '../../../../tests/support/extent.ts'
import { feed } from './feed.ts'

/** Feeds over a network that breaks at any moment: what is in the table is what the server has said, each once. */

/** A server that remembers what it has said, and goes on after the last that somebody has heard. */
class Server {
  readonly said: string[] = []
  readonly open = new Set<FakeSocket | FakeEvents>()
  attempts: number[] = []
  up = true
  /** What is sent now is cut after so many characters. */
  cut: number | undefined

  say(text: string): void {
    this.said.push(text)
    for (const one of this.open) one.hear(this.said.length, text.slice(0, this.cut))
  }

  connect(one: FakeSocket | FakeEvents, url: string): void {
    this.attempts.push(Date.now())
    const after = Number(new URL(url).searchParams.get('after') ?? 0)
    queueMicrotask(() => {
      if (!this.up) return one.lose()
      this.open.add(one)
      one.onopen?.()
      for (let id = after; id < this.said.length; id++) one.hear(id + 1, this.said[id])
    })
  }

  drop(): void {
    for (const one of [...this.open]) one.lose()
  }
}
let server: Server

class FakeSocket {
  onopen?: () => void
  onmessage?: (event: { data: string }) => void
  onclose?: () => void

  constructor(url: string) {
    expect(url).toMatch(/^ws:/)
    server.connect(this, url)
  }

  hear(_: number, data: string): void {
    this.onmessage?.({ data })
  }

  lose(): void {
    server.open.delete(this)
    this.onclose?.()
  }

  close(): void {
    if (server.open.delete(this)) queueMicrotask(() => this.onclose?.())
  }
}

class FakeEvents {
  static readonly CLOSED = 2
  readyState = 0
  onopen?: () => void
  onmessage?: (event: { data: string; lastEventId: string }) => void
  onerror?: () => void

  constructor(url: string) {
    server.connect(this, url)
  }

  hear(id: number, data: string): void {
    this.onmessage?.({ data, lastEventId: String(id) })
  }

  lose(): void {
    server.open.delete(this)
    this.readyState = FakeEvents.CLOSED
    this.onerror?.()
  }

  close(): void {
    server.open.delete(this)
  }
}

const page = Object.assign(new EventTarget(), { hidden: false })
beforeEach(() => {
  server = new Server()
  vi.useFakeTimers()
  vi.stubGlobal('WebSocket', FakeSocket)
  vi.stubGlobal('EventSource', FakeEvents)
  vi.stubGlobal('location', { href: 'http://pier.example/board' })
  vi.stubGlobal('document', page)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const columns = { id: { type: 'number' }, n: { type: 'number' } } as const
const step = fc.constantFrom('say', 'say', 'say', 'drop', 'down', 'up', 'wait', 'nonsense')

describe.each(['events', 'socket'] as const)('%s', as => {
  test('lose nothing and double nothing, whenever the connection breaks', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 30 }), async steps => {
        server = new Server()
        // Without a key, whatever came twice would be there twice.
        const rows = table<any>([], { columns })
        const live = feed(rows, { url: 'http://pier.example/feed', as })
        let count = 0
        for (const act of steps) {
          if (act === 'say') server.say(JSON.stringify({ id: server.said.length + 1, n: ++count }))
          else if (act === 'nonsense') server.say('{"half": ')
          else if (act === 'drop') server.drop()
          else if (act === 'wait') await vi.advanceTimersByTimeAsync(700)
          else server.up = act === 'up'
          if (act === 'down') server.drop()
        }
        server.up = true
        await vi.advanceTimersByTimeAsync(60_000)
        expect(live.state.connection).toBe('open')
        expect(rows.rows().map(row => row.n)).toEqual(Array.from({ length: count }, (_, i) => i + 1))
        expect(live.state.received).toBe(count)
        live.close()
        expect(server.open.size).toBe(0)
        server.say(JSON.stringify({ id: 99, n: 99 }))
        await vi.advanceTimersByTimeAsync(60_000)
        expect(rows.length).toBe(count)
      }),
      { numRuns: runs(60) },
    )
  })

  test('try again ever more patiently, and at once more quickly after a success', async () => {
    server.up = false
    const live = feed(table<any>([], { columns }), { url: '/feed', as })
    await vi.advanceTimersByTimeAsync(300_000)
    const gaps = server.attempts.slice(1).map((at, i) => at - server.attempts[i])
    expect(gaps[0]).toBeLessThanOrEqual(600)
    expect(Math.max(...gaps)).toBeLessThanOrEqual(36_000)
    expect(gaps.at(-1)).toBeGreaterThan(20_000)
    expect(live.state.connection).toBe('waiting')
    expect(live.state.problem).toContain('is broken')
    server.up = true
    await vi.advanceTimersByTimeAsync(40_000)
    const known = server.attempts.length
    server.drop()
    await vi.advanceTimersByTimeAsync(600)
    expect(server.attempts.length).toBe(known + 1)
    live.close()
  })

  test('say what they could not read, and when news have stopped', async () => {
    const rows = table<any>([], { columns })
    const live = feed(rows, { url: '/feed', as, stale: { seconds: 10 } })
    const heard: boolean[] = []
    live.watch(state => heard.push(state.stale))
    await vi.advanceTimersByTimeAsync(0)
    server.say('[1, 2]')
    expect(live.state.problem).toContain('no row')
    server.say('{"rows": [{"id": 1, "n": 1}, {"id": 2, "n": 2}]}')
    expect(live.state.problem).toBeUndefined()
    server.say('{"id": 3, "n": 3}\n{"id": 4, "n": 4}')
    expect(rows.length).toBe(4)
    await vi.advanceTimersByTimeAsync(9000)
    expect(live.state.stale).toBe(false)
    await vi.advanceTimersByTimeAsync(2000)
    expect(live.state.stale).toBe(true)
    server.say('{"id": 5, "n": 5}')
    expect(live.state.stale).toBe(false)
    expect(heard).toContain(true)
    live.close()
    expect(live.state).toMatchObject({ connection: 'closed', stale: false })
  })
})

describe('what is fetched every so often', () => {
  test('is what the server has, is asked for once, and not at all by a page that nobody sees', async () => {
    const asked: (string | null)[] = []
    let held = [{ id: 1, n: 1 }]
    let answer: 'well' | 'broken' | 'refused' = 'well'
    vi.stubGlobal('fetch', async (_: string, { headers }: { headers: Record<string, string> }) => {
      asked.push(headers['If-None-Match'] ?? null)
      if (answer === 'broken') throw new TypeError('Failed to fetch')
      if (answer === 'refused') return new Response('', { status: 503 })
      const tag = JSON.stringify(held.map(row => row.n).join())
      if (headers['If-None-Match'] === tag) return new Response(null, { status: 304 })
      return new Response(JSON.stringify(held), { headers: { ETag: tag } })
    })
    const rows = table<any>([], { columns, key: 'id' })
    const live = feed(rows, { url: 'http://pier.example/rows.json', every: { seconds: 1 } })
    await vi.advanceTimersByTimeAsync(2500)
    expect(asked).toEqual([null, '"1"', '"1"'])
    expect(rows.rows()).toEqual(held)
    held = [...held, { id: 2, n: 7 }]
    await vi.advanceTimersByTimeAsync(1000)
    expect(rows.rows()).toEqual(held)
    for (const wrong of ['broken', 'refused'] as const) {
      answer = wrong
      await vi.advanceTimersByTimeAsync(5000)
      expect(live.state.connection).toBe('waiting')
      expect(live.state.problem).toMatch(wrong === 'broken' ? /Failed/ : /503/)
      expect(rows.rows()).toEqual(held)
    }
    answer = 'well'
    await vi.advanceTimersByTimeAsync(40_000)
    expect(live.state.connection).toBe('open')
    page.hidden = true
    await vi.advanceTimersByTimeAsync(2000)
    const before = asked.length
    await vi.advanceTimersByTimeAsync(60_000)
    expect(asked.length).toBe(before)
    page.hidden = false
    page.dispatchEvent(new Event('visibilitychange'))
    await vi.advanceTimersByTimeAsync(100)
    expect(asked.length).toBe(before + 1)
    live.close()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(asked.length).toBe(before + 1)
  })

  test('goes on asking for what it could not read, and reads what comes as it read the first', async () => {
    const asked: (string | null)[] = []
    let body = 'id,at,n\n1,2024-07-01 12:00,"1.000,5"\n'
    vi.stubGlobal('fetch', async (_: string, { headers }: { headers: Record<string, string> }) => {
      asked.push(headers['If-None-Match'] ?? null)
      const tag = JSON.stringify(body.length)
      if (headers['If-None-Match'] === tag) return new Response(null, { status: 304 })
      return new Response(body, { headers: { ETag: tag, 'Content-Type': 'text/csv' } })
    })
    const first = readCsv(body, {
      key: 'id',
      columns: { at: { timeZone: 'America/New_York' }, id: { type: 'text' } },
    })
    const noon = (first.row(0) as { at: Date }).at.getTime()
    expect(new Date(noon).toISOString()).toBe('2024-07-01T16:00:00.000Z')
    const live = feed(first, { url: 'http://pier.example/rows', every: { seconds: 1 } })
    await vi.advanceTimersByTimeAsync(1100)
    // The address has no ending: the answer itself says what it is.
    expect(first.rows()).toEqual([{ id: '1', at: new Date(noon), n: 1000.5 }])
    expect(asked).toEqual([null, '37'])
    body = 'id,at,n\n1,2024-07-01 12:00\n'
    await vi.advanceTimersByTimeAsync(2500)
    expect(live.state.problem).toContain('Line 2')
    expect(first.length).toBe(1)
    // Were the tag of the unreadable answer kept, "nothing new" would pass for health.
    expect(asked.at(-1)).toBeNull()
    body = 'id,at,n\n1,2024-07-01 13:00,2\n'
    await vi.advanceTimersByTimeAsync(1000)
    expect(live.state.problem).toBeUndefined()
    expect(first.rows()).toEqual([{ id: '1', at: new Date(noon + 3_600_000), n: 2 }])
    live.close()
  })

  test('does not wait for an answer that only drips, and tells of it', async () => {
    let calls = 0
    vi.stubGlobal('fetch', (_: string, { signal }: { signal: AbortSignal }) => {
      calls++
      return new Promise((_, reject) => {
        signal.addEventListener('abort', () => reject(new DOMException('Aborted', 'AbortError')))
      })
    })
    const live = feed(table<any>([], { columns }), { url: 'http://pier.example/rows.json' })
    await vi.advanceTimersByTimeAsync(31_000)
    expect(live.state).toMatchObject({ connection: 'waiting' })
    expect(live.state.problem).toContain('30 seconds')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(calls).toBeGreaterThan(1)
    live.close()
  })
})

describe('a message over a socket', () => {
  const say = (rows: object) => JSON.stringify(rows)

  test('counts once it is applied: one that was cut short comes again', async () => {
    const rows = table<any>([], { columns })
    const live = feed(rows, { url: '/feed', as: 'socket' })
    await vi.advanceTimersByTimeAsync(0)
    server.say(say({ id: 1, n: 1 }))
    // Cut short on its way, whole when it is asked for again.
    server.cut = 5
    server.say(say({ id: 2, n: 2 }))
    expect(live.state.problem).toContain('no JSON')
    server.cut = undefined
    await vi.advanceTimersByTimeAsync(2000)
    expect(rows.rows().map(row => row.n)).toEqual([1, 2])
    expect(live.state.problem).toBeUndefined()
    live.close()
  })

  test('is named beside its rows, in either order', async () => {
    for (const message of [
      { id: 1, rows: [{ id: 7, n: 1 }] },
      { rows: [{ id: 7, n: 1 }], id: 1 },
    ]) {
      server = new Server()
      const rows = table<any>([], { columns })
      const live = feed(rows, { url: '/feed', as: 'socket' })
      await vi.advanceTimersByTimeAsync(0)
      server.say(say(message))
      server.drop()
      await vi.advanceTimersByTimeAsync(2000)
      // Without a key, a message that came twice would be there twice.
      expect(rows.length).toBe(1)
      live.close()
    }
  })
})
