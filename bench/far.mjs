// Charts over rows that stay in an engine, against the best query that a person would write for the same groups.
// FAR_ROWS=100000000 npm run bench -- far does it over so many rows.
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { chart } from '@dapplo/core'
import { farTable, ready } from '@dapplo/core/far'
import { duckdb } from '@dapplo/engines'
import { DuckDBInstance } from '@duckdb/node-api'
import { writeSailings } from '../demo-data/far.mjs'
import { ratio, timeBoth } from './measure.mjs'

const rows = Number(process.env.FAR_ROWS ?? 10_000_000)
const file = fileURLToPath(new URL(`../demo-output/sailings-${rows}.parquet`, import.meta.url))
if (!existsSync(file)) {
  console.log(`Making ${rows.toLocaleString('en')} sailings…`)
  await writeSailings(file, rows)
}
const engine = await duckdb({ sailings: file })
const instance = await DuckDBInstance.create(':memory:')
const connection = await instance.connect()

/** What an answer weighs as the JSON that an endpoint sends. */
let bytes = 0
const weighed = {
  ...engine,
  ask(question) {
    const asking = engine.ask(question)
    return {
      cancel: () => asking.cancel(),
      answer: asking.answer.then(found => {
        bytes += JSON.stringify(found.columns.map(values => Array.from(values))).length
        return found
      }),
    }
  },
}

const works = {
  'monthly bars': {
    description: { draw: 'bar', x: 'month of departed', y: 'sum of passengers' },
    query: `SELECT date_trunc('month', departed), sum(passengers) FROM '${file}' GROUP BY 1`,
  },
  'a raw line': {
    description: { draw: 'line', x: 'departed', y: 'delay_minutes' },
    // First, last, least and greatest of each of so many stretches.
    query: `SELECT CAST(floor((epoch_ms(departed) - 1104537600000) * 6.49e-9) AS INTEGER),
      min(departed), arg_min(delay_minutes, departed), max(departed), arg_max(delay_minutes, departed),
      min(delay_minutes), arg_min(departed, delay_minutes), max(delay_minutes), arg_max(departed, delay_minutes)
      FROM '${file}' GROUP BY 1`,
  },
  'a scatter': {
    description: { draw: 'scatter', x: 'wind_knots', y: 'delay_minutes' },
    // How many rows lie at each place, and where their middle is, which is where they are drawn.
    query: `SELECT CAST(floor((wind_knots - 4) * 13) AS INTEGER), CAST(floor((delay_minutes + 4) * 4) AS INTEGER), count(*),
      avg(wind_knots), avg(delay_minutes) FROM '${file}' GROUP BY 1, 2`,
  },
}
for (const [name, { description, query }] of Object.entries(works)) {
  const { ours, bare } = await timeBoth(
    // A table of its own each time: nothing of it is known from before.
    async () => ready(chart(await farTable(engine, 'sailings'), description)),
    async () => connection.runAndReadAll(query),
    { runs: rows > 20_000_000 ? 2 : 7, warm: 1 },
  )
  bytes = 0
  await ready(chart(await farTable(weighed, 'sailings'), description))
  ratio(
    `${name} over ${rows.toLocaleString('en')} rows in an engine (${Math.round(bytes / 1000)} kB travel)`,
    ours,
    bare,
    1.3,
  )
}
// Charts of one page, about chosen rows, ask together.
const where = { delay_minutes: { from: 1, until: 20 } }
const page = [
  ['month of departed', `date_trunc('month', departed)`],
  ['route', 'route'],
  ['vessel', 'vessel'],
  ['weekday of departed', 'isodow(departed)'],
]
const together = await timeBoth(
  async () => {
    const sailings = await farTable(engine, 'sailings')
    await Promise.all(
      page.map(([x]) => ready(chart(sailings, { draw: 'bar', x, y: 'mean of delay_minutes', where }))),
    )
  },
  async () => {
    for (const [, key] of page)
      await connection.runAndReadAll(
        `SELECT ${key}, avg(delay_minutes) FROM '${file}' WHERE delay_minutes >= 1 AND delay_minutes < 20 GROUP BY 1`,
      )
  },
  { runs: rows > 20_000_000 ? 2 : 5, warm: 1 },
)
ratio(`four charts of one page over ${rows.toLocaleString('en')} rows`, together.ours, together.bare, 1.3)
console.log(`memory of this process at its most: ${Math.round(process.resourceUsage().maxRSS / 1024)} MB`)
connection.closeSync()
instance.closeSync()
await engine.close()
