import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import {
  type Chart,
  chart,
  embedElement,
  embedPage,
  embedSnippet,
  paintPng,
  sceneOf,
  type Table,
  table,
  toCsv,
  toJson,
  toPdf,
  toSvg,
  toText,
} from '@dapplo/node'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { openBrowser } from './support/browser.ts'
import { everything } from './support/extent.ts'
import { still } from './support/waiting.ts'

const folder = mkdtempSync(join(tmpdir(), 'dapplo-safety-'))
let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(async () => {
  await browser?.close()
  rmSync(folder, { recursive: true })
})

const RUN = 'window.hit=1'
/** Openings that would leave an attribute, an element, a script, a comment or a style, each around code that would tell. */
const OPENINGS = [
  '',
  '"',
  "'",
  '>',
  '">',
  "'>",
  '</title>',
  '</desc>',
  '</text>',
  '</script>',
  '</style>',
  '-->',
  ']]>',
  '&quot;',
  '&#34;',
  '\u2028',
  '\u0000',
  '\u202e',
  '\ufeff',
  '{{',
  '\\',
  '`',
]
const PAYLOADS = [
  `<script>${RUN}</script>`,
  `<img src=x onerror=${RUN}>`,
  `<svg onload=${RUN}>`,
  `<a href="javascript:${RUN}">x</a>`,
  ` onload=${RUN} x=`,
  `javascript:${RUN}`,
  `<!--<script>${RUN}//`,
  `url(javascript:${RUN})`,
  `\${${RUN}}`,
  `<foreignObject><iframe srcdoc="<script>parent.hit=1</script>"></foreignObject>`,
  'x'.repeat(5000),
  '__proto__',
]
const HOSTILE = OPENINGS.flatMap((opening, i) =>
  // Each opening around a third of the codes, unless everything is tried.
  PAYLOADS.filter((_, j) => everything || (i + j) % 3 === 0).map(payload => opening + payload),
)

/** A chart in which every kind of text is hostile. */
function hostileChart(strings: readonly string[]): { chart: Chart; data: Table } {
  const [a, b, c] = strings
  const data = table(
    strings.map((name, i) => ({ name, n: i + 1, link: name })),
    {
      name: a.slice(0, 40),
      columns: { n: { label: b, unit: c }, name: { images: { [a]: `https://pictures.example/${b}` } } },
    },
  )
  const made = chart(data, {
    id: a,
    title: a,
    subtitle: b,
    caption: c,
    source: a,
    draw: 'bar',
    x: 'name',
    y: 'n',
    color: 'name',
    label: { words: b.replace(/[{}]/g, '') },
    link: 'link',
    legend: { at: 'right', title: c },
    axes: { x: { images: { [a]: `https://pictures.example/${c}` } } },
    tooltip: b.replace(/[{}]/g, ''),
  } as never)
  return { chart: made, data }
}

async function hits(page: Page, html: string, name: string): Promise<unknown> {
  const path = join(folder, name)
  writeFileSync(path, html)
  await page.goto(pathToFileURL(path).href)
  await page.waitForTimeout(30)
  for (const frame of page.frames()) if (await frame.evaluate(() => 'hit' in window)) return name
  return undefined
}

describe(`${HOSTILE.length} hostile strings as title, label, category, link and picture`, () => {
  test('run in no output, and break none', async () => {
    const page = await browser.newPage()
    const dialogs: string[] = []
    page.on('dialog', dialog => {
      dialogs.push(dialog.message())
      void dialog.dismiss()
    })
    for (let i = 0; i < HOSTILE.length; i += 12) {
      const lot = HOSTILE.slice(i, i + 12)
      const { chart: made, data } = hostileChart(lot)
      const frame = { width: 700, height: 420 }
      const svg = toSvg(made, frame)
      const tables = { data }
      const parsed = await page.evaluate(text => {
        const document = new DOMParser().parseFromString(text, 'image/svg+xml')
        const all = [...document.querySelectorAll('*')]
        return {
          error: document.querySelector('parsererror')?.textContent,
          names: [...new Set(all.map(element => element.localName))],
          handlers: all.flatMap(element => element.getAttributeNames().filter(name => /^on/i.test(name))),
          // Where a link leads is what counts: a path may hold any words.
          links: all
            .filter(element => element.hasAttribute('href'))
            .map(element => new URL(element.getAttribute('href')!, 'https://page.example/').protocol)
            .filter(protocol => !['http:', 'https:', 'mailto:'].includes(protocol)),
        }
      }, svg)
      expect(parsed.error).toBeUndefined()
      expect(parsed.handlers).toEqual([])
      expect(parsed.links).toEqual([])
      expect(
        parsed.names.filter(name => ['script', 'iframe', 'foreignObject', 'img'].includes(name)),
      ).toEqual([])
      for (const [html, name] of [
        [embedPage(made, { frame, tables }), 'page.html'],
        [embedSnippet(made, frame), 'snippet.html'],
        [`<!doctype html><body>${embedElement(made, { frame, tables })}</body>`, 'element.html'],
      ] as const)
        expect(await hits(page, html, name)).toBeUndefined()
      expect(JSON.parse(toJson(made)).length).toBe(lot.length)
      expect(toCsv(made)).toContain('\r\n')
      expect(toText(made)).not.toMatch(/[\u0000-\u0008\u001b]/)
    }
    expect(
      Buffer.from(await toPdf(hostileChart(HOSTILE.slice(0, 12)).chart))
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-')
    expect(dialogs).toEqual([])
    await page.close()
  })
})

test('the picture from Node, the SVG in a page and the live canvas agree', async () => {
  const rows = table({
    month: Array.from({ length: 24 }, (_, i) => new Date(Date.UTC(2024, i % 12, 1))),
    route: Array.from({ length: 24 }, (_, i) => (i < 12 ? 'North Sound' : 'Tern Point')),
    n: Array.from({ length: 24 }, (_, i) => 40 + ((i * 37) % 60)),
  })
  const made = chart(rows, {
    title: 'Agreement',
    draw: 'bar',
    x: 'month of month',
    y: 'sum of n',
    color: 'route',
    arrange: 'stack',
    label: true,
    motion: false,
  })
  const frame = { width: 640, height: 400 }
  const png = Buffer.from(await paintPng(sceneOf(made, frame), 1)).toString('base64')
  const page = await browser.newPage({ viewport: { width: 640, height: 400 } })
  const path = join(folder, 'agree.html')
  writeFileSync(path, embedPage(made, { frame, tables: { rows } }))
  await page.goto(pathToFileURL(path).href)
  await page.waitForSelector('.dapplo canvas', { state: 'attached' })
  await still(page)
  const apart = await page.evaluate(
    async ([png, svg]) => {
      const pixels = async (source: string) => {
        const image = new Image()
        image.src = source
        await image.decode()
        return pixelsOf(image)
      }
      const pixelsOf = (source: CanvasImageSource) => {
        const canvas = document.createElement('canvas')
        canvas.width = 640
        canvas.height = 400
        const context = canvas.getContext('2d')!
        context.drawImage(source, 0, 0, 640, 400)
        return context.getImageData(0, 0, 640, 400).data
      }
      /** The share of pixels whose colours are clearly apart. */
      const compare = (a: Uint8ClampedArray, b: Uint8ClampedArray) => {
        let far = 0
        for (let i = 0; i < a.length; i += 4)
          if (Math.abs(a[i] - b[i]) + Math.abs(a[i + 1] - b[i + 1]) + Math.abs(a[i + 2] - b[i + 2]) > 120)
            far++
        return far / (a.length / 4)
      }
      const node = await pixels(`data:image/png;base64,${png}`)
      const drawn = await pixels(`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`)
      const live = pixelsOf(document.querySelector<HTMLCanvasElement>('.dapplo canvas')!)
      return { svg: compare(node, drawn), live: compare(node, live) }
    },
    [png, toSvg(made, frame)] as const,
  )
  // Letters are smoothed differently; shapes are not.
  expect(apart.live).toBeLessThan(0.02)
  expect(apart.svg).toBeLessThan(0.03)
  await page.close()
})
