import { existsSync, readFileSync, statSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { extname, join, normalize } from 'node:path'
import { type Browser, chromium, type Page } from 'playwright-core'
import { findChromium } from '../../scripts/browsers.mjs'
import { openFirefox } from './firefox.ts'
import { PATIENCE } from './waiting.ts'

/** Which browser the tests are run in: `npm test` runs those of pages in both. */
export const engine = process.env.DAPPLO_ENGINE === 'firefox' ? 'firefox' : 'chromium'

/** `npm run test:all` runs every test in both. */
const everything = process.env.DAPPLO_ALL !== undefined

/** `npm test` tries in Firefox one of several tests that go the same ways: true where the others are left to the longer run. */
export const sampled = engine === 'firefox' && !everything

/** The examples of a test: all of them in the longer run, else those at some places; in Firefox the first of these alone. */
export const sample = <T>(all: readonly T[], ...places: number[]): readonly T[] =>
  everything ? all : (sampled ? places.slice(0, 1) : places).map(place => all[place])

/** A headless browser, without the traffic that it would send of its own accord. */
export async function openBrowser(): Promise<Browser> {
  const browser = engine === 'firefox' ? await openFirefox() : await openChromium()
  const newContext = browser.newContext.bind(browser)
  browser.newContext = async options => {
    const context = await newContext(options)
    context.setDefaultTimeout(PATIENCE)
    return context
  }
  return browser
}

function openChromium(): Promise<Browser> {
  const executablePath = findChromium()
  if (!executablePath)
    throw new Error('The tests need Chromium: install it, or name it in the variable CHROMIUM.')
  return chromium.launch({
    executablePath,
    timeout: PATIENCE,
    args: [
      '--no-sandbox',
      '--disable-gpu',
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
