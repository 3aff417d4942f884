// Builds the site of the documentation, with every snippet's chart beside its code, and serves it.
// Usage: npm run docs [-- --out docs-site] [--only recipes/histogram ...] [--no-serve] [--no-build]
// --only: of the guide and the recipes these pages alone, while one is written.
import './setup.mjs'
import { copyFileSync, cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'

const root = fileURLToPath(new URL('..', import.meta.url))
const { values } = parseArgs({
  options: {
    out: { type: 'string', default: 'docs-site' },
    only: { type: 'string', multiple: true },
    'no-serve': { type: 'boolean' },
    'no-build': { type: 'boolean' },
  },
})
// While packages are in use, as by tests that run beside this one, they must not be written anew.
if (!values['no-build']) await import('./build.mjs')
const { writePages } = await import('../docs/site/pages.mjs')

// Inside the checkout, so that what the pages import is found.
mkdirSync(join(root, 'node_modules/.cache'), { recursive: true })
const folder = mkdtempSync(join(root, 'node_modules/.cache/docs-'))
try {
  await writePages(root, folder, values.only)
  mkdirSync(join(folder, '.vitepress'))
  cpSync(join(root, 'docs/site/theme'), join(folder, '.vitepress/theme'), { recursive: true })
  copyFileSync(join(root, 'docs/chart.schema.json'), join(folder, '.vitepress/theme/chart.schema.json'))
  writeFileSync(
    join(folder, '.vitepress/config.mjs'),
    `import { configOf } from ${JSON.stringify(join(root, 'docs/site/config.mjs'))}\nexport default configOf(${JSON.stringify(folder)}, ${!values.only})\n`,
  )
  const out = resolve(root, values.out)
  const { build } = await import('vitepress')
  await build(folder, { outDir: out, logLevel: 'error' })
  const pages = readdirSync(out, { recursive: true }).filter(name => String(name).endsWith('.html')).length
  console.log(`${pages} pages are in ${values.out}.`)
} finally {
  rmSync(folder, { recursive: true, force: true })
}
if (!values['no-serve']) {
  const { preview } = await import('vite')
  const server = await preview({
    root,
    configFile: false,
    build: { outDir: resolve(root, values.out) },
    appType: 'mpa',
    logLevel: 'error',
  })
  console.log(`They are served at ${server.resolvedUrls.local[0]}`)
}
