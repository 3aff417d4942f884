// What people see in a browser: frames of a drag and of a glide beside those of a bare page that fills as many pixels, and
// how long many charts take to stand on a page.
import { fileURLToPath } from 'node:url'
import { bareFrames, frames, recordAnew, recorded, recording, slowest } from './frames.mjs'
import { ratio } from './measure.mjs'

const { openChromium, served } = await import('./served.mjs')
const gallery = await served(fileURLToPath(new URL('../examples/gallery', import.meta.url)))
const browser = await openChromium()
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })

async function open() {
  await page.goto(gallery.url)
  await page.waitForSelector('.dapplo canvas', { state: 'attached' })
  await page.evaluate(() => {
    window.live?.destroy()
    for (const live of window.charts ?? []) live.destroy()
    document.body.innerHTML = ''
    document.body.style.cssText =
      'margin:0;display:grid;grid-template-columns:1fr 1fr;gap:8px;background:white'
  })
  await rest()
}

/** Lets the page come to rest, so that what went before is no part of what is measured. */
const rest = () => page.waitForTimeout(800)

await open()
const bare = slowest(await bareFrames(page, Array(4).fill([632, 390])))

for (const rows of [20_000, 100_000]) {
  await open()
  await page.evaluate(rows => {
    const { chart, mount, table } = window.dapplo
    const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
    const sailings = table({
      departed: Array.from({ length: rows }, (_, i) => new Date(Date.UTC(2023, 0, 1) + i * 900_000)),
      route: Array.from({ length: rows }, (_, i) => routes[(i * 7) % 5]),
      wind: Float64Array.from({ length: rows }, (_, i) => ((i * 7919) % 997) / 20),
      delay: Float64Array.from({ length: rows }, (_, i) => ((i * 104_729) % 991) / 25),
    })
    const put = description => {
      const place = document.body.appendChild(document.createElement('div'))
      place.style.height = '390px'
      return mount(chart(sailings, { motion: false, ...description }), place)
    }
    window.charts = [
      put({ draw: 'scatter', x: 'wind', y: 'delay', select: 'box' }),
      put({
        draw: 'heatmap',
        x: 'hour of day of departed',
        y: 'weekday of departed',
        color: 'count',
        respond: 'narrow',
      }),
      put({ draw: 'bar', x: 'route', y: 'mean of delay', respond: 'narrow' }),
      put({ draw: 'bar', x: 'month of departed', y: 'count', respond: 'narrow' }),
    ]
  }, rows)
  await recording(page)
  await rest()
  await page.mouse.move(120, 100)
  await page.mouse.down()
  await recordAnew(page)
  for (let i = 0; i < 120; i++) await page.mouse.move(150 + i * 3, 110 + i * 1.5)
  const times = await recorded(page)
  await page.mouse.up()
  ratio(
    `a frame of a box over ${rows.toLocaleString('en')} points in four charts on a page`,
    slowest(times),
    bare,
    2,
  )
}

await open()
const glide = await page.evaluate(`(() => {
  const { chart, mount, table } = window.dapplo
  const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
  const make = k => routes.flatMap((route, r) => Array.from({ length: 1000 }, (_, i) => ({
    day: new Date(Date.UTC(2023, 0, 1 + i)), route, passengers: 100 + 40 * r + 30 * Math.sin(i / 40 + k + r) + ((i * 37 + k * 11) % 17),
  })))
  const rows = table(make(0))
  const place = document.body.appendChild(document.createElement('div'))
  place.style.cssText = 'width:1000px;height:500px'
  const live = mount(chart(rows, { draw: 'line', x: 'day', y: 'passengers', color: 'route', motion: { duration: 900 } }), place)
  return new Promise(done => setTimeout(done, 1800)).then(() => {
    rows.replace(make(1))
    return ${frames('n => n < 5 || live.moving')}
  })
})()`)
ratio('a frame of 5 lines of 1,000 days gliding on a page', slowest(glide), bare, 1)

// Zooms by the wheel, in and out, and a playback, on one canvas.
const WIDE = [1240, 760]
await open()
const bareOne = slowest(await bareFrames(page, [WIDE]))

// A line that is as long is stroked in each frame of a bare page, too.
const bareStroke = slowest(
  await page.evaluate(`(() => {
    const canvas = Object.assign(document.createElement('canvas'), { width: ${WIDE[0]}, height: ${WIDE[1]} })
    document.body.append(canvas)
    const context = canvas.getContext('2d')
    return ${frames(`n => {
      context.clearRect(0, 0, canvas.width, canvas.height)
      context.lineWidth = 2
      context.beginPath()
      for (let i = 0; i < canvas.width * 4; i++)
        context.lineTo(i / 4, canvas.height * (0.5 + 0.5 * Math.sin(i * 1.7 + n)))
      context.stroke()
      return n < 120
    }`)}
  })()`),
)

for (const [name, draw, least] of [
  ['1,000,000 points', 'scatter', bareOne],
  ['a line of 1,000,000 rows, to its stroke', 'line', bareStroke],
]) {
  await open()
  await page.evaluate(
    ([draw, [width, height]]) => {
      const { chart, mount, table } = window.dapplo
      const length = 1_000_000
      const rows = table({
        wind: Float64Array.from({ length }, (_, i) =>
          draw === 'line' ? i : Math.sin(i * 1.7) * (3 + ((i * 7919) % 997) / 300),
        ),
        delay: Float64Array.from({ length }, (_, i) => Math.cos(i * 1.7) * (3 + ((i * 104_729) % 991) / 300)),
      })
      const place = document.body.appendChild(document.createElement('div'))
      place.style.cssText = `width:${width}px;height:${height}px`
      window.live = mount(
        chart(rows, { draw, x: 'wind', y: 'delay', zoom: draw === 'line' ? 'x' : 'xy', motion: false }),
        place,
      )
    },
    [draw, WIDE],
  )
  await recording(page)
  await rest()
  await page.mouse.move(WIDE[0] / 2, WIDE[1] / 2)
  // From the second picture on points are kept in an order of their own.
  for (let i = 0; i < 10; i++) await page.mouse.wheel(0, -10)
  await rest()
  await recordAnew(page)
  for (let i = 0; i < 120; i++) await page.mouse.wheel(0, i % 60 < 30 ? -10 : 10)
  const times = await recorded(page)
  const zoomed = await page.evaluate(() => window.live.state.zoom !== undefined)
  if (!zoomed) throw new Error('the wheel did not zoom')
  ratio(`a frame of a zoom by the wheel on a page, over ${name}`, slowest(times), least, 2)
}

await open()
const played = await page.evaluate(`(() => {
  const { chart, mount, table } = window.dapplo
  const piers = table({
    year: Array.from({ length: 25 * 200 }, (_, i) => 2001 + Math.floor(i / 200)),
    pier: Array.from({ length: 25 * 200 }, (_, i) => 'Pier ' + (i % 200)),
    passengers: Array.from({ length: 25 * 200 }, (_, i) => {
      const [year, pier] = [Math.floor(i / 200), i % 200]
      return 1000 + ((pier * 7919 + year * (pier % 17) * 31) % 9000)
    }),
  })
  const place = document.body.appendChild(document.createElement('div'))
  place.style.cssText = 'width:${WIDE[0]}px;height:${WIDE[1]}px'
  const live = mount(chart(piers, { draw: 'bar', y: 'pier', x: 'sum of passengers', order: 'ranked', through: 'year' }), place)
  return new Promise(done => setTimeout(done, 1200)).then(() => {
    live.play()
    return ${frames('n => n < 180')}
  })
})()`)
ratio('a frame of 25 years of 200 piers being played on a page', slowest(played), bareOne, 1)

await open()
const many = await page.evaluate(
  () =>
    new Promise(done => {
      const { chart, mount, table } = window.dapplo
      const COUNT = 200
      const tables = Array.from({ length: COUNT }, (_, k) =>
        table(
          Array.from({ length: 30 }, (_, i) => ({
            day: new Date(Date.UTC(2024, 0, 1 + i)),
            passengers: 50 + ((i * 37 + k * 13) % 60),
          })),
        ),
      )
      const places = tables.map(() => {
        const place = document.body.appendChild(document.createElement('div'))
        place.style.height = '140px'
        return place
      })
      const start = performance.now()
      tables.forEach((rows, i) => {
        mount(
          chart(rows, { draw: i % 2 ? 'bar' : 'line', x: 'day', y: 'passengers', motion: false }),
          places[i],
        )
      })
      requestAnimationFrame(() => setTimeout(() => done((performance.now() - start) / COUNT)))
    }),
)
ratio('each of 200 small charts on a page, by milliseconds', many, 1, 3)

await browser.close()
gallery.close()
