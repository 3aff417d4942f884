import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { checkPackage, createPackageFromTarballData } from '@arethetypeswrong/core'
import { publint } from 'publint'
import { rolldown } from 'rolldown'
import { afterAll, expect, test } from 'vitest'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-packed-'))
afterAll(() => rmSync(folder, { recursive: true }))

const packages = readdirSync(join(root, 'packages'))
const pack = (name: string): { file: string; names: string[] } => {
  const out = execFileSync('npm', ['pack', '--json', '--pack-destination', folder], {
    cwd: join(root, 'packages', name),
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  const [{ filename, files }] = JSON.parse(out)
  return { file: join(folder, filename), names: files.map(({ path }: { path: string }) => path) }
}

/** Entries that are read by pages and servers as files: nobody imports them with types. */
const FILES = ['./dapplo.element.js', './dapplo.element.mjs']
const SERVED = { node: ['./page', './element'] } as Record<string, string[]>

test.each(packages)(
  'the packed %s holds what it should, and resolves with types wherever it is resolved',
  async name => {
    const { file, names } = pack(name)
    for (const paper of ['README.md', 'LICENSE', 'package.json']) expect(names).toContain(paper)
    expect(names.filter(path => !/^(dist\/|bin\/|README\.md$|LICENSE$|package\.json$)/.test(path))).toEqual(
      [],
    )
    // What bundles hold of others is named beside them.
    if (['browser', 'node', 'cli'].includes(name)) expect(names).toContain('dist/THIRD-PARTY.txt')
    expect(names.filter(path => /\.test\.|\.tsbuildinfo|^src\//.test(path))).toEqual([])
    // No font is shipped: those that pictures need come from packages that name their licence.
    expect(names.filter(path => /\.(ttf|otf|woff2?)$/.test(path))).toEqual([])

    const { messages } = await publint({ pkgDir: join(root, 'packages', name), strict: true, pack: 'npm' })
    expect(messages.map(({ code, path }) => `${code} ${path.join('.')}`)).toEqual([])

    const checked = await checkPackage(createPackageFromTarballData(new Uint8Array(readFileSync(file))))
    const problems = checked.types
      ? checked.problems.flatMap(problem => {
          const { entrypoint = '', resolutionKind = '' } = problem as {
            entrypoint?: string
            resolutionKind?: string
          }
          // Modules alone, as Node can require them since 20.19; resolution as before Node 12 knows no entries.
          if (problem.kind === 'CJSResolvesToESM' || resolutionKind === 'node10') return []
          if ([...FILES, ...(SERVED[name] ?? [])].includes(entrypoint)) return []
          // The command is started, not imported.
          return name === 'cli' ? [] : [`${problem.kind} ${entrypoint} ${resolutionKind}`]
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
const entries = packages.flatMap(name => {
  const { name: own, exports = {} } = JSON.parse(
    readFileSync(join(root, 'packages', name, 'package.json'), 'utf8'),
  )
  return Object.keys(exports)
    .filter(entry => ![...FILES, ...(SERVED[name] ?? []), './element', './acceptance'].includes(entry))
    .map(entry => own + entry.slice(1))
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
