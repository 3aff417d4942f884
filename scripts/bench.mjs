// Measures speed as ratios to the least that could be done, in one run, and sizes against their limits.
// Usage: npm run bench [-- line sizes]
import './setup.mjs'

await import('./build.mjs')
const { print } = await import('../bench/measure.mjs')
const wanted = process.argv.slice(2)
for (const name of [
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
  'sizes',
])
  if (wanted.length === 0 || wanted.includes(name)) await import(`../bench/${name}.mjs`)
print()
