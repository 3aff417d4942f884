import { type ChildProcess, spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { createServer } from 'node:net'
import { PATIENCE } from './waiting.ts'

const LIBRARIES = '/usr/lib/x86_64-linux-gnu'
const isThere = (...paths: string[]) => paths.find(path => existsSync(path))

/** The window around Safari's engine, as Debian has it. */
function miniBrowser(): string | undefined {
  if (!existsSync(LIBRARIES)) return undefined
  const folders = readdirSync(LIBRARIES).filter(name => name.startsWith('webkit2gtk-'))
  return isThere(...folders.map(name => `${LIBRARIES}/${name}/MiniBrowser`))
}

/** Whether Safari's engine can be driven here: the engine, its driver, and a screen for them. */
export const hasWebKit = (): boolean =>
  miniBrowser() !== undefined &&
  isThere('/usr/bin/WebKitWebDriver') !== undefined &&
  isThere('/usr/bin/Xvfb') !== undefined

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
  const screen = spawn('Xvfb', ['-displayfd', '3', '-screen', '0', '1280x1000x24', '-nolisten', 'tcp'], {
    stdio: ['ignore', 'ignore', 'ignore', 'pipe'],
  })
  const display = `:${await screenOf(screen)}`
  const port = await freePort()
  const driver = spawn('WebKitWebDriver', [`--port=${port}`, '--host=127.0.0.1'], {
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
  const end = Date.now() + PATIENCE
  const patiently = async <T>(attempt: () => Promise<T>): Promise<T> => {
    for (;;)
      try {
        return await attempt()
      } catch (error) {
        if (Date.now() > end) throw error
        await new Promise(resolve => setTimeout(resolve, 100))
      }
  }
  await patiently(() => call('GET', '/status'))
  const { sessionId } = await call<{ sessionId: string }>('POST', '/session', {
    capabilities: {
      alwaysMatch: { 'webkitgtk:browserOptions': { binary: miniBrowser(), args: ['--automation'] } },
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
    async until(body) {
      const end = Date.now() + PATIENCE
      while (!(await run(body))) {
        if (Date.now() > end) throw new Error(`It never came to this: ${body}`)
        await new Promise(resolve => setTimeout(resolve, 50))
      }
    },
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
