// Other machines: pages of slow processors, what charts hold in memory, a server that draws, and files that are read beside
// a page that moves.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chart, compose, paintSvg, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { toPng } from '@dapplo/node'
import { frames, slowest } from './frames.mjs'
import { ratio, told } from './measure.mjs'

const { openChromium, served } = await import('./served.mjs')
const at = path => fileURLToPath(new URL(`../${path}`, import.meta.url))

/** A page with a script of its own, beside the packages that it imports. */
async function pageOf(script) {
  const source = mkdtempSync(at('node_modules/.bench-'))
  writeFileSync(
    join(source, 'index.html'),
    '<!doctype html><body style="margin:0"><div id="panel" style="width:900px;height:500px"></div><script type="module" src="./app.js"></script>',
  )
  writeFileSync(join(source, 'app.js'), script)
  const site = await served(source)
  rmSync(source, { recursive: true })
  return site
}

const points = `Array.from({ length: 1000 }, (_, i) => ({ day: Date.UTC(2023, 0, 1 + i), passengers: 100 + 60 * Math.sin(i / 40) }))`
const app = await pageOf(`import { chart, mount, table } from 'dapplo'
const rows = table(${points}, { columns: { day: { type: 'time' } } })
mount(chart(rows, { draw: 'line', x: 'day', y: 'passengers', motion: false }), '#panel')
requestAnimationFrame(() => setTimeout(() => { window.shown = performance.now() }))`)
// The least that shows the same line: a script of a few lines, on a canvas.
const bare = await pageOf(`const rows = ${points}
const canvas = document.getElementById('panel').appendChild(Object.assign(document.createElement('canvas'), { width: 900, height: 500 }))
const pen = canvas.getContext('2d')
rows.forEach(({ day, passengers }, i) => pen.lineTo((i / 1000) * 900, 500 - passengers * 2))
pen.stroke()
requestAnimationFrame(() => setTimeout(() => { window.shown = performance.now() }))`)

const browser = await openChromium()
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const client = await page.context().newCDPSession(page)
await client.send('Network.setCacheDisabled', { cacheDisabled: true })

/** Milliseconds from the start of a page to its first picture, the median of seven. */
async function start(url) {
  const all = []
  for (let i = 0; i < 8; i++) {
    await page.goto(url)
    await page.waitForFunction(() => window.shown)
    all.push(await page.evaluate(() => window.shown))
  }
  return all.slice(1).sort((a, b) => a - b)[3]
}
const LIMITS = { 1: 300, 4: 1000, 6: 1500 }
for (const slower of [1, 4, 6]) {
  await client.send('Emulation.setCPUThrottlingRate', { rate: slower })
  const [ours, least] = [await start(app.url), await start(bare.url)]
  const name = slower === 1 ? 'as it is' : `slowed ${slower} times`
  told(`a page's first picture, its processor ${name}`, ours, 'ms', LIMITS[slower], `${least.toFixed(1)} ms`)
}
await client.send('Emulation.setCPUThrottlingRate', { rate: 1 })
app.close()
bare.close()

const gallery = await served(at('examples/gallery'))
/** Megabytes that scripts hold, arrays included, beyond what an empty page holds. */
async function held(make) {
  await page.goto(gallery.url)
  await page.waitForSelector('.dapplo canvas', { state: 'attached' })
  await page.evaluate(() => {
    window.live.destroy()
    document.body.innerHTML = ''
  })
  const used = async () => {
    await client.send('HeapProfiler.collectGarbage')
    const { usedSize, backingStorageSize = 0 } = await client.send('Runtime.getHeapUsage')
    return (usedSize + backingStorageSize) / 1e6
  }
  const before = await used()
  await page.evaluate(make)
  await page.waitForTimeout(3000)
  return (await used()) - before
}
const thousand = await held(() => {
  const { chart, mount, table } = window.dapplo
  window.charts = Array.from({ length: 1000 }, (_, k) => {
    const place = document.body.appendChild(document.createElement('div'))
    place.style.cssText = 'width:300px;height:140px'
    const rows = table(Array.from({ length: 30 }, (_, i) => ({ day: i, n: (i * 37 + k * 13) % 60 })))
    return mount(chart(rows, { draw: k % 2 ? 'bar' : 'line', x: 'day', y: 'n' }), place)
  })
})
told('memory of 1,000 small charts, each', thousand, 'kB', 100)
const ten = await held(() => {
  const { chart, mount, table } = window.dapplo
  const ROWS = 1_000_000
  const rows = table({
    x: Float64Array.from({ length: ROWS }, (_, i) => i),
    y: Float64Array.from({ length: ROWS }, (_, i) => Math.sin(i / 5e4) + ((i * 7919) % 997) / 5000),
    route: Array.from({ length: ROWS }, (_, i) => `route ${i % 5}`),
  })
  window.charts = Array.from({ length: 10 }, (_, k) => {
    const place = document.body.appendChild(document.createElement('div'))
    place.style.cssText = 'width:600px;height:300px'
    const drawn = [
      { draw: 'line', x: 'x', y: 'y' },
      { draw: 'bar', x: 'route', y: 'sum of y' },
      { draw: 'line', x: 'x', y: 'y', color: 'route' },
      { draw: 'scatter', x: 'x', y: 'y' },
      { draw: 'bar', x: 'route', y: 'count' },
    ][k % 5]
    return mount(chart(rows, { ...drawn, title: String(k) }), place)
  })
})
// The rows themselves: two columns of numbers and one of codes.
ratio('memory of ten charts over the same 1,000,000 rows, by that of the rows', ten, 20, 10, 'MB')

// A bar that moves in every frame, while a million rows are read from a file.
await page.goto(`${gallery.url}large.html`)
await page.waitForFunction(() => window.reading)
const reading = await page.evaluate(`(async () => {
  const lines = ['id,departed,route,passengers']
  for (let i = 0; i < 1_000_000; i++) lines.push(i + ',2024-03-01T10:00,Kelp Narrows,' + (i % 240))
  const file = new File([lines.join('\\n')], 'sailings.csv')
  await new Promise(resolve => setTimeout(resolve, 1000))
  let over = false
  const { worker, readInWorker } = window.reading
  const table = readInWorker(worker, file).finally(() => { over = true })
  const times = await ${frames('() => !over')}
  if ((await table).length !== 1_000_000) throw new Error('Rows are missing')
  return times
})()`)
ratio('a frame of a page while a worker reads 1,000,000 rows of CSV', slowest(reading), 1000 / 60, 1.5)
await browser.close()
gallery.close()

/** A report of many charts, each over rows of its own, as a server draws them. */
const report = k => {
  const rows = table(
    Array.from({ length: 200 }, (_, i) => ({
      day: new Date(Date.UTC(2024, 0, 1 + (i % 100))),
      route: i < 100 ? 'Tern Point' : 'Gannet Bay',
      passengers: (i * 37 + k * 13) % 240,
    })),
  )
  return chart(rows, {
    title: `Sheet ${k}`,
    draw: 'line',
    x: 'day',
    y: 'passengers',
    color: 'route',
  })
}
const frame = { width: 800, height: 500, measure: measureInter }
for (let k = 0; k < 50; k++) paintSvg(compose(report(k), {}, frame))
const memory = process.memoryUsage().rss
const begun = performance.now()
let size = 0
for (let k = 0; k < 1000; k++) size += paintSvg(compose(report(k), {}, frame)).length
const seconds = (performance.now() - begun) / 1000
told('1,000 charts drawn on a server as SVG', seconds, 's', 60, `${Math.round(size / 1e6)} kB each`)
told(
  'memory that a server has grown by after 1,000 charts',
  (process.memoryUsage().rss - memory) / 1e6,
  'MB',
  150,
  '',
)
// As a server with as many requests at once as it has processors; encoding is nearly all of it.
for (const [density, name] of [
  [1, ''],
  [2, ', twice as fine'],
]) {
  const painted = performance.now()
  let next = 0
  const serving = async () => {
    while (next < 100) await toPng(report(next++), { width: 800, height: 500, density })
  }
  await Promise.all(Array.from({ length: availableParallelism() }, serving))
  told(`1,000 charts drawn on a server as PNG${name}`, (performance.now() - painted) / 100, 's', 60)
}
