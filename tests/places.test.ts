import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { copyFileSync, cpSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { createServer, get } from 'node:http'
import { join } from 'node:path'
import { chart, openTable, toSvg } from '@dapplo/node'
import type { Browser } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { openBrowser, sampled, serveFolder } from './support/browser.ts'
import { main, root, workplace } from './support/command.ts'
import { PATIENCE } from './support/waiting.ts'

const { folder, dapplo } = workplace()
let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(async () => {
  await browser?.close()
  rmSync(folder, { recursive: true })
})
describe('serve', () => {
  const place = join(folder, 'served')
  let process_: ChildProcess
  let url: string
  const write = (more: object) =>
    writeFileSync(
      join(place, 'piers.chart.json'),
      JSON.stringify({
        tables: { piers: { url: 'piers.csv' } },
        draw: 'bar',
        x: 'pier',
        y: '2025',
        title: 'Piers',
        ...more,
      }),
    )
  beforeAll(async () => {
    mkdirSync(place)
    copyFileSync(join(root, 'demo-data/piers.csv'), join(place, 'piers.csv'))
    write({})
    process_ = spawn(process.execPath, [main, 'serve', join(place, 'piers.chart.json')])
    url = await new Promise(resolve => process_.stdout!.once('data', data => resolve(String(data).trim())))
  })
  afterAll(() => process_?.kill('SIGINT'))

  test.skipIf(sampled)('answers to its own name, to no other, and keeps to its folder', async () => {
    const ask = (path: string, host: string) =>
      new Promise<{ status: number | undefined; body: string }>((resolve, reject) => {
        const { hostname, port } = new URL(url)
        get({ hostname, port, path, headers: { host } }, response => {
          let body = ''
          response.on('data', data => {
            body += data
          })
          response.on('end', () => resolve({ status: response.statusCode, body }))
        }).on('error', reject)
      })
    const { port } = new URL(url)
    for (const own of [`127.0.0.1:${port}`, `localhost:${port}`, 'LOCALHOST', `[::1]:${port}`])
      expect((await ask('/chart.svg', own)).status, own).toBe(200)
    for (const foreign of [
      'far.example',
      `far.example:${port}`,
      '10.0.0.1',
      '127.0.0.1.far.example',
      'localhost.far.example',
    ])
      expect(await ask('/chart.svg', foreign), foreign).toMatchObject({
        status: 403,
        body: expect.stringContaining('no other name'),
      })

    // Pictures and data are followed through links, but not out of the folder; a pipe would never end.
    writeFileSync(join(folder, 'secret.png'), 'secret')
    symlinkSync(join(folder, 'secret.png'), join(place, 'link.png'))
    symlinkSync(join(root, 'demo-data/piers.csv'), join(place, 'away.csv'))
    spawnSync('mkfifo', [join(place, 'pipe.csv')])
    const table = (name: string) => ({ tables: { piers: { url: name } } })
    for (const [more, words] of [
      [{ background: { image: 'link.png' } }, 'link.png lies outside'],
      [{ axes: { x: { images: { 'Old Mole': 'link.png' } } } }, 'link.png lies outside'],
      [table('away.csv'), 'away.csv lies outside'],
      [table('../secret.png'), 'lies outside'],
      [table('pipe.csv'), 'pipe.csv is no plain file'],
      [table('nowhere/at/all.csv'), 'There is no file'],
    ] as const) {
      write(more)
      const answer = await ask('/', `localhost:${port}`)
      expect(answer.status).toBe(200)
      expect(answer.body).toContain(words)
      expect(answer.body).not.toContain(Buffer.from('secret').toString('base64'))
    }
    write({})
    // Larger pictures than a picture needs come with fewer pixels, and many at once one after the other.
    const sizes = await Promise.all(
      Array.from({ length: 6 }, async () => {
        const png = Buffer.from(await (await fetch(`${url}chart.png?width=4000&height=4000`)).arrayBuffer())
        return [png.readUInt32BE(16), png.readUInt32BE(20)]
      }),
    )
    expect(sizes).toEqual(Array(6).fill([4000, 4000]))
  })

  test.skipIf(sampled)('shows the chart, reloads when it changes, and says what is wrong', async () => {
    const page = await browser.newPage()
    const errors: string[] = []
    page.on('console', message => message.type() === 'error' && errors.push(message.text()))
    await page.goto(url)
    await page.waitForSelector('.dapplo canvas', { state: 'attached' })
    expect(await page.locator('.dapplo').getAttribute('aria-label')).toBe('Piers')
    write({ title: 'Piers, again' })
    await page.waitForSelector('.dapplo[aria-label="Piers, again"]')
    write({ y: '2052' })
    await page.getByRole('alert').waitFor()
    expect(await page.getByRole('alert').textContent()).toContain('There is no column "2052"')
    write({})
    await page.waitForSelector('.dapplo[aria-label="Piers"]')
    expect(errors).toEqual([])
    await page.close()
  })

  test('answers by oEmbed, and a frame fits itself to the chart and speaks of its state', async () => {
    const found = (await (
      await fetch(`${url}oembed?url=${encodeURIComponent(url)}&maxwidth=500`)
    ).json()) as Record<string, any>
    expect(found).toMatchObject({ version: '1.0', type: 'rich', width: 500, title: 'Piers' })
    expect((await fetch(`${url}oembed?url=http://elsewhere.example/`)).status).toBe(404)
    expect(
      (await (await fetch(`${url}chart.png?width=300&height=200`)).arrayBuffer()).byteLength,
    ).toBeGreaterThan(1000)
    const host = createServer((_, response) => {
      response.writeHead(200, { 'content-type': 'text/html' })
      response.end(`<!doctype html><title>x</title>${found.html}`)
    })
    await new Promise<void>(resolve => host.listen(0, '127.0.0.1', resolve))
    const page = await browser.newPage()
    await page.goto(`http://127.0.0.1:${(host.address() as { port: number }).port}/`)
    // A host that begins to listen late asks: what the frame has said before is over.
    await page.frameLocator('iframe').locator('.dapplo canvas').first().waitFor({ state: 'attached' })
    const message = await page.evaluate(
      () =>
        new Promise<{ dapplo: string; height: number }>(resolve => {
          window.addEventListener('message', event => event.data?.dapplo === 'size' && resolve(event.data))
          document.querySelector('iframe')!.contentWindow!.postMessage({ dapplo: 'ask' }, '*')
        }),
    )
    expect(message.height).toBeGreaterThan(100)
    const problem = await page.evaluate(
      () =>
        new Promise<string>(resolve => {
          window.addEventListener(
            'message',
            event => event.data?.dapplo === 'problem' && resolve(event.data.problem),
          )
          document
            .querySelector('iframe')!
            .contentWindow!.postMessage({ dapplo: 'set', state: { hidden: 5 } }, '*')
        }),
    )
    expect(problem).toContain('state.hidden')
    const state = page.evaluate(
      () =>
        new Promise(resolve => {
          window.addEventListener(
            'message',
            event => event.data?.dapplo === 'state' && resolve(event.data.state),
          )
          document
            .querySelector('iframe')!
            .contentWindow!.postMessage({ dapplo: 'set', state: { hidden: ['x'] } }, '*')
        }),
    )
    expect(await state).toEqual({ hidden: ['x'] })
    await page.close()
    host.close()
  })

  test.skipIf(sampled)('reaches nothing outside its folder', async () => {
    for (const path of [
      '../../etc/passwd',
      '..%2f..%2fetc%2fpasswd',
      'piers.csv',
      '.%00',
      'chart.svg/../../x',
    ])
      expect((await fetch(url + path)).status).toBe(404)
    writeFileSync(join(folder, 'secret.csv'), 'pier,2025\nhidden,1\n')
    symlinkSync(join(folder, 'secret.csv'), join(place, 'link.csv'))
    for (const source of ['../secret.csv', 'link.csv', '/etc/passwd', 'x/../../secret.csv']) {
      write({ tables: { piers: { url: source } } })
      const answer = await fetch(`${url}chart.svg`)
      const text = await answer.text()
      expect(answer.status).toBe(500)
      expect(text).not.toContain('hidden')
    }
    write({})
  })
})

/** Bundles the element into a folder, as `dapplo.js`. */
async function bundleElement(site: string): Promise<void> {
  const { rolldown } = await import('rolldown' as string)
  const browser = JSON.stringify(join(root, 'packages/browser/dist/index.js'))
  writeFileSync(
    join(site, 'entry.mjs'),
    `import { chartById, defineElement } from ${browser}\ndefineElement()\ndefineElement()\nglobalThis.chartById = chartById\n`,
  )
  const bundle = await rolldown({ input: join(site, 'entry.mjs'), platform: 'browser' })
  await bundle.write({ file: join(site, 'dapplo.js'), format: 'es', codeSplitting: false })
}

describe('the element', () => {
  test.skipIf(sampled)(
    'waits for a table that is fetched again and again, and reads it by what the answer says it is',
    async () => {
      const site = join(folder, 'waiting')
      mkdirSync(site)
      await bundleElement(site)
      let asked = 0
      const data = createServer((_, response) => {
        const well = ++asked > 2
        response.writeHead(well ? 200 : 500, {
          'content-type': 'application/json',
          'access-control-allow-origin': '*',
        })
        response.end(well ? '[{ "pier": "Old Mole", "n": 3 }]' : 'a fault')
      })
      await new Promise<void>(resolve => data.listen(0, '127.0.0.1', resolve))
      const address = `http://127.0.0.1:${(data.address() as { port: number }).port}/rows`
      writeFileSync(
        join(site, 'rows.chart.json'),
        JSON.stringify({
          tables: { rows: { url: address, every: { seconds: 60 } } },
          id: 'rows',
          draw: 'bar',
          x: 'pier',
          y: 'sum of n',
        }),
      )
      writeFileSync(
        join(site, 'index.html'),
        '<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Site</title><script type="module" src="dapplo.js"></script></head><body><dapplo-chart src="rows.chart.json"></dapplo-chart></body></html>',
      )
      const server = await serveFolder(site)
      const page = await browser.newPage()
      await page.goto(`${server.url}/index.html`)
      await page.getByRole('alert').filter({ hasText: 'answers 500' }).waitFor()
      await page.waitForFunction(() => (globalThis as any).chartById('rows')?.chart.table.length === 1)
      expect(await page.getByRole('alert').count()).toBe(0)
      await page.close()
      await server.close()
      data.closeAllConnections()
      data.close()
    },
  )

  test.skipIf(sampled)(
    'follows what the tables of a description follow: messages, and what is fetched again',
    async () => {
      const { startFeed } = (await import('../demo-data/feed.mjs' as string)) as {
        startFeed(options: object): Promise<{ url: string; close(): Promise<void> }>
      }
      const feed = await startFeed({ every: 50 })
      const site = join(folder, 'following')
      mkdirSync(site)
      await bundleElement(site)
      const columns = {
        id: { type: 'number' },
        at: { type: 'time' },
        pier: { type: 'text' },
        boarded: { type: 'number' },
      }
      const bars = { draw: 'bar', x: 'sum of boarded', y: 'pier', motion: false }
      const ways = {
        events: {
          url: `${feed.url}/events`,
          as: 'events',
          keep: { minutes: 15 },
          at: 'at',
          stale: { seconds: 60 },
        },
        socket: { url: `${feed.url}/socket`, as: 'socket' },
        fetched: { url: `${feed.url}/boarding.json`, every: { seconds: 0.2 } },
      }
      for (const [id, source] of Object.entries(ways))
        writeFileSync(
          join(site, `${id}.chart.json`),
          JSON.stringify({ tables: { boardings: { ...source, key: 'id', columns } }, id, ...bars }),
        )
      writeFileSync(
        join(site, 'bad.chart.json'),
        JSON.stringify({ tables: { b: { as: 'events' } }, ...bars }),
      )
      // Written into the page by the command, the chart follows just the same.
      const piece = join(site, 'piece.html')
      expect(
        dapplo([
          'embed',
          join(site, 'events.chart.json'),
          '--id',
          'inside',
          '--as',
          'element',
          '--out',
          piece,
        ]).status,
      ).toBe(0)
      const names = [...Object.keys(ways), 'bad']
      writeFileSync(
        join(site, 'index.html'),
        `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Site</title><script type="module" src="dapplo.js"></script></head><body>
${names.map(name => `<dapplo-chart src="${name}.chart.json"></dapplo-chart>`).join('\n')}
${readFileSync(piece, 'utf8')}</body></html>`,
      )
      const server = await serveFolder(site)
      const page = await browser.newPage()
      await page.goto(`${server.url}/index.html`)
      const rows = (id: string) =>
        page.evaluate(id => (globalThis as any).chartById(id)?.chart.table.length ?? 0, id)
      for (const id of [...Object.keys(ways), 'inside']) {
        await expect.poll(() => rows(id), { timeout: PATIENCE }).toBeGreaterThan(150)
        const before = await rows(id)
        await expect.poll(() => rows(id), { timeout: PATIENCE }).toBeGreaterThan(before + 3)
      }
      expect(await page.getByRole('alert').allTextContents()).toEqual([
        expect.stringContaining('neither rows nor a url'),
      ])
      // Taken off the page, nothing is followed any more.
      const held = await page.evaluate(async () => {
        const { table } = (globalThis as any).chartById('socket').chart
        document.body.replaceChildren()
        const before = table.length
        await new Promise(resolve => setTimeout(resolve, 400))
        return table.length - before
      })
      expect(held).toBe(0)
      // A picture shows the rows that a table begins with: here none.
      const { stdout, status } = dapplo(['draw', join(site, 'events.chart.json')])
      expect(status).toBe(0)
      expect(stdout).toContain('There are no rows in table &#34;boardings&#34;')
      await page.close()
      await server.close()
      await feed.close()
    },
  )

  test.skipIf(sampled)(
    'comes alive under a strict policy: from an address, from data inside, several on a page; and says what is wrong',
    async () => {
      const site = join(folder, 'site')
      mkdirSync(site)
      for (const name of ['piers.csv', 'sailings.csv', 'passengers.chart.json'])
        cpSync(join(root, 'demo-data', name), join(site, name))
      await bundleElement(site)
      const inline = {
        tables: {
          piers: {
            rows: [
              { pier: '</script><b>Mole', n: 3 },
              { pier: 'Quay', n: 5 },
            ],
          },
        },
        id: 'inside',
        draw: 'bar',
        x: 'pier',
        y: 'n',
        title: 'Inside',
        axes: { rigth: { title: false } },
      }
      const still = toSvg(
        chart(openTable(join(root, 'demo-data/piers.csv')), { draw: 'bar', x: 'pier', y: '2025' }),
        { width: 400, height: 240 },
      )
      writeFileSync(
        join(site, 'index.html'),
        `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Site</title>
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; script-src 'self'; connect-src 'self'; img-src data:">
<script type="module" src="dapplo.js"></script></head><body>
<dapplo-chart src="passengers.chart.json" theme="night" menu></dapplo-chart>
<dapplo-chart>${still}<script type="application/json">${JSON.stringify(inline).replace(/</g, '\\u003c')}</script></dapplo-chart>
<dapplo-chart src="nowhere.chart.json"></dapplo-chart><dapplo-chart></dapplo-chart>
</body></html>`,
      )
      const server = await serveFolder(site)
      const page = await browser.newPage()
      const errors: string[] = []
      page.on('console', message => message.type() === 'error' && errors.push(message.text()))
      page.on('pageerror', error => errors.push(error.message))
      await page.goto(`${server.url}/index.html`)
      await page.waitForFunction(() => document.querySelectorAll('dapplo-chart .dapplo').length === 2)
      expect(
        await page.locator('.dapplo').evaluateAll(all => all.map(one => one.getAttribute('aria-label'))),
      ).toEqual(['Passengers by route', 'Inside'])
      expect(await page.locator('dapplo-chart > svg').count()).toBe(0)
      expect(await page.evaluate(() => (globalThis as any).chartById('inside').chart.description.title)).toBe(
        'Inside',
      )
      await page.waitForFunction(() => document.querySelectorAll('dapplo-chart p[role="alert"]').length === 2)
      expect(await page.getByRole('alert').allTextContents()).toEqual([
        expect.stringContaining('answers 404'),
        expect.stringContaining('neither a src nor a description'),
      ])
      // What a person does is an event, and can be prevented: then nothing is shown of what is pointed at.
      const pointed = page.evaluate(
        () =>
          new Promise<string>(resolve =>
            document.querySelectorAll('dapplo-chart')[1].addEventListener('pointed', async event => {
              event.preventDefault()
              if (!(event as CustomEvent).detail.reading) return
              const [row] = await (event as CustomEvent).detail.rows()
              resolve(row.pier)
            }),
          ),
      )
      await page.locator('dapplo-chart').nth(1).scrollIntoViewIfNeeded()
      const box = (await page.locator('dapplo-chart').nth(1).boundingBox())!
      await page.mouse.move(box.x + box.width * 0.75, box.y + box.height * 0.6)
      expect(await pointed).toBe('Quay')
      await page.mouse.move(box.x + box.width * 0.76, box.y + box.height * 0.6)
      expect(await page.locator('.dapplo-tooltip-value').count()).toBe(0)
      // Moved in the page, it lives on; taken off, it leaves nothing.
      const left = await page.evaluate(async () => {
        const [first, second] = document.querySelectorAll('dapplo-chart')
        document.body.prepend(second)
        const found = new Promise<string[]>(resolve =>
          second.addEventListener('findings', event =>
            resolve((event as CustomEvent).detail.map(({ path }: { path: string }) => path)),
          ),
        )
        await new Promise(resolve => second.addEventListener('load', resolve, { once: true }))
        first.remove()
        return { charts: document.querySelectorAll('.dapplo').length, found: await found }
      })
      expect(left).toEqual({ charts: 1, found: ['axes.rigth'] })
      expect(errors.filter(text => !text.includes('404') && !text.includes('favicon'))).toEqual([])
      await page.close()
      await server.close()
    },
  )
})

test('a site shows one chart in five ways under a strict policy', async () => {
  const site = join(folder, 'five')
  const { makeSite } = (await import('../examples/site/make.mjs' as string)) as {
    makeSite(folder: string): Promise<void>
  }
  await makeSite(site)
  const server = await serveFolder(site)
  const page = await browser.newPage({ viewport: { width: 1200, height: 900 } })
  const errors: string[] = []
  page.on('console', message => message.type() === 'error' && errors.push(message.text()))
  await page.goto(`${server.url}/index.html`)
  await page.waitForFunction(() => document.querySelectorAll('dapplo-chart .dapplo').length === 2)
  for (const frame of await page.locator('iframe').all()) await frame.scrollIntoViewIfNeeded()
  const frames = page.frames().slice(1)
  expect(frames).toHaveLength(2)
  for (const frame of frames) await frame.waitForSelector('.dapplo canvas', { state: 'attached' })
  const least = () => page.locator('iframe').evaluateAll(all => Math.min(...all.map(one => one.clientHeight)))
  await expect.poll(least, { timeout: PATIENCE }).toBeGreaterThan(150)
  expect(await page.locator('section > figure > svg').count()).toBe(1)
  // Every one of them says the same to those who cannot see it.
  const names = await Promise.all(
    [page, ...frames].map(one => one.locator('.dapplo').first().getAttribute('aria-label')),
  )
  expect(new Set(names)).toEqual(new Set(['Passengers, month by month']))
  expect(errors).toEqual([])
  await page.close()
  await server.close()
})
