// Takes a picture of what commands print, as it stands in a terminal window. Needs Xvfb, xterm and ImageMagick.
import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const has = name => spawnSync('sh', ['-c', `command -v ${name}`]).status === 0

/** Whether pictures of terminals can be taken here. */
export const canShoot = () => ['Xvfb', 'xterm', 'import'].every(has)

/** Runs the lines in a window of so many characters, and writes its picture. */
export async function terminalShot(lines, { columns, rows, folder: cwd, out }) {
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-terminal-'))
  const script = join(folder, 'run.sh')
  // The command of this checkout, by its own name.
  const command = join(folder, 'dapplo')
  writeFileSync(
    command,
    `#!/bin/sh\nexec ${process.execPath} ${join(cwd, 'packages/cli/bin/dapplo.js')} "$@"\n`,
  )
  chmodSync(command, 0o755)
  const done = join(folder, 'done')
  writeFileSync(
    script,
    `${lines.map(line => `printf '\\033[1m$ %s\\033[0m\\n' '${line.replace(/'/g, `'\\''`)}'\n${line}\n`).join('echo\n')}\ntouch ${done}\nsleep 60\n`,
  )
  chmodSync(script, 0o755)
  const screen = spawn('Xvfb', ['-displayfd', '1', '-screen', '0', '1400x1700x24'], {
    stdio: ['ignore', 'pipe', 'ignore'],
  })
  const display = await new Promise(resolve =>
    screen.stdout.once('data', data => resolve(`:${String(data).trim()}`)),
  )
  const env = {
    ...process.env,
    PATH: `${folder}:${process.env.PATH}`,
    DISPLAY: display,
    LANG: 'C.UTF-8',
    LC_ALL: 'C.UTF-8',
    NO_COLOR: '1',
  }
  const window = spawn(
    'xterm',
    [
      '-geometry',
      `${columns}x${rows}+0+0`,
      '-fa',
      'DejaVu Sans Mono',
      '-fs',
      '11',
      '-bg',
      '#fdfcf9',
      '-fg',
      '#1c2328',
      '-b',
      '12',
      '+sb',
      '-cr',
      '#fdfcf9',
      '-e',
      'sh',
      script,
    ],
    { env, cwd, stdio: 'ignore' },
  )
  try {
    while (spawnSync('test', ['-e', done]).status !== 0) await new Promise(next => setTimeout(next, 100))
    // What is printed is drawn a moment later.
    await new Promise(next => setTimeout(next, 700))
    const { status, stderr } = spawnSync('import', ['-window', 'root', '-trim', '+repage', out], {
      env,
      encoding: 'utf8',
    })
    if (status !== 0) throw new Error(stderr)
  } finally {
    window.kill()
    screen.kill()
    rmSync(folder, { recursive: true })
  }
}
