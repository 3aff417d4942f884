// Several runs of the bench, each in a process of its own: the median of each row with how far it spreads, beside the runs
// that were kept last.
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { printTable } from './measure.mjs'

const kept = fileURLToPath(new URL('kept.json', import.meta.url))

const middle = values => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted.length % 2
    ? sorted[sorted.length >> 1]
    : (sorted[sorted.length / 2 - 1] + sorted[sorted.length / 2]) / 2
}

/** Runs the bench so often, prints what came of it, and keeps it where that is asked for. */
export function repeat(times, wanted, keeps) {
  const ratios = new Map()
  const limits = new Map()
  for (let run = 1; run <= times; run++) {
    console.log(`Run ${run} of ${times} …`)
    const out = execFileSync(process.execPath, [process.argv[1], ...wanted, '--json'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    for (const { name, ratio, most } of JSON.parse(out.slice(out.lastIndexOf('\n[') + 1))) {
      ratios.set(name, [...(ratios.get(name) ?? []), Number(ratio)])
      limits.set(name, most)
    }
  }
  const before = existsSync(kept) ? JSON.parse(readFileSync(kept, 'utf8')) : {}
  const now = {}
  const rows = [...ratios].map(([name, all]) => {
    const [median, least, greatest] = [middle(all), Math.min(...all), Math.max(...all)]
    now[name] = { median, least, greatest }
    const then = before[name]
    const limit = Number.parseFloat(limits.get(name))
    // Worse is what got worse by more than both spread.
    const worse = then !== undefined && median > then.median && least > then.greatest
    const size = limits.get(name).endsWith('kB')
    return {
      name,
      median: median.toFixed(2),
      spread: `${least.toFixed(2)}–${greatest.toFixed(2)}`,
      before: then ? then.median.toFixed(2) : '',
      most: limits.get(name),
      verdict: [median > (size ? 1 : limit) ? 'over' : '', worse ? 'worse' : ''].filter(Boolean).join(', '),
    }
  })
  printTable(
    { name: 'work', median: 'median', spread: 'spread', before: 'kept', most: 'at most', verdict: '' },
    rows,
  )
  if (keeps) writeFileSync(kept, `${JSON.stringify({ ...before, ...now }, null, 2)}\n`)
}
