// Holds the architecture: which package may import which, no import cycles, and a core without page or Node.
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
/** core ← browser ← react, core ← node ← cli; nothing else. */
const ALLOWED = {
  core: [],
  browser: ['core'],
  react: ['core', 'browser'],
  node: ['core'],
  cli: ['core', 'node'],
}
/** The pipeline: a folder of core may import values from folders before it, never from one after it. */
const PIPELINE = [
  'finding',
  'words',
  'theme',
  'table',
  'scale',
  'scene',
  'guide',
  'drawing',
  'chart',
  'explore',
  'motion',
  'play',
  'paint',
]
const problems = []
const graph = new Map()

for (const name of Object.keys(ALLOWED)) {
  const source = join(root, 'packages', name, 'src')
  for (const entry of readdirSync(source, { recursive: true })) {
    const file = join(source, String(entry))
    if (!file.endsWith('.ts') || file.endsWith('.test.ts') || file.endsWith('.d.ts')) continue
    const text = readFileSync(file, 'utf8')
    const imports = [
      ...text.matchAll(/^(?:import|export)\s+(type\s)?[^'";]*?from '([^']+)'|^import '([^']+)'/gm),
    ]
    const targets = []
    for (const [, typeOnly, from, bare] of imports) {
      const target = from ?? bare
      const where = relative(root, file)
      const own = target.match(/^(?:@dapplo\/(core|node|cli)|(dapplo))(?:\/|$)/)
      if (own) {
        const other = own[1] ?? 'browser'
        if (!ALLOWED[name].includes(other))
          problems.push(`${where} imports ${target}: ${name} may not depend on ${other}.`)
      } else if (target.startsWith('.')) {
        const path = resolve(dirname(file), target)
        if (!path.startsWith(source))
          problems.push(`${where} imports ${target}, which lies outside its package.`)
        if (!typeOnly) targets.push(path)
        if (name === 'core') {
          const [fromFolder] = relative(source, file).split('/')
          const [toFolder] = relative(source, path).split('/')
          if (
            !typeOnly &&
            PIPELINE.includes(fromFolder) &&
            PIPELINE.indexOf(toFolder) > PIPELINE.indexOf(fromFolder)
          )
            problems.push(
              `${where} imports from ${toFolder}, which comes after ${fromFolder} in the pipeline.`,
            )
        }
      } else if (target.startsWith('node:') && (name === 'core' || name === 'browser' || name === 'react'))
        problems.push(`${where} imports ${target}: ${name} runs where there is no Node.`)
    }
    graph.set(file, targets)
  }
}

const done = new Set()
function visit(file, trail) {
  const at = trail.indexOf(file)
  if (at >= 0) {
    problems.push(`Import cycle: ${[...trail.slice(at), file].map(f => relative(root, f)).join(' → ')}`)
    return
  }
  if (done.has(file)) return
  for (const target of graph.get(file) ?? []) visit(target, [...trail, file])
  done.add(file)
}
for (const file of graph.keys()) visit(file, [])

if (problems.length > 0) {
  console.error(problems.join('\n'))
  process.exit(1)
}
console.log(`${graph.size} files, no cycles, every arrow in the right direction.`)
