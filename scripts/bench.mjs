// Measures speed as ratios to the least that could be done, in one run, and sizes against their limits.
// Usage: npm run bench [-- line sizes] [-- --times 5] [-- --keep]
// `--times`: so many runs, with medians and spreads, beside those that were kept; `--keep` keeps these, and writes docs/speed.md.
const BENCHES = [
  'line',
  'table',
  'live',
  'scatter',
  'select',
  'motion',
  'files',
  'page',
  'far',
  'far-page',
  'machines',
  'sizes',
]
const IN_A_BROWSER = ['page', 'far-page', 'machines']
const given = process.argv.slice(2)
const at = given.indexOf('--times')
const times = at < 0 ? 1 : Number(given[at + 1])
const wanted = given.filter(name => BENCHES.includes(name))
if (wanted.length === 0 || wanted.some(name => IN_A_BROWSER.includes(name))) process.argv.push('--browser')
await import('./setup.mjs')
if (!given.includes('--json')) await import('./build.mjs')
if (times > 1 || given.includes('--keep')) {
  const { repeat } = await import('../bench/repeated.mjs')
  repeat(times, wanted, given.includes('--keep'))
} else {
  const { begin, print, rows } = await import('../bench/measure.mjs')
  for (const name of BENCHES) {
    if (wanted.length > 0 && !wanted.includes(name)) continue
    begin(name)
    await import(`../bench/${name}.mjs`)
  }
  if (given.includes('--json')) console.log(`\n${JSON.stringify(rows)}`)
  else print()
}
