import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { type Browser, type BrowserContextOptions, firefox } from 'playwright-core'
import { inject } from 'vitest'
import { findFirefox } from '../../scripts/browsers.mjs'
import { PATIENCE } from './waiting.ts'

/** Firefox as it is installed, driven by WebDriver BiDi. What its pages prefer is preferred by the whole browser: one sort of them at a time. */
export async function openFirefox(): Promise<Browser> {
  const executable = findFirefox()
  if (!executable)
    throw new Error('Install Firefox (on Debian: apt-get install firefox-esr), or name it in FIREFOX.')
  // Where what all tests share is cleared away.
  const PREFERRED = join(inject('examples'), `firefox-${process.pid}.json`)
  const browser = await firefox.launch({
    channel: 'moz-firefox',
    executablePath: fileURLToPath(new URL('firefox.mjs', import.meta.url)),
    env: { ...process.env, FIREFOX: executable, PREFERRED } as Record<string, string>,
    timeout: PATIENCE,
    firefoxUserPrefs: {
      'app.update.enabled': false,
      // One process for all pages: a new one costs as much as a page.
      'fission.autostart': false,
      'dom.ipc.processCount': 1,
      'dom.ipc.processPrelaunch.enabled': false,
      'app.normandy.enabled': false,
      'messaging-system.rsexperimentloader.enabled': false,
      'datareporting.policy.dataSubmissionEnabled': false,
    },
  })
  const newContext = async (options?: BrowserContextOptions) => {
    const preferred = {
      'ui.prefersReducedMotion': Number(options?.reducedMotion === 'reduce'),
      'layout.css.prefers-color-scheme.content-override': options?.colorScheme === 'dark' ? 0 : 1,
      'browser.display.document_color_use': options?.forcedColors === 'active' ? 2 : 1,
    }
    writeFileSync(PREFERRED, JSON.stringify(preferred))
    const context = await browser.newContext(options)
    const newPage = context.newPage.bind(context)
    context.newPage = async () => {
      const page = await newPage()
      // The driver makes two clicks of it, and no double click: the second one is told as a person's would be.
      page.mouse.dblclick = async (x, y) => {
        await page.mouse.click(x, y)
        await page.evaluate(
          ([x, y]) => {
            const place = {
              bubbles: true,
              cancelable: true,
              composed: true,
              clientX: x,
              clientY: y,
              detail: 2,
            }
            const pointer = { ...place, detail: 0, pointerId: 0, pointerType: 'mouse', isPrimary: true }
            const target = document.elementFromPoint(x, y)
            target?.dispatchEvent(new PointerEvent('pointerdown', { ...pointer, buttons: 1 }))
            target?.dispatchEvent(new PointerEvent('pointerup', pointer))
            for (const type of ['click', 'dblclick']) target?.dispatchEvent(new MouseEvent(type, place))
          },
          [x, y],
        )
      }
      return page
    }
    return context
  }
  return Object.assign(Object.create(browser) as Browser, { newContext })
}
