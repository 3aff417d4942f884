import { execFile } from 'node:child_process'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { TestProject } from 'vitest/node'
import { serveFolder } from './browser.ts'
import { buildExample } from './examples.ts'

/** A package as it would be published: its file, and the paths that it holds. */
interface Packed {
  /** The folder of `packages` that it is made from. */
  from: string
  /** Its name in a registry. */
  name: string
  file: string
  paths: string[]
}

declare module 'vitest' {
  export interface ProvidedContext {
    /** The address of the gallery, built and served once for all files of tests. */
    gallery: string
    /** Every package, packed once. */
    packed: Packed[]
    /** The folder of the examples, as they are where only the packed packages are installed. */
    examples: string
  }
}

const root = join(import.meta.dirname, '../..')
const run = promisify(execFile)

/**
 * Packs the packages, installs them beside the examples, and builds and serves the gallery with them, before the first file of
 * tests, once for all engines; what it returns ends that after the last.
 */
export default async function share(project: TestProject): Promise<(() => Promise<void>) | undefined> {
  const all = project.vitest.getRootProject()
  if ('gallery' in all.getProvidedContext()) return undefined
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-shared-'))
  const packed = await pack(folder)
  await install(packed, join(folder, 'node_modules'))
  const examples = join(folder, 'examples')
  const kept = (path: string) => !/node_modules|public$|reports$|dist$/.test(path.slice(root.length))
  cpSync(join(root, 'examples'), examples, { recursive: true, filter: kept })
  cpSync(join(root, 'demo-data'), join(folder, 'demo-data'), { recursive: true })
  const server = await serveFolder(await buildExample(join(examples, 'gallery')))
  all.provide('gallery', server.url)
  all.provide('packed', packed)
  all.provide('examples', examples)
  return async () => {
    await server.close()
    rmSync(folder, { recursive: true })
  }
}

async function pack(folder: string): Promise<Packed[]> {
  const names = readdirSync(join(root, 'packages'))
  const spaces = names.flatMap(name => ['-w', `packages/${name}`])
  const { stdout } = await run('npm', ['pack', '--json', '--pack-destination', folder, ...spaces], {
    cwd: root,
    maxBuffer: 1e8,
  })
  const made: { name: string; filename: string; files: { path: string }[] }[] = JSON.parse(stdout)
  return names.map(from => {
    const { name } = JSON.parse(readFileSync(join(root, 'packages', from, 'package.json'), 'utf8'))
    const { filename, files } = made.find(one => one.name === name)!
    return { from, name, file: join(folder, filename), paths: files.map(({ path }) => path) }
  })
}

/** What the packages are unpacked to, and whatever else is installed here. */
async function install(packed: Packed[], folder: string): Promise<void> {
  for (const { name, file } of packed) {
    mkdirSync(join(folder, name), { recursive: true })
    await run('tar', ['-xzf', file, '-C', join(folder, name), '--strip-components=1'])
  }
  const modules = join(root, 'node_modules')
  for (const name of readdirSync(modules))
    if (!name.startsWith('.') && !existsSync(join(folder, name)))
      symlinkSync(join(modules, name), join(folder, name), 'junction')
}
