import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { findWebKit } from '../scripts/browsers.mjs'
import { sample } from './support/browser.ts'
import { openWebKit, type WebKitPage } from './support/webkit.ts'

/** Pages in Safari's engine: they are drawn, and answer pointer and keys. */
describe.skipIf(!findWebKit())("in Safari's engine", () => {
  let page: WebKitPage
  beforeAll(async () => {
    page = await openWebKit()
  })
  afterAll(() => page?.close())

  const open = async (path: string) => {
    await page.goto(`${inject('gallery')}/${path}`)
    await page.until(
      'return (document.querySelector(".dapplo canvas") || window.composer?.live) && document.fonts.status === "loaded" && ![window.charts, window.live].flat().some(one => one && one.moving)',
    )
  }
  /** Where something stands on the screen, in its middle. */
  const middle = (of: string) =>
    page.run<{ x: number; y: number }>(
      `const { x, y, width, height } = (${of}).getBoundingClientRect(); return { x: x + width / 2, y: y + height / 2 }`,
    )

  test.each(
    sample(['index', 'kinds', 'together', 'earnings', 'period', 'detail', 'race', 'axes'], 0, 1, 3, 6),
  )('/%s.html is drawn', async name => {
    await open(`${name}.html`)
    // More than a ground: colours of data, and ink.
    const colours = await page.run<number>(`
        const canvas = document.querySelector('.dapplo canvas')
        const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
        const seen = new Set()
        for (let i = 0; i < data.length; i += 4) if (data[i + 3] === 255) seen.add(data[i] << 16 | data[i + 1] << 8 | data[i + 2])
        return seen.size`)
    expect(colours).toBeGreaterThan(20)
  })

  test('a value is read by the pointer, and by keys', async () => {
    await open('index.html')
    const { x, y } = await middle('document.querySelector(".dapplo")')
    await page.move(x, y)
    await page.until('return document.querySelector(".dapplo-tooltip")?.style.visibility === "visible"')
    const card = await page.run<string>('return document.querySelector(".dapplo-tooltip").textContent')
    expect(card).toContain('North Sound')
    await page.run('document.querySelector("[role=application]").focus()')
    await page.press('End')
    await page.until(
      'return /December|Dec 31, 2025/.test(document.querySelector("[role=status]").textContent)',
    )
  })

  test('an entry of the legend hides its series, a bar is selected', async () => {
    await open('index.html')
    const entry = await middle('document.querySelector(".dapplo-spot, [aria-label=\\"Gannet Bay, shown\\"]")')
    const label = await page.run<string>(
      `return document.elementFromPoint(${entry.x}, ${entry.y}).getAttribute('aria-label')`,
    )
    await page.click(entry.x, entry.y)
    await page.until('return window.live.state.hidden?.length === 1')
    expect(label).toBe(`${(await page.run<string[]>('return window.live.state.hidden'))[0]}, shown`)
    await open('detail.html')
    const bar = await page.run<{ x: number; y: number }>(`
      const [chart] = window.charts
      const { x, y, width, height } = chart.scene.batches.find(batch => batch.kind === 'rects' && batch.part === 'data')
      const { left, top } = chart.element.getBoundingClientRect()
      return { x: left + x[0] + width[0] / 2, y: top + y[0] + height[0] / 2 }`)
    await page.click(bar.x, bar.y)
    await page.until('return JSON.stringify(window.charts[0].state).includes("select")')
  })

  test('a word of the composer becomes another', async () => {
    await open('compose.html')
    const words = 'document.querySelector(".dapplo-composer").shadowRoot'
    const word = await middle(
      `[...${words}.querySelectorAll('.choice')].find(one => one.textContent === 'sum of passengers')`,
    )
    await page.click(word.x, word.y)
    await page.until(`return ${words}.querySelectorAll('[role=option]').length > 3`)
    for (const letter of 'count') await page.press(letter)
    await page.until(`return ${words}.querySelector('[role=option]')?.textContent === 'count'`)
    await page.press('Enter')
    await page.until('return window.composer.sentence.includes("bars of count")')
  })
})
