import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { diskIsFull, watchDisk } from '~~/server/db/disk'
import { keepMark, placeNow } from '~~/server/db/embedded/mark'
import { openEmbedded } from '~~/server/db/embedded/open'
import { startEmbedded } from '~~/server/db/embedded/start'
import { builtFolder } from '~~/server/db/start'
import { startOutbox } from '~~/server/jobs/outbox'
import { sayWhatIsMissing } from '~~/server/tellers/set-aside'
import { addJob } from '~~/server/jobs/add'
import { useDatabase } from '../../support/database'
import { DAY, makeFirm, type Firm } from '../../support/firm'
import { allRoutes, cookieOf, serve } from '../../support/routes'

const MORE_THAN_ANY_DISK_MB = 1e9

describe('a disk that is full', () => {
  useDatabase()
  let firm: Firm
  beforeAll(async () => {
    firm = await makeFirm()
  })

  it('takes nothing in and says so, goes on being read, lets jobs wait, and is noticed to have room again', async () => {
    const served = await serve(await allRoutes())
    const cookie = await cookieOf(firm.ada)
    const ask = async (method: string, path: string) => {
      const answer = await fetch(`${served.url}${path}`, {
        method,
        headers: { cookie, 'content-type': 'application/json' },
        body: method === 'GET' ? undefined : '{}',
      })
      return [answer.status, (await answer.json() as { type?: string }).type]
    }
    expect(await ask('GET', '/api/ready')).toEqual([200, undefined])
    const stopWatching = await watchDisk(tmpdir(), MORE_THAN_ANY_DISK_MB)
    expect(await ask('GET', '/api/ready')).toEqual([507, 'disk-full'])
    expect(await ask('GET', '/api/tasks')).toEqual([200, undefined])
    for (const [method, path] of [
      ['POST', '/api/texts'],
      ['PUT', '/api/drafts'],
      ['POST', '/api/carriers/practice/events'],
      ['POST', '/api/sign-in'],
    ] as const)
      expect(await ask(method, path)).toEqual([507, 'disk-full'])

    const done: string[] = []
    await addJob({ kind: 'walk', key: 'dog', payload: {}, dueAt: DAY })
    const stop = startOutbox(
      { handlers: { walk: async claims => claims.map(() => (done.push('walked'), null)) } },
      () => new Date(),
      () => !diskIsFull(),
    )
    await new Promise(resolve => setTimeout(resolve, 300))
    expect(done).toEqual([])
    stopWatching();
    (await watchDisk(tmpdir(), 0))()
    expect(await ask('GET', '/api/ready')).toEqual([200, undefined])
    await new Promise(resolve => setTimeout(resolve, 1_500))
    expect(done).toEqual(['walked'])
    await stop()
    await served.close()
  })
})

describe('a log whose end is damaged', () => {
  it('is said to be so at the next start, where an admin looks; what stood before the damage is there', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'plauder-flipped-'))
    try {
      const [alive, dead] = [join(folder, 'alive'), join(folder, 'dead')]
      mkdirSync(alive)
      const own = await openEmbedded(join(builtFolder(), 'database-thread.mjs'), {
        folder: join(alive, 'database'),
        startFrom: join(builtFolder(), 'empty-database.tar.gz'),
      })
      await own.pool.query('checkpoint')
      const insert = (i: number) =>
        own.pool.query('insert into team (id, name) values (gen_random_uuid(), $1)', [`Team ${i} ${'x'.repeat(200)}`])
      for (let i = 0; i < 200; i++) await insert(i)
      const halfway = await placeNow(own.pool)
      for (let i = 200; i < 400; i++) await insert(i)
      keepMark(alive, await placeNow(own.pool))
      // as a power cut leaves it, but for what is flipped
      cpSync(alive, dead, { recursive: true })
      await own.close()
      const wal = join(dead, 'database', 'pg_wal')
      const offset = Number(`0x${halfway.split('/')[1]}`) % (16 * 1_048_576)
      const segment = readdirSync(wal)
        .filter(name => /^[0-9A-F]{24}$/.test(name))
        .sort()
        .at(Number(`0x${halfway.split('/')[1]}`) >= 16 * 1_048_576 ? -1 : 0)!
      const bytes = readFileSync(join(wal, segment))
      for (let i = offset + 2_000; i < offset + 2_100; i++) bytes[i] = bytes[i]! ^ 0xFF
      writeFileSync(join(wal, segment), bytes)

      const again = await startEmbedded(dead, builtFolder())
      expect(again.missingBytes).toBeGreaterThan(0)
      await sayWhatIsMissing(again.missingBytes, new Date())
      const { rows: [kept] } = await again.pool.query<{ teams: number }>('select count(*)::int as teams from team')
      expect(kept!.teams).toBeGreaterThanOrEqual(200)
      expect(kept!.teams).toBeLessThan(400)
      const { rows } = await again.pool.query<{ teller: string, why: string }>('select teller, why from set_aside_event')
      expect(rows).toEqual([{ teller: 'the database', why: expect.stringContaining('what was written last is lost') }])
      await again.close()
    }
    finally {
      rmSync(folder, { recursive: true, force: true })
    }
  }, 120_000)
})
