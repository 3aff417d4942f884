import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from './command.ts'
import { everything } from './extent.ts'

/**
 * A folder with the demo data, for a file of tests to clear away. Commands spend most of their time reading the sailings: unless
 * everything is tried, one in four of these is there, and those that are written amiss.
 */
export function demoData(): string {
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-demo-'))
  cpSync(join(root, 'demo-data'), folder, { recursive: true })
  if (everything) return folder
  const sailings = join(folder, 'sailings.csv')
  const [head, ...rows] = readFileSync(sailings, 'utf8').trimEnd().split('\n')
  const some = rows.filter((row, i) => i % 4 === 0 || !/^\d*$/.test(row.split(',')[4]))
  writeFileSync(sailings, `${[head, ...some].join('\n')}\n`)
  return folder
}
