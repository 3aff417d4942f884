import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A server for tests, in a folder of its own and on a port of the loopback that was free. */
export interface LoopbackServer {
  port: number
  /** Ends it in the middle of whatever it does. */
  kill(): Promise<void>
  /** Ends it, and removes its folder. */
  close(): Promise<void>
}

/** A port that nobody uses. */
export async function freePort(): Promise<number> {
  const server = createServer()
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  const { port } = server.address() as { port: number }
  await new Promise(done => server.close(done))
  return port
}

const ended = (child: ChildProcess) =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise<void>(done => child.once('exit', () => done()))

/** Waits until a condition holds, or the server has gone. */
async function until(child: ChildProcess, name: string, log: () => string, ready: () => Promise<boolean>) {
  for (;;) {
    if (child.exitCode !== null) throw new Error(`${name} ended: ${log().slice(-2000)}`)
    if (await ready().catch(() => false)) return
    await new Promise(done => setTimeout(done, 50))
  }
}

function serverOf(child: ChildProcess, port: number, folder: string): LoopbackServer {
  const kill = async () => {
    child.kill('SIGKILL')
    await ended(child)
  }
  process.once('exit', () => child.kill('SIGKILL'))
  return {
    port,
    kill,
    async close() {
      await kill()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}

/** Where PostgreSQL's programs are; undefined where they are not installed. */
export function findPostgres(): string | undefined {
  const versions = '/usr/lib/postgresql'
  const all = existsSync(versions) ? readdirSync(versions).map(version => join(versions, version, 'bin')) : []
  return all
    .sort()
    .reverse()
    .find(bin => existsSync(join(bin, 'initdb')))
}

/** PostgreSQL in a new folder; as the user `postgres` where this is root, whom it refuses. */
export async function startPostgres(bin = findPostgres()): Promise<LoopbackServer> {
  if (!bin) throw new Error('PostgreSQL is not installed')
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-postgres-'))
  const user: { uid?: number; gid?: number } = process.getuid?.() === 0 ? idsOf('postgres') : {}
  if (user.uid !== undefined) chownSync(folder, user.uid, user.gid!)
  const data = join(folder, 'data')
  const made = spawnSync(
    join(bin, 'initdb'),
    ['-D', data, '-A', 'trust', '-U', 'dapplo', '-E', 'UTF8', '--locale=C', '--no-sync'],
    { ...user, cwd: folder },
  )
  if (made.status !== 0) throw new Error(`initdb failed: ${made.stderr}`)
  const port = await freePort()
  const settings = ['fsync=off', 'listen_addresses=127.0.0.1', `unix_socket_directories=${folder}`]
  const child = spawn(
    join(bin, 'postgres'),
    ['-D', data, '-p', String(port), ...settings.flatMap(setting => ['-c', setting])],
    { ...user, cwd: folder, stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let log = ''
  child.stderr!.on('data', part => {
    log += part
  })
  await until(
    child,
    'PostgreSQL',
    () => log,
    async () => log.includes('ready to accept connections'),
  )
  return serverOf(child, port, folder)
}

function idsOf(user: string): { uid: number; gid: number } {
  const id = (flag: string) => Number(spawnSync('id', [flag, user]).stdout)
  return { uid: id('-u'), gid: id('-g') }
}

/** Where ClickHouse is; undefined where it is not installed. */
export const findClickhouse = (): string | undefined =>
  ['/usr/sbin/clickhouse-server', '/usr/bin/clickhouse-server'].find(existsSync)

/** Ports of a ClickHouse server: for questions, and for the others of its cluster. */
export interface ClickhousePorts {
  http: number
  tcp: number
}

export const clickhousePorts = async (): Promise<ClickhousePorts> => ({
  http: await freePort(),
  tcp: await freePort(),
})

/** ClickHouse in a new folder, one of a cluster called `both`. */
export async function startClickhouse(
  own: ClickhousePorts,
  all: readonly ClickhousePorts[] = [own],
  program = findClickhouse(),
): Promise<LoopbackServer> {
  if (!program) throw new Error('ClickHouse is not installed')
  const folder = mkdtempSync(join(tmpdir(), 'dapplo-clickhouse-'))
  const shards = all
    .map(({ tcp }) => `<shard><replica><host>127.0.0.1</host><port>${tcp}</port></replica></shard>`)
    .join('')
  writeFileSync(
    join(folder, 'users.xml'),
    `<yandex>
  <profiles><default><max_memory_usage>2000000000</max_memory_usage></default></profiles>
  <users><default><password></password><networks><ip>127.0.0.1</ip></networks><profile>default</profile><quota>default</quota></default>
  <reader><password>secret</password><networks><ip>127.0.0.1</ip></networks><profile>default</profile><quota>default</quota></reader></users>
  <quotas><default></default></quotas>
</yandex>`,
  )
  const config = join(folder, 'config.xml')
  writeFileSync(
    config,
    `<yandex>
  <logger><level>error</level><console>1</console></logger>
  <http_port>${own.http}</http_port><tcp_port>${own.tcp}</tcp_port>
  <listen_host>127.0.0.1</listen_host>
  <path>${folder}/data/</path><tmp_path>${folder}/tmp/</tmp_path>
  <users_config>users.xml</users_config>
  <default_profile>default</default_profile><default_database>default</default_database>
  <mark_cache_size>100000000</mark_cache_size>
  <timezone>UTC</timezone>
  <remote_servers><both>${shards}</both></remote_servers>
</yandex>`,
  )
  const child = spawn(program, [`--config-file=${config}`], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let log = ''
  const keep = (part: unknown) => {
    log = (log + String(part)).slice(-10_000)
  }
  child.stdout!.on('data', keep)
  child.stderr!.on('data', keep)
  await until(
    child,
    'ClickHouse',
    () => log,
    async () => (await fetch(`http://127.0.0.1:${own.http}/`)).ok,
  )
  return serverOf(child, own.http, folder)
}
