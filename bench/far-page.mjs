// A box dragged over rows that stay in an engine, in a page that asks through an endpoint, beside a bare page that fills as
// many pixels. FAR_ROWS=20000000 npm run bench -- far-page does it over so many rows.
import { serveFar } from '../examples/far/serve.mjs'
import { bareFrames, recordAnew, recorded, recording, slowest } from './frames.mjs'
import { ratio } from './measure.mjs'

const { openChromium } = await import('./served.mjs')
const rows = Number(process.env.FAR_ROWS ?? 10_000_000)
const server = await serveFar({ rows, port: 0 })
const browser = await openChromium()
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
// Without motion, as the rows of boxes over points that are here.
await page.goto(`${server.url}?still`)
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
let asked = 0
page.on('request', request => {
  if (request.url().includes('/far/')) asked++
})
for (const event of ['requestfinished', 'requestfailed'])
  page.on(event, request => {
    if (request.url().includes('/far/')) answers++
  })
await page.bringToFront()
await recording(page)
const box = await page.locator('#wind').boundingBox()
await page.mouse.move(box.x + 90, box.y + 90)
await page.mouse.down()
let came = 0
for (let i = 0; i < 240; i++) {
  await page.mouse.move(box.x + 120 + i, box.y + 110 + i * 0.6)
  if (i === 60) {
    // What the drag is answered from comes first, and the exact values where it rests.
    const start = performance.now()
    for (let quiet = 0; quiet < 10; ) {
      await page.waitForTimeout(100)
      quiet = asked === answers ? quiet + 1 : 0
    }
    came = performance.now() - start - 1000
    asked = 0
    await recordAnew(page)
  }
}
const times = await recorded(page)
await page.mouse.up()
ratio(`a frame of a box over ${rows.toLocaleString('en')} rows in an engine`, slowest(times), bare, 2)
console.log(
  `questions to the engine meanwhile: ${asked}; what answers them came in ${(came / 1000).toFixed(1)} s`,
)
await browser.close()
await server.close()
