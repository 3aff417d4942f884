import { execFile } from 'node:child_process'
import { join } from 'node:path'
import { promisify } from 'node:util'

const vite = join(import.meta.dirname, '../../node_modules/vite/bin/vite.js')

/** Builds an example, a folder with its own settings of Vite; gives the folder of what was built. */
export async function buildExample(example: string, ...options: string[]): Promise<string> {
  const config = join(example, 'vite.config.js')
  await promisify(execFile)(
    process.execPath,
    [vite, 'build', '--config', config, '--logLevel', 'error', ...options],
    { cwd: example },
  )
  return join(example, 'dist')
}
