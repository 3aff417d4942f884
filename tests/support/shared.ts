import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { serveFolder } from './browser.ts'

declare module 'vitest' {
  export interface ProvidedContext {
    /** The address of the gallery, built and served once for all files of tests. */
    gallery: string
  }
}

/** Builds and serves the gallery before the first file of tests; what it returns ends that after the last. */
export default async function share(project: TestProject): Promise<() => Promise<void>> {
  const root = join(import.meta.dirname, '../..')
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-gallery-'))
  const vite = join(root, 'node_modules/vite/bin/vite.js')
  const config = join(root, 'examples/gallery/vite.config.js')
  execFileSync(
    process.execPath,
    [vite, 'build', '--config', config, '--outDir', folder, '--emptyOutDir', '--logLevel', 'error'],
    { cwd: root },
  )
  const server = await serveFolder(folder)
  project.provide('gallery', server.url)
  return async () => {
    await server.close()
    rmSync(folder, { recursive: true })
  }
}
