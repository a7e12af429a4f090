import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { v7 as uuid } from 'uuid'
import { tx } from '~~/server/db/door'
import { audit } from '~~/server/db/schema'
import { keepMark, missingSince, placeNow } from '~~/server/db/embedded/mark'
import { openEmbedded, type Limits } from '~~/server/db/embedded/open'
import { builtFolder } from '~~/server/db/start'
import { PlainError } from '~~/server/log/failure'
import { useEmbeddedDatabase } from '../../support/database'

const database = useEmbeddedDatabase()
const insert = (action: string) => tx(db => db.insert(audit).values({ id: uuid(), at: new Date(), action }))
const count = async (action: string) => (await tx(db => db.execute<{ n: number }>(sql`select count(*)::int as n from audit
  where action = ${action}`))).rows[0]!.n

describe('the embedded database', () => {
  it('loads by COPY between the others\' transactions', async () => {
    const rows = Array.from({ length: 500 }, () => `${uuid()},2026-11-25T00:00:00Z,copied`).join('\n')
    await Promise.all([
      database().copyFrom('copy audit (id, at, action) from \'/dev/blob\' csv', rows),
      insert('beside a copy'),
      insert('beside a copy'),
    ])
    expect([await count('copied'), await count('beside a copy')]).toEqual([500, 2])
  })
})

describe('the lock of the data folder', () => {
  const holdLock = join(builtFolder(), 'hold-lock.mjs')
  const start = (folder: string, [command, ...before]: [string, ...string[]] = [process.execPath]) => {
    const child = spawn(command, [...before, holdLock, folder], { stdio: ['ignore', 'pipe', 'inherit'] })
    return { child, said: new Promise<string>(resolve => child.stdout.once('data', chunk => resolve(String(chunk).trim()))) }
  }

  it('goes to exactly one of two that start at once after a SIGKILL, every time', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'plauder-lock-'))
    try {
      let holder = start(folder)
      expect(await holder.said).toBe('holds')
      for (let round = 0; round < 10; round++) {
        holder.child.kill('SIGKILL')
        await new Promise(resolve => holder.child.once('exit', resolve))
        const both = [start(folder), start(folder)]
        const said = await Promise.all(both.map(one => one.said))
        expect([...said].sort()).toEqual(['holds', 'refused'])
        holder = both[said.indexOf('holds')]!
        both[said.indexOf('refused')]!.child.kill()
      }
      holder.child.kill('SIGKILL')
    }
    finally {
      rmSync(folder, { recursive: true })
    }
  })

  /** As root a namespace can be made as it is, as anybody else together with one of users. */
  const isolated = process.getuid?.() === 0 ? ['unshare', '--net', '--mount'] : ['unshare', '--user', '--map-root-user', '--net', '--mount']

  it('holds whatever way somebody comes to the folder: by a link, by another mount, from another network namespace', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'plauder-lock-'))
    const elsewhere = mkdtempSync(join(tmpdir(), 'plauder-mount-'))
    try {
      mkdirSync(join(folder, 'data'))
      const holder = start(join(folder, 'data'))
      expect(await holder.said).toBe('holds')
      symlinkSync(join(folder, 'data'), join(folder, 'link'))
      expect(await start(join(folder, 'link')).said).toBe('refused')
      expect(await start(join(folder, 'data'), [isolated[0]!, ...isolated.slice(1), process.execPath]).said).toBe('refused')
      const mounted = [
        'sh',
        '-c',
        'mount --bind "$1" "$2" && exec "$3" "$4" "$2"',
        'mounted',
        join(folder, 'data'),
        elsewhere,
        process.execPath,
      ]
      // the same files by another path, as two containers have them
      const by = spawn(isolated[0]!, [...isolated.slice(1), ...mounted, holdLock], { stdio: ['ignore', 'pipe', 'inherit'] })
      expect(await new Promise(resolve => by.stdout.once('data', chunk => resolve(String(chunk).trim())))).toBe('refused')
      holder.child.kill('SIGKILL')
      await new Promise(resolve => holder.child.once('exit', resolve))
      const after = spawn(isolated[0]!, [...isolated.slice(1), ...mounted, holdLock], { stdio: ['ignore', 'pipe', 'inherit'] })
      expect(await new Promise(resolve => after.stdout.once('data', chunk => resolve(String(chunk).trim())))).toBe('holds')
      expect(await start(join(folder, 'data')).said).toBe('refused')
      after.kill('SIGKILL')
    }
    finally {
      rmSync(folder, { recursive: true })
      rmSync(elsewhere, { recursive: true })
    }
  })
})

describe('a database that breaks', () => {
  const thread = join(builtFolder(), 'database-thread.mjs')
  const open = (folder: string, limits?: Limits) =>
    openEmbedded(thread, { folder: join(folder, 'database'), startFrom: join(builtFolder(), 'empty-database.tar.gz') }, limits)
  const inFolder = async (work: (folder: string) => Promise<void>) => {
    const folder = mkdtempSync(join(tmpdir(), 'plauder-breaks-'))
    try {
      await work(folder)
    }
    finally {
      rmSync(folder, { recursive: true, force: true })
    }
  }

  it(
    'over a statement without end is begun anew, with all that was committed, and says so to whoever waited',
    () =>
      inFolder(async (folder) => {
        const dead: Error[] = []
        const own = await open(folder, { longestMs: 5_000, onDead: error => dead.push(error) })
        await own.pool.query('create table kept (n int)')
        await own.pool.query('insert into kept values (1)')
        const endless = own.pool
          .query('select count(*) from generate_series(1, 100000000000) a')
          .catch((error: Error & { code?: string }) => error)
        const beside = own.pool.query('select 1').catch((error: Error & { code?: string }) => error)
        expect(await endless).toMatchObject({ code: '57014' })
        expect(await beside).toMatchObject({ code: '57014' })
        // at once, while the thread is still being ended: who comes then waits for the next one
        expect((await own.patiently(() => own.pool.query('select n from kept'))).rows).toEqual([{ n: 1 }])
        // what nobody waits for may take its time
        await own.patiently(() => own.pool.query('select pg_sleep(7)'))
        expect(dead).toEqual([])
        await own.close()
      }),
    180_000,
  )

  it.each([
    ['its control file', (folder: string) => join(folder, 'database', 'global', 'pg_control')],
    ['the name of its version', (folder: string) => join(folder, 'database', 'PG_VERSION')],
  ])('with %s damaged says so in words for whoever looks after it', (_, fileIn) => inFolder(async (folder) => {
    await (await open(folder)).close()
    const file = fileIn(folder)
    const bytes = readFileSync(file)
    bytes.fill(0x5A, 0, Math.min(64, bytes.length))
    writeFileSync(file, bytes)
    const failed = await open(folder).then(() => null, (error: Error) => error)
    expect(failed).toBeInstanceOf(PlainError)
    expect(failed!.message).toMatch(/cannot be opened .* put the last backup in their place/s)
    expect(failed!.message).not.toContain('sASSERTIONS')
  }), 60_000)

  it('has checksums on its pages, and a mark that says when the end of its log is gone', () => inFolder(async (folder) => {
    const own = await open(folder)
    expect((await own.pool.query('show data_checksums')).rows).toEqual([{ data_checksums: 'on' }])
    expect(missingSince(folder, await placeNow(own.pool))).toBe(0)
    const before = await placeNow(own.pool)
    await own.pool.query('create table kept (n int)')
    keepMark(folder, await placeNow(own.pool))
    expect(missingSince(folder, await placeNow(own.pool))).toBe(0)
    expect(missingSince(folder, before)).toBeGreaterThan(0)
    await own.close()
    writeFileSync(join(folder, 'database', 'written-up-to'), 'nonsense')
    expect(missingSince(folder, before)).toBe(0)
  }), 60_000)
})
