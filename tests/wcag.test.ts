import { type Canvas, createCanvas, loadImage } from '@napi-rs/canvas'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { flawsOf } from './support/axe.ts'
import { engine, sample, sampled } from './support/browser.ts'
import { cards, shapeAt } from './support/charts.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

const PAGES = [
  '',
  'kinds.html?kind=bar',
  'kinds.html?kind=pie&theme=night',
  'together.html',
  'earnings.html',
  'detail.html',
  'period.html',
  'axes.html',
  'race.html',
  'stress.html',
]
test.each(sample(PAGES, 0, 2, 3, 6, 7))('axe finds nothing in /%s that WCAG 2.2 AA forbids', async path => {
  const { page, errors } = await gallery.open(path)
  expect(await flawsOf(page)).toEqual([])
  expect(errors).toEqual([])
  await page.context().close()
})

describe('a page that is enlarged', () => {
  const enlarged: [zoom: number, path: string][] = [
    [200, ''],
    [400, ''],
    [400, 'together.html'],
    [400, 'earnings.html'],
    [400, 'detail.html'],
    [400, 'kinds.html?kind=heatmap&width=wide'],
    [400, 'compose.html'],
  ]
  test.each(sample(enlarged, 3, 0, 6))(
    'to %i per cent scrolls in one direction only in /%s, and charts keep to their room',
    async (zoom, path) => {
      // What a window of 1280 by 1024 pixels has room for then.
      const [width, height] = [(1280 * 100) / zoom, (1024 * 100) / zoom]
      const { page, errors } = await gallery.open(path, { viewport: { width, height } })
      const seen = await page.evaluate(() => ({
        scrolls: document.documentElement.scrollWidth,
        plots: [window.charts ?? []]
          .flat()
          .flatMap(one => one.scene?.plots ?? [])
          .map(plot => plot.width),
        beyond: [...document.querySelectorAll('.dapplo button, .dapplo select, .dapplo input')].filter(
          element => element.getBoundingClientRect().right > innerWidth + 1,
        ).length,
      }))
      expect(seen.scrolls).toBeLessThanOrEqual(width)
      expect(Math.min(...seen.plots, 400)).toBeGreaterThan(90)
      expect(seen.beyond).toBe(0)
      expect(errors).toEqual([])
      await page.context().close()
    },
  )
})

test.skipIf(sampled)(
  'wider letters, words and lines cut nothing off in cards, menus and tables',
  async () => {
    const { page } = await gallery.open('detail.html')
    await page.addStyleTag({
      content:
        '* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important }',
    })
    const cut = (selector: string) =>
      page.locator(selector).evaluateAll(all =>
        all.flatMap(one =>
          [one, ...one.querySelectorAll('*')]
            .filter(({ scrollWidth, clientWidth, scrollHeight, clientHeight }) => {
              const wide = clientWidth > 1 && scrollWidth > clientWidth + 1
              return wide || (clientHeight > 1 && scrollHeight > clientHeight + 1)
            })
            // What scrolls can be read.
            .filter(element => !['auto', 'scroll'].includes(getComputedStyle(element).overflowY))
            .map(element => element.outerHTML.slice(0, 120)),
        ),
      )
    const bar = await shapeAt(page, 'rects', 1)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    expect(await cards(page)).toHaveLength(1)
    expect(await cut('.dapplo-tooltip')).toEqual([])
    const keys = page.locator('.dapplo-keys').first()
    await keys.focus()
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await page.getByRole('dialog').waitFor()
    expect(await page.getByRole('dialog').getByRole('row').count()).toBeGreaterThan(2)
    expect(await cut('dialog')).toEqual([])
    await page.context().close()
  },
)

/** What stands in a part of the window. */
async function picture(page: Page, clip: { x: number; y: number; width: number; height: number }) {
  const image = await loadImage(await page.screenshot({ clip }))
  const canvas: Canvas = createCanvas(image.width, image.height)
  canvas.getContext('2d').drawImage(image, 0, 0)
  return canvas.getContext('2d').getImageData(0, 0, image.width, image.height).data
}

/** The luminance of a colour, as WCAG defines it. */
const luminance = ([r, g, b]: readonly number[]) => {
  const [red, green, blue] = [r, g, b].map(part => {
    const share = part / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}

/** How many picture elements have changed by a contrast of 3 to 1 or more. */
function changed(before: Uint8ClampedArray, after: Uint8ClampedArray): number {
  let count = 0
  for (let i = 0; i < before.length; i += 4) {
    const [one, other] = [before, after].map(all => luminance([all[i], all[i + 1], all[i + 2]]) + 0.05)
    if (Math.max(one, other) / Math.min(one, other) >= 3) count++
  }
  return count
}

describe.each([
  ['day', [3]],
  ['night', [1]],
] as const)('by %s', (theme, places) => {
  test
    .skipIf(sampled && theme === 'day')
    .each(sample(['', 'detail.html', 'earnings.html', 'compose.html'], ...places))(
    'whatever the Tab key leads to in /%s is seen to have the focus',
    async path => {
      const { page } = await gallery.open(path, { colorScheme: theme === 'night' ? 'dark' : 'light' })
      const dark = () => matchMedia('(prefers-color-scheme: dark)').matches
      expect(await page.evaluate(dark)).toBe(theme === 'night')
      const unseen: string[] = []
      const met = new Set<string>()
      for (let step = 0; step < 24; step++) {
        await page.keyboard.press('Tab')
        const focused = await page.evaluate(() => {
          let element = document.activeElement
          while (element?.shadowRoot?.activeElement) element = element.shadowRoot.activeElement
          if (!element || element === document.body) return undefined
          Object.assign(window, { focused: element })
          const { left, top, width, height } = element.getBoundingClientRect()
          const sort = `${element.localName} ${element.className}`
          return { sort, what: element.outerHTML.slice(0, 160), left, top, width, height }
        })
        if (!focused) break
        // One of each sort: entries of a legend have their ring from the same rule.
        if (met.has(focused.sort)) continue
        met.add(focused.sort)
        const x = Math.max(0, focused.left - 6)
        const y = Math.max(0, focused.top - 6)
        const clip = {
          x,
          y,
          width: Math.min(1280 - x, focused.width + 12),
          height: Math.min(900 - y, focused.height + 12),
        }
        await still(page)
        const on = await picture(page, clip)
        await page.evaluate(() => (window as unknown as { focused: HTMLElement }).focused.blur())
        await still(page)
        const off = await picture(page, clip)
        await page.evaluate(() =>
          (window as unknown as { focused: HTMLElement }).focused.focus({ preventScroll: true }),
        )
        // WCAG 2.2, 2.4.13: as much as a line of one pixel around it, at the least.
        if (changed(off, on) < clip.width + clip.height) unseen.push(focused.what)
      }
      expect(met.size).toBeGreaterThan(1)
      expect(unseen).toEqual([])
      await page.context().close()
    },
  )
})

test.skipIf(sampled)(
  'what lies over a picture is opaque, so that nothing shines through its words',
  async () => {
    const { page } = await gallery.open('detail.html')
    const bar = await shapeAt(page, 'rects', 1)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    const grounds = await page
      .locator('.dapplo-tooltip')
      .evaluateAll(all => all.map(element => getComputedStyle(element).backgroundColor))
    expect(grounds.length).toBeGreaterThan(0)
    for (const ground of grounds) expect(ground).toMatch(/^rgb\(/)
    await page.context().close()
  },
)

describe('while rows come', () => {
  /** Feeds a chart twenty times and tells how often each live region was written to. */
  const feed = (page: Page) =>
    page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo
      const place = document.createElement('div')
      place.style.height = '300px'
      document.body.prepend(place)
      const rows = table(
        Array.from({ length: 30 }, (_, i) => ({ id: i, at: i, delay: (i * 7) % 13 })),
        {
          key: 'id',
        },
      )
      mount(chart(rows, { draw: 'line', x: 'at', y: 'delay' }), place)
      await new Promise(requestAnimationFrame)
      const said: string[] = []
      const watching = new MutationObserver(changes => {
        for (const { target } of changes) said.push(target.textContent ?? '')
      })
      const regions = document.querySelectorAll('[role=status], [role=alert], [role=log], [aria-live]')
      for (const region of regions)
        watching.observe(region, { childList: true, characterData: true, subtree: true })
      Object.assign(window, {
        said,
        feeding: async () => {
          for (let i = 30; i < 50; i++) {
            rows.append({ id: i, at: i, delay: (i * 5) % 11 })
            await new Promise(requestAnimationFrame)
            await new Promise(requestAnimationFrame)
          }
        },
      })
      return regions.length
    })
  const run = (page: Page) =>
    page.evaluate(async () => {
      const { said, feeding } = window as unknown as { said: string[]; feeding: () => Promise<void> }
      said.length = 0
      await feeding()
      return said
    })

  test.skipIf(sampled)('nothing is said of its own accord', async () => {
    const { page } = await gallery.open('')
    expect(await feed(page)).toBeGreaterThan(1)
    expect(await run(page)).toEqual([])
    await page.context().close()
  })

  test('who reads a value by keys is not talked over', async () => {
    const { page } = await gallery.open('')
    await feed(page)
    await page.locator('.dapplo-keys').first().focus()
    await page.keyboard.press('ArrowRight')
    await still(page)
    const said = await page.evaluate(() => (window as unknown as { said: string[] }).said)
    expect(said.length).toBeGreaterThan(0)
    expect(await run(page)).toEqual([])
    await page.context().close()
  })
})

test.skipIf(engine !== 'chromium')(
  'more contrast, less motion, less transparency: nothing is lost',
  async () => {
    const { page, errors } = await gallery.open('detail.html', { contrast: 'more' })
    const client = await page.context().newCDPSession(page)
    await client.send('Emulation.setEmulatedMedia', {
      features: [
        { name: 'prefers-reduced-transparency', value: 'reduce' },
        { name: 'prefers-reduced-motion', value: 'reduce' },
      ],
    })
    const bar = await shapeAt(page, 'rects', 1)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    expect((await cards(page))[0]).toContain('Gannet Bay')
    expect(errors).toEqual([])
    await page.context().close()
  },
)
