import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { openBrowser, problemsOn, serveFolder } from './browser.ts'

const root = join(import.meta.dirname, '../..')

/** Bundles a module as an application does, and opens it on a page with a body of its own. */
export async function openReactApp(
  code: string,
  body = '<div id="root"></div>',
): Promise<{ page: Page; errors: string[]; close(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-react-'))
  writeFileSync(join(folder, 'app.mjs'), code)
  const { rolldown } = await import('rolldown' as string)
  const bundle = await rolldown({
    input: join(folder, 'app.mjs'),
    platform: 'browser',
    cwd: root,
    resolve: { modules: [join(root, 'node_modules')] },
    transform: { define: { 'process.env.NODE_ENV': '"development"' } },
  })
  // What is only needed for rows elsewhere would be a file of its own.
  await bundle.write({ file: join(folder, 'bundle.js'), format: 'es', codeSplitting: false })
  writeFileSync(
    join(folder, 'index.html'),
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>React</title><link rel="icon" href="data:,"></head><body>${body}<script type="module" src="bundle.js"></script></body></html>`,
  )
  const server = await serveFolder(folder)
  const browser = await openBrowser()
  const page = await browser.newPage({ reducedMotion: 'reduce' })
  const errors = problemsOn(page)
  await page.goto(`${server.url}/index.html`)
  return {
    page,
    errors,
    async close() {
      await browser.close()
      await server.close()
      rmSync(folder, { recursive: true })
    },
  }
}
