// Everything that must hold: set-up, build, types, lint, directions of imports, and every test.
// Usage: npm test [-- --only check]; npm run test:all tries every example in every engine, which takes about three times as long.
process.argv.push('--browser')
await import('./setup.mjs')

import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const all = process.argv.includes('--all')
const onlyCheck = process.argv.includes('check')
const run = (title, file, ...args) => {
  console.log(`\n${title}`)
  try {
    execFileSync(process.execPath, [join(root, file), ...args], { cwd: root, stdio: 'inherit' })
  } catch {
    console.error(`${title} failed.`)
    process.exit(1)
  }
}
run('Build', 'scripts/build.mjs')
run('Types', 'node_modules/typescript/bin/tsc', '-b')
run('Lint', 'node_modules/@biomejs/biome/bin/biome', 'check', '.')
run('Imports', 'scripts/check-imports.mjs')
if (onlyCheck) process.exit(0)

const folder = mkdtempSync(join(tmpdir(), 'dapplo-test-'))
const report = join(folder, 'report.json')
let failed = false
console.log('\nTests')
try {
  execFileSync(
    process.execPath,
    [
      join(root, 'node_modules/vitest/vitest.mjs'),
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
    ],
    { cwd: root, stdio: 'inherit', env: { ...process.env, ...(all ? { DAPPLO_ALL: '1' } : {}) } },
  )
} catch {
  failed = true
}
const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'))
rmSync(folder, { recursive: true })
console.log(`${numPassedTests} passed, ${numFailedTests} failed`)
process.exit(failed || numPassedTests === 0 ? 1 : 0)
