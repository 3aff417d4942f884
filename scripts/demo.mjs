// Sets up, draws the demo charts to files, says where they are, and serves the gallery.
// Usage: npm run demo [-- --no-serve] [-- --port 5173]
import './setup.mjs'
import { mkdirSync } from 'node:fs'
import { relative } from 'node:path'
import { fileURLToPath } from 'node:url'

const at = path => fileURLToPath(new URL(`../${path}`, import.meta.url))
console.log('Building…')
await import('./build.mjs')
const { chart, embedPage, openChart, openTable, toPng, toSvg, writeWhole } = await import('@dapplo/node')

const out = at('demo-output')
mkdirSync(out, { recursive: true })
const { chart: passengers, tables } = openChart(at('demo-data/passengers.chart.json'))
const sailings = openTable(at('demo-data/sailings.csv'))
const months = passengers.with({
  draw: 'bar',
  x: 'month of departed',
  arrange: 'stack',
  subtitle: 'Monthly totals of the Skerry Line',
})
const delays = chart(sailings, {
  title: 'Delay grows with the wind',
  subtitle: 'Every sailing to Tern Point',
  draw: 'scatter',
  x: 'wind_knots',
  y: 'delay_minutes',
  where: { route: 'Tern Point' },
})
const files = {
  'passengers.svg': toSvg(passengers),
  'passengers.png': await toPng(passengers),
  'passengers-night.png': await toPng(passengers, { theme: 'night' }),
  'passengers.html': embedPage(passengers, { tables }),
  'months.svg': toSvg(months),
  'delays.png': await toPng(delays),
}
console.log('\nDrawn from demo-data:')
for (const [name, content] of Object.entries(files)) {
  writeWhole(`${out}/${name}`, content)
  console.log(`  ${relative(process.cwd(), `${out}/${name}`)}`)
}
const { makeSite } = await import('../examples/site/make.mjs')
await makeSite(at('examples/gallery/public/site'))
if (!process.argv.includes('--no-serve')) {
  const { createServer } = await import('vite')
  const port = Number(process.argv[process.argv.indexOf('--port') + 1]) || 5173
  // The boarding feed is served under the gallery's own address.
  const { startFeed } = await import('../demo-data/feed.mjs')
  const feed = await startFeed()
  const target = `http://127.0.0.1:${feed.port}`
  const server = await createServer({
    configFile: at('examples/gallery/vite.config.js'),
    server: { port, proxy: { '/feed': { target, ws: true } } },
  })
  await server.listen()
  console.log('\nThe gallery, until you press Ctrl+C:')
  server.printUrls()
}
