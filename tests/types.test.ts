import { mkdtempSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { compile } from './support/compile.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(root, 'node_modules', '.types-'))
afterAll(() => rmSync(folder, { recursive: true }))

const fixture = (name: string) =>
  compile(join(root, 'tests/fixtures/types', name), join(folder, `${name}.json`))

const messages = fixture('wrong.ts')

test('phrases are checked by the compiler, which finds every fault and no other', () => {
  expect(fixture('right.ts')).toBe('')
})

test('the compiler suggests the column that was meant', () => {
  expect(messages).toContain('Did you mean \'"sum of passengers"\'')
  expect(messages).toContain('Did you mean \'"route"\'')
})

test.each([
  ['average of passengers', 'mean of passengers'],
  ['monthly departed', 'month of departed'],
  ['Total(passengers)', 'sum of passengers'],
  ['departed, by month', 'month of departed'],
  ['number of rows', 'count'],
  ['running total of passengers', 'sum so far of passengers'],
  ['Departed', 'departed'],
  ['95th percentile of passengers', 'p95 of passengers'],
  ['unique route', 'distinct route'],
  ['column', 'bar'],
  ['bubble chart', 'scatter'],
])('the compiler answers "%s" with what to write, as the run time does', (written, meant) => {
  expect(messages).toMatch(
    new RegExp(`Type '"${written.replace(/[()]/g, '\\$&')}"' is not assignable to type '[^']*"${meant}"`),
  )
})

test('other faults are told as ever beside that', () => {
  expect(messages).toContain("'colour' does not exist")
})
