#!/usr/bin/env node
// Firefox for the tests' driver: the browser as it is installed, with a word between the two where the driver asks for what
// this Firefox does not know yet. Media features such as reduced motion are set by its preferences instead.
import { spawn } from 'node:child_process'
import { createServer } from 'node:http'
import { WebSocket, WebSocketServer } from 'ws'

const UNKNOWN = new Set(['emulation.setMediaFeaturesOverride', 'emulation.setScreenSettingsOverride'])

const browser = spawn(process.env.FIREFOX, process.argv.slice(2), { stdio: ['ignore', 'inherit', 'pipe'] })
const end = () => browser.kill('SIGKILL')
process.on('exit', end)
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP']) process.on(signal, () => process.exit(0))
browser.on('exit', code => process.exit(code ?? 1))

let told = ''
browser.stderr.on('data', chunk => {
  told += chunk
  const address = /WebDriver BiDi listening on (ws:\/\/\S+)/.exec(told)?.[1]
  if (!address) return void process.stderr.write(chunk)
  browser.stderr.removeAllListeners('data')
  browser.stderr.resume()
  between(address)
})

/** Passes on all that both say, and answers for the browser what it would not understand. */
function between(address) {
  const server = createServer()
  new WebSocketServer({ server, perMessageDeflate: false }).on('connection', (driver, request) => {
    const session = new WebSocket(new URL(request.url, address), { perMessageDeflate: false, maxPayload: 0 })
    const waiting = []
    session.on('open', () => {
      for (const text of waiting) session.send(text)
      waiting.length = 0
    })
    session.on('message', data => driver.send(String(data)))
    session.on('close', () => driver.close())
    driver.on('close', () => session.close())
    driver.on('message', data => {
      // A tab where the driver asks for a window: the bars around a page cost as much as the page.
      const text = String(data).replace('"type":"window"', '"type":"tab"')
      const { id, method } = JSON.parse(text)
      if (UNKNOWN.has(method)) driver.send(JSON.stringify({ id, type: 'success', result: {} }))
      else if (session.readyState === WebSocket.OPEN) session.send(text)
      else waiting.push(text)
    })
  })
  server.listen(0, '127.0.0.1', () =>
    process.stderr.write(`WebDriver BiDi listening on ws://127.0.0.1:${server.address().port}\n`),
  )
}
