import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { sampled } from './support/browser.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

/** What a person points at, clicks and presses is answered by all that is meant, and by nothing that is not. */

type Dapplo = typeof import('dapplo')
let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

/** A page with nothing on it but charts of its own. */
async function blank(options: Parameters<Gallery['open']>[1] = {}): Promise<Page> {
  const { page } = await gallery.open('', options)
  await page.evaluate(() => {
    for (const live of window.charts) live.destroy()
    document.body.replaceChildren()
    Object.assign(window, {
      place(height: number) {
        const place = document.createElement('div')
        place.style.cssText = `height: ${height}px; width: 800px; background: white`
        return document.body.appendChild(place)
      },
    })
  })
  return page
}
declare const place: (height: number) => HTMLElement

const cards = (page: Page) =>
  page.locator('.dapplo-tooltip').evaluateAll(all =>
    all
      .filter(card => getComputedStyle(card).visibility === 'visible')
      .map(card => ({
        heading: card.querySelector('.dapplo-tooltip-heading')?.textContent ?? '',
        rows: [...card.querySelectorAll('.dapplo-tooltip-name')].map(name => [
          name.textContent,
          name.nextElementSibling?.textContent,
        ]),
      })),
  )
/** Where a value of a pane stands on the page. */
const placeOf = (page: Page, chart: number, x: number, y: number, pane = '') =>
  page.evaluate(
    ([chart, x, y, pane]) => {
      const live = window.charts[chart as number]
      const { left, top } = live.element.getBoundingClientRect()
      const scale = (name: string) => live.scene.scales.get(`${pane}${name}`)!
      return { x: left + scale('x').map(x as number), y: top + scale('y').map(y as number) }
    },
    [chart, x, y, pane] as const,
  )

test.skipIf(sampled)(
  'pointing in one pane of a spread that shares x is answered by all of them',
  async () => {
    const page = await blank()
    await page.evaluate(() => {
      const { chart, mount, spread, table } = window.dapplo as unknown as Dapplo
      const rows = table([1, 2, 3, 4].map(hour => ({ hour, wind: hour * 10, delay: 50 - hour })))
      const of = (y: string) => chart(rows, { draw: 'line', x: 'hour', y: y as 'wind' })
      window.charts = [mount(spread([of('wind'), of('delay')], { share: ['x'] }), place(500))]
    })
    await still(page)
    const at = await placeOf(page, 0, 3, 30, '0/')
    await page.mouse.move(at.x, at.y)
    await page.locator('.dapplo-tooltip').waitFor({ state: 'visible' })
    expect(await cards(page)).toEqual([
      {
        heading: '3',
        rows: [
          ['Wind', '30'],
          ['Delay', '47'],
        ],
      },
    ])
    await page.context().close()
  },
)

test.skipIf(sampled)(
  'a scatter that shares a scale says what stands at the place that is pointed at elsewhere, and nothing beside it',
  async () => {
    const page = await blank()
    await page.evaluate(() => {
      const { chart, mount, table } = window.dapplo as unknown as Dapplo
      const rows = table([1, 2, 3, 4, 5, 6].map(hour => ({ hour, delay: (hour * 7) % 5 })))
      const half = table([2, 4, 6].map(hour => ({ hour, delay: (hour * 7) % 5 })))
      const scales = { x: 'hours' }
      window.charts = [
        mount(chart(rows, { draw: 'line', x: 'hour', y: 'delay', scales }), place(250)),
        mount(chart(half, { draw: 'scatter', x: 'hour', y: 'delay', scales }), place(250)),
      ]
    })
    await still(page)
    for (const hour of [1, 2, 3, 4, 5, 6]) {
      const at = await placeOf(page, 0, hour, 2)
      await page.mouse.move(at.x, at.y)
      await page.waitForFunction(
        hour => document.querySelector('.dapplo-tooltip-heading')?.textContent === String(hour),
        hour,
      )
      await still(page)
      const [, other] = await cards(page)
      const delay = String((hour * 7) % 5)
      expect(other?.rows).toEqual(
        hour % 2 === 0
          ? [
              ['Hour', String(hour)],
              ['Delay', delay],
            ]
          : undefined,
      )
    }
    await page.context().close()
  },
)

test('a click on nothing selects nothing, and Escape clears what a legend has selected', async () => {
  const page = await blank()
  await page.evaluate(() => {
    const { chart, mount, table } = window.dapplo as unknown as Dapplo
    const rows = table([
      { hour: 1, delay: 1, route: 'Harbour' },
      { hour: 9, delay: 9, route: 'Tern Point' },
    ])
    const scatter = { draw: 'scatter', x: 'hour', y: 'delay', select: 'click' } as const
    window.charts = [
      mount(chart(rows, scatter), place(300)),
      mount(chart(rows, { ...scatter, color: 'route' }), place(300)),
    ]
  })
  await still(page)
  const nothing = await placeOf(page, 0, 5, 5)
  await page.mouse.click(nothing.x, nothing.y)
  await still(page)
  expect(await page.evaluate(() => window.charts[0].selectedRows())).toEqual([])
  const point = await placeOf(page, 0, 9, 9)
  await page.mouse.click(point.x, point.y)
  await page.waitForFunction(async () => (await window.charts[0].selectedRows()).length === 1)
  await page.locator('.dapplo-spot[aria-label^="Tern Point"]').click({ modifiers: ['Shift'] })
  await page.waitForFunction(async () => (await window.charts[1].selectedRows()).length === 1)
  await page.keyboard.press('Escape')
  await page.waitForFunction(async () => (await window.charts[1].selectedRows()).length === 0)
  await page.context().close()
})

test.skipIf(sampled)(
  'a picture is of what is shown, or of the end of the motion, as it is asked for',
  async () => {
    const page = await blank({ reducedMotion: 'no-preference' })
    const seen = await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo as unknown as Dapplo
      const rows = table([{ pier: 'Harbour', boarded: 10 }], { key: 'pier' })
      const live = mount(
        chart(rows, { draw: 'bar', x: 'pier', y: 'boarded', label: true, motion: { duration: 1200 } }),
        place(300),
      )
      window.charts = [live]
      const until = async (done: () => boolean) => {
        while (!done()) await new Promise(requestAnimationFrame)
      }
      await until(() => !live.moving)
      rows.put({ pier: 'Harbour', boarded: 90 })
      const label = (svg: string) => Number(/>(\d+)<\/text>(?![\s\S]*>\d+<\/text>)/.exec(svg)![1])
      const shown = () => {
        const texts = live.scene.batches.find(batch => batch.kind === 'texts' && batch.of !== undefined)
        return texts?.kind === 'texts' ? Number(texts.texts[0]) : Number.NaN
      }
      await until(() => live.moving && shown() > 20 && shown() < 80)
      const now = shown()
      const result = { now, svg: label(live.toSvg()), end: label(live.toSvg({ end: true })) }
      live.destroy()
      return result
    })
    expect(seen.svg).toBe(seen.now)
    expect(seen.end).toBe(90)
    await page.context().close()
  },
)

test.skipIf(sampled)('between two periods the tooltip says what its bar shows', async () => {
  const page = await blank({ reducedMotion: 'no-preference' })
  await page.evaluate(() => {
    const { chart, mount, table } = window.dapplo as unknown as Dapplo
    const rows = table(
      [2010, 2011].flatMap((year, i) => [
        { year, pier: 'Harbour', boarded: 100 + i * 100 },
        { year, pier: 'Tern Point', boarded: 300 - i * 100 },
      ]),
    )
    const live = mount(
      chart(rows, { draw: 'bar', x: 'pier', y: 'sum of boarded', label: true, through: 'year' }),
      place(400),
      { state: { at: 0.25 } },
    )
    window.charts = [live]
  })
  await still(page)
  const labels = await page.evaluate(() =>
    window.charts[0].scene.batches.flatMap(batch =>
      batch.kind === 'texts' && batch.of ? [...batch.texts] : [],
    ),
  )
  // One that comes to stand in its bar goes in one look and comes in the other.
  expect([...new Set(labels)].sort()).toEqual(['125', '275'])
  const at = await placeOf(page, 0, 1, 200)
  await page.mouse.move(at.x, at.y)
  await page.locator('.dapplo-tooltip').waitFor({ state: 'visible' })
  expect(await cards(page)).toEqual([{ heading: 'Tern Point', rows: [['Boarded', '275']] }])
  await page.context().close()
})

test.skipIf(sampled)(
  'what a person would regret is said once in the console of a page in the making',
  async () => {
    const { page } = await gallery.open('')
    const said: string[] = []
    page.on('console', message => message.type() === 'warning' && said.push(message.text()))
    await page.evaluate(async () => {
      const { chart, mount, table } = window.dapplo as unknown as Dapplo
      const rows = table([{ pier: 'Harbour', boarded: 10 }])
      const element = document.body.appendChild(document.createElement('div'))
      const bars = { draw: 'bar', x: 'pier', y: 'boarded' } as const
      for (const look of [{ hollow: 0.5 }, { hollow: 0.5 }, { points: true }]) {
        mount(chart(rows, { ...bars, ...look }), element.appendChild(document.createElement('div')))
        await new Promise(requestAnimationFrame)
      }
    })
    // They are looked for in turn, once the page is idle: with the last one said, the others were.
    await expect.poll(() => said.filter(text => text.includes('"points"')).length).toBe(1)
    expect(said.filter(text => text.includes('"hollow"'))).toEqual([
      '"hollow" changes nothing about "bar" (at hollow). Leave it out, or use it with "pie". [no-effect]',
    ])
    await page.context().close()
  },
)
