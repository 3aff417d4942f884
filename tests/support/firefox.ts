import { fileURLToPath } from 'node:url'
import { type Browser, type BrowserContextOptions, firefox } from 'playwright-core'
import { findFirefox } from '../../scripts/browsers.mjs'
import { PATIENCE } from './waiting.ts'

/**
 * Firefox as it is installed, driven by WebDriver BiDi. Whether a person prefers reduced motion is a setting of the whole
 * browser there, so that there is one for either, opened when it is asked for.
 */
export async function openFirefox(): Promise<Browser> {
  const executable = findFirefox()
  if (!executable)
    throw new Error('Install Firefox (on Debian: apt-get install firefox-esr), or name it in FIREFOX.')
  const open = (reduced: boolean) =>
    firefox.launch({
      channel: 'moz-firefox',
      executablePath: fileURLToPath(new URL('firefox.mjs', import.meta.url)),
      env: { ...process.env, FIREFOX: executable } as Record<string, string>,
      timeout: PATIENCE,
      firefoxUserPrefs: {
        'ui.prefersReducedMotion': Number(reduced),
        'app.update.enabled': false,
        'datareporting.policy.dataSubmissionEnabled': false,
      },
    })
  const opened = new Map<boolean, Promise<Browser>>()
  const browserFor = ({ reducedMotion }: BrowserContextOptions = {}) => {
    const reduced = reducedMotion === 'reduce'
    const known = opened.get(reduced) ?? open(reduced)
    opened.set(reduced, known)
    return known
  }
  const newContext = async (options?: BrowserContextOptions) => {
    const context = await (await browserFor(options)).newContext(options)
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
  const first = await browserFor({ reducedMotion: 'reduce' })
  return Object.assign(Object.create(first) as Browser, { newContext })
}
