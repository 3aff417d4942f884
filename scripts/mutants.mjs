// Breaks the sources on purpose, one place at a time, and sees whether a test notices.
// Usage: npm run mutants -- [--seed 1] [--places 200] [--only packages/core/src/motion]
import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'

const root = fileURLToPath(new URL('..', import.meta.url))
const { values: given } = parseArgs({
  options: {
    seed: { type: 'string', default: '1' },
    places: { type: 'string', default: '200' },
    only: { type: 'string', default: '' },
  },
})

/** Where meaning is worked out; what only carries it on is not sampled. */
const ROOMS = ['table', 'scale', 'resolve', 'guide', 'drawing', 'bind', 'pane', 'read', 'motion', 'play'].map(
  room => `packages/core/src/${room}/`,
)
const files = readdirSync(join(root, 'packages'))
  .flatMap(name =>
    readdirSync(join(root, 'packages', name, 'src'), { recursive: true }).map(
      file => `packages/${name}/src/${file}`,
    ),
  )
  .filter(file => file.endsWith('.ts'))
  .filter(file => !/\.(test|d)\.ts$/.test(file))
  .filter(file => (given.only ? file.startsWith(given.only) : ROOMS.some(room => file.startsWith(room))))
  .sort()

// A line can be a place where it holds code rather than words about it.
const places = files.flatMap(file =>
  readFileSync(join(root, file), 'utf8')
    .split('\n')
    .flatMap((line, i) =>
      /^\s*(\/\/|\*|\/\*|import |export (type|interface)|$)/.test(line) || !/[=<>&|?+*]|return|if/.test(line)
        ? []
        : [`${file}:${i + 1}-${i + 1}`],
    ),
)
let state = Number(given.seed)
const chance = () => {
  state = (state * 1664525 + 1013904223) % 4294967296
  return state / 4294967296
}
for (let i = places.length - 1; i > 0; i--) {
  const j = Math.floor(chance() * (i + 1))
  ;[places[i], places[j]] = [places[j], places[i]]
}

const folder = mkdtempSync(join(tmpdir(), 'dapplo-mutants-'))
const report = join(folder, 'report.json')
const config = join(folder, 'config.json')
writeFileSync(
  config,
  JSON.stringify({
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'scripts/mutants.vitest.config.ts' },
    // The checks of types are made elsewhere, and references between projects mean nothing in a copy.
    tsconfigFile: 'none.json',
    mutate: places.slice(0, Number(given.places)),
    // The wording of messages is no promise.
    mutator: { excludedMutations: ['StringLiteral'] },
    ignorePatterns: ['bench', 'docs/site', 'docs/screenshots', 'demo-output'],
    reporters: ['json', 'clear-text', 'progress-append-only'],
    clearTextReporter: { logTests: false, reportTests: false },
    jsonReporter: { fileName: report },
    tempDirName: join(folder, 'copy'),
    coverageAnalysis: 'perTest',
    concurrency: 2,
    timeoutMS: 20_000,
  }),
)
const { status } = spawnSync(
  process.execPath,
  [join(root, 'node_modules/@stryker-mutator/core/bin/stryker.js'), 'run', config],
  { cwd: root, stdio: 'inherit' },
)
if (status === 0) {
  const all = Object.values(JSON.parse(readFileSync(report, 'utf8')).files).flatMap(file => file.mutants)
  const count = state => all.filter(mutant => mutant.status === state).length
  const noticed = count('Killed') + count('Timeout')
  const counted = noticed + count('Survived') + count('NoCoverage')
  console.log(`${noticed} of ${counted} mutants noticed (${((noticed / counted) * 100).toFixed(1)} of 100).`)
}
rmSync(folder, { recursive: true, force: true })
process.exit(status ?? 1)
