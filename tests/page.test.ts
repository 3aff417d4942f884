import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { engine, sampled } from './support/browser.ts'
import { type Gallery, openGallery as openGalleryPages } from './support/gallery.ts'
import { still } from './support/waiting.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-page-'))
let gallery: Gallery
let browser: Browser
let server: { url: string }

beforeAll(async () => {
  gallery = await openGalleryPages()
  browser = gallery.browser
  server = gallery
})
afterAll(async () => {
  await gallery?.close()
  rmSync(folder, { recursive: true })
})

/** The gallery with nothing moving any more; fails on any error of the page. */
async function openGallery(size = { width: 1280, height: 800 }): Promise<Page> {
  const page = await browser.newPage({ viewport: size })
  page.on('pageerror', error => {
    throw error
  })
  await page.goto(server.url)
  await page.waitForFunction(() => window.live && !window.live.moving)
  return page
}

const tooltip = async (page: Page) => ({
  shown: await page
    .locator('.dapplo-tooltip')
    .evaluate(card => getComputedStyle(card).visibility === 'visible'),
  heading: await page.locator('.dapplo-tooltip-heading').textContent(),
  names: await page.locator('.dapplo-tooltip-name').allTextContents(),
  values: await page.locator('.dapplo-tooltip-value').allTextContents(),
})
const placeOf = (page: Page, day: string) =>
  page.evaluate(iso => {
    const { left, top } = window.live.element.getBoundingClientRect()
    const { plots, scales } = window.live.scene
    return { x: left + scales.get('x')!.map(Date.parse(iso)), y: top + plots[0].y + plots[0].height / 2 }
  }, day)

describe('the tooltip', () => {
  test('finds the nearest day anywhere in the plot and lists every route at that day', async () => {
    const page = await openGallery()
    const at = await placeOf(page, '2025-07-15T14:00Z')
    await page.mouse.move(at.x, at.y)
    await page.waitForFunction(
      () => document.querySelector('.dapplo-tooltip-heading')?.textContent === 'Tue, Jul 15, 2025',
    )
    const read = await tooltip(page)
    expect(read.names).toEqual(['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows'])
    // The same day, summed by hand.
    const sums = await page.evaluate(() => {
      const all: Record<string, number> = {}
      for (const row of window.sailings.rows()) {
        if (row.departed?.toISOString().startsWith('2025-07-15'))
          all[row.route] = (all[row.route] ?? 0) + (row.passengers ?? 0)
      }
      return all
    })
    expect(read.values.map(text => Number(text.replace(',', '')))).toEqual(read.names.map(name => sums[name]))
    await page.close()
  })

  test.skipIf(sampled)('stands beside its point and on the screen, also at the edges', async () => {
    const page = await openGallery({ width: 700, height: 600 })
    for (const day of ['2023-01-02', '2024-06-15', '2025-12-31']) {
      const at = await placeOf(page, `${day}T12:00Z`)
      await page.mouse.move(at.x, at.y)
      await still(page)
      const card = await page.locator('.dapplo-tooltip').boundingBox()
      expect(card!.x).toBeGreaterThanOrEqual(0)
      expect(card!.x + card!.width).toBeLessThanOrEqual(700)
      expect(card!.x > at.x || card!.x + card!.width < at.x).toBe(true)
    }
    await page.mouse.move(1, 1)
    await page.waitForFunction(
      () => getComputedStyle(document.querySelector('.dapplo-tooltip')!).visibility === 'hidden',
    )
    await page.close()
  })
})

describe('change', () => {
  test('an appended week glides in, through pictures in between, to its place', async () => {
    // On a clock of the test's own, so that a slow machine shows the same pictures as a fast one.
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.clock.install({ time: 0 })
    await page.goto(server.url)
    await page.clock.pauseAt(60_000)
    await page.clock.runFor(2000)
    const read = () =>
      page.evaluate(() => {
        const x = window.live.scene.scales.get('x')!
        return { end: x.domain[1], place: x.map(Date.parse('2025-12-01T12:00Z')), moving: window.live.moving }
      })
    const before = await read()
    expect(before.moving).toBe(false)
    await page.evaluate(() => document.getElementById('append')!.click())
    const places: number[] = []
    for (let elapsed = 0; elapsed < 600; elapsed += 50) {
      await page.clock.runFor(50)
      places.push((await read()).place)
    }
    const after = await read()
    expect(after.moving).toBe(false)
    expect((after.end - before.end) / 86_400_000).toBeCloseTo(7, 5)
    const distinct = [...new Set(places.map(place => place.toFixed(3)))].map(Number)
    expect(distinct.length).toBeGreaterThanOrEqual(6)
    // The axis only ever moves one way: no jump, no overshoot.
    distinct.forEach((place, i) => {
      if (i > 0) expect(place).toBeLessThan(distinct[i - 1])
    })
    await page.close()
  })

  test.skipIf(sampled)('put and remove are drawn, and lines become bars', async () => {
    const page = await openGallery()
    const heights = await page.evaluate(async () => {
      const settled = async () => {
        await new Promise(requestAnimationFrame)
        await new Promise(requestAnimationFrame)
        while (window.live.moving) await new Promise(requestAnimationFrame)
      }
      const top = () => window.live.scene.scales.get('y')!.domain[1]
      const tops = [top()]
      window.sailings.put({ ...window.sailings.row(0), passengers: 5000 })
      await settled()
      tops.push(top())
      window.sailings.remove(1)
      await settled()
      tops.push(top())
      return tops
    })
    expect(heights[1]).toBeGreaterThan(5000)
    expect(heights[2]).toBe(heights[0])
    await page.click('#kind')
    await page.waitForFunction(
      () => !window.live.moving && window.live.scene.batches.some(batch => batch.id === 'drawing 0/bar'),
    )
    // What is heard is written once the page is idle.
    const told = 'Bar chart of passengers per month by route.'
    await page.locator('.dapplo [id^=dapplo-summary]', { hasText: told }).waitFor({ state: 'attached' })
    await page.close()
  })

  test.skipIf(sampled)('what is pointed at on the way is what is shown', async () => {
    const page = await openGallery()
    const { x, y } = await page.evaluate(async () => {
      const settled = async () => {
        await new Promise(requestAnimationFrame)
        await new Promise(requestAnimationFrame)
        while (window.live.moving) await new Promise(requestAnimationFrame)
      }
      const { live } = window
      const bars = { draw: 'bar', y: 'route', x: 'max of passengers', color: null }
      const motion = { duration: 2000, easing: 'linear' }
      live.show((live.chart as any).with({ ...bars, motion, scales: { x: { domain: [0, 5000] } } }))
      await settled()
      const rects = live.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data') as any
      const { left, top } = live.element.getBoundingClientRect()
      return { x: left + rects.x[0] + 4, y: top + rects.y[0] + rects.height[0] / 2 }
    })
    await page.mouse.move(x, y)
    const value = async () => Number((await tooltip(page)).values[0].replace(',', ''))
    await page.waitForFunction(() => document.querySelector('.dapplo-tooltip-value') !== null)
    const before = await value()
    // Put and looked at in one go, so that nothing can have passed in between.
    const seen = await page.evaluate(async before => {
      const list: number[] = []
      const shown: number[] = []
      window.sailings.put({ ...window.sailings.row(0), passengers: 4900 })
      while (!window.live.moving) await new Promise(requestAnimationFrame)
      while (window.live.moving) {
        await new Promise(requestAnimationFrame)
        const said = Number(document.querySelector('.dapplo-tooltip-value')?.textContent?.replace(',', ''))
        const { scene } = window.live
        const rects = scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data') as any
        shown.push(scene.scales.get('x')!.invert(rects.x[0] + rects.width[0]))
        // A reading may be a frame older than the picture.
        const nearest = Math.min(...shown.slice(-3).map(value => Math.abs(value - said)))
        if (said > before * 1.2 && said < 4400) list.push(nearest)
      }
      return list
    }, before)
    expect(seen.length).toBeGreaterThan(3)
    for (const off of seen) expect(off).toBeLessThan(10)
    await page.waitForFunction(() => document.querySelector('.dapplo-tooltip-value')?.textContent === '4,900')
    await page.close()
  })

  test.skipIf(sampled)('is instant for people who prefer reduced motion', async () => {
    const page = await browser.newPage({ reducedMotion: 'reduce' })
    await page.goto(server.url)
    await page.waitForFunction(() => window.live)
    expect(await page.evaluate(() => window.live.moving)).toBe(false)
    await page.close()
  })
})

test.skipIf(sampled)(
  'news that keep coming are caught up with, however long a glide is meant to take',
  async () => {
    const page = await openGallery()
    const lags = await page.evaluate(async () => {
      const { live, sailings } = window
      const shown = () => {
        const rects = live.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data') as any
        return live.scene.scales.get('x')!.invert(rects.x[0] + rects.width[0])
      }
      const bars = { draw: 'bar', y: 'route', x: 'max of passengers', color: null, motion: { duration: 1 } }
      live.show((live.chart as any).with({ ...bars, scales: { x: { domain: [0, 20_000] } } }))
      while (live.scene.batches.every(batch => batch.kind !== 'rects') || live.moving)
        await new Promise(requestAnimationFrame)
      // Only what follows is to glide slowly.
      live.show((live.chart as any).with({ motion: { duration: 8000 } }))
      const lags: number[] = []
      for (let passengers = 2000; passengers <= 12_000; passengers += 1000) {
        sailings.put({ ...sailings.row(0), passengers })
        const begin = performance.now()
        while (performance.now() - begin < 250) await new Promise(requestAnimationFrame)
        lags.push(passengers - shown())
      }
      return lags
    })
    // By itself each glide would take thirty times as long as news take to come, and fall behind by all that has come.
    for (const [i, lag] of lags.entries()) if (i >= 4) expect(lag).toBeLessThan((i + 1) * 500)
    await page.close()
  },
)

test.skipIf(sampled)('a picture that cannot be loaded is told', async () => {
  const page = await openGallery()
  await page.evaluate(() => {
    const images = { 'Tern Point': 'none.png' }
    window.live.show(
      (window.live.chart as any).with({ draw: 'bar', x: 'route', color: null, axes: { x: { images } } }),
    )
  })
  await page.waitForFunction(() => window.live.findings.some(({ code }) => code === 'no-picture'))
  await page.close()
})

describe('the frame', () => {
  test.skipIf(sampled)(
    'tells of a font that is not there, and of none that the page declares or that stands for any',
    async () => {
      const page = await browser.newPage()
      await page.goto(server.url)
      await page.waitForFunction(() => window.live)
      const found = (font: string) =>
        page.evaluate(font => {
          window.live.reframe({ house: { font } })
          return window.live.findings.map(({ code }) => code).filter(code => code === 'missing-font')
        }, font)
      expect(await found('Nowhere Sans')).toEqual(['missing-font'])
      expect(await found('monospace')).toEqual([])
      await page.evaluate(() => document.fonts.add(new FontFace('Nowhere Sans', 'url(none.woff2)')))
      expect(await found('"Nowhere Sans", serif')).toEqual([])
      await page.close()
    },
  )

  test.skipIf(sampled)('follows the size of its container, sharp at its density', async () => {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 2 })
    await page.goto(server.url)
    await page.waitForFunction(() => window.live && !window.live.moving)
    const measure = () =>
      page.evaluate(() => {
        const canvas = document.querySelector('canvas')!
        return {
          scene: window.live.scene.width,
          panel: window.live.element.clientWidth,
          pixels: canvas.width,
        }
      })
    const wide = await measure()
    expect(wide.scene).toBe(wide.panel)
    expect(wide.pixels).toBe(wide.panel * 2)
    await page.setViewportSize({ width: 420, height: 800 })
    await page.waitForFunction(() => window.live.scene.width < 420)
    const narrow = await measure()
    expect(narrow.scene).toBe(narrow.panel)
    expect(narrow.pixels).toBe(narrow.panel * 2)
    await page.close()
  })

  test.skipIf(engine !== 'chromium')(
    'follows another density, again and again, though its size stays',
    async () => {
      const page = await browser.newPage({ viewport: { width: 900, height: 700 } })
      await page.goto(server.url)
      await page.waitForFunction(() => window.live && !window.live.moving)
      const session = await page.context().newCDPSession(page)
      for (const density of [2, 1.25, 3]) {
        await session.send('Emulation.setDeviceMetricsOverride', {
          width: 900,
          height: 700,
          deviceScaleFactor: density,
          mobile: false,
        })
        // An emulated screen sends no event of its own.
        await page.mouse.move(300 + density, 300)
        await page.waitForFunction(
          density =>
            document.querySelector('canvas')!.width === Math.round(window.live.scene.width * density),
          density,
        )
      }
      await page.close()
    },
  )

  test.skipIf(sampled)('destroy leaves nothing behind', async () => {
    const page = await openGallery()
    await page.mouse.move(600, 400)
    await page.locator('.dapplo-tooltip').waitFor({ state: 'visible' })
    const before = await page.evaluate(() => ({
      panel: window.live.element.childNodes.length,
      cards: document.querySelectorAll('.dapplo-tooltip').length,
    }))
    expect(before).toEqual({ panel: 1, cards: 1 })
    const after = await page.evaluate(async () => {
      window.live.destroy()
      window.live.destroy()
      window.sailings.append({ id: 5_000_000, departed: new Date(), route: 'Tern Point', passengers: 1 })
      window.dispatchEvent(new Event('resize'))
      await new Promise(requestAnimationFrame)
      return {
        panel: window.live.element.childNodes.length,
        cards: document.querySelectorAll('.dapplo-tooltip, .dapplo').length,
      }
    })
    expect(after).toEqual({ panel: 0, cards: 0 })
    await page.close()
  })
})

describe('the page of axes', () => {
  test.skipIf(sampled)(
    'shows every example without an error, and reads the pane that is pointed at',
    async () => {
      const page = await browser.newPage({ viewport: { width: 1240, height: 1000 }, reducedMotion: 'reduce' })
      const errors: string[] = []
      page.on('pageerror', error => errors.push(error.message))
      await page.goto(`${server.url}/axes.html`)
      await page.waitForFunction(() => document.querySelectorAll('#axes .dapplo').length === 23)
      const panes = page.locator('#axes > div').last()
      await panes.scrollIntoViewIfNeeded()
      const box = (await panes.boundingBox())!
      const read = async (part: number) => {
        await page.mouse.move(box.x + box.width / 2, box.y + box.height * part)
        await still(page)
        return page
          .locator('.dapplo-tooltip:visible')
          .evaluateAll(cards =>
            cards
              .filter(card => getComputedStyle(card).visibility === 'visible')
              .map(card => card.textContent),
          )
      }
      expect((await read(0.3))[0]).toContain('North Sound')
      expect((await read(0.8))[0]).toContain('Highest wind knots')
      expect(errors).toEqual([])
      await page.close()
    },
  )
})

test.skipIf(sampled)(
  'an embedded page shows its picture without scripts and its tooltip with them, and asks the network for nothing',
  async () => {
    const out = join(folder, 'embedded.html')
    execFileSync(process.execPath, [
      join(root, 'packages/cli/dist/dapplo.js'),
      'embed',
      join(root, 'demo-data/passengers.chart.json'),
      '--out',
      out,
    ])
    // Firefox's driver cannot do without scripts.
    if (engine === 'chromium') {
      const mute = await browser.newContext({ javaScriptEnabled: false })
      const dead = await mute.newPage()
      await dead.goto(pathToFileURL(out).href)
      expect(await dead.locator('figure svg text', { hasText: 'North Sound' }).count()).toBe(1)
      await mute.close()
    }

    const page = await browser.newPage()
    const asked: string[] = []
    const complaints: string[] = []
    page.on('request', request => asked.push(request.url()))
    page.on('console', message => complaints.push(message.text()))
    page.on('pageerror', error => complaints.push(error.message))
    await page.goto(pathToFileURL(out).href)
    await page.waitForSelector('.dapplo canvas', { state: 'attached' })
    expect(await page.locator('figure > svg').count()).toBe(0)
    await still(page)
    await page.mouse.move(500, 300)
    await page.waitForFunction(() => document.querySelectorAll('.dapplo-tooltip-name').length >= 4)
    expect(asked.filter(url => !url.startsWith('file:') && !url.startsWith('data:'))).toEqual([])
    expect(complaints).toEqual([])
    await page.close()
  },
)

test.skipIf(sampled)(
  'of many charts those near the window are painted first, the others when they come near or the page has time',
  async () => {
    const { page, errors } = await gallery.open('')
    await page.evaluate(() => {
      const { chart, mount, table } = window.dapplo
      // The page has no time at first.
      const given: IdleRequestCallback[] = []
      Object.assign(window, { given, requestIdleCallback: (act: IdleRequestCallback) => given.push(act) })
      document.body.innerHTML = ''
      const rows = table({ day: [1, 2, 3], passengers: [4, 9, 6] })
      window.charts = Array.from({ length: 30 }, () => {
        const place = document.createElement('div')
        place.style.height = '300px'
        document.body.append(place)
        return mount(chart(rows, { draw: 'line', x: 'day', y: 'passengers', motion: false }), place)
      })
    })
    await still(page)
    const painted = () =>
      page.evaluate(() =>
        window.charts.map(({ element }) => {
          const canvas = element.querySelector('canvas')!
          const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
          return data.some(value => value !== 0)
        }),
      )
    const first = await painted()
    expect(first.slice(0, 3)).toEqual([true, true, true])
    expect(first.slice(10)).toEqual(new Array(20).fill(false))
    // All can be read at once, painted or not.
    expect(await page.evaluate(() => window.charts.every(({ scene }) => scene.width > 100))).toBe(true)
    await page.evaluate(() => window.charts[20].element.scrollIntoView())
    await page.waitForFunction(() => window.charts[20].element.querySelector('canvas')!.width > 300)
    expect((await painted())[29]).toBe(false)
    await page.evaluate(() => {
      const { given } = window as unknown as { given: IdleRequestCallback[] }
      for (let act = given.shift(); act; act = given.shift())
        act({ didTimeout: false, timeRemaining: () => 0 } as IdleDeadline)
    })
    expect(await painted()).toEqual(new Array(30).fill(true))
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'charts side by side take the room of their containers, also where it changes for all at once',
  async () => {
    const { page, errors } = await gallery.open('')
    await page.evaluate(() => {
      const { chart, mount, table } = window.dapplo
      document.body.innerHTML =
        '<div id="grid" style="display:grid;grid-template-columns:1fr 1fr;width:800px"></div>'
      const rows = table({ day: [1, 2, 3], passengers: [4, 9, 6] })
      window.charts = Array.from({ length: 6 }, (_, i) => {
        const place = document.createElement('div')
        // Every other one has no height of its own.
        if (i % 2 === 0) place.style.height = '200px'
        document.getElementById('grid')!.append(place)
        return mount(chart(rows, { draw: 'line', x: 'day', y: 'passengers', motion: false }), place)
      })
    })
    await still(page)
    const sizes = () => page.evaluate(() => window.charts.map(({ scene }) => [scene.width, scene.height]))
    const before = await sizes()
    expect(before.every(([width]) => width === 400)).toBe(true)
    expect(before[0][1]).toBe(200)
    await page.evaluate(() => {
      document.getElementById('grid')!.style.width = '1000px'
    })
    await page.waitForFunction(() => window.charts.every(({ scene }) => scene.width === 500))
    await still(page)
    const after = await sizes()
    expect(after[0][1]).toBe(200)
    await page.evaluate(() => {
      document.getElementById('grid')!.style.width = '800px'
    })
    await page.waitForFunction(() => window.charts.every(({ scene }) => scene.width === 400))
    await still(page)
    expect(await sizes()).toEqual(before)
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'lines of thousands in two charts each show their own, on the way and at rest',
  async () => {
    const { page, errors } = await gallery.open('', { reducedMotion: 'no-preference' })
    const shares = await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo
      document.body.innerHTML = ''
      const inks = ['#c01010', '#1010c0']
      const rows = (from: number) =>
        Array.from({ length: 4000 }, (_, at) => ({ at, wind: from + ((at * 37) % 101) }))
      const tables = inks.map(() => table(rows(0)))
      const charts = inks.map((color, i) => {
        const place = document.body.appendChild(document.createElement('div'))
        place.style.cssText = 'width:500px;height:300px'
        return mount(chart(tables[i], { draw: 'line', x: 'at', y: 'wind', style: { color } }), place)
      })
      /** How many pixels are of the ink of the first chart, and of the second. */
      const seen = () =>
        charts.map(({ element }) => {
          const canvas = element.querySelector('canvas')!
          const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
          let [red, blue] = [0, 0]
          for (let i = 0; i < data.length; i += 4) {
            if (data[i] > data[i + 2] + 80) red++
            else if (data[i + 2] > data[i] + 80) blue++
          }
          return [red, blue]
        })
      const frame = () => new Promise(requestAnimationFrame)
      while (charts.some(({ moving }) => moving)) await frame()
      const rest = seen()
      for (const one of tables) one.replace(rows(40))
      while (!charts.every(({ moving }) => moving)) await frame()
      for (let i = 0; i < 4; i++) await frame()
      return { rest, way: seen() }
    })
    for (const [first, second] of [shares.rest, shares.way]) {
      expect(first[0]).toBeGreaterThan(2000)
      expect(first[1]).toBe(0)
      expect(second[1]).toBeGreaterThan(2000)
      expect(second[0]).toBe(0)
    }
    expect(errors).toEqual([])
    await page.context().close()
  },
)
