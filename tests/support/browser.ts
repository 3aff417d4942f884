import { existsSync, readFileSync, statSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { extname, join, normalize } from 'node:path'
import {
  type Browser,
  type BrowserContext,
  type BrowserContextOptions,
  chromium,
  type Page,
} from 'playwright-core'
import { findHeadlessChromium } from '../../scripts/browsers.mjs'
import { everything } from './extent.ts'
import { openFirefox } from './firefox.ts'
import { PATIENCE } from './waiting.ts'

/** Which browser the tests are run in: `npm test` runs those of pages in both. */
export const engine = process.env.DAPPLO_ENGINE === 'firefox' ? 'firefox' : 'chromium'

/** `npm test` tries in Firefox one of several tests that go the same ways: true where the others are left to the longer run. */
export const sampled = engine === 'firefox' && !everything

/** The examples of a test: all of them in the longer run, else those at some places; in Firefox the first of these alone. */
export const sample = <T>(all: readonly T[], ...places: number[]): readonly T[] =>
  everything ? all : (sampled ? places.slice(0, 1) : places).map(place => all[place])

// One browser for all files that a worker runs: a start costs as much as some pages.
const opened = new Map<string, Promise<Browser>>()

/** A headless browser, without the traffic that it would send of its own accord. Closing it closes the pages that it opened. */
export async function openBrowser(which: 'chromium' | 'firefox' = engine): Promise<Browser> {
  const opening = opened.get(which) ?? (which === 'firefox' ? openFirefox() : openChromium())
  opened.set(which, opening)
  const browser = await opening
  const contexts: BrowserContext[] = []
  const newContext = async (options?: BrowserContextOptions) => {
    const context = await browser.newContext(options)
    contexts.push(context)
    context.setDefaultTimeout(PATIENCE)
    return context
  }
  return Object.assign(Object.create(browser) as Browser, {
    newContext,
    newPage: async (options?: BrowserContextOptions) => {
      const context = await newContext(options)
      const page = await context.newPage()
      page.once('close', () => void context.close().catch(() => {}))
      return page
    },
    close: async () => {
      await Promise.all(contexts.map(context => context.close()))
    },
  })
}

function openChromium(): Promise<Browser> {
  const executablePath = findHeadlessChromium()
  if (!executablePath)
    throw new Error('The tests need Chromium: install it, or name it in the variable CHROMIUM.')
  return chromium.launch({
    executablePath,
    timeout: PATIENCE,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      // Letters as in a window: what has none of its own sets them at whole pixels.
      '--font-render-hinting=none',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
}

/** What goes wrong on a page from now on: errors in its console, and what its scripts throw. */
export function problemsOn(page: Page, problems: string[] = []): string[] {
  page.on('console', message => message.type() === 'error' && problems.push(message.text()))
  page.on('pageerror', error => problems.push(error.message))
  return problems
}

const TYPES: Record<string, string> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.mjs': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.ttf': 'font/ttf',
  '.json': 'application/json',
  '.csv': 'text/csv',
}

/** Serves a folder on a free port of this machine. */
export async function serveFolder(folder: string): Promise<{ url: string; close(): Promise<void> }> {
  const server: Server = createServer((request, response) => {
    const path = join(
      folder,
      normalize(decodeURIComponent(new URL(request.url ?? '/', 'http://localhost').pathname)),
    )
    const file = existsSync(path) && statSync(path).isDirectory() ? join(path, 'index.html') : path
    if (!file.startsWith(folder) || !existsSync(file)) {
      response.writeHead(404).end()
      return
    }
    response
      .writeHead(200, { 'content-type': TYPES[extname(file)] ?? 'application/octet-stream' })
      .end(readFileSync(file))
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  const address = server.address()
  if (address === null || typeof address === 'string') throw new Error('The server has no port')
  return {
    url: `http://127.0.0.1:${address.port}`,
    close: () => new Promise<void>(resolve => server.close(() => resolve())),
  }
}
