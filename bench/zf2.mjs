import { chart, table } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { View } from '@dapplo/core/internal'
const frame = { width: 900, height: 500, measure: measureInter }
const N = 1_000_000
const at = i => (i * 7919 + 13) % 1_000_003
const row = i => ({ id: i, departed: new Date(Date.UTC(2020, 0, 1) + at(i) * 60_000), route: ['Tern Point', 'Gannet Bay'][i & 1], passengers: (i * 37) % 240 })
const kinds = { line: { draw: 'line', x: 'departed', y: 'passengers' }, bar: { draw: 'bar', x: 'month of departed', y: 'sum of passengers', color: 'route' }, scatter: { draw: 'scatter', x: 'departed', y: 'passengers' } }
for (const [name, d] of Object.entries(kinds)) {
  if (process.argv[2] && process.argv[2] !== name) continue
  const live = table(Array.from({ length: N }, (_, i) => row(i)), { key: 'id' })
  const view = new View(chart(live, d), {}, frame)
  view.scene
  const t = []
  let i = N
  for (const k of [1, 1, 1, 10, 100, 1000, 5000, 5000, 5000, 5000]) {
    const a = performance.now()
    for (let j = 0; j < k; j++, i++) live.append([row(i)])
    const b = performance.now()
    view.scene
    t.push(`${k}: ${(b - a).toFixed(0)}+${(performance.now() - b).toFixed(0)}`)
  }
  console.log(name.padEnd(8), t.join('  '))
}
