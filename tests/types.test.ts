import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.types-'))
afterAll(() => rmSync(folder, { recursive: true }))

/** What the compiler says about a fixture. */
function compile(fixture: string): string {
  const config = join(folder, `${fixture}.json`)
  writeFileSync(
    config,
    JSON.stringify({
      compilerOptions: {
        strict: true,
        noEmit: true,
        target: 'ES2022',
        module: 'ESNext',
        moduleResolution: 'Bundler',
        lib: ['ES2023', 'DOM'],
        types: [],
        skipLibCheck: true,
      },
      files: [join(root, 'tests/fixtures/types', fixture)],
    }),
  )
  try {
    execFileSync(process.execPath, [join(root, 'node_modules/typescript/bin/tsc'), '-p', config], {
      encoding: 'utf8',
    })
    return ''
  } catch (error) {
    return (error as { stdout: string }).stdout
  }
}

test('phrases are checked by the compiler, which finds every fault and no other', () => {
  expect(compile('right.ts')).toBe('')
})

test('the compiler suggests the column that was meant', () => {
  const messages = compile('wrong.ts')
  expect(messages).toContain('Did you mean \'"sum of passengers"\'')
  expect(messages).toContain('Did you mean \'"route"\'')
})
