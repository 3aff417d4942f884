import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { openBrowser, problemsOn, serveFolder } from './support/browser.ts'
import { everything } from './support/extent.ts'

const root = join(import.meta.dirname, '..')
const out = mkdtempSync(join(tmpdir(), 'dapplo-site-'))
let browser: Browser
let page: Page
let site: Awaited<ReturnType<typeof serveFolder>>
const problems: string[] = []

beforeAll(async () => {
  // The reference is made in any case.
  const only = everything
    ? []
    : ['start', 'kinds', 'recipes/largest-and-rest'].flatMap(page => ['--only', page])
  execFileSync(
    process.execPath,
    [join(root, 'scripts/docs.mjs'), '--out', out, '--no-serve', '--no-build', ...only],
    { cwd: root, stdio: 'pipe' },
  )
  browser = await openBrowser()
  site = await serveFolder(out)
  page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  problemsOn(page, problems)
  page.on('request', request => {
    if (!request.url().startsWith(site.url) && !/^(data|blob):/.test(request.url()))
      problems.push(request.url())
  })
}, 180_000)
afterAll(async () => {
  await browser?.close()
  await site?.close()
  rmSync(out, { recursive: true })
})

describe('the site of the documentation', () => {
  test('has the live chart of a snippet beside its code, in the theme of the page, and asks nobody for anything', async () => {
    await page.goto(`${site.url}/recipes/largest-and-rest.html`)
    const chart = page.locator('.drawn dapplo-chart').first()
    await chart.locator('canvas').first().waitFor()
    expect(await chart.getAttribute('theme')).toBe('day')
    await page.locator('.VPSwitchAppearance').first().click()
    await page.waitForFunction(
      () => document.querySelector('.drawn dapplo-chart')?.getAttribute('theme') === 'night',
    )
    expect(problems).toEqual([])
  })

  test('is found through by words, and has an address for each option and code', async () => {
    await page.goto(`${site.url}/options.html`)
    expect(await page.locator('h2#breakafter, h2#breakAfter').count()).toBe(1)
    expect(await page.locator('.option img').count()).toBeGreaterThan(30)
    await page.goto(`${site.url}/codes.html`)
    for (const code of ['unknown-column', 'unsettled-numbers', 'words-left-out'])
      expect(await page.locator(`h2#${code}`).count(), code).toBe(1)
    await page.keyboard.press('Control+k')
    await page.locator('.VPLocalSearchBox input').fill('error bars')
    await page.locator('.VPLocalSearchBox .result').first().waitFor()
    await page.keyboard.press('Escape')
    expect(problems).toEqual([])
  })

  test('has a page to try things: it completes, says what is wrong, takes a file, and its address holds it', async () => {
    await page.goto(`${site.url}/try.html`)
    await page.locator('.place canvas').first().waitFor()
    const text = page.locator('.cm-content')
    const write = async (description: string) => {
      await text.click()
      await page.keyboard.press('Control+a')
      await page.keyboard.press('Delete')
      await page.keyboard.insertText(description)
    }
    await write('{ "draw": "bar", "x": "route", "y": "sum of passengers" }')
    await page.waitForFunction(() => decodeURIComponent(location.hash).includes('"bar"'))
    // The sentence says what the text says, and writes it.
    await page.getByRole('button', { name: 'sum of passengers', exact: true }).click()
    await page.getByRole('option', { name: 'mean of passengers', exact: true }).click()
    await text.filter({ hasText: '"y": "mean of passengers"' }).waitFor()
    await page.waitForFunction(() => decodeURIComponent(location.hash).includes('mean+of'))
    await write('{ "draw": "bar", "x": "route", "y": "average of passengers" }')
    await page.locator('.said').filter({ hasText: 'Write "mean of passengers".' }).waitFor()
    await page.locator('.cm-lintRange-error').first().waitFor()
    await write('{ "dr')
    await page.keyboard.press('Control+Space')
    await page.locator('.cm-tooltip-autocomplete li').filter({ hasText: 'draw' }).first().waitFor()
    await page.keyboard.press('Escape')
    await write('{ "draw": "bar", "x": "pier", "y": "boats" }')
    await page.locator('input[type=file]').setInputFiles({
      name: 'piers.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('pier,boats\nOld Mole,3\nKelp Quay,4\n'),
    })
    await page.waitForFunction(() => decodeURIComponent(location.hash).includes('Old+Mole'))
    const address = page.url()
    const other = await browser.newPage()
    await other.goto(address)
    await other.locator('.place canvas').first().waitFor()
    await other.close()
    await page.locator('input[type=file]').setInputFiles({
      name: 'long.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`pier,boats\n${'Old Mole,3\n'.repeat(5000)}`),
    })
    await page.locator('.said').filter({ hasText: 'too long for an address' }).waitFor()
    expect(problems).toEqual([])
  })

  test('is readable at 360 pixels', async () => {
    const narrow = await browser.newPage({ viewport: { width: 360, height: 740 } })
    for (const path of ['/start.html', '/recipes/largest-and-rest.html', '/options.html', '/try.html']) {
      await narrow.goto(`${site.url}${path}`)
      const wide = await narrow.evaluate(() => document.documentElement.scrollWidth)
      expect(wide, path).toBeLessThanOrEqual(360)
    }
    await narrow.close()
  })
})
