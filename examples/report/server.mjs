// Serves the report page, and keeps reports as files: a report that has been saved by somebody else meanwhile is not
// written over unnoticed.
// Usage: node examples/report/server.mjs [--port 5180] [--folder reports] [--pages dist]
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { extname, join, normalize, sep } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'

const TYPES = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.json': 'application/json',
}
/** A report is descriptions, not data. */
const LARGEST = 1_000_000

/** Starts the server; `folder` keeps the reports, `pages` holds what Vite built. */
export async function serveReports({ folder, pages, port = 0 }) {
  mkdirSync(folder, { recursive: true })
  const read = file =>
    existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : { version: 0, charts: [] }
  const server = createServer(async (request, response) => {
    const answer = (status, value, type = 'application/json') =>
      response.writeHead(status, { 'content-type': type }).end(value)
    try {
      const { pathname } = new URL(request.url, 'http://localhost')
      const report = /^\/reports\/([\w-]{1,80})$/.exec(pathname)?.[1]
      if (report === undefined) return servePage(pages, pathname, answer)
      const file = join(folder, `${report}.json`)
      if (request.method === 'GET') return answer(200, JSON.stringify(read(file)))
      if (request.method !== 'PUT')
        return answer(405, 'Reports are read by GET and saved by PUT.', 'text/plain')
      let text = ''
      // What is too large is heard out, so that the answer is heard as well.
      for await (const part of request) if (text.length <= LARGEST) text += part
      if (text.length > LARGEST) return answer(413, 'A report may be as large as a megabyte.', 'text/plain')
      const { charts } = JSON.parse(text)
      if (!Array.isArray(charts)) return answer(400, 'A report is a list of charts.', 'text/plain')
      // Read and written without a pause between: of two people the later one is told.
      const { version } = read(file)
      if (Number(request.headers['if-match']) !== version) return answer(409, JSON.stringify({ version }))
      writeFileSync(`${file}.new`, JSON.stringify({ version: version + 1, charts }, null, 2))
      renameSync(`${file}.new`, file)
      return answer(200, JSON.stringify({ version: version + 1 }))
    } catch (error) {
      return answer(
        400,
        error instanceof SyntaxError ? 'That is no JSON.' : 'That could not be done.',
        'text/plain',
      )
    }
  })
  await new Promise(resolve => server.listen(port, '127.0.0.1', resolve))
  return {
    url: `http://127.0.0.1:${server.address().port}`,
    close: () => new Promise(resolve => server.close(resolve)),
  }
}

function servePage(pages, pathname, answer) {
  const file = join(pages, normalize(pathname === '/' ? '/index.html' : decodeURIComponent(pathname)))
  if (!file.startsWith(pages + sep) || !existsSync(file))
    return answer(404, 'There is no such page.', 'text/plain')
  return answer(200, readFileSync(file), TYPES[extname(file)] ?? 'application/octet-stream')
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const option = (name, otherwise) => {
    const at = process.argv.indexOf(`--${name}`)
    return at < 0 ? otherwise : process.argv[at + 1]
  }
  const beside = name => fileURLToPath(new URL(name, import.meta.url))
  const { url } = await serveReports({
    folder: option('folder', beside('reports')),
    pages: option('pages', beside('dist')),
    port: Number(option('port', 5180)),
  })
  console.log(`The report stands at ${url}, and is kept in files. Ctrl+C ends it.`)
}
