import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { elementScript } from '@dapplo/node'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { openBrowser, problemsOn, sample, sampled, serveFolder } from './support/browser.ts'
import { root, workplace } from './support/command.ts'

const { folder, dapplo } = workplace()
const POLICY = "default-src 'none'; script-src 'self'; connect-src 'self'; img-src data:"
let browser: Browser
let page: Page
let site: Awaited<ReturnType<typeof serveFolder>>
const pageOf = (head: string, body: string, policy = POLICY) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><link rel="icon" href="data:,"><meta http-equiv="Content-Security-Policy" content="${policy}">${head}</head><body>${body}</body></html>`
const open = async (html: string, script?: string) => {
  writeFileSync(join(folder, 'index.html'), html)
  if (script) writeFileSync(join(folder, 'own.js'), script)
  await page.goto(site.url)
}
const chartFile = (y = '2025') =>
  JSON.stringify({ tables: { piers: { url: 'piers.csv' } }, draw: 'bar', x: 'pier', y, title: 'Piers' })
const drawn = () => page.locator('canvas').first().waitFor()

beforeAll(async () => {
  browser = await openBrowser()
  for (const name of ['dapplo.element.js', 'dapplo.element.mjs'])
    cpSync(join(root, 'packages/browser/dist', name), join(folder, name))
  cpSync(join(root, 'demo-data/piers.csv'), join(folder, 'piers.csv'))
  writeFileSync(join(folder, 'piers.chart.json'), chartFile())
  site = await serveFolder(folder)
})
afterAll(async () => {
  await browser?.close()
  await site?.close()
  rmSync(folder, { recursive: true })
})

describe('a page without a bundler', () => {
  test('has the element and the library by one script, of old and as a module, under a strict policy', async () => {
    page = await browser.newPage()
    const problems = problemsOn(page)
    const own =
      "dapplo.mount(dapplo.chart(dapplo.table([{ pier: 'Old Mole', boats: 3 }]), { draw: 'bar', x: 'pier', y: 'boats' }), '#own')"
    await open(
      pageOf(
        '<script src="dapplo.element.js" defer></script><script src="dapplo.element.js" defer></script><script src="own.js" defer></script>',
        '<dapplo-chart src="piers.chart.json"></dapplo-chart><div id="own"></div>',
      ),
      own,
    )
    await page.waitForFunction(() => document.querySelectorAll('canvas').length >= 2)
    await open(
      pageOf(
        '<script type="module" src="own.js"></script>',
        '<dapplo-chart src="piers.chart.json"></dapplo-chart><div id="own"></div>',
      ),
      `import * as dapplo from './dapplo.element.mjs'; ${own}`,
    )
    await page.waitForFunction(() => document.querySelectorAll('canvas').length >= 2)
    expect(problems).toEqual([])
  })

  test.skipIf(sampled)(
    'opens from disk what the command wrote, with the script beside it and its hash told',
    async () => {
      const place = join(folder, 'disk')
      mkdirSync(place)
      const out = join(place, 'part.html')
      const chart = join(folder, 'piers.chart.json')
      const { status, stderr } = dapplo(['embed', chart, '--as', 'element', '--with-script', '--out', out])
      expect(status).toBe(0)
      expect(stderr).toContain(elementScript().integrity)
      expect(readFileSync(join(place, 'dapplo.element.js'), 'utf8')).toBe(elementScript().text)
      page = await browser.newPage()
      await page.goto(pathToFileURL(out).href)
      await drawn()
      const refused = dapplo(['embed', chart, '--with-script', '--out', out])
      expect([refused.status, refused.stderr]).toEqual([
        2,
        'dapplo: Only an element needs a script beside it (at --with-script). Write --as element, or leave --with-script out. [bad-flag]\n',
      ])
    },
  )

  test.skipIf(sampled)('takes the script from elsewhere by its hash, and no other', async () => {
    page = await browser.newPage()
    const { integrity } = elementScript()
    for (const [hash, known] of [
      [integrity, true],
      [integrity.replace(/.{4}=*$/, 'AAAA'), false],
    ] as const) {
      await open(
        pageOf(`<script src="dapplo.element.js" integrity="${hash}" crossorigin="anonymous"></script>`, ''),
      )
      expect(await page.evaluate(() => customElements.get('dapplo-chart') !== undefined)).toBe(known)
    }
  })
})

describe('the whole pages of the documentation', () => {
  const text = readFileSync(join(root, 'docs/pages.md'), 'utf8')
  const pages = [...text.matchAll(/## (.+)\n[\s\S]*?```html\n([\s\S]*?)```/g)].map(([, name, html]) => ({
    name,
    html,
  }))
  test.skipIf(sampled)('are there for a file, a policy, a CMS and a frame', () => {
    expect(pages.map(({ name }) => name)).toEqual([
      'A file opened from disk',
      'A strict policy',
      'A page of a CMS',
      'A frame',
    ])
  })
  test.each(sample(pages, 1, 0, 2, 3))('$name', async ({ name, html }) => {
    page = await browser.newPage()
    const problems = problemsOn(page)
    writeFileSync(join(folder, 'fit.js'), 'dapplo.fitFrames()')
    expect(
      dapplo(['embed', join(folder, 'piers.chart.json'), '--out', join(folder, 'page.html')]).status,
    ).toBe(0)
    if (name === 'A file opened from disk') {
      writeFileSync(join(folder, 'disk.html'), html)
      await page.goto(pathToFileURL(join(folder, 'disk.html')).href)
    } else await open(html)
    const frame = name === 'A frame' ? page.frameLocator('iframe') : page
    await frame.locator('canvas').first().waitFor()
    if (name === 'A frame')
      await page.waitForFunction(() => document.querySelector('iframe')!.clientHeight > 300)
    // The page of a system of contents is a part of one, which names its encoding.
    expect(problems.filter(text => !/favicon|404|character encoding/.test(text))).toEqual([])
  })
})

describe('a chart that is on its way', () => {
  /** Holds back what is asked for until it is let go. */
  async function holdBack(name: string) {
    let release: (answer?: { status?: number; body?: string }) => void = () => {}
    let asked: () => void = () => {}
    const wasAsked = new Promise<void>(resolve => {
      asked = resolve
    })
    const answer = new Promise<{ status?: number; body?: string } | undefined>(resolve => {
      release = resolve
    })
    await page.route(`**/${name}`, async route => {
      asked()
      const own = await answer
      if (own) await route.fulfill(own)
      else await route.continue()
    })
    return { release, wasAsked, end: () => page.unroute(`**/${name}`) }
  }
  const element = (inside = '') =>
    pageOf(
      '<script src="dapplo.element.js" defer></script>',
      `<dapplo-chart src="piers.chart.json">${inside}</dapplo-chart>`,
    )

  test('says that it loads, then what failed, and comes when somebody tries again', async () => {
    page = await browser.newPage()
    const held = await holdBack('piers.csv')
    await open(element())
    const status = page.getByRole('status').filter({ hasText: 'Loading' })
    await status.waitFor()
    const { height } = (await page.locator('dapplo-chart').boundingBox())!
    expect(await page.locator('dapplo-chart').getAttribute('aria-busy')).toBe('true')
    held.release({ status: 500, body: 'no' })
    await page.getByRole('alert').filter({ hasText: 'answers 500' }).waitFor()
    expect(await status.count()).toBe(0)
    await held.end()
    await page.getByRole('button', { name: 'Try again' }).click()
    await drawn()
    expect(await page.getByRole('alert').count()).toBe(0)
    expect(await page.locator('dapplo-chart').getAttribute('aria-busy')).toBe(null)
    // The sign took the room that the chart has.
    expect(Math.abs((await page.locator('dapplo-chart').boundingBox())!.height - height)).toBeLessThan(8)
  })

  test.skipIf(sampled)('keeps the picture before while it is renewed, also where that fails', async () => {
    page = await browser.newPage()
    await open(element())
    await drawn()
    const held = await holdBack('piers.chart.json?2')
    await page.evaluate(() =>
      document.querySelector('dapplo-chart')!.setAttribute('src', 'piers.chart.json?2'),
    )
    await held.wasAsked
    expect(await page.getByRole('status').filter({ hasText: 'Loading' }).count()).toBe(0)
    await drawn()
    held.release({ status: 200, body: '{' })
    await page.getByRole('alert').filter({ hasText: 'not JSON' }).waitFor()
    await drawn()
  })

  test.skipIf(sampled)('says so in the words of the page, where it has some', async () => {
    page = await browser.newPage()
    const held = await holdBack('piers.csv')
    await open(
      element(
        '<template data-when="loading"><b>One moment</b></template><template data-when="failed"><i data-why></i><button data-again>Once more</button></template>',
      ),
    )
    await page.getByText('One moment').waitFor()
    held.release({ status: 404, body: '' })
    await page.locator('i', { hasText: 'answers 404' }).waitFor()
    await held.end()
    await page.getByRole('button', { name: 'Once more' }).click()
    await drawn()
  })

  test.skipIf(sampled)('is mounted when it is there; what comes too late is passed over', async () => {
    page = await browser.newPage()
    await open(
      pageOf(
        '<script src="dapplo.element.js" defer></script><script src="own.js" defer></script>',
        '<div id="own"></div>',
      ),
      `let tries = 0
      window.awaited = dapplo.mountWhenReady(async () => {
        if (tries++ === 0) throw new Error('The harbour is closed')
        return dapplo.chart(await dapplo.fetchTable('piers.csv'), { draw: 'bar', x: 'pier', y: '2025' })
      }, '#own', { house: { words: { 'Try again': 'Noch einmal' } } })`,
    )
    await page.getByRole('alert').filter({ hasText: 'The harbour is closed' }).waitFor()
    await page.getByRole('button', { name: 'Noch einmal' }).click()
    await drawn()
    const live = await page.evaluate('awaited.ready.then(live => live === awaited.live)')
    expect(live).toBe(true)
    const held = await holdBack('piers.csv')
    await page.evaluate('awaited.again()')
    await held.wasAsked
    await page.evaluate('awaited.destroy()')
    held.release()
    expect(await page.locator('#own canvas').count()).toBe(0)
  })
})

test.skipIf(sampled)(
  'one house style for all: charts on the page follow it, and tables that come later are written by it',
  async () => {
    page = await browser.newPage()
    await open(
      pageOf(
        '<script src="dapplo.element.js" defer></script><script src="own.js" defer></script>',
        '<div id="own"></div>',
      ),
      `window.show = () => dapplo.mount(dapplo.chart(dapplo.table([{ pier: 'Old Mole', fee: 1200.5 }]), { draw: 'bar', x: 'pier', y: 'fee', label: true }), '#own', { house: { palette: ['#123456'] } })
    window.live = show()`,
    )
    await drawn()
    const svg = () => page.evaluate('live.toSvg({ end: true })') as Promise<string>
    expect(await svg()).not.toContain('Gebühr')
    await page.evaluate(
      "dapplo.setHouse({ locale: 'de', palette: ['#654321'], columns: { fee: { label: 'Gebühr', unit: '€' } } })",
    )
    // Numbers follow at once, and what the chart is given itself goes before.
    expect(await svg()).toMatch(/1\.20[01]/)
    expect(await svg()).toContain('#123456')
    await page.evaluate('{ live = show() }')
    expect(await svg()).toContain('Gebühr, €')
  },
)
