import { chart, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
const frame = { width: 900, height: 500, measure: measureInter }
const N = 1_000_000
const orders = { 'in order': i => i, reverse: i => N - i, shuffled: i => (i * 7919 + 13) % 1_000_003 }
const only = process.argv[2]
for (const [name, at] of Object.entries(orders)) {
  if (only && only !== name) continue
  const live = table([{ id: -1, departed: new Date(Date.UTC(2020, 0, 1)), route: 'Tern Point', passengers: 3 }], { key: 'id' })
  const views = [
    new View(chart(live, { draw: 'line', x: 'departed', y: 'passengers' }), {}, frame),
    new View(chart(live, { draw: 'bar', x: 'month of departed', y: 'sum of passengers', color: 'route' }), {}, frame),
    new View(chart(live, { draw: 'scatter', x: 'departed', y: 'passengers' }), {}, frame),
  ]
  const times = []
  let start = performance.now()
  let slow = 0
  for (let i = 0; i < N; i++) {
    live.append([{ id: i, departed: new Date(Date.UTC(2020, 0, 1) + at(i) * 60_000), route: ['Tern Point', 'Gannet Bay'][i & 1], passengers: (i * 37) % 240 }])
    if (i % 5000 === 4999) { const s = performance.now(); for (const v of views) v.scene; slow = Math.max(slow, performance.now() - s) }
    if (i % 100_000 === 99_999) { times.push(`${((performance.now() - start) / 100).toFixed(1)}(${slow.toFixed(0)})`); start = performance.now(); slow = 0 }
  }
  global.gc?.()
  console.log(name.padEnd(10), 'µs a row per 100,000 (slowest look, ms):', times.join(' '), Math.round(process.memoryUsage().rss / 1e6), 'MB rss', Math.round(process.memoryUsage().arrayBuffers / 1e6), 'MB arrays', Math.round(process.memoryUsage().heapUsed / 1e6), 'heap')
}
