// The boarding feed of the Skerry Line, simulated: one log of boardings, told as Server-Sent Events (/feed/events), over
// a WebSocket (/feed/socket) and as JSON with an ETag (/feed/boarding.json). Those who come back are told what they
// missed: after `Last-Event-ID`, or after the message that the address names (?after=).
import { createServer } from 'node:http'
import { WebSocketServer } from 'ws'

const PIERS = ['Harbour Steps', 'Gannet Slip', 'Kelp Quay', 'Old Mole', 'Tern Jetty', 'Weir Stage']
/** Messages that are kept for those who come back. */
const MEMORY = 2000
/** Milliseconds of boarding before the first message, so that nobody begins with an empty board. */
const BEFORE = 14 * 60_000

/** Boardings in order, made without chance so that the same second always tells the same. */
function boarding(id, at) {
  const turn = (id * 7919) % 104_729
  return { id, at: new Date(at).toISOString(), pier: PIERS[turn % PIERS.length], boarded: 1 + (turn % 9) }
}

/**
 * Starts the feed. `every`: milliseconds between boardings; `port`: 0 for a free one. `nonsense`: now and then something
 * that is no boarding is sent, as real feeds do. `log`: what a feed told that this one goes on with after a restart.
 */
export async function startFeed({ port = 0, every = 400, nonsense = false, log: earlier = [] } = {}) {
  const log = [...earlier]
  const listeners = new Set()
  let id = (log.at(-1)?.id ?? 0) + 1
  const now = Date.now()
  for (let at = now - BEFORE; at < now && earlier.length === 0; at += 4000) log.push(boarding(id++, at))
  const timer = setInterval(() => {
    if (nonsense && id % 5 === 0) for (const tell of listeners) tell(undefined)
    const message = boarding(id++, Date.now())
    log.push(message)
    if (log.length > MEMORY) log.shift()
    for (const tell of listeners) tell(message)
  }, every)

  const after = request => {
    const address = new URL(request.url, 'http://localhost')
    const id = request.headers['last-event-id'] ?? address.searchParams.get('after') ?? 0
    return log.filter(message => message.id > Number(id))
  }
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url, 'http://localhost')
    response.setHeader('access-control-allow-origin', '*')
    response.setHeader('access-control-allow-headers', 'if-none-match')
    response.setHeader('access-control-expose-headers', 'etag')
    if (request.method === 'OPTIONS') return response.writeHead(204).end()
    if (pathname === '/feed/boarding.json') {
      const tag = `"${id}"`
      response.setHeader('etag', tag)
      if (request.headers['if-none-match'] === tag) return response.writeHead(304).end()
      return response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(log))
    }
    if (pathname !== '/feed/events') return response.writeHead(404).end()
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    const tell = message =>
      response.write(
        message ? `id: ${message.id}\ndata: ${JSON.stringify(message)}\n\n` : 'data: <half a mess\n\n',
      )
    response.write('retry: 500\n\n')
    for (const message of after(request)) tell(message)
    listeners.add(tell)
    request.on('close', () => listeners.delete(tell))
  })
  const sockets = new WebSocketServer({ server, path: '/feed/socket' })
  sockets.on('connection', (socket, request) => {
    const tell = message =>
      socket.send(message ? JSON.stringify({ id: message.id, rows: [message] }) : '{"half":')
    for (const message of after(request)) tell(message)
    listeners.add(tell)
    socket.on('close', () => listeners.delete(tell))
  })
  await new Promise(resolve => server.listen(port, '127.0.0.1', resolve))
  return {
    port: server.address().port,
    url: `http://127.0.0.1:${server.address().port}/feed`,
    /** What it has told so far. */
    log,
    async close() {
      clearInterval(timer)
      for (const socket of sockets.clients) socket.terminate()
      sockets.close()
      server.closeAllConnections()
      await new Promise(resolve => server.close(resolve))
    },
  }
}
