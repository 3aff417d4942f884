/** Milliseconds of the fastest tenth of several runs: what the work costs when nothing else gets in the way. */
export function time(work, { runs = 15, warm = 3 } = {}) {
  for (let i = 0; i < warm; i++) work(i)
  const all = []
  for (let i = 0; i < runs; i++) {
    const start = performance.now()
    work(i + warm)
    all.push(performance.now() - start)
  }
  all.sort((a, b) => a - b)
  return all[Math.floor(all.length / 10)]
}

/**
 * The same of two works that take turns: what else the machine does then befalls both. Works may return promises.
 */
export async function timeBoth(ours, bare, { runs = 15, warm = 3 } = {}) {
  const all = { ours: [], bare: [] }
  for (let i = 0; i < warm + runs; i++) {
    for (const [name, work] of Object.entries({ bare, ours })) {
      const start = performance.now()
      const result = work(i)
      if (result instanceof Promise) await result
      if (i >= warm) all[name].push(performance.now() - start)
    }
  }
  const fastest = times => times.sort((a, b) => a - b)[Math.floor(times.length / 10)]
  return { ours: fastest(all.ours), bare: fastest(all.bare) }
}

/** All that has been measured. */
export const rows = []

/** Which bench is running. */
let bench = ''
export function begin(name) {
  bench = name
}

/** Notes a ratio beside the most it should be. */
export function ratio(name, ours, bare, most, unit = 'ms') {
  rows.push({
    name,
    bench,
    ours: `${ours.toFixed(2)} ${unit}`,
    bare: `${bare.toFixed(2)} ${unit}`,
    ratio: (ours / bare).toFixed(2),
    most: String(most),
    verdict: ours / bare <= most ? '' : 'over',
  })
}

/** Notes a figure that has a limit of its own, beside the share of it that is used. `bare`: what it is set against, if anything. */
export function told(name, figure, unit, most, bare = '') {
  rows.push({
    name,
    bench,
    ours: `${figure.toFixed(1)} ${unit}`,
    bare,
    ratio: (figure / most).toFixed(2),
    most: `${most} ${unit}`,
    verdict: figure <= most ? '' : 'over',
  })
}

/** Notes a size in bytes beside the most it should be, in kilobytes. */
export const size = (name, bytes, most) => told(name, bytes / 1000, 'kB', most)

export function print() {
  printTable({ name: 'work', ours: 'ours', bare: 'bare', ratio: 'ratio', most: 'at most', verdict: '' }, rows)
}

/** Rows under their header, figures to the right. */
export function printTable(header, rows) {
  const widths = Object.fromEntries(
    Object.keys(header).map(key => [key, Math.max(...[header, ...rows].map(row => row[key].length))]),
  )
  for (const row of [header, ...rows])
    console.log(
      Object.keys(header)
        .map(key =>
          key === 'name' || key === 'verdict' ? row[key].padEnd(widths[key]) : row[key].padStart(widths[key]),
        )
        .join('  ')
        .trimEnd(),
    )
}
