// Lists what each package exports, with the first sentence of what is said about it, and what says nothing.
// Usage: node scripts/api.mjs writes docs/api.md; with --check it fails where that is not what the packages have.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const ENTRIES = [
  ['dapplo', 'packages/browser/dist/index.d.ts'],
  ['dapplo/small', 'packages/browser/dist/small.d.ts'],
  ['dapplo/worker', 'packages/browser/dist/worker.d.ts'],
  ['dapplo/far', 'packages/browser/dist/far/index.d.ts'],
  ['@dapplo/core', 'packages/core/dist/index.d.ts'],
  ['@dapplo/core/far', 'packages/core/dist/far.d.ts'],
  ['@dapplo/core/sentence', 'packages/core/dist/sentence.d.ts'],
  ['@dapplo/node', 'packages/node/dist/index.d.ts'],
  ['@dapplo/engines', 'packages/engines/dist/index.d.ts'],
  ['@dapplo/engines/page', 'packages/engines/dist/page/duckdb-in-page.d.ts'],
  ['@dapplo/compose', 'packages/compose/dist/index.d.ts'],
  ['@dapplo/compose/react', 'packages/compose/dist/react.d.ts'],
  ['@dapplo/react', 'packages/react/dist/index.d.ts'],
]
const PACKAGES = {
  '@dapplo/core': 'packages/core/dist/index.d.ts',
  '@dapplo/core/small': 'packages/core/dist/small.d.ts',
  '@dapplo/core/far': 'packages/core/dist/far.d.ts',
  dapplo: 'packages/browser/dist/index.d.ts',
}

const texts = new Map()
const textOf = file => {
  if (!texts.has(file)) texts.set(file, readFileSync(file, 'utf8'))
  return texts.get(file)
}

/** Where a module that is named in a file stands; undefined for those of others. */
function moduleOf(name, from) {
  if (PACKAGES[name]) return join(root, PACKAGES[name])
  if (!name.startsWith('.')) return undefined
  const file = join(dirname(from), name.replace(/\.(js|ts)$/, '.d.ts'))
  return existsSync(file) ? file : undefined
}

/** The exported names of a file: where each is declared, and what it is called there. */
function exportsOf(file, out = new Map()) {
  const text = textOf(file)
  for (const [, name] of text.matchAll(/export \* from ["']([^"']+)["']/g)) {
    const other = moduleOf(name, file)
    if (other) for (const [key, value] of exportsOf(other)) if (!out.has(key)) out.set(key, value)
  }
  for (const [, body, name] of text.matchAll(/export (?:type )?\{([^}]*)\}(?: from ["']([^"']+)["'])?/g)) {
    const other = name ? moduleOf(name, file) : file
    for (const item of body.split(',').map(item => item.trim().replace(/^type /, ''))) {
      if (item === '') continue
      const [own, called = own] = item.split(/ as /)
      if (other)
        out.set(
          called,
          other === file ? { file, name: own } : (exportsOf(other).get(own) ?? { file: other, name: own }),
        )
    }
  }
  for (const [, name] of text.matchAll(
    /export (?:declare )?(?:abstract )?(?:const|function|class|interface|type|let) (\w+)/g,
  ))
    out.set(name, { file, name })
  return out
}

/** What is said about a declaration: its first sentence; undefined where nothing is. */
function saidOf({ file, name }) {
  const found = new RegExp(
    `((?:/\\*\\*(?:(?!\\*/)[^])*\\*/\\s*)?)export (?:declare )?(?:abstract )?(?:const|function|class|interface|type|let) ${name}\\b`,
  ).exec(textOf(file))
  const words = found?.[1]
    .replace(/^\/\*\*|\*\/\s*$/g, '')
    .replace(/^\s*\* ?/gm, ' ')
    .replace(/\s+/g, ' ')
    .trim()
  return words ? (/^.*?[.:](?= |$)/.exec(words)?.[0].replace(/:$/, '.') ?? words) : undefined
}

const kindOf = ({ file, name }) =>
  new RegExp(`export (?:declare )?(?:abstract )?(const|function|class|interface|type|let) ${name}\\b`).exec(
    textOf(file),
  )?.[1]

/** Whether a declaration shows a type of the package that follows values: it is ours to change. */
function leaks({ file, name }) {
  const text = textOf(file)
  const start = text.search(
    new RegExp(`export (?:declare )?(?:abstract )?(?:const|function|class|interface|type) ${name}\\b`),
  )
  const end = text.indexOf('\nexport ', start + 1)
  return /\b(?:Readonly)?Signal</.test(text.slice(start, end < 0 ? undefined : end))
}

const silent = []
const leaking = []
const lines = [
  '# What the packages export',
  '',
  'Written by `scripts/api.mjs`; a test holds it to what the packages have.',
]
const listed = new Map()
for (const [name, entry] of ENTRIES) {
  const all = exportsOf(join(root, entry))
  const shared = [...all].filter(([key, at]) => listed.get(key) === at.file + at.name)
  const own = [...all].filter(([key, at]) => listed.get(key) !== at.file + at.name)
  lines.push('', `## ${name}`, '')
  if (shared.length > 0) lines.push(`${shared.length} names that stand above, and:`, '')
  for (const [key, at] of own.sort(([a], [b]) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1))) {
    const said = saidOf(at)
    const type = ['interface', 'type'].includes(kindOf(at)) ? ' (type)' : ''
    if (!said) silent.push(`${name}: ${key}`)
    if (leaks(at)) leaking.push(`${name}: ${key}`)
    lines.push(`- \`${key}\`${type}: ${said ?? '—'}`)
    listed.set(key, at.file + at.name)
  }
}
const report = `${lines.join('\n')}\n`
const file = join(root, 'docs/api.md')
if (leaking.length > 0) console.error(`Types of another package stand in: ${leaking.join(', ')}.`)
if (silent.length > 0) console.error(`Nothing is said about: ${silent.join(', ')}.`)
if (process.argv.includes('--check')) {
  const same = existsSync(file) && readFileSync(file, 'utf8') === report
  if (!same) console.error('docs/api.md is not what the packages export: run node scripts/api.mjs.')
  if (!same || silent.length > 0 || leaking.length > 0) process.exitCode = 1
} else writeFileSync(file, report)
