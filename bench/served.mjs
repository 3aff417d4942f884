// Pages that are built as an application is, served to a browser.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from 'playwright-core'
import { build, preview } from 'vite'
import { findChromium } from '../scripts/browsers.mjs'

export const openChromium = () => chromium.launch({ executablePath: findChromium() })

/** Builds a folder of sources and serves it, until it is closed. */
export async function served(root) {
  const outDir = mkdtempSync(join(tmpdir(), 'dapplo-bench-'))
  const told = { root, logLevel: 'error', build: { outDir, emptyOutDir: true } }
  await build(told)
  const server = await preview({ ...told, preview: { port: 0 } })
  return {
    url: server.resolvedUrls.local[0],
    close() {
      server.httpServer.close()
      rmSync(outDir, { recursive: true })
    },
  }
}
