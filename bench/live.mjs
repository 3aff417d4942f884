// One row that changes, comes or goes in a table of a million: layout and painting of the picture alone are the least.
import { chart, paintCanvas, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
import { createCanvas } from '@napi-rs/canvas'
import { ratio, time } from './measure.mjs'
import { surroundings } from './surroundings.mjs'

const ROWS = 1_000_000
const start = Date.UTC(2023, 0, 1)
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
const size = { width: 800, height: 400 }
const context = createCanvas(size.width, size.height).getContext('2d')

const sailings = () =>
  table(
    {
      id: Float64Array.from({ length: ROWS }, (_, i) => i),
      departed: Float64Array.from({ length: ROWS }, (_, i) => start + i * 30_000),
      route: Array.from({ length: ROWS }, (_, i) => routes[(i * 7) % 5]),
      wind: Float64Array.from({ length: ROWS }, (_, i) => ((i * 7919) % 997) / 20),
      delay: Float64Array.from({ length: ROWS }, (_, i) => ((i * 104_729) % 991) / 25),
    },
    { key: 'id', columns: { departed: { type: 'time' } } },
  )

/** Rows that come one by one, out of order, as a feed brings them between two frames. */
const FEED = 200
let fed = 10 * ROWS
function feed(rows) {
  for (let i = 0; i < FEED; i++) {
    const at = start + ((fed * 7919) % ROWS) * 30_000
    rows.append([{ id: fed++, departed: at, route: routes[fed % 5], wind: fed % 50, delay: fed % 40 }])
  }
}
const unseen = sailings()
const feeding = time(() => feed(unseen))

for (const [name, description] of [
  ['bars by month and route', { draw: 'bar', x: 'month of departed', y: 'sum of delay', color: 'route' }],
  ['bars of medians', { draw: 'bar', x: 'route', y: 'median of delay' }],
  ['bars of the top three and the rest', { draw: 'bar', y: 'route', x: 'sum of delay', top: 3, rest: true }],
  ['lines by route', { draw: 'line', x: 'departed', y: 'delay', color: 'route' }],
  ['a raw line', { draw: 'line', x: 'departed', y: 'delay' }],
  ['a scatter', { draw: 'scatter', x: 'wind', y: 'delay' }],
]) {
  const rows = sailings()
  const view = new View(chart(rows, description), {}, { ...size, measure: measureInter })
  const show = () => {
    paintCanvas(view.scene, context, 1, surroundings)
    context.getImageData(0, 0, 1, 1)
  }
  show()
  const bare = time(i => {
    view.frame.value = { ...view.frame.value, width: size.width - (i % 2) }
    show()
  })
  let next = ROWS
  const put = time(i => {
    rows.put([{ id: 5000 + i * 777, delay: 3 + i }])
    show()
  })
  const append = time(() => {
    const row = { id: next, departed: start + next * 30_000, route: routes[next % 5], wind: 10, delay: 12 }
    rows.append([row])
    next++
    show()
  })
  ratio(`one of 1,000,000 rows put: ${name}`, put, bare, 2)
  ratio(`a row appended: ${name}`, append, bare, 2)
  const late = time(i => {
    rows.append([
      { id: next++, departed: start + (ROWS / 2 + i) * 30_000, route: routes[0], wind: 10, delay: 12 },
    ])
    show()
  })
  ratio(`a row from the middle of time appended: ${name}`, late, bare, 2)
  const removed = time(i => {
    rows.remove(1000 + i * 13)
    show()
  })
  ratio(`a row removed: ${name}`, removed, bare, 2)
  const middle = time(i => {
    rows.remove(ROWS / 2 + i * 13)
    show()
  })
  ratio(`a row removed from the middle: ${name}`, middle, bare, 2)
  const came = time(() => {
    feed(rows)
    show()
  })
  ratio(`${FEED} rows come one by one, out of order: ${name}`, came, bare + feeding, 2)
}
