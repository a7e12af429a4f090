// A PostgreSQL server for tests and measures: Debian's own, in a folder of its own, on loopback, gone with the process.
import { execFileSync, spawn } from 'node:child_process'
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const DEBIAN = '/usr/lib/postgresql'

/** The folder of the newest version that is installed, or null. */
export function postgresPrograms() {
  const newest = existsSync(DEBIAN) ? readdirSync(DEBIAN).map(Number).filter(Number.isFinite).sort((a, b) => b - a)[0] : undefined
  return newest === undefined ? null : join(DEBIAN, String(newest), 'bin')
}

const freePort = () => new Promise((resolve) => {
  const server = createServer().listen(0, '127.0.0.1', () => {
    const { port } = server.address()
    server.close(() => resolve(port))
  })
})

const idOf = flag => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }))

/**
 * @param {{ durable: boolean }} how whether a commit waits for the disk, as it would where it matters
 * @returns {Promise<{ url: (database: string) => string, restart: () => Promise<void>, stop: () => void }>}
 */
export async function startPostgres({ durable }) {
  const programs = postgresPrograms()
  if (!programs) throw new Error('There is no PostgreSQL server here. Install Debian’s package postgresql.')
  const folder = mkdtempSync(join(tmpdir(), 'plauder-postgres-'))
  // it refuses to run as root
  const own = process.getuid() === 0 ? { uid: idOf('-u'), gid: idOf('-g') } : {}
  if ('uid' in own) chownSync(folder, own.uid, own.gid)
  execFileSync(join(programs, 'initdb'), ['-D', folder, '-U', 'postgres', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync'], { ...own, stdio: ['ignore', 'ignore', 'inherit'] })
  const port = await freePort()
  const settings = { port, listen_addresses: '127.0.0.1', unix_socket_directories: '', fsync: durable ? 'on' : 'off', shared_buffers: '512MB', max_connections: 200, log_min_messages: 'fatal' }
  const begin = () => spawn(join(programs, 'postgres'), ['-D', folder, ...Object.entries(settings).flatMap(([name, value]) => ['-c', `${name}=${value}`])], { ...own, stdio: ['ignore', 'ignore', 'inherit'] })
  let server = begin()
  let stopped = false
  const end = () => execFileSync(join(programs, 'pg_ctl'), ['stop', '-D', folder, '-m', 'immediate', '-w', '-s'], { ...own, stdio: 'ignore' })
  const stop = () => {
    if (stopped) return
    stopped = true
    // waits until it is gone: what it still wrote would be in the way of taking its folder away
    if (server.exitCode === null) end()
    rmSync(folder, { recursive: true, force: true })
  }
  process.once('exit', stop)
  const ready = async () => {
    for (;;) {
      try {
        execFileSync(join(programs, 'pg_isready'), ['-q', '-h', '127.0.0.1', '-p', String(port), '-U', 'postgres'])
        return
      }
      catch {
        if (server.exitCode !== null) throw new Error(`PostgreSQL ended with ${server.exitCode} before it could be asked.`)
        await new Promise(resolve => setTimeout(resolve, 100))
      }
    }
  }
  const restart = async () => {
    end()
    server = begin()
    await ready()
  }
  await ready()
  return { url: database => `postgres://postgres@127.0.0.1:${port}/${database}`, restart, stop }
}
