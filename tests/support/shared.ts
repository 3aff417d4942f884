import { execFile } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import type { TestProject } from 'vitest/node'
import { serveFolder } from './browser.ts'

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
  }
}

const root = join(import.meta.dirname, '../..')
const run = promisify(execFile)

/** Builds and serves the gallery, and packs the packages, before the first file of tests; what it returns ends that after the last. */
export default async function share(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-shared-'))
  const [built, packed] = await Promise.all([gallery(join(folder, 'gallery')), pack(folder)])
  const server = await serveFolder(built)
  project.provide('gallery', server.url)
  project.provide('packed', packed)
  return async () => {
    await server.close()
    rmSync(folder, { recursive: true })
  }
}

async function gallery(folder: string): Promise<string> {
  const vite = join(root, 'node_modules/vite/bin/vite.js')
  const config = join(root, 'examples/gallery/vite.config.js')
  await run(
    process.execPath,
    [vite, 'build', '--config', config, '--outDir', folder, '--emptyOutDir', '--logLevel', 'error'],
    { cwd: root },
  )
  return folder
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
