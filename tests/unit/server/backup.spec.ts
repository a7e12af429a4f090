import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { backUp, restore } from '~~/server/backup/main'
import { KEY_FILE, makeCopy, offerBackups } from '~~/server/backup/offer'
import { openEmbedded, type EmbeddedDatabase } from '~~/server/db/embedded/open'
import { lockFolder } from '~~/server/db/folder-lock'
import { builtFolder } from '~~/server/db/start'
import { DAY, later } from '../../support/firm'

const threadFile = join(builtFolder(), 'database-thread.mjs')
const migrations = (JSON.parse(readFileSync(join(builtFolder(), 'migrations/meta/_journal.json'), 'utf8')) as { entries: unknown[] }).entries.length
const open = (folder: string) =>
  openEmbedded(threadFile, { folder: join(folder, 'database'), startFrom: join(builtFolder(), 'empty-database.tar.gz') })

let room: string
beforeEach(() => {
  room = mkdtempSync(join(tmpdir(), 'plauder-backup-test-'))
})
afterEach(() => rmSync(room, { recursive: true, force: true }))

/** A data folder of this name. */
function folder(name: string): string {
  const at = join(room, name)
  mkdirSync(at, { recursive: true })
  return at
}

/** Two rows in one transaction: whoever sees one of them sees both. */
async function writePair({ pool }: EmbeddedDatabase): Promise<void> {
  const client = await pool.connect()
  try {
    await client.query('begin')
    for (const action of ['left', 'right']) await client.query('insert into audit (id, at, action) values ($1, now(), $2)', [uuid(), action])
    await client.query('commit')
  }
  finally {
    client.release()
  }
}

async function pairsIn(dataFolder: string): Promise<{ left: number, right: number }> {
  const database = await open(dataFolder)
  try {
    const { rows: [found] } = await database.pool.query<{ left: number, right: number }>(`
      select (count(*) filter (where action = 'left'))::int as left, (count(*) filter (where action = 'right'))::int as right from audit`)
    return found!
  }
  finally {
    await database.close()
  }
}

const backingUp = (dataFolder: string, now = DAY) => backUp({ dataFolder, into: join(room, 'kept'), address: 'http://127.0.0.1:9', threadFile, now })
const restoring = (from: string, dataFolder: string, values: object = {}) =>
  restore({ from, dataFolder, threadFile, migrations, replace: false, now: DAY, ...values })

describe('a backup', () => {
  it('of a Plauder that does not run is restored elsewhere, row by row', async () => {
    const [from, to] = [folder('from'), folder('to')]
    const database = await open(from)
    for (let i = 0; i < 20; i++) await writePair(database)
    await database.close()
    const { folder: backup, rows } = await backingUp(from)
    expect(readdirSync(backup).sort()).toEqual(['database', 'manifest.json'])
    expect(readdirSync(join(from, 'backups'))).toEqual([])
    expect(await restoring(backup, to)).toEqual({ before: null, rows })
    expect(await pairsIn(to)).toEqual({ left: 20, right: 20 })
    // what was backed up is as it was
    expect(await pairsIn(from)).toEqual({ left: 20, right: 20 })
  })

  it('made while others write is of one moment: all that was answered before, and nothing by half', async () => {
    const [from, to] = [folder('from'), folder('to')]
    const database = await open(from)
    offerBackups(from, database.copyTo)
    let [written, going] = [0, true]
    const writing = Promise.all([1, 2, 3].map(async () => {
      while (going) {
        await writePair(database)
        written++
      }
    }))
    while (written < 50) await new Promise(resolve => setTimeout(resolve, 5))
    const before = written
    const { copy } = await makeCopy(readFileSync(join(from, KEY_FILE), 'utf8'), DAY)
    const after = written
    going = false
    await writing
    await database.close()
    cpSync(join(copy, 'database'), join(to, 'database'), { recursive: true })
    const { left, right } = await pairsIn(to)
    expect(left).toBe(right)
    expect(left).toBeGreaterThanOrEqual(before)
    // three were under way at most
    expect(left).toBeLessThanOrEqual(after + 3)
    expect((await pairsIn(from)).left).toBe(written)
  })

  it('is given to whoever has the key of this start, one at a time', async () => {
    const from = folder('from')
    const copying: (() => void)[] = []
    offerBackups(from, () => new Promise(resolve => copying.push(resolve)))
    const key = readFileSync(join(from, KEY_FILE), 'utf8')
    await expect(makeCopy('another', DAY)).rejects.toMatchObject({ details: { status: 403 } })
    const first = makeCopy(key, DAY)
    await expect(makeCopy(key, DAY)).rejects.toMatchObject({ details: { type: 'copying' } })
    copying.forEach(done => done())
    await first
    offerBackups(from, async () => {})
    await expect(makeCopy(key, later(DAY, 1_000))).rejects.toMatchObject({ details: { status: 403 } })
  })

  it('says what to do where there is nothing to back up, or nobody answers', async () => {
    await expect(backingUp(folder('empty'))).rejects.toThrow(/no embedded database/)
    const from = folder('from')
    mkdirSync(join(from, 'database'))
    writeFileSync(join(from, 'database', 'PG_VERSION'), '17')
    const unlock = await lockFolder(from)
    writeFileSync(join(from, KEY_FILE), 'k')
    await expect(backingUp(from)).rejects.toThrow(/no Plauder answers/)
    unlock()
  })
})

describe('restoring', () => {
  let whole: string
  beforeAll(async () => {
    const from = mkdtempSync(join(tmpdir(), 'plauder-backup-test-'))
    const database = await open(from)
    await writePair(database)
    await database.close()
    whole = (await backUp({ dataFolder: from, into: join(from, 'kept'), address: '', threadFile, now: DAY })).folder
  })
  afterAll(() => rmSync(join(whole, '../..'), { recursive: true, force: true }))
  /** A copy of it, to be damaged. */
  function kept(): string {
    const backup = join(room, 'kept')
    cpSync(whole, backup, { recursive: true })
    return backup
  }
  const change = (file: string) => {
    const bytes = readFileSync(file)
    bytes[Math.floor(bytes.length / 2)]! ^= 1
    writeFileSync(file, bytes)
  }
  const someFile = (backup: string) => Object.keys((JSON.parse(readFileSync(join(backup, 'manifest.json'), 'utf8')) as { files: object }).files)
    .find(name => name.startsWith('base/') && /\/\d+$/.test(name))!

  it.each<[string, (backup: string) => void, RegExp]>([
    ['one bit of one file is another', backup => change(join(backup, 'database', someFile(backup))), /is not what it was/],
    ['a file is missing', backup => rmSync(join(backup, 'database', someFile(backup))), /is missing/],
    ['a file is there that does not belong to it', backup => writeFileSync(join(backup, 'database', 'base', 'stray'), ''), /does not belong/],
    ['it does not say what it is', backup => writeFileSync(join(backup, 'manifest.json'), '{'), /is no backup/],
    ['it counts other rows than it has', (backup) => {
      const file = join(backup, 'manifest.json')
      const manifest = JSON.parse(readFileSync(file, 'utf8')) as { rows: Record<string, number> }
      writeFileSync(file, JSON.stringify({ ...manifest, rows: { ...manifest.rows, audit: 7 } }))
    }, /says that audit has 7 rows, and it has 2/],
  ])('refuses a backup before anything is touched where %s', async (_what, damage, words) => {
    const backup = kept()
    damage(backup)
    const to = folder('to')
    await expect(restoring(backup, to)).rejects.toThrow(words)
    expect(readdirSync(to).filter(name => name.startsWith('database'))).toEqual([])
  })

  it('refuses a backup of a newer Plauder, a folder in use, and one that has a database', async () => {
    const backup = kept()
    const to = folder('to')
    await expect(restoring(backup, to, { migrations: 3 })).rejects.toThrow(/newer Plauder/)
    const unlock = await lockFolder(to)
    await expect(restoring(backup, to)).rejects.toThrow(/in use/)
    unlock()
    cpSync(join(backup, 'database'), join(to, 'database'), { recursive: true })
    await expect(restoring(backup, to)).rejects.toThrow(/There is a database/)
    const { before } = await restoring(backup, to, { replace: true })
    expect(existsSync(join(before!, 'PG_VERSION'))).toBe(true)
    expect(await pairsIn(to)).toEqual({ left: 1, right: 1 })
  })
})
