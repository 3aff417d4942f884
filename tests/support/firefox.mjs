#!/usr/bin/env node
// Firefox for the tests' driver: the browser as it is installed, with a word between the two where the driver asks for what
// this Firefox does not know yet. What people prefer, such as reduced motion, is set by its preferences instead: PREFERRED names
// the file in which they are.
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import { WebSocket, WebSocketServer } from 'ws'

const MEDIA = 'emulation.setMediaFeaturesOverride'
const UNKNOWN = new Set([MEDIA, 'emulation.setScreenSettingsOverride'])

// The second lets preferences be set while it runs.
const own = [...process.argv.slice(2), '--remote-allow-system-access']
const browser = spawn(process.env.FIREFOX, own, { stdio: ['ignore', 'inherit', 'pipe'] })
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
    session.on('message', data => {
      const text = String(data)
      // Pictures are long: what is said is read only while an answer is waited for.
      const answer = asked.size > 0 ? JSON.parse(text) : {}
      if (asked.has(answer.id)) asked.get(answer.id)(answer)
      else driver.send(text)
    })
    session.on('close', () => driver.close())
    driver.on('close', () => session.close())

    const asked = new Map()
    // Far beyond the numbers that the driver gives.
    let last = 2 ** 40
    const ask = (method, params) =>
      new Promise((resolve, reject) => {
        const id = ++last
        asked.set(id, ({ type, result, message }) => {
          asked.delete(id)
          type === 'success' ? resolve(result) : reject(new Error(message))
        })
        session.send(JSON.stringify({ id, method, params }))
      })
    /** Has the whole browser prefer what the next page is to prefer. */
    const prefer = async () => {
      const { contexts } = await ask('browsingContext.getTree', { 'moz:scope': 'chrome' })
      const all = Object.entries(JSON.parse(readFileSync(process.env.PREFERRED, 'utf8')))
      await ask('script.evaluate', {
        expression: all
          .map(each => `Services.prefs.setIntPref(${each.map(one => JSON.stringify(one))})`)
          .join(';'),
        target: { context: contexts[0].context },
        awaitPromise: false,
      })
    }
    driver.on('message', async data => {
      // A tab where the driver asks for a window: the bars around a page cost as much as the page.
      const text = String(data).replace('"type":"window"', '"type":"tab"')
      const { id, method } = JSON.parse(text)
      if (method === MEDIA) await prefer()
      if (UNKNOWN.has(method)) driver.send(JSON.stringify({ id, type: 'success', result: {} }))
      else if (session.readyState === WebSocket.OPEN) session.send(text)
      else waiting.push(text)
    })
  })
  server.listen(0, '127.0.0.1', () =>
    process.stderr.write(`WebDriver BiDi listening on ws://127.0.0.1:${server.address().port}\n`),
  )
}
