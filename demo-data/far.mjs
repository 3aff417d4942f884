// Writes very many made-up sailings of the Skerry Line as Parquet, by DuckDB: the same rows every time, in seconds.
// Usage: node demo-data/far.mjs [file] [rows]
import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { DuckDBInstance } from '@duckdb/node-api'

/** Uniform in [0, 1) by row and purpose, without a memory, so that rows can be made in any order. */
const chance = purpose => `((hash(i * 64 + ${purpose}) >> 11) / 9007199254740992.0)`
/** Two dice, less their middle: nearly normal around zero. */
const spread = purpose => `(${chance(purpose)} + ${chance(purpose + 1)} - 1)`

/**
 * The question that makes sailings: `rows` of them, evenly over twenty years, so that there are seasons, weekends and
 * storms, a route that opens in the fifth year, and a few missing cells.
 */
export const sailingsQuery = rows => `
WITH times AS (
  SELECT i, TIMESTAMP '2005-01-01' + INTERVAL (CAST(i * ${(20 * 365.25 * 86_400) / rows} AS BIGINT)) SECOND AS departed,
    ${chance(0)} AS pick
  FROM range(${rows}) AS r(i)
), routes AS (
  SELECT *, CASE
      WHEN pick < 0.26 THEN 'North Sound' WHEN pick < 0.47 THEN 'Gannet Bay' WHEN pick < 0.68 THEN 'Tern Point'
      WHEN pick < 0.79 THEN 'Outer Skerries' WHEN departed < TIMESTAMP '2009-04-29' THEN 'North Sound'
      ELSE 'Kelp Narrows' END AS route,
    0.5 - 0.5 * cos(6.283185 * (dayofyear(departed) - 20) / 365.25) AS summer,
    greatest(0, (1.5 - summer) * sin(epoch(departed) / 117000.0) * sin(epoch(departed) / 193000.0) * sin(epoch(departed) / 2710000.0) - 0.4) AS storm
  FROM times
)
SELECT CAST(i AS INTEGER) AS id, departed, route,
  CASE route WHEN 'North Sound' THEN ['Guillemot', 'Fulmar'] WHEN 'Gannet Bay' THEN ['Fulmar', 'Sandpiper']
    WHEN 'Tern Point' THEN ['Sandpiper', 'Dunlin'] WHEN 'Outer Skerries' THEN ['Great Skua'] ELSE ['Dunlin'] END
    [1 + CAST(floor(${chance(3)} * CASE WHEN route IN ('North Sound', 'Gannet Bay', 'Tern Point') THEN 2 ELSE 1 END) AS INTEGER)]
    AS vessel,
  CAST(greatest(0, round((38 + 52 * summer) * (CASE WHEN isodow(departed) > 5 THEN 1.35 ELSE 1 END)
    * (CASE route WHEN 'North Sound' THEN 1.3 WHEN 'Kelp Narrows' THEN 0.5 ELSE 0.9 END)
    * (1 + 0.45 * ${spread(4)}))) AS SMALLINT) AS passengers,
  CASE WHEN ${chance(8)} < 0.004 THEN NULL ELSE CAST(round(greatest(-3,
    1 + 34 * storm * (0.4 + ${chance(9)}) + 3 * exp(-((hour(departed) - 8) * (hour(departed) - 8)) / 6.0)
    + 2 * exp(-((hour(departed) - 17) * (hour(departed) - 17)) / 5.0) + 7 * ${spread(10)} + CASE WHEN ${chance(12)} < 0.01 THEN 30 * ${chance(13)} ELSE 0 END), 1)
    AS FLOAT) END AS delay_minutes,
  CAST(round(7 + 24 * storm + 9 * ${chance(14)} + 3 * ${spread(15)}, 1) AS FLOAT) AS wind_knots
FROM routes`

/** Writes them to a file. */
export async function writeSailings(file, rows) {
  mkdirSync(dirname(file), { recursive: true })
  const instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  await connection.run(
    `COPY (${sailingsQuery(rows)}) TO '${file.replaceAll("'", "''")}' (FORMAT parquet, COMPRESSION zstd, ROW_GROUP_SIZE 122880)`,
  )
  connection.closeSync()
  instance.closeSync()
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const file = process.argv[2] ?? fileURLToPath(new URL('../demo-output/sailings.parquet', import.meta.url))
  const rows = Number(process.argv[3] ?? 20_000_000)
  await writeSailings(file, rows)
  console.log(`${file}: ${rows.toLocaleString('en')} rows`)
}
