import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { openBrowser, serveFolder } from './support/browser.ts'
import { compile } from './support/compile.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-consumer-'))
const npm = (args: string[], cwd: string) =>
  execFileSync('npm', args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })
const node = (...args: string[]) => execFileSync(process.execPath, args, { cwd: folder, encoding: 'utf8' })

// A project of someone else's: it installs the packed packages and knows nothing of this repository.
beforeAll(() => {
  mkdirSync(join(folder, 'packed'))
  const tarballs = ['core', 'browser', 'node', 'cli'].map(name => {
    const [{ filename }] = JSON.parse(
      npm(['pack', '--json', '--pack-destination', join(folder, 'packed')], join(root, 'packages', name)),
    )
    return `file:packed/${filename}`
  })
  const [core, browser, inNode, cli] = tarballs
  const dependencies = { '@dapplo/core': core, dapplo: browser, '@dapplo/node': inNode, '@dapplo/cli': cli }
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

test('the packages hold what is built and nothing else', () => {
  const files = npm(['pack', '--dry-run', '--json'], join(root, 'packages/core'))
  const names: string[] = JSON.parse(files)[0].files.map((file: { path: string }) => file.path)
  expect(names).toContain('dist/index.js')
  expect(
    names.every(name => name.startsWith('dist/') || name === 'package.json' || name === 'README.md'),
  ).toBe(true)
  expect(names.some(name => name.includes('.test.'))).toBe(false)
})

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
    expect(await page.locator('#panel [id^=dapplo-summary]').textContent()).toContain('Bar chart of count.')
    expect(await page.evaluate(() => document.body.dataset.fetched)).toBe(
      '2 piers /none.csv answers 404 (at /none.csv). Check the address.',
    )
    expect(errors).toEqual([])
  } finally {
    await browser.close()
    await server.close()
  }
})
