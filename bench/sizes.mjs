// How much a page loads: minified by the bundler, compressed by gzip.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { gzipSync } from 'node:zlib'
import { rolldown } from 'rolldown'
import { size } from './measure.mjs'

// Where it goes: typed tables with calendars and time zones take 20 kB, axes and legends 9, painting and scales 8; the
// description, its layout, reading and summaries take most of the rest.
const folder = mkdtempSync(join(fileURLToPath(new URL('../node_modules', import.meta.url)), '.bench-'))

/** What a page loads at first: the entry, and what it imports, not what it asks for later. */
async function bundled(code) {
  const input = join(folder, 'entry.mjs')
  writeFileSync(input, code)
  const bundle = await rolldown({ input, platform: 'browser' })
  const { output } = await bundle.generate({ format: 'es', minify: true })
  const first = new Set([output[0].fileName])
  for (const name of first)
    for (const other of output.find(({ fileName }) => fileName === name).imports) first.add(other)
  return output
    .filter(({ fileName }) => first.has(fileName))
    .reduce((sum, { code }) => sum + gzipSync(code, { level: 9 }).length, 0)
}

size(
  'line chart with axes and tooltip',
  await bundled(
    "import { chartOf, line, mount, table } from 'dapplo/small'\nmount(chartOf(table([{ a: 1, b: 2 }]), { draw: line, x: 'a', y: 'b' }), '#x')",
  ),
  60,
)
const whole = await bundled("import * as all from 'dapplo'\nglobalThis.all = all")
size('whole browser package', whole, 120)
size(
  'the composer, over the whole browser package',
  (await bundled(
    "import * as all from 'dapplo'\nimport * as more from '@dapplo/compose'\nglobalThis.all = [all, more]",
  )) - whole,
  40,
)
const element = readFileSync(
  fileURLToPath(new URL('../packages/browser/dist/dapplo.element.js', import.meta.url)),
)
size('dapplo.element.js, the element with all of it', gzipSync(element, { level: 9 }).length, 120)
rmSync(folder, { recursive: true })
