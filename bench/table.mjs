// Reading a million rows of CSV, and gathering a million rows into groups.
import { readCsv, table } from '@dapplo/core'
import Papa from 'papaparse'
import { ratio, time, timeBoth } from './measure.mjs'
import { groupingCost } from './shapes.mjs'

const ROWS = 1_000_000
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
const start = Date.UTC(2023, 0, 1)

const lines = ['id,departed,route,passengers,delay']
for (let i = 0; i < ROWS; i++) {
  lines.push(
    `${i},${new Date(start + i * 94_000).toISOString().slice(0, 16)},${routes[i % 5]},${(i * 37) % 240},${((i * 13) % 40) - 4.5}`,
  )
}
const text = lines.join('\n')
const csv = await timeBoth(
  () => readCsv(text),
  () => Papa.parse(text, { header: false, skipEmptyLines: false }),
  { runs: 5, warm: 1 },
)
ratio('CSV of 1,000,000 rows to a table', csv.ours, csv.bare, 0.8)

const departed = Float64Array.from({ length: ROWS }, (_, i) => start + i * 94_000)
const passengers = Float64Array.from({ length: ROWS }, (_, i) => (i * 37) % 240)
const codes = Int32Array.from({ length: ROWS }, (_, i) => i % 5)
const sailings = table(
  { departed, passengers, route: Array.from(codes, code => routes[code]) },
  { columns: { departed: { type: 'time' } } },
)
const days = Math.ceil((ROWS * 94_000) / 86_400_000) + 1

/** One pass over the same arrays, by someone who knows beforehand what the days and routes are. */
function barePass() {
  const sums = new Float64Array(days * 5)
  for (let i = 0; i < ROWS; i++)
    sums[Math.floor((departed[i] - start) / 86_400_000) * 5 + codes[i]] += passengers[i]
  return sums
}
const bare = time(barePass)
ratio('sums by day and route over 1,000,000 rows', groupingCost(sailings, 'day of departed'), bare, 3)
ratio('sums by month and route over 1,000,000 rows', groupingCost(sailings, 'month of departed'), bare, 3)
