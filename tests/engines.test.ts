import { writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { join } from 'node:path'
import { type Canvas, createCanvas, GlobalFonts, loadImage } from '@napi-rs/canvas'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { findFirefox, findWebKit } from '../scripts/browsers.mjs'
import { openBrowser } from './support/browser.ts'
import { openWebKit } from './support/webkit.ts'

const [WIDTH, HEIGHT] = [560, 340]
const SEMIBOLD = createRequire(import.meta.url).resolve(
  '@expo-google-fonts/inter/600SemiBold/Inter_600SemiBold.ttf',
)
const FORMS = {
  lines: { draw: 'line', x: 'month of departed', y: 'sum of passengers', color: 'route' },
  bars: { draw: 'bar', y: 'route', x: 'mean of delay_minutes', color: 'route', order: 'ranked', label: true },
  heatmap: { draw: 'heatmap', x: 'month of year of departed', y: 'weekday of departed', color: 'count' },
  pie: { draw: 'pie', x: 'route', y: 'sum of passengers', hollow: 0.6 },
  points: { draw: 'scatter', x: 'wind_knots', y: 'delay_minutes', color: 'vessel' },
}

/** Code of a page: a chart of the demo data in a box of its own, as a picture in text. */
const pictureOf = (description: object) => `
  const { chart, mount } = window.dapplo
  document.querySelector('#apart')?.remove()
  const place = document.createElement('div')
  place.id = 'apart'
  place.style.cssText = 'position: absolute; left: 0; top: 0; width: ${WIDTH}px; height: ${HEIGHT}px'
  document.body.append(place)
  const live = mount(chart(window.sailings, { ...${JSON.stringify(description)}, motion: false }), place)
  window.apart = live
`
const DRAWN = `window.apart.element.querySelector('canvas').toDataURL()`

/** An engine that draws a description, and what ends it. */
interface Engine {
  draw(description: object): Promise<string>
  close(): Promise<void>
}

const pagesIn = (which: 'chromium' | 'firefox') => async (): Promise<Engine> => {
  const browser = await openBrowser(which)
  const page = await browser.newPage({ viewport: { width: 1000, height: 800 } })
  await page.goto(`${inject('gallery')}/`)
  await page.waitForFunction(() => window.live && document.fonts.status === 'loaded')
  return {
    async draw(description) {
      await page.evaluate(`(() => { ${pictureOf(description)} })()`)
      await page.waitForFunction(() => document.querySelector('#apart canvas'))
      return page.evaluate<string>(DRAWN)
    },
    close: () => browser.close(),
  }
}
const inWebKit = async (): Promise<Engine> => {
  const page = await openWebKit()
  await page.goto(`${inject('gallery')}/`)
  await page.until('return window.live && document.fonts.status === "loaded"')
  return {
    async draw(description) {
      await page.run(pictureOf(description))
      await page.until('return document.querySelector("#apart canvas")')
      return page.run<string>(`return ${DRAWN}`)
    },
    close: () => page.close(),
  }
}
const ENGINES: Record<string, { here: unknown; open: () => Promise<Engine> }> = {
  Chromium: { here: true, open: pagesIn('chromium') },
  Firefox: { here: findFirefox(), open: pagesIn('firefox') },
  WebKit: { here: findWebKit(), open: inWebKit },
}

/**
 * The share of picture elements that may differ. WebKit, as it is built for Linux, sets letters at whole pixels where a screen
 * is not fine, so that names are up to a pixel in twenty wider or narrower, and what gives them room is smaller by that.
 */
const ALIKE: Record<string, number> = { Chromium: 0.0001, Firefox: 0.001, WebKit: 0.02 }

const painted = async (data: string): Promise<Canvas> => {
  const image = await loadImage(Buffer.from(data.split(',')[1], 'base64'))
  const canvas = createCanvas(image.width, image.height)
  canvas.getContext('2d').drawImage(image, 0, 0)
  return canvas
}

/** The share of picture elements that are found nowhere near their place in the other picture. */
function apart(one: Canvas, other: Canvas): number {
  const { width, height } = one
  const [a, b] = [one, other].map(canvas => canvas.getContext('2d').getImageData(0, 0, width, height).data)
  const differ = (i: number, j: number) =>
    Math.max(...[0, 1, 2].map(part => Math.abs(a[i + part] - b[j + part]))) > 96
  let count = 0
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = (y * width + x) * 4
      let found = !differ(at, at)
      for (let down = -1; down <= 1 && !found; down++)
        for (let right = -1; right <= 1 && !found; right++)
          found = !differ(at, at + (down * width + right) * 4)
      if (!found) count++
    }
  return count / (width * height)
}

describe('one chart in every engine', () => {
  const drawn = new Map<string, Map<string, Canvas>>()
  beforeAll(async () => {
    for (const [name, { here, open }] of Object.entries(ENGINES)) {
      if (!here) continue
      const engine = await open()
      const pictures = new Map<string, Canvas>()
      for (const [form, description] of Object.entries(FORMS))
        pictures.set(form, await painted(await engine.draw(description)))
      drawn.set(name, pictures)
      await engine.close()
    }
  })

  test.each(Object.keys(FORMS))('%s look alike, but for the edges of letters and strokes', form => {
    const first = drawn.get('Chromium')!.get(form)!
    for (const [name, pictures] of drawn) {
      const other = pictures.get(form)!
      expect([other.width, other.height]).toEqual([first.width, first.height])
      expect(Math.max(apart(first, other), apart(other, first)), name).toBeLessThan(ALIKE[name])
    }
    // Of two forms it would be told.
    const another = drawn.get('Chromium')!.get(form === 'lines' ? 'bars' : 'lines')!
    expect(apart(first, another)).toBeGreaterThan(1.5 * ALIKE.WebKit)
  })

  // The picture of the documentation: ENGINES_SHEET names the file.
  afterAll(() => {
    const file = process.env.ENGINES_SHEET
    if (!file) return
    const top = 30
    const sheet = createCanvas(WIDTH * drawn.size, top + HEIGHT * Object.keys(FORMS).length)
    const pen = sheet.getContext('2d')
    pen.fillStyle = '#fdfcf9'
    pen.fillRect(0, 0, sheet.width, sheet.height)
    GlobalFonts.registerFromPath(SEMIBOLD, 'Inter')
    pen.font = '600 16px Inter'
    ;[...drawn].forEach(([name, pictures], column) => {
      pen.fillStyle = '#1c2328'
      pen.fillText(name, column * WIDTH + 16, 20)
      ;[...pictures.values()].forEach((picture, row) => {
        pen.drawImage(picture, column * WIDTH, top + row * HEIGHT)
      })
    })
    writeFileSync(join(import.meta.dirname, '..', file), sheet.toBuffer('image/png'))
  })
})
