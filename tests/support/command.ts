import { spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const root = join(import.meta.dirname, '../..')
/** The built command. */
export const main = join(root, 'packages/cli/dist/dapplo.js')

/** A folder of a file of tests, and the command run in it. */
export function workplace(): {
  folder: string
  dapplo(args: string[], env?: object): { status: number | null; stdout: string; stderr: string }
} {
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-out-'))
  const dapplo = (args: string[], env = {}) =>
    spawnSync(process.execPath, [main, ...args], {
      encoding: 'utf8',
      cwd: folder,
      env: { ...process.env, ...env },
    })
  return { folder, dapplo }
}
