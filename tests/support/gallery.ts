import type { ColumnTypes, Composed, chartFrom, compose, Drawn, germanWords } from '@dapplo/compose'
import type { chart, Live, mount, Table, table } from 'dapplo'
import type { Browser, BrowserContextOptions, Page } from 'playwright-core'
import { inject } from 'vitest'
import { openBrowser } from './browser.ts'
import { still } from './waiting.ts'

declare global {
  interface Window {
    live: Live
    sailings: Table
    charts: Live[]
    composer: Composed
    /** The descriptions that a composer told of. */
    steps: Drawn[]
    types: ColumnTypes
    composing: {
      compose: typeof compose
      chartFrom: typeof chartFrom
      germanWords: typeof germanWords
      tables: Record<string, Table<any>>
    }
    dapplo: { chart: typeof chart; mount: typeof mount; table: typeof table }
  }
}

/** The gallery, built and served, with a browser to look at it. */
export interface Gallery {
  url: string
  browser: Browser
  /** Opens a page and waits until its charts stand still. Errors of the page are gathered in `errors`. */
  open(path: string, options?: BrowserContextOptions): Promise<{ page: Page; errors: string[] }>
  /** The same without waiting for a chart, where there may be none yet. */
  openPlain(path: string, options?: BrowserContextOptions): Promise<{ page: Page; errors: string[] }>
  close(): Promise<void>
}

export async function openGallery(): Promise<Gallery> {
  const url = inject('gallery')
  const browser = await openBrowser()
  const openPlain: Gallery['openPlain'] = async (path, options = {}) => {
    const context = await browser.newContext({
      viewport: { width: 1280, height: 900 },
      reducedMotion: 'reduce',
      ...options,
    })
    const page = await context.newPage()
    const errors: string[] = []
    page.on('pageerror', error => errors.push(error.message))
    page.on('console', message => message.type() === 'error' && errors.push(message.text()))
    await page.goto(`${url}/${path}`)
    return { page, errors }
  }
  return {
    url,
    browser,
    openPlain,
    async open(path, options) {
      const { page, errors } = await openPlain(path, options)
      await page.waitForSelector('.dapplo canvas', { state: 'attached' })
      await still(page)
      return { page, errors }
    },
    close: () => browser.close(),
  }
}
