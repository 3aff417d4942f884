// Several runs of the bench, each in a process of its own: the median of each row with how far it spreads, beside the runs
// that were kept last.
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { printTable } from './measure.mjs'
import { isOver, pageOf } from './page-of-figures.mjs'

const kept = fileURLToPath(new URL('kept.json', import.meta.url))
const page = fileURLToPath(new URL('../docs/speed.md', import.meta.url))

const middle = values => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.length % 2
    ? sorted[sorted.length >> 1]
    : (sorted[sorted.length / 2 - 1] + sorted[sorted.length / 2]) / 2
}

/** Runs the bench so often, prints what came of it, and keeps it where that is asked for. */
export function repeat(times, wanted, keeps) {
  const runs = new Map()
  for (let run = 1; run <= times; run++) {
    console.log(`Run ${run} of ${times} …`)
    const out = execFileSync(process.execPath, [process.argv[1], ...wanted, '--json'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    for (const row of JSON.parse(out.slice(out.lastIndexOf('\n[') + 1)))
      runs.set(row.name, [...(runs.get(row.name) ?? []), row])
  }
  const before = existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')) : {}
  const now = {}
  const rows = [...runs].map(([name, all]) => {
    const ratios = all.map(({ ratio }) => Number(ratio))
    const [median, least, greatest] = [middle(ratios), Math.min(...ratios), Math.max(...ratios)]
    // The figures of the run that is nearest to the median.
    const [{ bench, ours, bare, most }] = [...all].sort(
      (a, b) => Math.abs(a.ratio - median) - Math.abs(b.ratio - median),
    )
    now[name] = { bench, median, least, greatest, ours, bare, most, runs: all.length }
    const then = before[name]
    // Worse is what got worse by more than both spread.
    const worse = then !== undefined && median > then.median && least > then.greatest
    return {
      name,
      ours,
      median: median.toFixed(2),
      spread: `${least.toFixed(2)}–${greatest.toFixed(2)}`,
      before: then ? then.median.toFixed(2) : '',
      most,
      verdict: [isOver(now[name]) ? 'over' : '', worse ? 'worse' : ''].filter(Boolean).join(', '),
    }
  })
  printTable(
    {
      name: 'work',
      ours: 'ours',
      median: 'median',
      spread: 'spread',
      before: 'kept',
      most: 'at most',
      verdict: '',
    },
    rows,
  )
  if (!keeps) return
  const all = { ...before, ...now }
  writeFileSync(kept, `${JSON.stringify(all, null, 2)}\n`)
  writeFileSync(page, pageOf(all))
  const format = fileURLToPath(new URL('../node_modules/@biomejs/biome/bin/biome', import.meta.url))
  execFileSync(process.execPath, [format, 'format', '--write', kept, page], { stdio: 'ignore' })
}
