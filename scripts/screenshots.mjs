// Draws the pictures in docs/screenshots anew from the demo data: files by the library, pages in headless Chromium.
process.argv.push('--browser')
await import('./setup.mjs')
await import('./build.mjs')

import { execFileSync } from 'node:child_process'
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { findChromium } from './browsers.mjs'

const at = path => fileURLToPath(new URL(`../${path}`, import.meta.url))
const { chromium } = await import('playwright-core')
const { build, preview } = await import('vite')

const out = at('docs/screenshots')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-shots-'))
const dapplo = (...args) => execFileSync(process.execPath, [at('packages/cli/dist/dapplo.js'), ...args])
dapplo(
  'draw',
  at('demo-data/passengers.chart.json'),
  '--fonts',
  'embedded',
  '--out',
  join(folder, 'passengers.svg'),
)
dapplo(
  'draw',
  at('demo-data/passengers.chart.json'),
  '--theme',
  'night',
  '--density',
  '1',
  '--draw',
  'bar',
  '--x',
  'month of departed',
  '--arrange',
  'stack',
  '--out',
  join(out, 'months-night.png'),
)
dapplo(
  'draw',
  at('demo-data/sailings.csv'),
  '--density',
  '1',
  '--draw',
  'scatter',
  '--x',
  'wind_knots',
  '--y',
  'delay_minutes',
  '--color',
  'vessel',
  '--panes',
  'route',
  '--title',
  'Delay and wind, route by route',
  '--source',
  'Source: logbooks of the Skerry Line',
  '--out',
  join(out, 'panes.png'),
)
copyFileSync(at('demo-data/sailings.csv'), join(folder, 'sailings.csv'))
writeFileSync(
  join(folder, 'told.chart.json'),
  JSON.stringify({
    tables: { sailings: { url: 'sailings.csv' } },
    draw: 'line',
    x: 'month of departed',
    y: 'sum of passengers',
    color: 'route',
    title: 'North Sound carries more than Gannet Bay and Tern Point together',
    subtitle: 'Passengers a month',
    source: 'Source: logbooks of the Skerry Line',
    colorNames: true,
    notes: [
      { words: 'Kelp Narrows opens', x: '2024-04-15', series: 'Kelp Narrows' },
      { words: 'The best month there ever was', x: '2025-07-10' },
      { words: 'Works at the Old Mole: one berth less', x: { from: '2023-10-01', until: '2024-02-01' } },
    ],
  }),
)
dapplo('draw', join(folder, 'told.chart.json'), '--density', '1', '--out', join(out, 'notes.png'))

// The same charts in three engines, as the tests compare them.
execFileSync(
  process.execPath,
  [at('node_modules/vitest/vitest.mjs'), 'run', '--project', 'public', 'tests/engines.test.ts'],
  { cwd: at(''), env: { ...process.env, ENGINES_SHEET: 'docs/screenshots/engines.png' } },
)

const config = {
  configFile: at('examples/gallery/vite.config.js'),
  logLevel: 'error',
  build: { outDir: join(folder, 'gallery') },
}
await build(config)
const server = await preview({ ...config, preview: { port: 0 } })
const url = server.resolvedUrls.local[0]
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--no-first-run',
  ],
})

/** Opens a page, does something there, and keeps a picture. */
async function shoot(name, address, { width = 1280, height = 800, act = async () => {} } = {}) {
  const page = await browser.newPage({ viewport: { width, height } })
  await page.goto(address)
  await page.waitForTimeout(1200)
  await act(page)
  await page.waitForTimeout(600)
  // On a slow machine what was set in motion may take longer.
  await page.waitForFunction(() => ![globalThis.charts].flat().some(chart => chart?.moving))
  await page.waitForTimeout(200)
  await page.screenshot({ path: join(out, `${name}.png`) })
  await page.close()
  console.log(`docs/screenshots/${name}.png`)
}
writeFileSync(join(folder, 'svg.html'), `<style>body{margin:0}</style><img src="passengers.svg">`)
await shoot('passengers-svg', pathToFileURL(join(folder, 'svg.html')).href)
await shoot('page-tooltip', url, { act: page => page.mouse.move(700, 400) })
await shoot('axes', `${url}axes.html`, { width: 1240, height: 860 })
const { serveFar } = await import('../examples/far/serve.mjs')
const far = await serveFar({ rows: 1_000_000, port: 0 })
await shoot('far', far.url, {
  width: 1260,
  height: 800,
  act: async page => {
    const idle = () =>
      page.waitForFunction(() => window.charts?.length === 4 && !document.querySelector('[aria-busy]'))
    await idle()
    const { x, y } = await page.locator('#routes').boundingBox()
    await page.mouse.click(x + 200, y + 155)
    await page.waitForFunction(() => window.charts[1].state.selected !== undefined)
    await idle()
    await page.mouse.move(2, 2)
  },
})
await far.close()
for (const [kind, more] of [
  ['bar', ''],
  ['reference', ''],
  ['pie', '&theme=night'],
])
  await shoot(`kind-${kind}`, `${url}kinds.html?kind=${kind}${more}`, { width: 1260, height: 900 })
await shoot('compose', `${url}compose.html`, {
  act: async page => {
    await page.getByRole('button', { name: 'and …' }).click()
    await page.keyboard.type('mean on the right')
  },
})
await shoot('earnings', `${url}earnings.html`, {
  width: 1260,
  height: 900,
  act: async page => {
    await page.mouse.move(112, 250)
    await page.mouse.down()
    await page.mouse.move(214, 324, { steps: 8 })
    await page.mouse.up()
    await page.mouse.move(5, 5)
  },
})
await shoot('race', `${url}race.html`, {
  width: 1260,
  height: 800,
  act: async page => {
    await page.evaluate(() => {
      globalThis.charts[0].state = { at: 12.5 }
    })
  },
})
const { makeSite } = await import('../examples/site/make.mjs')
await makeSite(join(folder, 'gallery/site'))
await shoot('five-ways', `${url}site/index.html`, { width: 1180, height: 1000 })
await shoot('page-narrow', url, { width: 360, height: 740 })
// The site of the documentation, by day, by night and narrow.
const site = join(folder, 'site')
execFileSync(process.execPath, [at('scripts/docs.mjs'), '--out', site, '--no-serve'], { cwd: at('.') })
const pages = await preview({
  root: folder,
  configFile: false,
  build: { outDir: site },
  appType: 'mpa',
  logLevel: 'error',
  preview: { port: 0 },
})
const address = pages.resolvedUrls.local[0]
await shoot('site', `${address}options.html`, { act: page => page.mouse.wheel(0, 700) })
await browser.close()
await server.close()
await pages.close()

// What the command prints, as it stands in a terminal.
const { canShoot, terminalShot } = await import('./terminal-shot.mjs')
if (canShoot())
  await terminalShot(
    [
      'dapplo look demo-data/sailings.csv',
      'dapplo draw demo-data/piers.csv --draw bar --y pier --x 2025 --order ranked --top 6 --as-text',
      'dapplo draw demo-data/sailings.csv --draw bar --x "monthly departed" --y count',
    ],
    { columns: 104, rows: 70, folder: at('.'), out: join(out, 'terminal.png') },
  )
else console.warn('Xvfb, xterm or ImageMagick is not here, so docs/screenshots/terminal.png stays as it is.')

// The moving picture of the README: one description after the other.
const { chart, openTable, toFilm, writeWhole } = await import('@dapplo/node')
const sailings = openTable(at('demo-data/sailings.csv'))
const bars = chart(sailings, {
  draw: 'bar',
  x: 'year of departed',
  y: 'sum of passengers',
  color: 'route',
  title: 'Passengers by year and route',
  legend: 'top',
})
writeWhole(
  join(out, 'moving.gif'),
  await toFilm(
    [
      bars,
      bars.with({ arrange: 'stack', title: 'The same, stacked' }),
      bars.with({ arrange: 'share', title: 'The same, as shares' }),
      bars.with({ draw: 'line', points: true, title: 'The same, as lines' }),
    ],
    'gif',
    { frame: { width: 460, height: 290 }, rate: 10, hold: 1100 },
  ),
)
rmSync(folder, { recursive: true })
