import { execFileSync, spawnSync } from 'node:child_process'
import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { basename, join } from 'node:path'
import { rolldown } from 'rolldown'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { compile } from './support/compile.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.docs-'))
symlinkSync(join(root, 'demo-data'), join(folder, 'demo-data'))
afterAll(() => rmSync(folder, { recursive: true }))

const pages = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync(join(root, 'packages')).map(name => `packages/${name}/README.md`),
  ...['docs', 'docs/recipes'].flatMap(folder =>
    readdirSync(join(root, folder))
      .filter(name => name.endsWith('.md'))
      .map(name => `${folder}/${name}`),
  ),
]
const snippets = pages.flatMap(page =>
  [...readFileSync(join(root, page), 'utf8').matchAll(/(<!-- page -->\n)?```(tsx?)\n([\s\S]*?)```/g)].map(
    ([, onPage, kind, code], i) => ({
      name: `${page} ${i + 1}`,
      kind,
      code,
      runs: kind === 'ts' && !onPage && !code.includes("from 'dapplo'"),
    }),
  ),
)

describe('every snippet of the documentation', () => {
  const baseOf = (name: string) => join(folder, name.replace(/\W+/g, '-'))
  let said = ''
  beforeAll(() => {
    for (const { name, kind, code } of snippets) writeFileSync(`${baseOf(name)}.${kind}`, code)
    // All at once, each as a module of its own.
    const files = snippets.map(({ name, kind }) => `${baseOf(name)}.${kind}`)
    said = compile(files, join(folder, 'tsconfig.json'), ['node'])
  })

  test.each(snippets)('$name', async ({ name, kind, runs }) => {
    const base = baseOf(name)
    expect(said.split(/\n(?=\S)/).filter(words => words.includes(`${basename(base)}.${kind}(`))).toEqual([])
    if (!runs) return
    const bundle = await rolldown({ input: `${base}.ts`, external: /^[^./]/, logLevel: 'silent' })
    await bundle.write({ file: `${base}.mjs`, format: 'es' })
    expect(() =>
      execFileSync(process.execPath, [`${base}.mjs`], { cwd: folder, stdio: 'pipe' }),
    ).not.toThrow()
  })
})

test('every link and picture in the documentation leads somewhere', () => {
  for (const page of pages) {
    for (const [, target] of readFileSync(join(root, page), 'utf8').matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)) {
      expect(existsSync(join(root, page, '..', target)), `${page} links to ${target}`).toBe(true)
    }
  }
})

const commands = pages.flatMap(page =>
  [...readFileSync(join(root, page), 'utf8').matchAll(/^npx dapplo .+$/gm)].map(([line]) => ({ page, line })),
)
test.each(commands)('$page: $line', ({ line }) => {
  const { status, stderr } = spawnSync('sh', ['-c', line.replace('npx ', 'npx --no-install ')], {
    cwd: folder,
    encoding: 'utf8',
  })
  expect(status, stderr).toBe(0)
})
