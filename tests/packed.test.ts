import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { checkPackage, createPackageFromTarballData } from '@arethetypeswrong/core'
import { publint } from 'publint'
import { rolldown } from 'rolldown'
import { expect, inject, test } from 'vitest'
import { everything } from './support/extent.ts'

const root = join(import.meta.dirname, '..')
const packages = inject('packed')

/** Entries that are read by pages and servers as files: nobody imports them with types. */
const FILES = ['./dapplo.element.js', './dapplo.element.mjs']
const SERVED = { node: ['./page', './element'] } as Record<string, string[]>

test.each(packages)('the packed $from holds what it should', async ({ from, file, paths }) => {
  for (const paper of ['README.md', 'LICENSE', 'package.json']) expect(paths).toContain(paper)
  expect(paths.filter(path => !/^(dist\/|bin\/|README\.md$|LICENSE$|package\.json$)/.test(path))).toEqual([])
  // What bundles hold of others is named beside them.
  if (['browser', 'node', 'cli'].includes(from)) expect(paths).toContain('dist/THIRD-PARTY.txt')
  expect(paths.filter(path => /\.test\.|\.tsbuildinfo|^src\//.test(path))).toEqual([])
  // No font is shipped: those that pictures need come from packages that name their licence.
  expect(paths.filter(path => /\.(ttf|otf|woff2?)$/.test(path))).toEqual([])

  const tarball = new Uint8Array(readFileSync(file)).buffer
  const { messages } = await publint({ strict: true, pack: { tarball } })
  expect(messages.map(({ code, path }) => `${code} ${path.join('.')}`)).toEqual([])
})

// The compiler takes some seconds for each.
test.each(packages.filter(({ from }) => everything || from === 'core'))(
  'the packed $from resolves with types wherever it is resolved',
  async ({ from, file }) => {
    const checked = await checkPackage(createPackageFromTarballData(new Uint8Array(readFileSync(file))))
    const problems = checked.types
      ? checked.problems.flatMap(problem => {
          const { entrypoint = '', resolutionKind = '' } = problem as {
            entrypoint?: string
            resolutionKind?: string
          }
          // Modules alone, as Node can require them since 20.19; resolution as before Node 12 knows no entries.
          if (problem.kind === 'CJSResolvesToESM' || resolutionKind === 'node10') return []
          if ([...FILES, ...(SERVED[from] ?? [])].includes(entrypoint)) return []
          // The command is started, not imported.
          return from === 'cli' ? [] : [`${problem.kind} ${entrypoint} ${resolutionKind}`]
        })
      : ['there are no types']
    expect(problems).toEqual([])
  },
)

test('the widths of letters are those of the font that is installed', () => {
  expect(() =>
    execFileSync(process.execPath, [join(root, 'scripts/inter-widths.mjs'), '--check'], { stdio: 'pipe' }),
  ).not.toThrow()
})

/** Every entry that a package exports as a module. */
const entries = packages.flatMap(({ from, name }) => {
  const { exports = {} } = JSON.parse(readFileSync(join(root, 'packages', from, 'package.json'), 'utf8'))
  return Object.keys(exports)
    .filter(entry => ![...FILES, ...(SERVED[from] ?? []), './element', './acceptance'].includes(entry))
    .map(entry => name + entry.slice(1))
})

test.each(entries)(
  'importing %s does nothing by itself, and what is not used is left out of bundles',
  async entry => {
    const code = `
const seen = () => JSON.stringify([
  Object.getOwnPropertyNames(globalThis).sort(),
  [Array, Object, String, Map, Promise, Date].map(one => Object.getOwnPropertyNames(one.prototype)),
  process.eventNames().map(String).sort(),
  process.getActiveResourcesInfo().filter(kind => /Timeout|Immediate|Server|Socket/.test(kind)),
])
const before = seen()
await import(${JSON.stringify(entry)})
console.log(seen() === before ? 'as before' : seen())`
    const out = execFileSync(process.execPath, ['--input-type=module', '-e', code], {
      cwd: root,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    expect(out.trim()).toBe('as before')
    const bundle = await rolldown({
      input: 'entry',
      external: /^[^.\0/]/,
      logLevel: 'silent',
      // Whatever the package says of itself.
      treeshake: { moduleSideEffects: true },
      plugins: [
        {
          name: 'entry',
          resolveId: source => (source === 'entry' ? '\0entry' : undefined),
          load: id =>
            id === '\0entry'
              ? `import ${JSON.stringify(fileURLToPath(import.meta.resolve(entry)))}`
              : undefined,
        },
      ],
    })
    const { output } = await bundle.generate({ format: 'es', minify: true })
    // Imports of other packages, whose own business it is what they do, may stay.
    expect(
      output[0].code
        .replace(/import\s*"[^"]+";?/g, '')
        .replace(/\/\/#.*/g, '')
        .trim(),
    ).toBe('')
  },
)

test('a module of the old kind can require them', () => {
  const code = `const { toSvg, chart, table } = require('@dapplo/node')
const { mount } = require('dapplo')
console.log(typeof mount, toSvg(chart(table([{ pier: 'Old Mole', n: 3 }]), { draw: 'bar', x: 'pier', y: 'n' })).includes('Old Mole'))`
  const out = execFileSync(process.execPath, ['--input-type=commonjs', '-e', code], {
    cwd: root,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  expect(out.trim()).toBe('function true')
})
