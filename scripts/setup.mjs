// Makes a fresh machine ready: packages from the lock file, and, for tests, the browser and tools they need.
// Usage: node scripts/setup.mjs [--browser]
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { findChromium, findFirefox, findWebKit } from './browsers.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))
const at = path => fileURLToPath(new URL(`../${path}`, import.meta.url))

const [major, minor] = process.versions.node.split('.').map(Number)
if (major < 20 || (major === 20 && minor < 19))
  stop(`Dapplo needs Node 20.19 or newer, and this is ${process.versions.node}.`)

const installed = at('node_modules/.package-lock.json')
if (
  !existsSync(installed) ||
  statSync(installed).mtimeMs < statSync(at('package-lock.json')).mtimeMs ||
  !same()
) {
  console.log('Installing packages…')
  // Not `npm ci`: it refuses a lock file that lacks the optional builds of some other platform.
  const { status, error } = spawnSync('npm', ['install', '--no-save', '--no-audit', '--no-fund'], {
    cwd: root,
    stdio: 'inherit',
    shell: process.platform === 'win32',
  })
  if (error) stop('npm is not here. It comes with Node: install that from your system or nodejs.org.')
  if (status !== 0)
    stop(
      'The packages could not be installed. Check the network and the registry that npm is set to, then try again.',
    )
}

/** Whether what is installed is what the lock file names. */
function same() {
  const names = file =>
    Object.entries(JSON.parse(readFileSync(file, 'utf8')).packages)
      .filter(([name, entry]) => name && !entry.optional && !entry.link)
      .map(([name, entry]) => `${name}@${entry.version}`)
  const have = new Set(names(installed))
  return names(at('package-lock.json'))
    .filter(name => name.startsWith('node_modules/'))
    .every(name => have.has(name))
}

if (process.argv.includes('--browser')) {
  // Films are tested with a stand-in as well, and engines with the one that is a package, so what else there is is welcome but
  // not needed.
  const missing = [
    !hasChromium() && 'chromium',
    // Chromium alone will do, but takes twice as long.
    !process.env.CHROMIUM && !existsSync('/usr/bin/chromium-headless-shell') && 'chromium-headless-shell',
    !findFirefox() && 'firefox-esr',
    !existsSync('/usr/bin/WebKitWebDriver') && 'webkit2gtk-driver',
    !existsSync('/usr/bin/Xvfb') && 'xvfb',
    !hasFfmpeg() && 'ffmpeg',
    !hasPostgres() && 'postgresql',
    !hasClickhouse() && 'clickhouse-server',
  ].filter(Boolean)
  const may = process.platform === 'linux' && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (missing.length > 0 && may) {
    console.log(`Installing ${missing.join(' and ')} for the tests…`)
    // Without a network this fails, and what is missing is asked for below.
    spawnSync('apt-get', ['update', '-qq'], { stdio: ['ignore', 'ignore', 'inherit'] })
    for (const name of missing)
      spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], {
        stdio: ['ignore', 'ignore', 'inherit'],
        // Servers that are installed are started by the tests, in folders of their own.
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' },
      })
  }
  if (!hasFfmpeg())
    console.log(
      'ffmpeg is not here, so the tests of WebM and MP4 films are left out (on Debian: apt-get install ffmpeg).',
    )
  for (const [there, name, word] of [
    [hasPostgres(), 'postgresql', 'PostgreSQL'],
    [hasClickhouse(), 'clickhouse-server', 'ClickHouse'],
  ])
    if (!there)
      console.log(`${word} is not here, so its tests are left out (on Debian: apt-get install ${name}).`)
  const noWebKit =
    "Safari's engine is not here, so a few tests of pages are left out (on Debian: apt-get install webkit2gtk-driver xvfb)."
  if (!findWebKit() && process.env.CI) stop(noWebKit)
  if (!findWebKit()) console.log(noWebKit)
  const noFirefox =
    'Firefox is not here, so the tests of pages are run in Chromium alone (on Debian: apt-get install firefox-esr).'
  if (!findFirefox() && process.env.CI) stop(noFirefox)
  if (!findFirefox()) console.log(noFirefox)
  if (!hasChromium())
    stop(
      'The tests need Chromium. Install it (on Debian: apt-get install chromium), or name it in the variable CHROMIUM.',
    )
}

/** Whether the program that makes WebM and MP4 films is there. */
function hasFfmpeg() {
  return spawnSync('ffmpeg', ['-version']).status === 0
}

/** Whether a PostgreSQL server can be started. */
function hasPostgres() {
  const versions = '/usr/lib/postgresql'
  return (
    existsSync(versions) &&
    readdirSync(versions).some(version => existsSync(`${versions}/${version}/bin/initdb`))
  )
}

/** Whether a ClickHouse server can be started. */
function hasClickhouse() {
  return ['/usr/sbin/clickhouse-server', '/usr/bin/clickhouse-server'].some(path => existsSync(path))
}

/** Whether the browser that tests drive is there, and runs. */
function hasChromium() {
  const path = findChromium()
  return path !== undefined && spawnSync(path, ['--version']).status === 0
}

function stop(message) {
  console.error(message)
  process.exit(2)
}
