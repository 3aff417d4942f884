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
import { basename, delimiter, join } from 'node:path'
import { rolldown } from 'rolldown'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { compile } from './support/compile.ts'
import { demoData } from './support/demo.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.docs-'))
const demo = demoData()
symlinkSync(demo, join(folder, 'demo-data'))
afterAll(() => {
  for (const path of [folder, demo]) rmSync(path, { recursive: true })
})

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
  let failures: Record<string, string> = {}
  beforeAll(async () => {
    for (const { name, kind, code } of snippets) writeFileSync(`${baseOf(name)}.${kind}`, code)
    // All at once, each as a module of its own.
    const files = snippets.map(({ name, kind }) => `${baseOf(name)}.${kind}`)
    said = compile(files, join(folder, 'tsconfig.json'), ['node'])
    const input = Object.fromEntries(
      snippets.filter(({ runs }) => runs).map(({ name }) => [basename(baseOf(name)), `${baseOf(name)}.ts`]),
    )
    const bundle = await rolldown({ input, external: /^[^./]/, logLevel: 'silent' })
    await bundle.write({ dir: folder, format: 'es', entryFileNames: '[name].mjs' })
    // One after the other in one process, as what they begin with takes longer than what they do.
    const code = `import { writeFileSync } from 'node:fs'
const failures = Object.fromEntries(${JSON.stringify(Object.keys(input))}.map(name => [name, 'never ended']))
process.on('exit', () => writeFileSync('failures.json', JSON.stringify(failures)))
for (const name in failures) {
  try {
    await import(\`./\${name}.mjs\`)
    delete failures[name]
  } catch (error) {
    failures[name] = String(error?.stack ?? error)
  }
}`
    writeFileSync(join(folder, 'run-all.mjs'), code)
    execFileSync(process.execPath, ['run-all.mjs'], { cwd: folder, stdio: 'pipe' })
    failures = JSON.parse(readFileSync(join(folder, 'failures.json'), 'utf8'))
  })

  test.each(snippets)('$name', ({ name, kind }) => {
    const base = basename(baseOf(name))
    expect(said.split(/\n(?=\S)/).filter(words => words.includes(`${base}.${kind}(`))).toEqual([])
    expect(failures[base]).toBeUndefined()
  })
})

test('every link and picture in the documentation leads somewhere', () => {
  for (const page of pages) {
    for (const [, target] of readFileSync(join(root, page), 'utf8').matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)) {
      expect(existsSync(join(root, page, '..', target)), `${page} links to ${target}`).toBe(true)
    }
  }
})

const commands = pages
  .flatMap(page =>
    [...readFileSync(join(root, page), 'utf8').matchAll(/^npx dapplo .+$/gm)].map(([line]) => ({
      page,
      line,
    })),
  )
  .filter(({ line }, at, all) => all.findIndex(one => one.line === line) === at)
test.each(commands)('$page: $line', ({ line }) => {
  // What `npx` would find.
  const PATH = `${join(root, 'node_modules/.bin')}${delimiter}${process.env.PATH}`
  const { status, stderr } = spawnSync('sh', ['-c', line.replace('npx ', '')], {
    cwd: folder,
    encoding: 'utf8',
    env: { ...process.env, PATH },
  })
  expect(status, stderr).toBe(0)
})
