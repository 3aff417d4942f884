import { createReadStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { join } from 'node:path'
import { rolldown } from 'rolldown'
import { expect, test } from 'vitest'
// @ts-expect-error A script of the demo data, without types.
import { writeSailings } from '../demo-data/far.mjs'
import { openBrowser, problemsOn } from './support/browser.ts'
import { root } from './support/command.ts'

/** The engine within a page, without a network and under a strict policy. */

const PAGE = `
import { chart, compose, paintSvg, readCsv, readJson, readLines } from '@dapplo/core'
import { farTable, ready } from 'dapplo/far'
import { duckdbInPage } from '@dapplo/engines/page'

const BOATS = JSON.stringify([
  { pier: 'Old Mole', at: '2024-03-01T08:30', load: '1,204' },
  { pier: "O'Neill", at: '2024-03-02T10:00', load: '17' },
  { pier: null, at: '2024-03-02T11:00', load: '3' },
])
const engine = await duckdbInPage(
  { sailings: 'sailings.csv', many: 'many.parquet', boats: { json: BOATS }, logs: 'logs.ndjson' },
  { worker: 'duckdb-browser-eh.worker.js', wasm: 'duckdb-eh.wasm' },
)
const near = readCsv(await (await fetch('sailings.csv')).text(), { name: 'sailings' })
const far = await farTable(engine, 'sailings')
const many = await farTable(engine, 'many')
const frame = { width: 600, height: 400, measure: text => text.length * 7 }
const draw = async (table, description) => {
  const made = chart(table, description)
  await ready(made)
  return paintSvg(compose(made, {}, frame))
}
window.dapploTried = async description => [await draw(near, description), await draw(far, description)]
const sameRows = async (far, here) => {
  const description = { draw: 'bar', x: 'day of at', y: 'sum of load', color: 'pier' }
  return (await draw(await farTable(engine, far), description)) === (await draw(here, description))
}
window.dapploJson = async () => [
  await sameRows('boats', readJson(BOATS, { name: 'boats' })),
  await sameRows('logs', readLines(await (await fetch('logs.ndjson')).text(), { name: 'logs' })),
]
window.dapploMany = async description => [many.length, many.names, await draw(many, description)]
`

test('DuckDB in a page gives the pictures of rows that are here, asks no other host, and obeys a strict policy', async () => {
  const folder = mkdtempSync(join(root, 'node_modules', '.far-page-'))
  writeFileSync(join(folder, 'page.ts'), PAGE)
  await writeSailings(join(folder, 'many.parquet'), 5000)
  writeFileSync(
    join(folder, 'logs.ndjson'),
    '{"pier": "Old Mole", "at": "2024-03-01", "load": 4}\n{"pier": "", "at": "2024-03-02", "load": null}\n{"pier": "East", "at": "2024-03-02", "load": 2.5}\n',
  )
  const bundle = await rolldown({ input: join(folder, 'page.ts'), platform: 'browser', logLevel: 'silent' })
  await bundle.write({ dir: folder, entryFileNames: 'page.js', format: 'es' })
  writeFileSync(
    join(folder, 'index.html'),
    '<!doctype html><link rel="icon" href="data:,"><script type="module" src="page.js"></script>',
  )
  const dist = join(root, 'node_modules/@duckdb/duckdb-wasm/dist')
  const types: Record<string, string> = { html: 'text/html', js: 'text/javascript', wasm: 'application/wasm' }
  const server = createServer((request, response) => {
    const name = request.url === '/' ? 'index.html' : request.url!.slice(1)
    response.writeHead(200, {
      'content-type': types[name.split('.').pop()!] ?? 'text/plain',
      'content-security-policy':
        "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self'; connect-src 'self'; img-src data:",
    })
    const path = /^duckdb-(eh\.wasm|browser-eh\.worker\.js)$/.test(name)
      ? join(dist, name)
      : name === 'sailings.csv'
        ? join(root, 'demo-data/sailings.csv')
        : join(folder, name)
    createReadStream(path)
      .on('error', () => response.end())
      .pipe(response)
  })
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  const url = `http://127.0.0.1:${(server.address() as { port: number }).port}/`
  const browser = await openBrowser()
  try {
    const page = await browser.newPage()
    const problems = problemsOn(page)
    const others: string[] = []
    page.on('request', request => {
      if (!request.url().startsWith(url) && !/^(data|blob):/.test(request.url())) others.push(request.url())
    })
    await page.goto(url)
    await page.waitForFunction(() => 'dapploTried' in window)
    const descriptions = [
      { draw: 'bar', x: 'route', y: 'count', color: 'vessel' },
      { draw: 'line', x: 'month of departed', y: 'mean of delay_minutes', color: 'route' },
      {
        draw: 'heatmap',
        x: 'weekday of departed',
        y: 'hour of day of departed',
        color: 'median of delay_minutes',
      },
      { draw: 'bar', x: 'bins of wind_knots', y: 'count', where: { route: ['Tern Point', 'Gannet Bay'] } },
      { draw: 'scatter', x: 'wind_knots', y: 'delay_minutes', where: { departed: { from: '2025-06-01' } } },
    ]
    for (const description of descriptions) {
      const [here, there] = await page.evaluate(own => (window as any).dapploTried(own), description)
      expect(there).toBe(here)
    }
    const [rows, names, svg] = await page.evaluate(() =>
      (window as any).dapploMany({
        draw: 'bar',
        x: 'year of departed',
        y: 'sum of passengers',
        color: 'route',
      }),
    )
    expect([rows, names.length]).toEqual([5000, 7])
    expect(svg).toContain('2024')
    expect(await page.evaluate(() => (window as any).dapploJson())).toEqual([true, true])
    expect(others).toEqual([])
    expect(problems).toEqual([])
  } finally {
    await browser.close()
    server.close()
    rmSync(folder, { recursive: true })
  }
})
