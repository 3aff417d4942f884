import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, test } from 'vitest'

const root = join(import.meta.dirname, '..')

test('what the packages export is what docs/api.md lists, each with a word about it, and no type of others', () => {
  const { stderr, status } = spawnSync(process.execPath, ['scripts/api.mjs', '--check'], {
    cwd: root,
    encoding: 'utf8',
  })
  expect([stderr, status]).toEqual(['', 0])
})
