// Draws very many random charts, each under a watchdog, and says which of them ended in anything but a picture or a sentence.
// Usage: npm run fuzz -- [--count 50000] [--seed 1] [--case <number of one to show>]
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { inspect, parseArgs } from 'node:util'
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads'
import fc from 'fast-check'
import { casesFor } from '../tests/fuzz/cases.mjs'
import { loadCore, runCase } from '../tests/fuzz/run-case.mjs'

/** Milliseconds that one chart may take, and after which it is given up. */
const LIMIT = 2000
const GIVEN_UP = 15_000
/** Random charts are made in lots, so that any of them can be made again by its number. */
const LOT = 250

const lotOf = (seed, lot) => fc.sample(casesFor(lot), { seed: seed * 100_003 + lot, numRuns: LOT })

if (isMainThread) await main()
else await work()

async function main() {
  const { values } = parseArgs({
    options: { count: { type: 'string' }, seed: { type: 'string' }, case: { type: 'string' } },
  })
  const count = Number(values.count ?? 50_000)
  const seed = Number(values.seed ?? 1)
  if (values.case !== undefined) {
    const number = Number(values.case)
    const one = lotOf(seed, Math.floor(number / LOT))[number % LOT]
    console.log(inspect(one, { depth: 12, maxArrayLength: 40, maxStringLength: 120 }))
    const start = performance.now()
    console.log(
      runCase(await loadCore(), one) ?? 'nothing wrong',
      `${Math.round(performance.now() - start)} ms`,
    )
    return
  }
  const lots = Math.ceil(count / LOT)
  const problems = new Map()
  let next = 0
  let done = 0
  let pictures = 0
  let slowest = { ms: 0, number: -1 }
  const note = (number, problem) => {
    const kind = problem.replace(/\d+(\.\d+)?(e[+-]?\d+)?/g, '#').slice(0, 90)
    const known = problems.get(kind)
    if (known) known.count++
    else problems.set(kind, { count: 1, number, problem })
  }
  const run = () =>
    new Promise(resolve => {
      let worker
      let at = -1
      let timer
      const start = (lot, from) => {
        worker = new Worker(fileURLToPath(import.meta.url), { workerData: { seed, lot, from } })
        worker.on('error', error => {
          note(at, `the worker ended: ${error.message}`)
          go(lot, at - lot * LOT + 1)
        })
        worker.on('message', message => {
          clearTimeout(timer)
          if (message.ended) return advance()
          if (message.begins !== undefined) {
            at = message.begins
            timer = setTimeout(async () => {
              note(at, `no end after ${GIVEN_UP / 1000} seconds`)
              worker.removeAllListeners()
              await worker.terminate()
              go(lot, at - lot * LOT + 1)
            }, GIVEN_UP)
            return
          }
          done++
          pictures += message.pictures
          if (message.problem) note(message.number, message.problem)
          if (message.ms > LIMIT) note(message.number, 'slow')
          if (message.ms > slowest.ms) slowest = message
        })
      }
      const go = (lot, from) => (from < LOT ? start(lot, from) : advance())
      const advance = () => {
        worker?.removeAllListeners()
        void worker?.terminate()
        if (next >= lots) return resolve(undefined)
        start(next++, 0)
      }
      advance()
    })
  const begun = Date.now()
  await Promise.all(Array.from({ length: availableParallelism() }, run))
  for (const [, { count: times, number, problem }] of [...problems].sort((a, b) => b[1].count - a[1].count))
    console.log(`${times} ×, as in --case ${number}: ${problem}`)
  console.log(
    `${done} charts of seed ${seed}, ${pictures} of them pictures, in ${Math.round((Date.now() - begun) / 1000)} s, the slowest in ${Math.round(slowest.ms)} ms (--case ${slowest.number}): ${problems.size === 0 ? 'all well' : `${problems.size} kinds of problems`}.`,
  )
  process.exitCode = problems.size === 0 ? 0 : 1
}

async function work() {
  const core = await loadCore()
  const { seed, lot, from } = workerData
  lotOf(seed, lot).forEach((one, i) => {
    if (i < from) return
    const number = lot * LOT + i
    parentPort.postMessage({ begins: number })
    const start = performance.now()
    let pictures = 0
    const problem = runCase(core, one, () => pictures++)
    parentPort.postMessage({ number, problem, pictures, ms: performance.now() - start })
  })
  parentPort.postMessage({ ended: true })
}
