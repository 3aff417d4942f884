import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { engine, openBrowser, problemsOn, sample, sampled, serveFolder } from './support/browser.ts'
import { buildExample } from './support/examples.ts'

const example = join(inject('examples'), 'frameworks')
// Firefox has folders of its own, as it may run at the same time.
const [out, server] = ['pages', 'server'].map(name => join(example, `${name}-${engine}`))
let browser: Browser
let page: Page
let site: Awaited<ReturnType<typeof serveFolder>>
const problems: string[] = []

beforeAll(async () => {
  await buildExample(example, '--outDir', out)
  await buildExample(example, '--outDir', server, '--ssr', 'src/server.tsx')
  browser = await openBrowser()
  site = await serveFolder(out)
}, 120_000)
afterAll(async () => {
  await browser?.close()
  await site?.close()
})

async function open(path: string) {
  problems.length = 0
  page = await browser.newPage({ viewport: { width: 900, height: 700 }, reducedMotion: 'reduce' })
  problemsOn(page, problems)
  await page.goto(`${site.url}/${path}`)
  await page.locator('canvas').first().waitFor()
}
/** The middle of the bar of Kelp Quay, the second of the ranked. */
async function barOf(): Promise<{ x: number; y: number }> {
  const box = (await page.locator('canvas').first().boundingBox())!
  return { x: box.x + box.width * 0.3, y: box.y + box.height * 0.42 }
}

describe('a chart in an application', () => {
  test('of React keeps its state there, has nodes in its tooltip, and tells what is selected', async () => {
    await open('react.html')
    const bar = await barOf()
    await page.mouse.move(bar.x - 5, bar.y)
    await page.mouse.move(bar.x, bar.y)
    await page.locator('em', { hasText: 'Kelp Quay, 2024' }).waitFor()
    await page.mouse.click(bar.x, bar.y)
    await page.locator('#selected', { hasText: 'Selected: Kelp Quay' }).waitFor()
    await page.getByRole('button', { name: 'Select nothing' }).click()
    await page.locator('#selected', { hasText: 'Click a bar' }).waitFor()
    await page.getByRole('button', { name: 'Stand the bars up' }).click()
    await page.getByRole('button', { name: 'Lay the bars down' }).waitFor()
    expect(problems).toEqual([])
  })

  test.skipIf(sampled)('of React is drawn by a server, and comes alive without a complaint', async () => {
    const { render } = await import(pathToFileURL(join(server, 'server.js')).href)
    const drawn: string = render()
    expect(drawn).toContain('<svg ')
    expect(drawn).toContain('>Kelp Quay</text>')
    const html = readFileSync(join(out, 'react.html'), 'utf8')
    writeFileSync(
      join(out, 'drawn.html'),
      html.replace('<div id="root"></div>', `<div id="root">${drawn}</div>`),
    )
    await open('drawn.html')
    expect(await page.locator('#root svg[role=img]').count()).toBeLessThanOrEqual(1)
    const bar = await barOf()
    await page.mouse.click(bar.x, bar.y)
    await page.locator('#selected', { hasText: 'Selected: Kelp Quay' }).waitFor()
    expect(problems).toEqual([])
  })

  test.each(sample(['vue', 'svelte'], 0, 1))(
    'of %s is the element, with its events and attributes',
    async name => {
      await open(`${name}.html`)
      const bar = await barOf()
      await page.mouse.click(bar.x, bar.y)
      await page.locator('#clicked', { hasText: 'Clicked: Kelp Quay' }).waitFor()
      await page.getByRole('button', { name: 'By night' }).click()
      await page.waitForFunction(
        () => (document.querySelector('dapplo-chart') as any).live.scene.background === '#15191c',
      )
      expect(problems).toEqual([])
    },
  )
})
