import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { engine, sample, sampled } from './support/browser.ts'
import { at, cards, shapeAt, state } from './support/charts.ts'
import { type Finger, fingersOn } from './support/fingers.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

/** The driver of Firefox makes events as fingers do, but none that its pages scroll by. */
const scrolls = engine === 'chromium'

const phone = async (path: string) => {
  const { page, errors } = await gallery.open(path, {
    hasTouch: true,
    viewport: { width: 400, height: 700 },
  })
  // Longer than any window, so that there is always something to scroll.
  await page.evaluate(() => {
    document.body.style.paddingBottom = '1500px'
  })
  await page.locator('.dapplo').first().scrollIntoViewIfNeeded()
  await still(page)
  return { page, errors, fingers: await fingersOn(page) }
}
const path = (from: Finger, to: Finger): Finger[] =>
  [0.1, 0.3, 0.5, 0.7, 0.9, 1].map(share => ({
    x: from.x + (to.x - from.x) * share,
    y: from.y + (to.y - from.y) * share,
  }))
const scrolled = (page: Page) => page.evaluate(() => window.scrollY)
const selected = async (page: Page) => (await state(page)).selected?.length ?? 0

test('a finger reads values: by a tap, and by drawing it over the plot', async () => {
  const { page } = await gallery.open('detail.html', { hasTouch: true })
  const fingers = await fingersOn(page)
  const [top, bottom] = [await shapeAt(page, 'rects', 0), await shapeAt(page, 'rects', 2)]
  await fingers.down(top)
  await still(page)
  expect((await cards(page))[0]).toContain('North Sound')
  await fingers.move({ x: top.x + 20, y: top.y + 1 })
  await fingers.up()
  await still(page)
  // The card stays after the finger has gone, to be read.
  expect((await cards(page))[0]).toContain('North Sound')
  await fingers.down(bottom)
  await fingers.up()
  await still(page)
  expect((await cards(page))[0]).toContain('Tern Point')
  // A finger elsewhere on the page puts it away.
  const { x, y } = await page.evaluate(() => {
    const box = document.querySelector('h1')!.getBoundingClientRect()
    return { x: box.left + 2, y: box.top + 2 }
  })
  await fingers.down({ x, y })
  await fingers.up()
  await still(page)
  expect(await cards(page)).toEqual([])
  await page.context().close()
})

const PAGES = ['together.html', 'earnings.html', 'detail.html', 'period.html']
test.skipIf(!scrolls).each(sample(PAGES, 0, 2))(
  'a finger that is drawn up over /%s scrolls the page, and does nothing else',
  async name => {
    const { page, errors, fingers } = await phone(name)
    const [from, to] = [await at(page, 0.5, 0.9), await at(page, 0.52, 0)]
    const before = { state: await state(page), scrolled: await scrolled(page) }
    await fingers.down(from)
    for (const place of path(from, { ...to, y: from.y - 150 })) await fingers.move(place)
    await fingers.up()
    await page.waitForFunction(y => window.scrollY > y + 80, before.scrolled)
    await still(page)
    expect(await state(page)).toEqual(before.state)
    expect(await cards(page)).toEqual([])
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test('two fingers zoom and move a chart, and the page stays where it is', async () => {
  const { page, fingers } = await phone('together.html')
  const middle = await at(page, 0.5, 0.5)
  const pair = (apart: number, x = 0, y = 0) => [
    { x: middle.x - apart + x, y: middle.y + y, id: 1 },
    { x: middle.x + apart + x, y: middle.y + y, id: 2 },
  ]
  const before = await scrolled(page)
  const domain = async () => (await state(page)).zoom!.x.map(ms => ms / 86_400_000)
  await fingers.down(...pair(30))
  for (const apart of [45, 60, 75, 90]) await fingers.move(...pair(apart, 0, 75 - apart))
  await fingers.up()
  await still(page)
  const near = await domain()
  expect(near[1] - near[0]).toBeLessThan(120)
  await fingers.down(...pair(60))
  for (const right of [10, 20, 30, 40]) await fingers.move(...pair(60, right))
  await fingers.up()
  await still(page)
  const moved = await domain()
  expect(moved[0]).toBeLessThan(near[0] - 1)
  expect(moved[1] - moved[0]).toBeCloseTo(near[1] - near[0], 0)
  expect(await scrolled(page)).toBe(before)
  await page.context().close()
})

describe('a finger that rests', () => {
  /** Waits until a finger has rested: the mark under it is drawn. */
  const rested = (page: Page) =>
    page.waitForFunction(() => document.querySelector('.dapplo polygon')?.getAttribute('points'))

  test('draws a box in any direction, and the page stays where it is', async () => {
    const { page, errors, fingers } = await phone('earnings.html')
    const [from, to] = [await at(page, 0.45, 0.95), await at(page, 0.9, 0.05)]
    const before = await scrolled(page)
    await fingers.down(from)
    await rested(page)
    for (const place of path(from, { x: from.x + 4, y: to.y })) await fingers.move(place)
    for (const place of path({ x: from.x + 4, y: to.y }, to)) await fingers.move(place)
    await fingers.up()
    await still(page)
    expect(await selected(page)).toBeGreaterThan(20)
    expect(await scrolled(page)).toBe(before)
    expect(errors).toEqual([])
    await page.context().close()
  })

  test.skipIf(sampled)(
    'looks without a click, and keeps the card so that its words can be copied',
    async () => {
      const { page, fingers } = await phone('detail.html')
      const [top, bottom] = [await shapeAt(page, 'rects', 0), await shapeAt(page, 'rects', 2)]
      const clicks = () => page.evaluate(() => (window as unknown as { clicks: number }).clicks)
      await page.evaluate(() => {
        const counted = window as unknown as { clicks: number }
        counted.clicks = 0
        window.charts[0].when('clicked', () => counted.clicks++)
      })
      await fingers.down(top)
      // Nothing is to be seen while it rests here, where a drag selects nothing: by the page's own clock, which runs out later.
      await page.evaluate(() => new Promise(resolve => setTimeout(resolve, 700)))
      await fingers.up()
      await still(page)
      const card = page.locator('.dapplo-tooltip').first()
      expect(await card.evaluate(element => element.style.userSelect)).toBe('text')
      expect(await card.textContent()).toContain('North Sound')
      expect(await clicks()).toBe(0)
      await fingers.down(bottom)
      await fingers.up()
      await still(page)
      expect(await card.evaluate(element => element.style.userSelect)).toBe('none')
      expect(await card.textContent()).toContain('Tern Point')
      expect(await clicks()).toBe(1)
      await page.context().close()
    },
  )
})

describe('what is broken off', () => {
  test.skipIf(sampled)('a box that the page takes over leaves what was selected before', async () => {
    const { page } = await gallery.open('earnings.html')
    const before = await page.evaluate(() => {
      window.charts[0].state = { selected: [1, 2, 3] }
      return window.charts[0].state.selected
    })
    const [from, to] = [await at(page, 0.3, 0.2), await at(page, 0.8, 0.8)]
    await page.evaluate(() =>
      document.addEventListener('pointerdown', ({ target, pointerId }) =>
        document.addEventListener('breakoff', () =>
          target!.dispatchEvent(new PointerEvent('pointercancel', { pointerId, bubbles: true })),
        ),
      ),
    )
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(to.x, to.y, { steps: 4 })
    await page.waitForFunction(() => window.charts[0].state.selected!.length > 3)
    await page.evaluate(() => document.dispatchEvent(new Event('breakoff')))
    await still(page)
    expect(Array.from((await state(page)).selected!)).toEqual(Array.from(before!))
    await page.mouse.up()
    await page.context().close()
  })
})

test.skipIf(sampled)('a card follows its point while the page scrolls, and goes with it', async () => {
  const { page } = await phone('detail.html')
  const bar = await shapeAt(page, 'rects', 1)
  await page.mouse.move(bar.x, bar.y)
  await still(page)
  const top = async () => (await page.locator('.dapplo-tooltip').first().boundingBox())!.y
  const before = await top()
  await page.evaluate(() => window.scrollBy(0, 40))
  await page.waitForFunction(
    y => document.querySelector('.dapplo-tooltip')!.getBoundingClientRect().top === y - 40,
    before,
  )
  await page.evaluate(() => window.scrollBy(0, 900))
  await page.waitForFunction(
    () => getComputedStyle(document.querySelector('.dapplo-tooltip')!).visibility === 'hidden',
  )
  await page.context().close()
})

test.skipIf(sampled)(
  'Escape puts a card away that only a pointer has called, wherever the focus is',
  async () => {
    const { page } = await gallery.open('detail.html')
    const bar = await shapeAt(page, 'rects', 1)
    await page.mouse.move(bar.x, bar.y)
    await still(page)
    expect(await cards(page)).toHaveLength(1)
    expect(await page.evaluate(() => document.activeElement === document.body)).toBe(true)
    await page.keyboard.press('Escape')
    await still(page)
    expect(await cards(page)).toEqual([])
    await page.mouse.move(bar.x + 1, bar.y)
    await still(page)
    expect(await cards(page)).toHaveLength(1)
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'the other button leaves its menu to the browser, and nothing happens in the chart',
  async () => {
    const { page, errors } = await gallery.open('earnings.html')
    const asked = page.evaluate(
      () =>
        new Promise(resolve =>
          document.addEventListener('contextmenu', event => resolve(event.defaultPrevented), { once: true }),
        ),
    )
    const [from, to] = [await at(page, 0.2, 0.2), await at(page, 0.8, 0.8)]
    await page.mouse.move(from.x, from.y)
    await page.mouse.down({ button: 'right' })
    expect(await asked).toBe(false)
    await page.mouse.move(to.x, to.y, { steps: 4 })
    await page.mouse.up({ button: 'right' })
    await still(page)
    expect(await state(page)).toEqual({})
    expect(errors).toEqual([])
    await page.context().close()
  },
)

test.skipIf(engine !== 'chromium')(
  'a pen points from above the glass, and draws as a mouse does',
  async () => {
    const { page } = await gallery.open('earnings.html')
    const client = await page.context().newCDPSession(page)
    const pen = (type: 'mouseMoved' | 'mousePressed' | 'mouseReleased', place: Finger, buttons = 1) =>
      client.send('Input.dispatchMouseEvent', {
        type,
        x: place.x,
        y: place.y,
        pointerType: 'pen',
        button: buttons ? 'left' : 'none',
        buttons,
        clickCount: type === 'mouseMoved' ? 0 : 1,
      })
    const [from, to] = [await at(page, 0.5, 0.02), await at(page, 0.98, 0.6)]
    const seen = page.evaluate(
      () =>
        new Promise(resolve =>
          document.addEventListener('pointermove', event => resolve(event.pointerType), { once: true }),
        ),
    )
    await pen('mouseMoved', await at(page, 0.9, 0.5), 0)
    expect(await seen).toBe('pen')
    await still(page)
    expect(await cards(page)).toHaveLength(1)
    await pen('mousePressed', from)
    for (const place of path(from, to)) await pen('mouseMoved', place)
    await pen('mouseReleased', to)
    await still(page)
    expect(await selected(page)).toBeGreaterThan(50)
    await page.context().close()
  },
)
