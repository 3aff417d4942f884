// Holds the architecture: which package may import which, no import cycles, and a core without page or Node.
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
/** core ← browser ← react, core ← node ← cli, core ← engines ← cli; nothing else. */
const ALLOWED = {
  core: [],
  browser: ['core'],
  react: ['core', 'browser'],
  compose: ['core', 'browser'],
  node: ['core'],
  engines: ['core'],
  cli: ['core', 'node', 'engines'],
}
/**
 * The pipeline, first to last: a folder of core imports from folders before it, types included, and from none after it.
 * A folder stands for those inside it that are not named themselves.
 */
const PIPELINE = [
  'finding',
  'words',
  'table/cells',
  'table/read',
  'table/live',
  'table/open',
  'table/phrase',
  'table/group',
  'table/reshape',
  'table/far',
  'scale',
  'theme',
  'scene',
  'describe',
  'sentence',
  'suggest',
  'resolve',
  'guide',
  'drawing',
  'bind',
  'pane',
  'read',
  'view',
  'motion',
  'paint',
  'play',
]
/** More files than these in a folder are no room any more; tests are not counted. */
const MOST_FILES = 24
/** Folders that are still wider. */
const WIDE = new Set()
/** The folder of the pipeline that a file stands in; undefined for what stands beside them. */
const roomOf = path => {
  const folder = dirname(path)
  if (folder === '.') return undefined
  const room = PIPELINE.find(one => folder === one || folder.startsWith(`${one}/`))
  if (room === undefined) problems.push(`${path} stands in a folder that the pipeline does not name.`)
  return room
}
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
    for (const [, , from, bare] of imports) {
      const target = from ?? bare
      const where = relative(root, file)
      const own = target.match(/^(?:@dapplo\/(core|node|engines|cli|compose)|(dapplo))(?:\/|$)/)
      if (own) {
        const other = own[1] ?? 'browser'
        if (!ALLOWED[name].includes(other))
          problems.push(`${where} imports ${target}: ${name} may not depend on ${other}.`)
      } else if (target.startsWith('.')) {
        const path = resolve(dirname(file), target)
        if (!path.startsWith(source))
          problems.push(`${where} imports ${target}, which lies outside its package.`)
        targets.push(path)
        if (name === 'core') {
          const [from, to] = [roomOf(relative(source, file)), roomOf(relative(source, path))]
          // What stands beside the folders are the faces of the package, which everything may come together in.
          if (from !== undefined && (to === undefined || PIPELINE.indexOf(to) > PIPELINE.indexOf(from)))
            problems.push(`${where} imports ${target}, which comes after ${from} in the pipeline.`)
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

const folders = Map.groupBy
  ? Map.groupBy(graph.keys(), file => dirname(file))
  : [...graph.keys()].reduce(
      (all, file) => all.set(dirname(file), [...(all.get(dirname(file)) ?? []), file]),
      new Map(),
    )
for (const [folder, files] of folders)
  if (files.length > MOST_FILES && !WIDE.has(relative(root, folder)))
    problems.push(
      `${relative(root, folder)} has ${files.length} files; give those of one purpose a folder of their own.`,
    )

// The second reader shares no code with what it reads.
const reader = join(root, 'tests/reader')
for (const entry of readdirSync(reader, { recursive: true })) {
  const file = join(reader, String(entry))
  if (!file.endsWith('.ts')) continue
  for (const [, target] of readFileSync(file, 'utf8').matchAll(/from '([^']+)'/g)) {
    const inside = target.startsWith('.') ? relative(root, resolve(dirname(file), target)) : ''
    if (/^(@dapplo|dapplo)(\/|$)/.test(target) || inside.startsWith('packages'))
      problems.push(`${relative(root, file)} imports ${target}: the second reader stands on its own.`)
  }
}

if (problems.length > 0) {
  console.error(problems.join('\n'))
  process.exit(1)
}
console.log(`${graph.size} files, no cycles, every arrow in the right direction.`)
