import { existsSync } from 'node:fs'
import { clickhouse, duckdb, postgres } from '@dapplo/engines'
import pg from 'pg'
import { writeSailings } from '../../demo-data/far.mjs'

/** The rows in a Parquet file: made when they are asked for first. */
export async function duckdbSailings(file, rows) {
  if (!existsSync(file)) {
    console.log(`Making ${rows.toLocaleString('en')} sailings…`)
    await writeSailings(file, rows)
  }
  return duckdb({ sailings: file })
}

/** The same rows in a PostgreSQL server. */
export async function postgresSailings(address, file) {
  const client = new pg.Client(address)
  await client.connect()
  try {
    const { rows } = await client.query("SELECT to_regclass('sailings') AS there")
    if (rows[0].there === null) {
      console.log('Filling PostgreSQL…')
      await client.query(
        'CREATE TABLE sailings (id integer PRIMARY KEY, departed timestamp, route text, vessel text, passengers smallint, delay_minutes real, wind_knots real)',
      )
      for await (const batch of batches(file)) {
        const columns = ['int', 'timestamp', 'text', 'text', 'smallint', 'real', 'real']
        const list = columns.map((type, i) => `$${i + 1}::${type}[]`).join(', ')
        await client.query(`INSERT INTO sailings SELECT * FROM unnest(${list})`, batch)
      }
      await client.query('ANALYZE sailings')
    }
  } finally {
    await client.end()
  }
  return postgres(address, { tables: { sailings: { table: 'sailings', order: 'id' } } })
}

/** The same rows over all servers of a ClickHouse cluster called `both`. */
export async function clickhouseSailings(addresses, file) {
  const command = async (address, sql, body) => {
    const url = new URL(address)
    if (body !== undefined) url.searchParams.set('query', sql)
    const response = await fetch(url, { method: 'POST', body: body ?? sql })
    const text = await response.text()
    if (!response.ok) throw new Error(text)
    return text
  }
  const there = await command(addresses[0], 'EXISTS TABLE sailings')
  if (there.trim() !== '1') {
    console.log('Filling the cluster…')
    const columns =
      'id UInt32, departed DateTime, route String, vessel String, passengers UInt16, delay_minutes Nullable(Float32), wind_knots Float32'
    for (const address of addresses) {
      await command(address, `CREATE TABLE sailings_here (${columns}) ENGINE = MergeTree ORDER BY departed`)
      await command(
        address,
        'CREATE TABLE sailings AS sailings_here ENGINE = Distributed(both, default, sailings_here)',
      )
    }
    let turn = 0
    for await (const batch of batches(file)) {
      const lines = batch[0].map((_, i) =>
        batch
          .map(values =>
            values[i] === null
              ? '\\N'
              : String(values[i]).replace(/\.\d+$/, match => (match === '.000' ? '' : match)),
          )
          .join('\t'),
      )
      await command(
        addresses[turn++ % addresses.length],
        'INSERT INTO sailings_here FORMAT TSV',
        lines.join('\n'),
      )
    }
  }
  return clickhouse(addresses[0], { tables: { sailings: { table: 'sailings', order: 'id' } } })
}

/** The rows of the file by columns, some at a time. */
async function* batches(file) {
  const { DuckDBInstance } = await import('@duckdb/node-api')
  const instance = await DuckDBInstance.create(':memory:')
  const connection = await instance.connect()
  const result = await connection.stream(
    `SELECT id, strftime(departed, '%Y-%m-%d %H:%M:%S') AS departed, route, vessel, passengers, delay_minutes, wind_knots FROM '${file.replaceAll("'", "''")}'`,
  )
  let held
  for (;;) {
    const chunk = await result.fetchChunk()
    if (!chunk || chunk.rowCount === 0) break
    const columns = Array.from({ length: chunk.columnCount }, (_, c) => chunk.getColumnValues(c))
    if (held) for (const [c, values] of columns.entries()) held[c].push(...values)
    else held = columns
    if (held[0].length >= 50_000) {
      yield held
      held = undefined
    }
  }
  if (held) yield held
  instance.closeSync()
}
