import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { isIP } from 'node:net'
import { basename, dirname, resolve } from 'node:path'
import { answeredElsewhere, escapeXml } from '@dapplo/core/internal'
import type { OpenedFile } from '@dapplo/core/internal-files'
import {
  builtinKinds,
  confinedFile,
  DapploError,
  embedPage,
  fileBeside,
  type PictureFrame,
  readChartFile,
  readFileText,
  scriptHash,
  toPng,
  toSvg,
} from '@dapplo/node'
import pLimit from 'p-limit'
import { arrived, mayBeFar } from './input.ts'
import { filesOf, onChange } from './watch.ts'

/** Tells the page that the description or its data have changed; a page that cannot be reached comes back by itself. */
const RELOAD = `new EventSource('changes').onmessage=()=>location.reload()`

const NO_SCRIPTS = "default-src 'none'; style-src 'unsafe-inline'; img-src data:"

export interface Serving {
  url: string
  close(): Promise<void>
}

/** Serves one description: as a page that reloads when it changes, as pictures, for frames in other pages, and by oEmbed. */
export async function serveChart(
  input: string,
  { port = 0, host = '127.0.0.1', frame = {} }: { port?: number; host?: string; frame?: PictureFrame },
): Promise<Serving> {
  const listeners = new Set<ServerResponse>()
  const inTurn = pLimit(AT_ONCE)
  const server: Server = createServer((request, response) => {
    answer(request, response).catch(error => {
      const words = error instanceof DapploError ? error.sentence : 'Something went wrong.'
      if (!response.headersSent) response.writeHead(500, { 'content-type': 'text/plain; charset=utf-8' })
      response.end(`${words}\n`)
    })
  })

  async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const address = new URL(request.url ?? '/', 'http://localhost')
    const send = (type: string, content: string | Uint8Array, status = 200, more = {}) =>
      response
        .writeHead(status, {
          'content-type': type,
          'cache-control': 'no-store',
          'x-content-type-options': 'nosniff',
          ...more,
        })
        .end(content)
    if (!isOwnName(request.headers.host, host))
      return void send(
        'text/plain; charset=utf-8',
        `This server is asked for by ${host} or localhost, and by no other name.\n`,
        403,
      )
    if (address.pathname === '/far' && request.method === 'POST') return askFar(request, response)
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return void send('text/plain', 'Only GET is answered.\n', 405)
    const own = { ...frame, ...frameOfQuery(address.searchParams, frame) }
    switch (address.pathname) {
      case '/':
        return pageOf(input, own, send, true)
      case '/embed':
        return pageOf(input, own, send, false)
      case '/chart.svg':
        return void send('image/svg+xml', toSvg(...(await drawn(await openConfined(input), own))), 200, {
          'content-security-policy': NO_SCRIPTS,
        })
      case '/chart.png':
        return void send(
          'image/png',
          await inTurn(async () => toPng(...(await drawn(await openConfined(input), own)))),
        )
      case '/oembed':
        return oEmbed(address, request, send)
      case '/changes':
        response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
        response.write('retry: 1000\n\n')
        listeners.add(response)
        request.on('close', () => listeners.delete(response))
        return
      default:
        return void send('text/plain; charset=utf-8', 'There is nothing here. The chart is at /.\n', 404)
    }
  }

  async function oEmbed(address: URL, request: IncomingMessage, send: Send): Promise<void> {
    const format = address.searchParams.get('format') ?? 'json'
    if (format !== 'json') return void send('text/plain', 'Only format=json is known.\n', 501)
    const asked = address.searchParams.get('url')
    const self = `http://${request.headers.host ?? 'localhost'}`
    if (asked === null || !URL.canParse(asked) || new URL(asked).host !== new URL(self).host)
      return void send('text/plain', 'The parameter url must be the address of this chart.\n', 404)
    const { chart } = await openConfined(input)
    const most = (name: string, usual: number) =>
      Math.min(usual, Math.max(100, Number(address.searchParams.get(name)) || usual))
    const width = most('maxwidth', frame.width ?? 960)
    const height = most('maxheight', frame.height ?? 600)
    const title = chart.description.title ?? basename(input)
    const html = `<iframe src="${escapeXml(`${self}/embed`)}" width="${width}" height="${height}" title="${escapeXml(title)}" style="border:0" sandbox="allow-scripts" loading="lazy"></iframe>`
    const answer = {
      version: '1.0',
      type: 'rich',
      provider_name: 'Dapplo',
      title,
      width,
      height,
      html,
      thumbnail_url: `${self}/chart.png`,
      thumbnail_width: width,
      thumbnail_height: height,
    }
    send('application/json+oembed; charset=utf-8', JSON.stringify(answer))
  }

  const stop = onChange(
    () => filesOf(input),
    () => {
      for (const listener of listeners) listener.write('data: changed\n\n')
    },
  )
  await new Promise<void>((done, failed) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      failed(
        new DapploError(
          'no-port',
          `The port ${port} cannot be used: ${error.code}`,
          '--port',
          'Name another one, or leave it out.',
        ),
      ),
    )
    server.listen(port, host, done)
  })
  const address = server.address()
  const used = typeof address === 'object' && address ? address.port : port
  return {
    url: `http://${host}:${used}/`,
    async close() {
      stop()
      server.closeAllConnections()
      await new Promise(done => server.close(done))
    },
  }
}

/** A chart and its frame, once what it shows is here. */
async function drawn({ chart, house }: OpenedFile, frame: PictureFrame) {
  await arrived(chart)
  return [chart, { ...frame, house }] as const
}

type Send = (type: string, content: string | Uint8Array, status?: number, more?: object) => void

/** The page of the chart, or, when something is amiss, a page that says so; both reload when files change. */
async function pageOf(input: string, frame: PictureFrame, send: Send, reloads: boolean): Promise<void> {
  const script = reloads ? RELOAD : undefined
  try {
    const { chart, tables, house } = await openConfined(input)
    await arrived(chart)
    const far = Object.values(tables).some(answeredElsewhere)
    const page = embedPage(chart, {
      frame: { ...frame, house },
      tables,
      script,
      endpoint: far ? 'far' : undefined,
      discover: reloads ? basename(input) : undefined,
    })
    send('text/html; charset=utf-8', page)
  } catch (error) {
    if (!(error instanceof DapploError)) throw error
    const policy = `default-src 'none'; style-src 'unsafe-inline'; connect-src 'self'; script-src ${scriptHash(RELOAD)}`
    const page = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escapeXml(basename(input))}</title></head>
<body style="font:16px/1.5 system-ui,sans-serif;margin:3em auto;max-width:40em;padding:0 1em">
<h1 style="font-size:1.2em">This chart cannot be shown</h1>
<p role="alert">${escapeXml(error.sentence)}</p>
<p>The page looks again when the file changes.</p>
${reloads ? `<script>${RELOAD}</script>` : ''}</body></html>
`
    send('text/html; charset=utf-8', page, 200, { 'content-security-policy': policy })
  }
}

/** Opens a description whose data must lie in its own folder, whatever paths and links say. */
export async function openConfined(input: string): Promise<OpenedFile> {
  const folder = dirname(resolve(input))
  const text = readFileText(input)
  const inside = (url: string) => {
    const asked = fileBeside(folder, url)
    return readFileText(confinedFile(folder, asked, 'tables') ?? asked)
  }
  const tableOf = mayBeFar(text)
    ? await (await import('./served-tables.ts')).servedTables(text, folder)
    : undefined
  return readChartFile(text, builtinKinds, inside, basename(input), undefined, tableOf)
}

/** Answers the questions of pages about rows that stay in a database. */
async function askFar(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const { answerFar } = await import('./served-tables.ts')
  await answerFar(request, response)
}

/** Device pixels of a picture that anybody may ask for, and how many such pictures are drawn at once. */
const MOST_PIXELS = 16_000_000
const AT_ONCE = 2

function frameOfQuery(
  query: URLSearchParams,
  { width: own = 1280, height: usual = 800, density = 2 }: PictureFrame,
): PictureFrame {
  const out: PictureFrame = {}
  const size = (name: string) => {
    const value = Number(query.get(name))
    return value >= 50 && value <= 4000 ? Math.round(value) : undefined
  }
  const [width, height] = [size('width'), size('height')]
  if (width) out.width = width
  if (height) out.height = height
  const theme = query.get('theme')
  if (theme === 'day' || theme === 'night') out.theme = theme
  // Very large pictures come with fewer pixels to the inch rather than with all the memory there is.
  const pixels = (width ?? own) * (height ?? usual)
  if (pixels * density ** 2 > MOST_PIXELS) out.density = Math.sqrt(MOST_PIXELS / pixels)
  return out
}

/**
 * Whether a request names this server by a name that is its own. A page elsewhere can make its own name lead to this
 * machine, and would then read what is served; it cannot make up these.
 */
export function isOwnName(asked: string | undefined, bound: string): boolean {
  const name = /^(\[[\da-f:.]+\]|[^:]+)(?::\d+)?$/i
    .exec(asked ?? '')?.[1]
    .toLowerCase()
    .replace(/^\[|\]$/g, '')
  if (name === undefined) return false
  if (
    name === bound.toLowerCase() ||
    name === 'localhost' ||
    name === '::1' ||
    /^127(?:\.\d{1,3}){3}$/.test(name)
  )
    return true
  // Where it is bound to all of the machine's addresses, any address may be meant, but no name.
  return (bound === '0.0.0.0' || bound === '::') && isIP(name) !== 0
}
