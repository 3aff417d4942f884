import { type ChildProcess, spawn } from 'node:child_process'
import { createServer } from 'node:net'
import { findWebKit } from '../../scripts/browsers.mjs'
import { PATIENCE } from './waiting.ts'

/** A page in Safari's engine, driven by WebDriver on a screen of its own, which nobody sees. */
export interface WebKitPage {
  goto(url: string): Promise<void>
  /** Runs the body of a function in the page. */
  run<T>(body: string): Promise<T>
  /** Waits until the body of a function comes to something true. */
  until(body: string): Promise<void>
  move(x: number, y: number): Promise<void>
  click(x: number, y: number): Promise<void>
  press(key: string): Promise<void>
  close(): Promise<void>
}

const freePort = (): Promise<number> =>
  new Promise(resolve => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address()
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0))
    })
  })

/** The number of a screen that was free. */
function screenOf(server: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    server.stdio[3]!.on('data', (chunk: Buffer) => resolve(String(chunk).trim()))
    server.on('exit', () => reject(new Error('There is no screen')))
  })
}

/** Keys by the names that WebDriver has for them. */
const KEYS: Record<string, string> = {
  ArrowRight: '\uE014',
  End: '\uE010',
  Escape: '\uE00C',
  Enter: '\uE007',
  Tab: '\uE004',
}

export async function openWebKit(): Promise<WebKitPage> {
  const found = findWebKit()
  if (!found)
    throw new Error('Safari’s engine is not here (on Debian: apt-get install webkit2gtk-driver xvfb).')
  const screen = spawn(
    found.screen,
    ['-displayfd', '3', '-screen', '0', '1280x1000x24', '-nolisten', 'tcp'],
    {
      stdio: ['ignore', 'ignore', 'ignore', 'pipe'],
    },
  )
  const display = `:${await screenOf(screen)}`
  const port = await freePort()
  const driver = spawn(found.driver, [`--port=${port}`, '--host=127.0.0.1'], {
    env: {
      ...process.env,
      DISPLAY: display,
      LIBGL_ALWAYS_SOFTWARE: '1',
      WEBKIT_DISABLE_COMPOSITING_MODE: '1',
    },
    stdio: 'ignore',
  })
  const call = async <T>(method: string, path: string, body?: object): Promise<T> => {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      body: body && JSON.stringify(body),
    })
    const { value } = (await answer.json()) as { value: T & { error?: string; message?: string } }
    if (value !== null && typeof value === 'object' && value.error)
      throw new Error(`${value.error}: ${value.message}`)
    return value
  }
  /** Tries again until it does not fail any more. */
  const patiently = async <T>(attempt: () => Promise<T>): Promise<T> => {
    const end = Date.now() + PATIENCE
    for (;;)
      try {
        return await attempt()
      } catch (error) {
        if (Date.now() > end) throw error
        await new Promise(resolve => setTimeout(resolve, 50))
      }
  }
  await patiently(() => call('GET', '/status'))
  const { sessionId } = await call<{ sessionId: string }>('POST', '/session', {
    capabilities: {
      alwaysMatch: { 'webkitgtk:browserOptions': { binary: found.window, args: ['--automation'] } },
    },
  })
  const session = `/session/${sessionId}`
  const run = <T>(body: string) => call<T>('POST', `${session}/execute/sync`, { script: body, args: [] })
  const point = (...actions: object[]) =>
    call<void>('POST', `${session}/actions`, {
      actions: [{ type: 'pointer', id: 'mouse', parameters: { pointerType: 'mouse' }, actions }],
    })
  const to = (x: number, y: number) => ({
    type: 'pointerMove',
    x: Math.round(x),
    y: Math.round(y),
    duration: 50,
  })
  return {
    goto: url => call('POST', `${session}/url`, { url }),
    run,
    until: body =>
      patiently(async () => {
        if (!(await run(body))) throw new Error(`It never came to this: ${body}`)
      }),
    move: (x, y) => point(to(x, y)),
    click: (x, y) => point(to(x, y), { type: 'pointerDown', button: 0 }, { type: 'pointerUp', button: 0 }),
    press: key =>
      call('POST', `${session}/actions`, {
        actions: [
          {
            type: 'key',
            id: 'keys',
            actions: [
              { type: 'keyDown', value: KEYS[key] ?? key },
              { type: 'keyUp', value: KEYS[key] ?? key },
            ],
          },
        ],
      }),
    async close() {
      await call('DELETE', session).catch(() => {})
      driver.kill('SIGKILL')
      screen.kill('SIGKILL')
    },
  }
}
