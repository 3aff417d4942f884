// Where browsers are that pages are tried in: known in one place, for set-up, pictures and tests.
import { existsSync, readdirSync } from 'node:fs'

const there = paths => paths.find(path => path && existsSync(path))

export const findChromium = () =>
  there([
    process.env.CHROMIUM,
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome',
    '/Applications/Chromium.app/Contents/MacOS/Chromium',
    '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
  ])

/** The same engine without a window around it, where it is installed: a page costs it less than half. */
export const findHeadlessChromium = () =>
  there([process.env.CHROMIUM, '/usr/bin/chromium-headless-shell']) ?? findChromium()

export const findFirefox = () => there([process.env.FIREFOX, '/usr/bin/firefox-esr', '/usr/bin/firefox'])

const LIBRARIES = '/usr/lib/x86_64-linux-gnu'

/** The window around Safari's engine, its driver, and a screen for them; undefined where one of them is missing. */
export function findWebKit() {
  const folders = existsSync(LIBRARIES)
    ? readdirSync(LIBRARIES).filter(name => name.startsWith('webkit2gtk-'))
    : []
  const window = there(folders.map(name => `${LIBRARIES}/${name}/MiniBrowser`))
  const [driver, screen] = [there(['/usr/bin/WebKitWebDriver']), there(['/usr/bin/Xvfb'])]
  return window && driver && screen ? { window, driver, screen } : undefined
}
