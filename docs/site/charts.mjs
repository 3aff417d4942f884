// The charts that a snippet of the documentation makes: it is run as its reader would run it, apart from pages, where
// what is mounted is noted down.
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'

/** In place of a page: charts that are mounted are kept, and feeds and handles do nothing. */
const PAGE = `
export * from '@dapplo/node'
import { openTable } from '@dapplo/node'
const nothing = new Proxy(function () {}, { get: (_, key) => key === 'then' ? undefined : nothing, apply: () => nothing, set: () => true })
export const shown = []
export const mount = chart => (shown.push(chart), nothing)
export const mountWhenReady = async make => (shown.push(await make()), nothing)
export const feed = () => nothing
export const fetchTable = async (url, options) => openTable('demo-data' + new URL(url, 'http://page.example').pathname, options)
export const defineElement = () => {}
export const fitFrames = () => {}
export const { exploring, motion, keyboard, tableView, saving, menu, controls, playback } = {}
`

/** The charts of a snippet: a file for the page, its picture, and words about it. */
export async function chartsOf(code, root) {
  if (
    !/\b(chart|chartOf|spread)\(/.test(code) ||
    /dapplo\/(small|react|far|worker)|@dapplo\/react/.test(code)
  )
    return []
  const names = [...code.matchAll(/^const (\w+) = (?:\w+\.with|chart|chartOf|spread)\(/gm)].map(
    ([, name]) => name,
  )
  mkdirSync(join(root, 'node_modules/.cache'), { recursive: true })
  const folder = mkdtempSync(join(root, 'node_modules/.cache/snippet-'))
  const before = process.cwd()
  const { log, warn } = console
  try {
    symlinkSync(join(root, 'demo-data'), join(folder, 'demo-data'))
    writeFileSync(join(folder, 'page.mjs'), PAGE)
    const run = `${code.replaceAll("from 'dapplo'", "from './page.mjs'")}\nimport { shown as shown_ } from './page.mjs'\nexport const charts_ = [${names.join(', ')}, ...shown_]\n`
    writeFileSync(join(folder, 'snippet.ts'), run)
    const { rolldown } = await import('rolldown')
    const bundle = await rolldown({
      input: join(folder, 'snippet.ts'),
      external: /^@dapplo|^node:/,
      logLevel: 'silent',
    })
    await bundle.write({ file: join(folder, 'snippet.mjs'), format: 'es' })
    process.chdir(folder)
    Object.assign(console, { log: () => {}, warn: () => {} })
    globalThis.location ??= { hash: '' }
    const { charts_ } = await import(pathToFileURL(join(folder, 'snippet.mjs')).href)
    const { toSvg, sceneOf, embedElement } = await import('@dapplo/node')
    const { tablesOf, isSpread, escapeXml } = await import('@dapplo/core/internal')
    return [...new Set(charts_)].filter(isChart).map(chart => {
      const frame = { width: 688, height: isSpread(chart) || chart.description?.panes ? 460 : 340 }
      const tables = tablesOf(chart)
      const distinct = new Set(tables.map(table => table.name)).size === tables.length
      const html = distinct && elementOf(embedElement, chart, frame, tables)
      const json = html && /<script type="application\/json">([\s\S]*?)<\/script>/.exec(html)?.[1]
      return {
        svg: toSvg(chart, { ...frame, fonts: 'embedded' }),
        file: json && json.length < 300_000 ? JSON.parse(json) : undefined,
        alt: escapeXml(sceneOf(chart, frame).title),
      }
    })
  } finally {
    process.chdir(before)
    Object.assign(console, { log, warn })
    rmSync(folder, { recursive: true, force: true })
  }
}

const isChart = own => own !== null && typeof own === 'object' && ('charts' in own || 'description' in own)

/** The element with its data; undefined for a chart over several tables, which cannot be written as one file. */
function elementOf(embedElement, chart, frame, tables) {
  try {
    return embedElement(chart, {
      frame,
      tables: Object.fromEntries(tables.map(table => [table.name, table])),
    })
  } catch (error) {
    if (error.code === 'not-json') return undefined
    throw error
  }
}
