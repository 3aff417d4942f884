import type { Table } from 'dapplo'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { engine, sample, sampled } from './support/browser.ts'
import { everything } from './support/extent.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

interface BoardWindow {
  boardings: Table
  feed: { state: { connection: string; stale: boolean; received: number; problem?: string }; close(): void }
}
type Feed = Awaited<ReturnType<typeof startFeed>>
declare function startFeed(options?: {
  port?: number
  every?: number
  nonsense?: boolean
  log?: object[]
}): Promise<{
  port: number
  url: string
  log: { id: number }[]
  close(): Promise<void>
}>

let gallery: Gallery
let start: typeof startFeed
beforeAll(async () => {
  gallery = await openGallery()
  start = (await import('../demo-data/feed.mjs' as string)).startFeed
})
afterAll(() => gallery?.close())

const ids = (page: Awaited<ReturnType<Gallery['open']>>['page']) =>
  page.evaluate(() => {
    const { boardings } = window as unknown as BoardWindow
    return boardings.rows().map(row => Number((row as { id: number }).id))
  })
const feedState = (page: Awaited<ReturnType<Gallery['open']>>['page']) =>
  page.evaluate(() => (window as unknown as BoardWindow).feed.state)

describe.each(sample(['events', 'socket'], 0, 1))('a feed of %s', as => {
  test('fills the board, survives nonsense and a restart, and neither loses nor doubles a row', async () => {
    let feed: Feed = await start({ every: 60, nonsense: true })
    const { page, errors } = await gallery.open(`board.html?as=${as}&feed=${encodeURIComponent(feed.url)}`)
    await page.waitForFunction(() => (window as unknown as BoardWindow).feed.state.received > 220)
    // What a socket could not read is asked for once more, over another connection.
    await page.waitForFunction(() => (window as unknown as BoardWindow).feed.state.connection === 'open')
    // The server goes, and comes back with what happened meanwhile.
    const { port, log } = feed
    await feed.close()
    await page.waitForFunction(() => (window as unknown as BoardWindow).feed.state.stale)
    const notices = await page.locator('.dapplo-notice:visible').allTextContents()
    expect(notices).toHaveLength(2)
    expect(notices[0]).toMatch(/^(No updates since|Disconnected\. Last update)/)
    // Opaque, so that nothing of the picture shines through its words.
    const ground = await page
      .locator('.dapplo-notice:visible')
      .first()
      .evaluate(sign => getComputedStyle(sign).backgroundColor)
    expect(ground).toMatch(/^rgb\(/)
    feed = await start({ port, every: 60, log })
    await page.waitForFunction(
      from => ((window as unknown as BoardWindow).boardings.rows().at(-1) as { id: number }).id > from + 5,
      log.at(-1)!.id,
    )
    expect(await page.locator('.dapplo-notice:visible').count()).toBe(0)
    const all = (await ids(page)).sort((a, b) => a - b)
    expect(new Set(all).size).toBe(all.length)
    // From the first that is kept to the last, none is missing.
    expect(all.at(-1)! - all[0] + 1).toBe(all.length)
    await page.evaluate(() => (window as unknown as BoardWindow).feed.close())
    expect((await feedState(page)).connection).toBe('closed')
    expect(
      errors.filter(
        text => !/ERR_|Failed to load|WebSocket|EventSource|establish a connection|Same Origin/i.test(text),
      ),
    ).toEqual([])
    await page.context().close()
    await feed.close()
  })
})

test.skipIf(sampled)(
  'a page that nobody sees draws nothing, and shows the present when it is seen again',
  async () => {
    const { page, errors } = await gallery.open('', { reducedMotion: 'no-preference' })
    const seen = await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo
      const place = document.createElement('div')
      place.style.height = '300px'
      document.body.prepend(place)
      const rows = table(
        Array.from({ length: 50 }, (_, i) => ({ at: i, n: i % 7 })),
        { key: 'at' },
      )
      const live = mount(chart(rows, { draw: 'line', x: 'at', y: 'n' }), place)
      while (live.moving) await new Promise(requestAnimationFrame)
      // A browser gives pages that are hidden no frames.
      const frames = window.requestAnimationFrame
      const held: FrameRequestCallback[] = []
      window.requestAnimationFrame = act => held.push(act)
      Object.defineProperty(document, 'hidden', { value: true, configurable: true })
      Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true })
      document.dispatchEvent(new Event('visibilitychange'))
      let drawn = 0
      const pen = CanvasRenderingContext2D.prototype
      const { clearRect, stroke, setTransform } = pen
      Object.assign(pen, {
        clearRect: () => void drawn++,
        stroke: () => void drawn++,
        setTransform: () => void drawn++,
      })
      const before = live.scene
      for (let i = 0; i < 300; i++) {
        rows.put({ at: 50 + i, n: (i * 3) % 11 })
        if (i % 20 === 0) await new Promise(resolve => setTimeout(resolve, 5))
      }
      const hidden = { drawn, asked: held.length, same: live.scene === before }
      Object.assign(pen, { clearRect, stroke, setTransform })
      window.requestAnimationFrame = frames
      Reflect.deleteProperty(document, 'hidden')
      Reflect.deleteProperty(document, 'visibilityState')
      document.dispatchEvent(new Event('visibilitychange'))
      for (const act of held) requestAnimationFrame(act)
      do await new Promise(requestAnimationFrame)
      while (live.moving)
      return { hidden, description: live.scene.description }
    })
    expect(seen.hidden).toEqual({ drawn: 0, asked: 1, same: true })
    expect(seen.description).toContain('from 0 to 10')
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(engine !== 'chromium')('a page that slept is right when it wakes', async () => {
  const feed = await start({ every: 60 })
  const { page } = await gallery.open(`board.html?feed=${encodeURIComponent(feed.url)}`)
  await page.waitForFunction(() => (window as unknown as BoardWindow).feed.state.received > 215)
  const client = await page.context().newCDPSession(page)
  await client.send('Page.setWebLifecycleState', { state: 'frozen' })
  await new Promise(resolve => setTimeout(resolve, 1500))
  const next = feed.log.at(-1)!.id + 1
  await client.send('Page.setWebLifecycleState', { state: 'active' })
  await page.waitForFunction(
    from => ((window as unknown as BoardWindow).boardings.rows().at(-1) as { id: number }).id > from,
    next,
  )
  const all = await ids(page)
  expect(all.at(-1)! - all[0] + 1).toBe(all.length)
  await still(page)
  const shown = await page.evaluate(() => {
    const { boardings } = window as unknown as BoardWindow
    const bars = window.charts[0].scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
    const sums = new Map<string, number>()
    for (const row of boardings.rows() as { pier: string; boarded: number }[])
      sums.set(row.pier, (sums.get(row.pier) ?? 0) + row.boarded)
    const leader = [...sums].sort((a, b) => b[1] - a[1])[0]
    if (bars?.kind !== 'rects') return ['', 'no bars']
    const longest = Array.from(bars.width).indexOf(Math.max(...bars.width))
    return [leader[0], bars.keys[longest]]
  })
  // Bars are keyed by all that groups them, the pier first.
  expect(String(shown[1]).split('\u001f')[0]).toBe(shown[0])
  await page.context().close()
  await feed.close()
})

test.skipIf(sampled)(
  'a feed that is fetched takes only what is new, keeps so many rows, and tells of what it cannot read',
  async () => {
    const feed = await start({ every: 5000 })
    const { page } = await gallery.open('')
    const result = await page.evaluate(async url => {
      const { feed, table } = window.dapplo as unknown as {
        feed: typeof import('dapplo').feed
        table: typeof import('dapplo').table
      }
      const rows = table<{ id: number; at: string; pier: string; boarded: number }>([], {
        key: 'id',
        columns: {
          id: { type: 'number' },
          at: { type: 'time' },
          pier: { type: 'text' },
          boarded: { type: 'number' },
        },
      })
      const fetched: number[] = []
      const original = window.fetch
      window.fetch = async (...args) => {
        const response = await original(...args)
        fetched.push(response.status)
        return response
      }
      const live = feed(rows, { url: `${url}/boarding.json`, every: { seconds: 0.1 }, keep: 50 })
      const until = async (test: () => boolean) => {
        while (!test()) await new Promise(requestAnimationFrame)
      }
      await until(() => fetched.filter(status => status === 304).length > 2)
      const { length } = rows
      live.close()
      const bad = feed(rows, { url: 'data:application/json,{"half":', as: 'json', every: { seconds: 5 } })
      await until(() => bad.state.problem !== undefined)
      const { problem } = bad.state
      bad.close()
      return { fetched, length, problem, after: rows.length }
    }, feed.url)
    expect(result.fetched[0]).toBe(200)
    expect(result.length).toBe(50)
    expect(result.after).toBe(50)
    expect(result.problem).toContain('JSON')
    await page.context().close()
    await feed.close()
  },
)

test.skipIf(sampled)(
  'a chart whose values come later says so, shows them when they are here, and keeps its picture meanwhile',
  async () => {
    const { page, errors } = await gallery.open('')
    const seen = await page.evaluate(async () => {
      const { answeredBy, askColumns, chart, mount, table } =
        window.dapplo as unknown as typeof import('dapplo') & typeof import('@dapplo/core/internal')
      const rows = table([
        { pier: 'Harbour', boarded: 40 },
        { pier: 'Tern Point', boarded: 25 },
      ])
      let asked: (() => void)[] = []
      answeredBy(rows, (table, question) => {
        return new Promise(give => asked.push(() => give(askColumns(table, question))))
      })
      const place = document.body.appendChild(document.createElement('div'))
      place.style.height = '300px'
      const live = mount(chart(rows, { draw: 'bar', x: 'pier', y: 'sum of boarded' }), place)
      // It stands on the page once the running code has ended.
      await Promise.resolve()
      const outer = place.querySelector('.dapplo')!
      const look = () => ({
        bars: live.scene.batches.flatMap(batch =>
          batch.kind === 'rects' && batch.part === 'data' ? Array.from(batch.keys) : [],
        ),
        waits: outer.getAttribute('aria-busy') === 'true',
        told: document.getElementById(
          place.querySelector('[aria-describedby]')!.getAttribute('aria-describedby')!,
        )!.textContent!,
      })
      const until = async (test: () => boolean) => {
        while (!test()) await new Promise(requestAnimationFrame)
      }
      const answer = () => {
        for (const give of asked.splice(0)) give()
      }
      // What is heard is written once the page is idle.
      await until(() => look().told !== '')
      const first = look()
      answer()
      await until(() => look().bars.length === 2 && !live.moving && look().told !== first.told)
      const second = look()
      rows.append({ pier: 'Gull Isle', boarded: 70 })
      // What is asked anew is asked in a frame that draws.
      await until(() => asked.length > 0 && look().waits)
      const third = look()
      answer()
      await until(() => look().bars.length === 3 && !live.moving)
      const fourth = look()
      live.destroy()
      place.remove()
      asked = []
      return { first, second, third, fourth }
    })
    expect(seen.first).toMatchObject({ bars: [], waits: true })
    expect(seen.first.told).toContain('Values are loading.')
    expect(seen.second).toMatchObject({ bars: ['Harbour', 'Tern Point'], waits: false })
    expect(seen.second.told).toContain('from 25')
    expect(seen.third).toMatchObject({ bars: ['Harbour', 'Tern Point'], waits: true })
    expect(seen.fourth).toMatchObject({ bars: ['Harbour', 'Tern Point', 'Gull Isle'], waits: false })
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'a thousand changes a second end in the right picture, one drawing a frame',
  async () => {
    const { page, errors } = await gallery.open('stress.html', { reducedMotion: 'no-preference' })
    await page.fill('#rate', '3')
    const counted = await page.evaluate(async () => {
      const [live] = window.charts
      const canvas = live.element.querySelector('canvas')!
      let cleared = 0
      const context = canvas.getContext('2d')!
      const original = context.clearRect.bind(context)
      context.clearRect = (...box) => {
        cleared++
        original(...box)
      }
      let frames = 0
      const start = performance.now()
      while (performance.now() - start < 2000) {
        await new Promise(requestAnimationFrame)
        frames++
      }
      return { cleared, frames }
    })
    // Each frame clears once for its picture; nothing is drawn twice.
    expect(counted.cleared).toBeLessThanOrEqual(counted.frames + 2)
    await page.fill('#rate', '0')
    await still(page)
    const same = await page.evaluate(() => {
      const { gauges } = window as unknown as { gauges: Table }
      const [live] = window.charts
      const bars = live.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
      if (bars?.kind !== 'rects') return -1
      const y = live.scene.scales.get('y')!
      let wrong = 0
      for (let row = 0; row < gauges.length; row += 50) {
        const level = (gauges.row(row) as { level: number }).level
        if (Math.abs(bars.y[row] - y.map(level)) > 1 && !live.moving) wrong++
      }
      return wrong
    })
    expect(same).toBe(0)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(engine !== 'chromium')('ten thousand changes leave memory where it was', async () => {
  const { page } = await gallery.open('stress.html')
  const client = await page.context().newCDPSession(page)
  const used = async () => {
    await client.send('HeapProfiler.collectGarbage')
    return (await client.send('Runtime.getHeapUsage')).usedSize / 1e6
  }
  const change = (count: number) =>
    page.evaluate(async count => {
      const { gauges } = window as unknown as { gauges: Table }
      for (let i = 0; i < count; i++) {
        gauges.put({ gauge: i % 2000, level: 10 + (i % 90) })
        if (i % 100 === 0) await new Promise(requestAnimationFrame)
      }
    }, count)
  await change(1000)
  const before = await used()
  await change(10_000)
  expect((await used()) - before).toBeLessThan(6)
  await page.context().close()
})

test.skipIf(!everything)('updates are filmed by the page: whatever happens, until it rests', async () => {
  const { page, errors } = await gallery.open('period.html', { reducedMotion: 'no-preference' })
  const film = await page.evaluate(async () => {
    const [live] = window.charts
    const months = live.chart as unknown as { with(changes: object): typeof live.chart }
    const during = async () => {
      live.show(months.with({ x: 'month of departed', motion: { duration: 300 } }))
      await new Promise(resolve => setTimeout(resolve, 400))
      live.show(months.with({ draw: 'line' }))
    }
    const blob = await live.toWebm({ during })
    const failed = await live
      .toWebm({ during: () => Promise.reject(new Error('no more rows')) })
      .catch((error: Error) => error.message)
    const nothing = await live.toWebm().catch((error: Error) => error.message)
    return {
      size: blob.size,
      moving: live.moving,
      failed,
      nothing,
      drawn: live.scene.batches.map(b => b.kind),
    }
  })
  expect(film.size).toBeGreaterThan(4000)
  expect(film.moving).toBe(false)
  expect(film.drawn).toContain('lines')
  expect(film.failed).toBe('no more rows')
  expect(film.nothing).toMatch(/no periods to film/)
  expect(errors).toEqual([])
  await page.context().close()
})

describe('the race', () => {
  test.skipIf(sampled)('is recorded as a film by the page', async () => {
    const { page } = await gallery.open('race.html', {
      reducedMotion: 'no-preference',
      viewport: { width: 480, height: 420 },
    })
    const film = await page.evaluate(async () => {
      const [live] = window.charts
      const years = live.chart as unknown as { with(changes: object): typeof live.chart }
      live.show(years.with({ where: { year: ['2001', '2002'] }, scales: { through: { each: 400 } } }))
      await new Promise(resolve => setTimeout(resolve, 200))
      let share = 0
      const blob = await live.toWebm({ progress: now => (share = now) })
      const head = new Uint8Array(await blob.slice(0, 4).arrayBuffer())
      return { type: blob.type, size: blob.size, head: [...head], share }
    })
    expect(film.head).toEqual([0x1a, 0x45, 0xdf, 0xa3])
    expect(film.size).toBeGreaterThan(2000)
    expect(film.share).toBe(1)
    await page.context().close()
  })

  test('plays, pauses, steps, scrubs and repeats, by pointer and keys; its place is state', async () => {
    const { page, errors } = await gallery.open('race.html', { reducedMotion: 'no-preference' })
    const at = () => page.evaluate(() => window.charts[0].state.at ?? 0)
    const period = () =>
      page.evaluate(() => {
        const words = window.charts[0].scene.batches.find(batch => batch.id === 'stamp')
        return words?.kind === 'texts' ? words.texts[0] : ''
      })
    expect(await period()).toBe('2001')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await page.waitForFunction(() => (window.charts[0].state.at ?? 0) > 0.8)
    await page.getByRole('button', { name: 'Pause' }).press('Enter')
    const paused = await at()
    await page.waitForTimeout(300)
    expect(await at()).toBe(paused)
    await page.getByRole('button', { name: 'Next period' }).click()
    expect(await at()).toBe(Math.floor(paused) + 1)
    const slider = page.getByRole('slider', { name: 'Period' })
    await slider.press('ArrowLeft')
    expect(await at()).toBe(Math.floor(paused))
    await slider.fill('24')
    await still(page)
    expect(await period()).toBe('2025')
    await page.getByLabel('Repeat').check()
    await page.getByRole('combobox', { name: 'Speed' }).selectOption('4')
    await page.evaluate(() => {
      window.charts[0].state = { at: 23.9 }
      window.charts[0].play()
    })
    // Round again, from the beginning.
    await page.waitForFunction(() => (window.charts[0].state.at ?? 0) < 20)
    await page.evaluate(() => window.charts[0].pause())
    // Each period that is reached is told with its rows; who listens may keep it from coming.
    await page.evaluate(() => {
      const [live] = window.charts
      live.state = { at: 3 }
      const w = window as any
      w.told = []
      live.when('played', async happening => {
        if (w.prevents) happening.prevent()
        const rows = (await happening.rows()) as { year: string }[]
        w.told.push([happening.state.at, ...new Set(rows.map(({ year }) => String(year)))])
      })
    })
    await page.getByRole('button', { name: 'Next period' }).click()
    await page.waitForFunction(() => (window as any).told.length > 0)
    await page.evaluate(() => {
      ;(window as any).prevents = true
    })
    await page.getByRole('button', { name: 'Next period' }).click()
    await page.waitForFunction(() => (window as any).told.length > 1)
    expect(await page.evaluate(() => (window as any).told)).toEqual([
      [4, '2005'],
      [5, '2006'],
    ])
    expect(await at()).toBe(4)
    expect(errors).toEqual([])
    await page.context().close()
  })
})
