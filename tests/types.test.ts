import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { compile } from './support/compile.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.types-'))
afterAll(() => rmSync(folder, { recursive: true }))

const fixture = (name: string) =>
  compile(join(root, 'tests/fixtures/types', name), join(folder, `${name}.json`))

test('phrases are checked by the compiler, which finds every fault and no other', () => {
  expect(fixture('right.ts')).toBe('')
})

test('the compiler suggests the column that was meant', () => {
  const messages = fixture('wrong.ts')
  expect(messages).toContain('Did you mean \'"sum of passengers"\'')
  expect(messages).toContain('Did you mean \'"route"\'')
})
