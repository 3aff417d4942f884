// Makes the rows and serves the page with an endpoint for each database that it is given.
// Usage: npm start [-- --rows 20000000] [--port 5175] [--postgres postgres://…] [--clickhouse http://one:8123,http://two:8123]
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { farEndpoint } from '@dapplo/engines'
import { createServer } from 'vite'
import { clickhouseSailings, duckdbSailings, postgresSailings } from './engines.mjs'

const at = path => fileURLToPath(new URL(path, import.meta.url))

/** Serves the page over so many rows; `postgres` and `clickhouse` are the addresses of servers, where there are some. */
export async function serveFar({
  rows,
  file = at(`../../demo-output/sailings-${rows}.parquet`),
  port,
  ...servers
}) {
  const engines = { duckdb: await duckdbSailings(file, rows) }
  if (servers.postgres) engines.postgres = await postgresSailings(servers.postgres, file)
  if (servers.clickhouse) engines.clickhouse = await clickhouseSailings(servers.clickhouse.split(','), file)
  // Nothing is let out but this table.
  const endpoints = Object.fromEntries(
    Object.entries(engines).map(([name, engine]) => [
      name,
      farEndpoint(engine, { tables: { sailings: true } }),
    ]),
  )
  const missing = {
    code: 'unknown-table',
    message: 'This database was not started',
    hint: 'Start the example with its address.',
  }
  const server = await createServer({
    configFile: at('vite.config.js'),
    server: { port, host: '127.0.0.1' },
    plugins: [
      {
        name: 'far',
        configureServer({ middlewares }) {
          middlewares.use('/far/', (request, response) => {
            const endpoint = endpoints[request.url?.replace(/^\/|\?.*$/g, '')]
            if (endpoint) return void endpoint(request, response)
            response.writeHead(404, { 'content-type': 'application/json' })
            response.end(JSON.stringify({ error: missing }))
          })
        },
      },
    ],
  })
  await server.listen()
  return {
    url: server.resolvedUrls.local[0],
    async close() {
      await server.close()
      for (const engine of Object.values(engines)) await engine.close?.()
    },
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { values } = parseArgs({
    options: {
      rows: { type: 'string', default: '20000000' },
      file: { type: 'string' },
      port: { type: 'string', default: '5175' },
      postgres: { type: 'string' },
      clickhouse: { type: 'string' },
    },
  })
  const { url } = await serveFar({ ...values, rows: Number(values.rows), port: Number(values.port) })
  console.log(`The page, until you press Ctrl+C: ${url}`)
}
