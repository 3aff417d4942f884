// A box dragged over rows that stay in an engine, in a page that asks through an endpoint, beside a bare page that fills as
// many pixels. FAR_ROWS=20000000 npm run bench -- far-page does it over so many rows.
process.argv.push('--browser')
const { findChromium } = await import('../scripts/setup.mjs')

import { serveFar } from '../examples/far/serve.mjs'
import { bareFrames, slowest } from './frames.mjs'
import { ratio } from './measure.mjs'

const { chromium } = await import('playwright-core')
const rows = Number(process.env.FAR_ROWS ?? 10_000_000)
const server = await serveFar({ rows, port: 0 })
const browser = await chromium.launch({ executablePath: findChromium() })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(server.url)
const settled = () =>
  page.waitForFunction(
    () => {
      const charts = [...document.querySelectorAll('.dapplo')]
      return charts.length >= 4 && charts.every(chart => chart.getAttribute('aria-busy') !== 'true')
    },
    undefined,
    { timeout: 120_000 },
  )
await settled()
const sizes = await page.evaluate(() =>
  [...document.querySelectorAll('.dapplo canvas')].map(({ clientWidth, clientHeight }) => [
    clientWidth,
    clientHeight,
  ]),
)

const blank = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const bare = slowest(await bareFrames(blank, sizes))
await blank.close()

let answers = 0
page.on('response', response => {
  if (response.url().includes('/far/')) answers++
})
await page.bringToFront()
await page.evaluate(() => {
  window.times = []
  window.shown = 0
  const go = now => {
    window.times.push(now)
    requestAnimationFrame(go)
  }
  requestAnimationFrame(go)
})
const box = await page.locator('#wind').boundingBox()
await page.mouse.move(box.x + 90, box.y + 90)
await page.mouse.down()
for (let i = 0; i < 240; i++) {
  await page.mouse.move(box.x + 120 + i, box.y + 110 + i * 0.6)
  if (i === 60) {
    // By then what the drag is answered from has come.
    await page.waitForTimeout(4000)
    answers = 0
    await page.evaluate(() => {
      window.times.length = 0
    })
  }
}
const times = await page.evaluate(() => window.times.slice())
const asked = answers
await page.mouse.up()
ratio(
  `a frame of a box over ${rows.toLocaleString('en')} rows in an engine (${asked} answers from it meanwhile)`,
  slowest(times),
  bare,
  2,
)
await browser.close()
await server.close()
