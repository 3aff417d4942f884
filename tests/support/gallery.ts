import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { chart, Live, mount, Table, table } from 'dapplo'
import type { Browser, BrowserContextOptions, Page } from 'playwright-core'
import { openBrowser, serveFolder } from './browser.ts'
import { still } from './waiting.ts'

declare global {
  interface Window {
    live: Live
    sailings: Table
    charts: Live[]
    dapplo: { chart: typeof chart; mount: typeof mount; table: typeof table }
  }
}

/** The gallery, built and served, with a browser to look at it. */
export interface Gallery {
  url: string
  browser: Browser
  /** Opens a page and waits until its charts stand still. Errors of the page are gathered in `errors`. */
  open(path: string, options?: BrowserContextOptions): Promise<{ page: Page; errors: string[] }>
  close(): Promise<void>
}

export async function openGallery(): Promise<Gallery> {
  const root = join(import.meta.dirname, '../..')
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-gallery-'))
  const vite = join(root, 'node_modules/vite/bin/vite.js')
  const config = join(root, 'examples/gallery/vite.config.js')
  execFileSync(
    process.execPath,
    [vite, 'build', '--config', config, '--outDir', folder, '--emptyOutDir', '--logLevel', 'error'],
    { cwd: root },
  )
  const server = await serveFolder(folder)
  const browser = await openBrowser()
  return {
    url: server.url,
    browser,
    async open(path, options = {}) {
      const context = await browser.newContext({
        viewport: { width: 1280, height: 900 },
        reducedMotion: 'reduce',
        ...options,
      })
      const page = await context.newPage()
      const errors: string[] = []
      page.on('pageerror', error => errors.push(error.message))
      page.on('console', message => message.type() === 'error' && errors.push(message.text()))
      await page.goto(`${server.url}/${path}`)
      await page.waitForSelector('.dapplo canvas', { state: 'attached' })
      await still(page)
      return { page, errors }
    },
    async close() {
      await browser.close()
      await server.close()
      rmSync(folder, { recursive: true })
    },
  }
}
