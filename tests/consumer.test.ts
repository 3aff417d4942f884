import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { rolldown } from 'rolldown'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { openBrowser, serveFolder } from './support/browser.ts'
import { compile } from './support/compile.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-consumer-'))
const npm = (args: string[], cwd: string) =>
  execFileSync('npm', args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })
const node = (...args: string[]) => execFileSync(process.execPath, args, { cwd: folder, encoding: 'utf8' })

// A project of someone else's: it installs the packed packages and knows nothing of this repository.
beforeAll(() => {
  const needed = ['core', 'browser', 'node', 'engines', 'cli', 'compose']
  const dependencies = Object.fromEntries(
    inject('packed')
      .filter(({ from }) => needed.includes(from))
      .map(({ name, file }) => [name, `file:${file}`]),
  )
  writeFileSync(
    join(folder, 'package.json'),
    JSON.stringify({
      name: 'consumer',
      private: true,
      type: 'module',
      dependencies,
      overrides: dependencies,
    }),
  )
  npm(['install', '--prefer-offline', '--no-audit', '--no-fund', '--ignore-scripts'], folder)
})
afterAll(() => rmSync(folder, { recursive: true }))

test('Node draws a picture, and importing does nothing by itself', () => {
  writeFileSync(
    join(folder, 'draw.mjs'),
    `const before = Object.getOwnPropertyNames(globalThis).join()
import * as page from 'dapplo'
import { chart, table, toSvg } from '@dapplo/node'
if (Object.getOwnPropertyNames(globalThis).join() !== before) throw new Error('something global changed')
if (typeof page.mount !== 'function') throw new Error('no mount')
console.log(toSvg(chart(table([{ pier: 'Old Mole', count: 3 }]), { draw: 'bar', x: 'pier', y: 'count' })))`,
  )
  expect(node('draw.mjs')).toContain('>Old Mole</text>')
})

test('the command is installed', () => {
  writeFileSync(join(folder, 'd.csv'), 'pier,n\nOld Mole,3\n')
  expect(node('node_modules/.bin/dapplo', 'look', 'd.csv')).toContain('d: 1 row, 2 columns')
})

test('a Vite app compiles with types, is built, and shows a chart', async () => {
  writeFileSync(
    join(folder, 'index.html'),
    '<!doctype html><div id="panel" style="width:600px;height:400px"></div><script type="module" src="/app.ts"></script>',
  )
  writeFileSync(
    join(folder, 'app.ts'),
    `import { chart, fetchTable, mount, table } from 'dapplo'
const piers = table([{ pier: 'Old Mole', count: 3 }, { pier: 'Kelp Quay', count: 5 }])
const live = mount(chart(piers, { draw: 'bar', x: 'pier', y: 'sum of count', motion: false }), '#panel')
const fetched = await fetchTable('/piers.csv', { key: 'pier' })
const missing = await fetchTable('/none.csv').catch(error => error.sentence)
document.body.dataset.fetched = fetched.length + ' ' + fetched.name + ' ' + missing
document.title = String(live.scene.batches.length)`,
  )
  expect(compile(join(folder, 'app.ts'), join(folder, 'tsconfig.json'))).toBe('')
  node(join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'error')
  const built = readFileSync(join(folder, 'dist/index.html'), 'utf8')
  expect(built).toContain('assets/')
  writeFileSync(join(folder, 'dist/piers.csv'), 'pier,n\nOld Mole,3\nKelp Quay,5\n')
  const server = await serveFolder(join(folder, 'dist'))
  const browser = await openBrowser()
  try {
    const page = await browser.newPage()
    const errors: string[] = []
    page.on('pageerror', error => errors.push(error.message))
    await page.goto(server.url)
    await page.waitForFunction(() => Number(document.title) > 3)
    const told = 'Bar chart of count by pier.'
    await page.locator('#panel [id^=dapplo-summary]', { hasText: told }).waitFor({ state: 'attached' })
    expect(await page.evaluate(() => document.body.dataset.fetched)).toBe(
      '2 piers /none.csv answers 404 (at /none.csv). Check the address.',
    )
    expect(errors).toEqual([])
  } finally {
    await browser.close()
    await server.close()
  }
})

describe('the small face', () => {
  /** A bundle of a module of the consumer's: the entry and what it imports, not what it asks for later. */
  const bundled = async (code: string): Promise<string> => {
    const input = join(folder, 'small.mjs')
    writeFileSync(input, code)
    const bundle = await rolldown({ input, platform: 'browser', logLevel: 'silent' })
    const { output } = await bundle.generate({ format: 'es', minify: true })
    const first = new Set([output[0].fileName])
    const chunks = output.filter(file => file.type === 'chunk')
    for (const name of first)
      for (const other of chunks.find(({ fileName }) => fileName === name)?.imports ?? []) first.add(other)
    return chunks.flatMap(({ fileName, code }) => (first.has(fileName) ? code : [])).join('\n')
  }
  const kilobytes = (code: string) => gzipSync(code, { level: 9 }).length / 1000

  test('bundles hold only the kinds and parts that they are handed', async () => {
    const draw = (parts: string, names = '') =>
      `import { chartOf, line, mount, table${names} } from 'dapplo/small'
mount(chartOf(table([{ a: 1, b: 2 }]), { draw: line, x: 'a', y: 'b' }), '#x', { parts: [${parts}] })`
    const least = await bundled(draw(''))
    // Words that only these parts say.
    for (const words of [
      'wheel',
      'dapplo-menu',
      'dapplo-play',
      'ArrowUp',
      'showModal',
      'cubic-bezier',
      '<svg',
    ])
      expect(least, words).not.toContain(words)
    expect(kilobytes(least)).toBeLessThan(108.4)
    // What people compose with is a package of its own.
    const whole = kilobytes(await bundled("import * as all from 'dapplo'\nglobalThis.all = all"))
    expect(whole).toBeLessThan(222.7)
    const composing = await bundled(
      "import * as all from 'dapplo'\nimport * as more from '@dapplo/compose'\nglobalThis.all = [all, more]",
    )
    expect(kilobytes(composing) - whole).toBeLessThan(40)
    const exploring = await bundled(draw('exploring, motion', ', exploring, motion'))
    expect(exploring).toContain('wheel')
    expect(exploring).toContain('cubic-bezier')
    expect(exploring).not.toContain('dapplo-menu')
  })

  test('a chart without parts shows and reads values; what it lacks is said plainly', async () => {
    const site = join(folder, 'small-site')
    mkdirSync(site)
    writeFileSync(
      join(site, 'small.js'),
      await bundled(`import { bar, chartMaker, chartOf, exploring, labels, line, mount, motion, pie, table } from 'dapplo/small'
const days = table(Array.from({ length: 20 }, (_, day) => ({ day, n: day * day, site: day === 10 ? 'https://ferry.example/' : '' })))
const lines = { draw: line, x: 'day', y: 'n' }
const sentence = make => { try { make(); return 'nothing' } catch (error) { return error.code + ': ' + error.message } }
globalThis.live = mount(chartOf(days, lines), '#a')
globalThis.said = [
  sentence(() => mount(chartOf(days, { ...lines, zoom: 'x' }), '#b')),
  sentence(() => live.show(chartOf(days, { ...lines, through: 'day' }))),
  sentence(() => live.toSvg()),
  sentence(() => chartOf(days, { ...lines, draw: bar, label: true })),
  sentence(() => chartOf(days, { draw: pie, x: 'site', y: 'n' })),
]
globalThis.moving = mount(chartMaker({ bar }, { labels })(days, { draw: 'bar', x: 'day', y: 'n', label: true, zoom: 'x' }), '#b', { parts: [motion, exploring] })`),
    )
    writeFileSync(
      join(site, 'index.html'),
      '<!doctype html><div id="a" style="width:600px;height:300px"></div><div id="b" style="width:600px;height:300px"></div><script type="module" src="/small.js"></script>',
    )
    const server = await serveFolder(site)
    const browser = await openBrowser()
    try {
      const page = await browser.newPage()
      const errors: string[] = []
      page.on('pageerror', error => errors.push(error.message))
      await page.goto(server.url)
      await page.waitForFunction(() => 'moving' in globalThis)
      expect(await page.evaluate(() => (globalThis as any).said)).toEqual([
        'missing-part: The part "exploring" is not here, and "zoom" needs it',
        'missing-part: The part "playback" is not here, and "through" needs it',
        'missing-part: The part "saving" is not here, and "toSvg" needs it',
        'missing-part: The part "labels" is not here, and "label" needs it',
        'missing-part: The part "labels" is not here, and the kind "pie" needs it',
      ])
      // Who cannot see it is told what it shows, but not of keys that do nothing.
      const chart = page.locator('#a .dapplo')
      expect(await chart.getAttribute('aria-label')).toBe('N')
      const told = 'Line chart of N. Values from 0 to 361.'
      await page
        .locator(`[id="${await chart.getAttribute('aria-describedby')}"]`, { hasText: told })
        .waitFor({ state: 'attached' })
      expect(await chart.locator('[tabindex], [role=application]').count()).toBe(0)
      const card = page.locator('.dapplo-tooltip').first()
      await page.mouse.move(300, 150)
      await card.waitFor({ state: 'visible' })
      expect(await card.textContent()).toMatch(/N\d+/)
      // A click keeps the card, and another lets it go.
      await page.mouse.click(300, 150)
      expect(await card.evaluate(one => getComputedStyle(one).pointerEvents)).toBe('auto')
      await page.mouse.click(300, 150)
      expect(await card.evaluate(one => getComputedStyle(one).pointerEvents)).toBe('none')
      await page.waitForFunction(() => !(globalThis as any).moving.moving)
      const texts = await page.evaluate(() =>
        (globalThis as any).moving.scene.batches.flatMap((batch: any) => batch.texts ?? []),
      )
      expect(texts).toContain('361')
      await page.mouse.move(300, 450)
      await page.mouse.wheel(0, -300)
      await page.waitForFunction(() => (globalThis as any).moving.state.zoom)
      expect(errors).toEqual([])
    } finally {
      await browser.close()
      await server.close()
    }
  })
})
